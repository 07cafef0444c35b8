#include "core/linework/give_heights.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/geometry/box_index.h"

namespace erdwerk::linework {

using geometry::Box;

std::optional<double> heightOfText(const std::string& text, const std::string& prefix) {
    std::string_view rest = trimmed(text);
    if (rest.substr(0, prefix.size()) != prefix) return std::nullopt;
    rest = trimmed(rest.substr(prefix.size()));
    if (const auto height = parseNumber(rest)) return height;
    return parseNumber(rest, true);
}

namespace {

/// A height that a giver offers to a place of a line.
struct Offer {
    double distance = 0;
    double away = 0;  ///< between giver and line
    double height = 0;
    GiverSort sort = GiverSort::Line;
    std::string from;
};

class Giving {
public:
    Giving(const std::vector<FlatLine>& lines, const HeightGivers& givers, const GiveOptions& options)
        : lines_(lines), givers_(givers), options_(options), offers_(lines.size()) {
        std::vector<Box> boxes;
        for (std::size_t l = 0; l < lines.size(); ++l) {
            placed_.push_back(placed(lines[l].line));
            double base = 0;
            for (const auto& s : placed_[l].path) {
                sides_.push_back({l, s, base});
                boxes.push_back(boundsOf(s));
                base += lengthOf(s);
            }
        }
        index_ = geometry::BoxIndex(boxes);
    }

    Result<HeightsGiven> run(const Context& context) {
        offerLines();
        for (const auto& p : givers_.points)
            offerPlace(p.place, p.height, GiverSort::Point, "point " + p.name);
        if (context.isCancelled()) return cancelled();
        offerTexts();
        if (context.isCancelled()) return cancelled();
        for (std::size_t l = 0; l < lines_.size(); ++l) settle(l);
        return std::move(out_);
    }

private:
    struct SideOf {
        std::size_t line;
        geometry::Segment segment;
        double base;
    };
    struct Touch {
        double away = 0;
        double distance = 0;
    };

    /// The nearest place on each line within the tolerance, by line.
    [[nodiscard]] std::map<std::size_t, Touch> touched(Vec2 place) const {
        std::map<std::size_t, Touch> out;
        const Box window = Box{place.x, place.y, place.x, place.y}.grown(options_.tolerance);
        index_.query(window, [&](std::uint32_t i) {
            const SideOf& s = sides_[i];
            const double fraction = nearestFraction(s.segment, place);
            const double away = geometry::distance(pointAt(s.segment, fraction), place);
            if (away > options_.tolerance) return true;
            const auto [it, fresh] = out.try_emplace(s.line, Touch{away, 0});
            if (fresh || away < it->second.away) it->second = {away, s.base + fraction * lengthOf(s.segment)};
            return true;
        });
        return out;
    }

    void offerPlace(Vec2 place, double height, GiverSort sort, const std::string& from) {
        for (const auto& [line, touch] : touched(place))
            offers_[line].push_back({touch.distance, touch.away, height, sort, from});
    }

    void offerLines() {
        for (const auto& giver : givers_.lines) {
            const std::string from = "line '" + giver.name + "'";
            double base = 0;
            for (const auto& s : giver.line.path) {
                const double size = lengthOf(s);
                index_.query(boundsOf(s).grown(options_.tolerance), [&](std::uint32_t i) {
                    const SideOf& mine = sides_[i];
                    for (const auto& c : crossings(mine.segment, s))
                        offerFrom(giver, base + size * c.second, mine,
                                  mine.base + lengthOf(mine.segment) * c.first, 0, from);
                    for (const double end : {0.0, 1.0}) {
                        const double on = nearestFraction(s, pointAt(mine.segment, end));
                        const double away = geometry::distance(pointAt(s, on), pointAt(mine.segment, end));
                        if (away <= options_.tolerance)
                            offerFrom(giver, base + size * on, mine, mine.base + lengthOf(mine.segment) * end,
                                      away, from);
                    }
                    return true;
                });
                base += size;
            }
            // Its own ends that touch.
            if (giver.line.closed || giver.line.path.empty()) continue;
            for (const bool atStart : {true, false}) {
                const double d = atStart ? 0.0 : giver.line.length;
                const auto height = heightAt(giver.line, d);
                const Vec2 place = atStart ? giver.line.path.front().start : giver.line.path.back().end;
                if (height) offerPlace(place, *height, GiverSort::Line, from);
            }
        }
    }

    void offerFrom(const GivingLine& giver, double on, const SideOf& mine, double distance, double away,
                   const std::string& from) {
        if (const auto height = heightAt(giver.line, on))
            offers_[mine.line].push_back({distance, away, *height, GiverSort::Line, from});
    }

    void offerTexts() {
        std::vector<Box> boxes;
        for (const auto& t : givers_.texts) boxes.push_back({t.place.x, t.place.y, t.place.x, t.place.y});
        const geometry::BoxIndex texts(boxes);
        std::vector<bool> led(givers_.texts.size(), false);
        for (const Path& leader : givers_.leaders) offerLeader(leader, texts, led);
        for (std::size_t i = 0; i < givers_.texts.size(); ++i) {
            const GivingText& t = givers_.texts[i];
            if (led[i] || !wanted(t)) continue;
            const auto height = heightOfText(t.text, givers_.prefix);
            if (!height) {
                out_.unused.push_back({t.place, t.text, "the text is no number"});
            } else if (touched(t.place).empty()) {
                out_.unused.push_back({t.place, t.text, "no line is within the tolerance of the text"});
            } else {
                offerPlace(t.place, *height, GiverSort::Text, "text '" + t.text + "'");
            }
        }
    }

    /// Texts that do not begin with the prefix are not meant at all.
    [[nodiscard]] bool wanted(const GivingText& t) const {
        return trimmed(t.text).substr(0, givers_.prefix.size()) == givers_.prefix;
    }

    void offerLeader(const Path& leader, const geometry::BoxIndex& texts, std::vector<bool>& led) {
        if (leader.empty()) return;
        const Vec2 ends[] = {leader.front().start, leader.back().end};
        std::optional<std::size_t> text;
        Vec2 tip;
        double best = options_.tolerance;
        for (const int k : {0, 1}) {
            const Box window = Box{ends[k].x, ends[k].y, ends[k].x, ends[k].y}.grown(options_.tolerance);
            texts.query(window, [&](std::uint32_t i) {
                const double away = geometry::distance(givers_.texts[i].place, ends[k]);
                if (away <= best && wanted(givers_.texts[i])) {
                    best = away;
                    text = i;
                    tip = ends[1 - k];
                }
                return true;
            });
        }
        if (!text) {
            out_.unused.push_back({ends[0], {}, "no text stands at an end of the leader"});
            return;
        }
        led[*text] = true;
        const std::string& said = givers_.texts[*text].text;
        const auto height = heightOfText(said, givers_.prefix);
        const auto lines = touched(tip);
        if (!height) {
            out_.unused.push_back({givers_.texts[*text].place, said, "the text is no number"});
        } else if (lines.empty()) {
            out_.unused.push_back({tip, said, "the leader touches no line"});
        } else if (lines.size() > 1) {
            std::string names;
            for (const auto& [line, touch] : lines)
                names += (names.empty() ? "'" : " and '") + lines_[line].name + "'";
            out_.unused.push_back({tip, said, "the leader touches " + names});
        } else {
            offerPlace(tip, *height, GiverSort::Text, "text '" + said + "'");
        }
    }

    // ---- what a line makes of its offers

    [[nodiscard]] double apart(std::size_t line, double a, double b) const {
        const double d = std::abs(a - b);
        return lines_[line].line.closed ? std::min(d, placed_[line].length - d) : d;
    }

    void settle(std::size_t l) {
        auto& offers = offers_[l];
        const auto& at = placed_[l];
        std::vector<std::size_t> corners = cornersOf(lines_[l].line);
        // Within the tolerance of a corner it is the corner's.
        for (Offer& o : offers) {
            double best = options_.tolerance;
            double to = o.distance;
            for (const std::size_t c : corners)
                if (const double d = apart(l, at.vertices[c].distance, o.distance); d <= best) {
                    best = d;
                    to = at.vertices[c].distance;
                }
            o.distance = to;
        }
        std::stable_sort(offers.begin(), offers.end(), [](const Offer& a, const Offer& b) {
            return std::pair(a.sort, a.away) < std::pair(b.sort, b.away);
        });
        std::vector<GivenHeight> given;
        for (std::size_t i = 0; i < lines_[l].line.vertices.size(); ++i)
            if (const auto* own = std::get_if<FixedHeight>(&lines_[l].line.vertices[i].rule))
                given.push_back({l,
                                 at.vertices[i].place,
                                 at.vertices[i].distance,
                                 own->height,
                                 GiverSort::Own,
                                 "its own height",
                                 {}});
        for (const Offer& o : offers) {
            const auto same = std::find_if(given.begin(), given.end(), [&](const GivenHeight& g) {
                return apart(l, g.distance, o.distance) <= options_.tolerance;
            });
            if (same == given.end()) {
                const Vec2 place = at.path.empty() ? Vec2{} : geometry::positionAt(at.path, o.distance).place;
                given.push_back({l, place, o.distance, o.height, o.sort, o.from, {}});
            } else if (std::abs(same->height - o.height) > 1e-9 && same->from != o.from) {
                same->differs.emplace_back(o.from, o.height);
            }
        }
        std::sort(given.begin(), given.end(),
                  [](const auto& a, const auto& b) { return a.distance < b.distance; });
        out_.lines.push_back(withGiven(l, given));
        for (auto& g : given)
            if (g.sort != GiverSort::Own || !g.differs.empty()) out_.given.push_back(std::move(g));
    }

    /// The rule of a corner that nothing reaches; `why` it is told, if it is.
    HeightRule missing(std::size_t l, std::size_t vertex, const char* why,
                       std::vector<GivenHeight>& otherwise) {
        const auto& v = placed_[l].vertices[vertex];
        if (options_.otherwise) {
            const double height = *options_.otherwise;
            otherwise.push_back({l, v.place, v.distance, height, GiverSort::Otherwise, "otherwise", {}});
            return FixedHeight{height};
        }
        if (why != nullptr) out_.missed.push_back({l, v.place, why});
        return NoHeight{};
    }

    /// The line with these heights, the corners between them interpolated; notes what is missed.
    Line3D withGiven(std::size_t l, std::vector<GivenHeight>& given) {
        const Line3D& line = lines_[l].line;
        const auto& at = placed_[l];
        const double first = given.empty() ? 0 : given.front().distance;
        const double last = given.empty() ? 0 : given.back().distance;
        std::vector<GivenHeight> otherwise;
        Line3D out;
        out.closed = line.closed;
        std::size_t next = 0;
        double sideStart = 0;
        double sideEnd = 0;
        std::size_t side = 0;
        const auto addGrades = [&](double to) {
            for (; next < given.size() && given[next].distance < to - 1e-9; ++next) {
                LineVertex v;
                v.isCorner = false;
                v.fraction = (given[next].distance - sideStart) / (sideEnd - sideStart);
                v.rule = FixedHeight{given[next].height};
                out.vertices.push_back(v);
            }
        };
        bool said = false;
        for (std::size_t i = 0; i < line.vertices.size(); ++i) {
            const double d = at.vertices[i].distance;
            addGrades(d);
            const bool isGiven = next < given.size() && std::abs(given[next].distance - d) <= 1e-9;
            if (!line.vertices[i].isCorner && !isGiven) continue;
            LineVertex v = line.vertices[i];
            if (isGiven) {
                v.rule = FixedHeight{given[next++].height};
            } else if (given.empty()) {
                v.rule = missing(l, i, said ? nullptr : "nothing gives this line a height", otherwise);
                said = true;
            } else if ((d > first && d < last) || (line.closed && given.size() > 1)) {
                v.rule = Interpolated{};
            } else {
                v.rule = missing(l, i, "it lies beyond the last height that was given", otherwise);
            }
            out.vertices.push_back(v);
            if (line.vertices[i].isCorner && side < at.path.size()) {
                sideStart = d;
                sideEnd = d + lengthOf(at.path[side++]);
            }
        }
        if (line.closed) addGrades(at.length);
        for (auto& o : otherwise) given.push_back(std::move(o));
        return out;
    }

    const std::vector<FlatLine>& lines_;
    const HeightGivers& givers_;
    const GiveOptions& options_;
    std::vector<ResolvedLine> placed_;
    std::vector<SideOf> sides_;
    geometry::BoxIndex index_;
    std::vector<std::vector<Offer>> offers_;
    HeightsGiven out_;
};

}  // namespace

bool isLevelAt(const Line3D& line, double height) {
    constexpr double same = 1e-9;
    return !line.vertices.empty() &&
           std::all_of(line.vertices.begin(), line.vertices.end(), [&](const LineVertex& v) {
               const auto* fixed = std::get_if<FixedHeight>(&v.rule);
               return fixed != nullptr && std::abs(fixed->height - height) <= same;
           });
}

Line3D withoutHeights(const Line3D& line) {
    Line3D out = line;
    std::erase_if(out.vertices, [](const LineVertex& v) { return !v.isCorner; });
    for (LineVertex& v : out.vertices) {
        v.rule = NoHeight{};
        v.curve.reset();
    }
    return out;
}

Result<HeightsGiven> giveHeights(const std::vector<FlatLine>& lines, const HeightGivers& givers,
                                 const GiveOptions& options, const Context& context) {
    if (!(options.tolerance > 0)) return badInput("a tolerance is above 0");
    std::vector<FlatLine> taking = lines;
    if (options.flat)
        for (FlatLine& line : taking)
            if (isLevelAt(line.line, *options.flat)) line.line = withoutHeights(line.line);
    return Giving(taking, givers, options).run(context);
}

}  // namespace erdwerk::linework
