#include "core/linework/offset.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/box_index.h"

namespace erdwerk::linework {

using geometry::Segment;

double OffsetRow::runAt(double distance) const {
    if (changes.empty()) return run;
    const auto after = std::upper_bound(changes.begin(), changes.end(), distance,
                                        [](double d, const RunAt& c) { return d < c.distance; });
    if (after == changes.begin()) return changes.front().run;
    const RunAt& from = *(after - 1);
    if (after == changes.end()) return from.run;
    return from.run +
           (after->run - from.run) * (distance - from.distance) / (after->distance - from.distance);
}

namespace {

constexpr double tiny = 1e-9;

/// A side of the source, or a part of it along which the run changes evenly.
struct Side {
    Segment segment;
    Vec2 leftFrom;  ///< unit, at right angles to the source
    Vec2 leftTo;
    double from = 0;  ///< distances along the source
    double to = 0;
    double runFrom = 0;
    double runTo = 0;
    [[nodiscard]] double runAt(double fraction) const { return runFrom + (runTo - runFrom) * fraction; }
};

/// One element of the row before it is cut.
struct Raw {
    Segment segment;  ///< maybe extended
    Segment core;     ///< at right angles to its side
    double from = 0;  ///< distances along the source
    double to = 0;
    [[nodiscard]] double sourceAt(Vec2 place) const {
        if (to == from || lengthOf(core) <= tiny) return to;
        return from + (to - from) * nearestFraction(core, place);
    }
};

/// A stretch of a raw element between two cuts.
struct Piece {
    std::size_t raw = 0;
    double from = 0;
    double to = 1;
    std::optional<std::size_t> next;  ///< a good piece that begins where this one's end is crossed
    bool good = false;
};

Vec2 unitAt(const Segment& s, double fraction) {
    return geometry::directionOf(tangentAt(s, fraction));
}

/// Where the straights from a in direction u and from b in direction v meet.
std::optional<Vec2> meetingOf(Vec2 a, Vec2 u, Vec2 b, Vec2 v) {
    const double turn = geometry::cross(u, v);
    if (std::abs(turn) < tiny) return std::nullopt;
    return a + u * (geometry::cross(b - a, v) / turn);
}

class Offsetter {
public:
    Offsetter(const ResolvedLine& resolved, const OffsetRow& row, const OffsetOptions& options)
        : resolved_(resolved), row_(row), options_(options), widest_(row.run) {}

    Result<Line3D> run(const Context& context) {
        for (const RunAt& c : row_.changes) widest_ = std::max(widest_, c.run);
        makeSides();
        makeRaws();
        if (raws_.empty()) return nothingLeft();
        makePieces();
        if (context.isCancelled()) return cancelled();
        const auto way = walk();
        if (way.empty()) return nothingLeft();
        Line3D out = lineOf(way);
        if (validate(out)) return nothingLeft();
        return out;
    }

private:
    static tl::unexpected<Error> nothingLeft() {
        return badInput("the line is too narrow for this run; nothing is left of the row");
    }
    [[nodiscard]] double side() const { return options_.right ? -1.0 : 1.0; }

    void addSide(const Segment& s, double from, double to) {
        sides_.push_back({s, geometry::leftOf(unitAt(s, 0)), geometry::leftOf(unitAt(s, 1)), from, to,
                          row_.runAt(from), row_.runAt(to)});
    }

    /// Along an arc whose run changes: straights within 0.01 of it, on both sides.
    void addFacets(const Segment& arc, double from, double to) {
        constexpr double sagitta = 0.01;
        const double radius = 1 / std::abs(arcOf(arc)->curvature(0));
        const double widest = radius + std::max(row_.runAt(from), row_.runAt(to));
        const double step = std::sqrt(8 * sagitta / widest);  // of angle
        const double count = std::ceil(std::max(1.0, (to - from) / radius / step));
        for (double i = 0; i < count; ++i) {
            const double a = i / count;
            const double b = (i + 1) / count;
            addSide({pointAt(arc, a), pointAt(arc, b), std::nullopt}, from + (to - from) * a,
                    from + (to - from) * b);
            sides_.back().leftFrom = geometry::leftOf(unitAt(arc, a));
            sides_.back().leftTo = geometry::leftOf(unitAt(arc, b));
        }
    }

    void makeSides() {
        double base = 0;
        for (const Segment& s : resolved_.path) {
            const double length = lengthOf(s);
            if (length <= tiny) continue;
            std::vector<double> cuts{base, base + length};
            for (const RunAt& c : row_.changes)
                if (c.distance > base + tiny && c.distance < base + length - tiny) cuts.push_back(c.distance);
            std::sort(cuts.begin(), cuts.end());
            for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
                const Segment part = cuts.size() == 2 ? s
                                                      : geometry::part(s, (cuts[i] - base) / length,
                                                                       (cuts[i + 1] - base) / length);
                if (isCurved(part) && row_.runAt(cuts[i]) != row_.runAt(cuts[i + 1]))
                    addFacets(part, cuts[i], cuts[i + 1]);
                else
                    addSide(part, cuts[i], cuts[i + 1]);
            }
            base += length;
        }
    }

    /// The element beside a side.
    [[nodiscard]] Segment besides(const Side& s) const {
        Segment out{s.segment.start + s.leftFrom * (side() * s.runFrom),
                    s.segment.end + s.leftTo * (side() * s.runTo), std::nullopt};
        const auto arc = arcOf(s.segment);
        if (!arc) return out;
        const bool towards = (s.segment.through && arc->curvature(0) > 0) == options_.right;
        // An arc that the run swallows becomes a straight, which the cutting takes away.
        if (towards && s.runFrom >= 1 / std::abs(arc->curvature(0)) - tiny) return out;
        out.through =
            pointAt(s.segment, 0.5) + geometry::leftOf(unitAt(s.segment, 0.5)) * (side() * s.runFrom);
        return out;
    }

    void join(Vec2 from, Vec2 to, double at, std::optional<Vec2> through = {}) {
        if (geometry::distance(from, to) <= tiny) return;
        const Segment s{from, to, through};
        raws_.push_back({s, s, at, at});
    }

    /// From the end of one raw element to the beginning of the next, at a corner of the source.
    void corner(std::size_t before, Segment& next, const Side& sideBefore, const Side& sideAfter) {
        const double at = sideBefore.to;
        const Vec2 end = raws_[before].segment.end;
        if (geometry::distance(end, next.start) <= tiny) return;
        const bool outside =
            geometry::cross(unitAt(sideBefore.segment, 1), unitAt(sideAfter.segment, 0)) * side() < 0;
        if (!outside) return join(end, next.start, at);
        const Vec2 u = unitAt(raws_[before].segment, 1);
        const Vec2 v = unitAt(next, 0);
        const auto meeting = meetingOf(end, u, next.start, v);
        const bool turnsBack = geometry::dot(u, v) < -0.999999;
        if (options_.corners == OutsideCorner::Round || !meeting || turnsBack) {
            const Vec2 middle = (end + next.start) * 0.5 - sideAfter.segment.start;
            const double size = geometry::length(middle);
            const Vec2 out = size > tiny ? middle * (sideBefore.runTo / size) : u * sideBefore.runTo;
            return join(end, next.start, at, sideAfter.segment.start + out);
        }
        // Straights are extended themselves, arcs by their tangents.
        if (isCurved(raws_[before].segment))
            join(end, *meeting, at);
        else
            raws_[before].segment.end = *meeting;
        if (isCurved(next))
            join(*meeting, next.start, at);
        else
            next.start = *meeting;
    }

    void makeRaws() {
        std::size_t last = 0;  // raw of the side before
        for (std::size_t k = 0; k < sides_.size(); ++k) {
            const Segment core = besides(sides_[k]);
            Segment segment = core;
            if (k > 0) corner(last, segment, sides_[k - 1], sides_[k]);
            last = raws_.size();
            raws_.push_back({segment, core, sides_[k].from, sides_[k].to});
        }
        if (!resolved_.closed || sides_.size() < 2) return;
        Segment first = raws_.front().segment;
        corner(last, first, sides_.back(), sides_.front());
        raws_.front().segment = first;
    }

    /// Where a raw element is cut: by its fraction, with the number of the crossing that another one shares.
    using Cuts = std::vector<std::pair<double, std::size_t>>;

    void cutEachOther(std::size_t i, std::size_t k, std::vector<Cuts>& cuts, std::size_t& count) const {
        const auto cut = [&](double onI, double onK) {
            cuts[i].emplace_back(onI, count);
            cuts[k].emplace_back(onK, count++);
        };
        for (const auto& c : crossings(raws_[i].segment, raws_[k].segment)) {
            // Neighbours meet at their common end; that is no crossing.
            const auto atEnd = [](double f) { return f < tiny || f > 1 - tiny; };
            if (!atEnd(c.first) && !atEnd(c.second)) cut(c.first, c.second);
        }
        // An end on the inside of the other, also where both run along each other.
        for (const double end : {0.0, 1.0}) {
            const auto on = [&](std::size_t of, std::size_t other) -> std::optional<double> {
                const Vec2 place = pointAt(raws_[of].segment, end);
                const double f = nearestFraction(raws_[other].segment, place);
                const double away = geometry::distance(pointAt(raws_[other].segment, f), place);
                const double size = lengthOf(raws_[other].segment);
                if (away > 1e-8 || f * size < 1e-7 || (1 - f) * size < 1e-7) return std::nullopt;
                return f;
            };
            if (const auto f = on(k, i)) cut(*f, end);
            if (const auto f = on(i, k)) cut(end, *f);
        }
    }

    void makePieces() {
        std::vector<Cuts> cuts(raws_.size());
        std::size_t count = 0;
        std::vector<geometry::Box> boxes;
        for (const Raw& r : raws_) boxes.push_back(boundsOf(r.segment).grown(1e-8));
        const geometry::BoxIndex near(boxes);
        std::vector<std::size_t> others;
        for (std::size_t i = 0; i < raws_.size(); ++i) {
            others.clear();
            near.query(boxes[i], [&](std::uint32_t k) {
                if (k > i) others.push_back(k);
                return true;
            });
            std::sort(others.begin(), others.end());
            for (const std::size_t k : others) cutEachOther(i, k, cuts, count);
        }
        std::vector<geometry::Box> sides;
        for (const Side& s : sides_) sides.push_back(boundsOf(s.segment));
        source_ = geometry::BoxIndex(sides);
        std::vector<std::vector<std::size_t>> begins(count);  // by crossing: pieces that begin there
        std::vector<std::vector<std::size_t>> ends;           // by piece: the crossings it ends at
        for (std::size_t i = 0; i < raws_.size(); ++i) {
            Cuts& all = cuts[i];
            std::sort(all.begin(), all.end());
            double from = 0;
            auto c = all.begin();
            for (bool more = true; more;) {
                for (; c != all.end() && c->first <= from + 1e-12; ++c)
                    begins[c->second].push_back(pieces_.size());
                const double to = c == all.end() ? 1.0 : c->first;
                more = to < 1;
                Piece p{i, from, to, {}, false};
                p.good = isGood(p);
                pieces_.push_back(p);
                ends.emplace_back();
                for (auto e = c; e != all.end() && e->first <= to + 1e-12; ++e)
                    ends.back().push_back(e->second);
                from = to;
            }
        }
        for (std::size_t i = 0; i < pieces_.size(); ++i)
            for (const std::size_t crossing : ends[i])
                for (const std::size_t other : begins[crossing])
                    if (other != i + 1 && pieces_[other].good) pieces_[i].next = other;
    }

    /// Not nearer to the source than the run.
    [[nodiscard]] bool isGood(const Piece& p) const {
        const Raw& r = raws_[p.raw];
        const Vec2 middle = pointAt(r.segment, (p.from + p.to) / 2);
        bool good = true;
        source_.query(
            geometry::Box{middle.x, middle.y, middle.x, middle.y}.grown(widest_), [&](std::uint32_t k) {
                const Side& s = sides_[k];
                const double f = nearestFraction(s.segment, middle);
                const double run = s.runAt(f);
                good = geometry::distance(pointAt(s.segment, f), middle) >= run - 1e-7 * std::max(1.0, run);
                return good;
            });
        return good;
    }

    /// Positions of the pieces that stay, in order.
    [[nodiscard]] std::vector<std::size_t> walk() const {
        const std::size_t n = pieces_.size();
        std::size_t first = 0;
        while (first < n && !pieces_[first].good) ++first;
        if (first == n) return {};
        std::size_t lastGood = n;
        for (std::size_t i = 0; i < n; ++i)
            if (pieces_[i].good) lastGood = i;
        std::vector<std::size_t> out;
        std::vector<bool> been(n, false);
        for (std::size_t i = first; !been[i];) {
            been[i] = true;
            out.push_back(i);
            if (!resolved_.closed && i == lastGood) break;
            const std::size_t after = (i + 1) % n;
            if (!resolved_.closed && i + 1 == n) break;
            const auto jump = pieces_[i].next;
            i = !pieces_[after].good && jump ? *jump : after;
        }
        // What was kept although it is too near leads nowhere at the end of a closed row.
        while (resolved_.closed && !out.empty() && !pieces_[out.back()].good) out.pop_back();
        return out;
    }

    [[nodiscard]] HeightRule heightFor(double distance) const {
        if (row_.height.by == RowHeight::By::Surface) return NoHeight{};
        if (row_.height.by == RowHeight::By::Constant) return FixedHeight{row_.height.value};
        const auto height = heightAt(resolved_, std::min(distance, resolved_.length));
        if (!height) return NoHeight{};
        switch (row_.height.by) {
            case RowHeight::By::Rise:
                return FixedHeight{*height + row_.height.value};
            case RowHeight::By::Grade:
                return FixedHeight{*height + row_.height.value * row_.runAt(distance)};
            default:
                return FixedHeight{*height};
        }
    }

    /// Distances along the source where its height bends, vertical curves cut.
    [[nodiscard]] std::vector<double> bends() const {
        std::vector<double> out;
        for (const auto& v : resolved_.vertices) out.push_back(v.distance);
        for (const RunAt& c : row_.changes) out.push_back(c.distance);
        for (const auto& c : resolved_.curves) {
            constexpr double sagitta = 0.001;
            const double change = std::abs(c.out.riseOverRun() - c.in.riseOverRun());
            const double pieces = std::ceil(c.length / std::sqrt(8 * sagitta * c.length / change));
            for (double i = 0; i <= pieces; ++i) out.push_back(c.start + c.length * i / pieces);
        }
        std::sort(out.begin(), out.end());
        return out;
    }

    [[nodiscard]] Line3D lineOf(const std::vector<std::size_t>& way) const {
        const auto heights = bends();
        Line3D out;
        out.closed = resolved_.closed;
        const auto addCorner = [&](Vec2 place, double source) {
            LineVertex v;
            v.place = place;
            v.rule = heightFor(source);
            out.vertices.push_back(v);
        };
        double end = 0;
        for (std::size_t w = 0; w < way.size();) {
            const Raw& raw = raws_[pieces_[way[w]].raw];
            const double from = pieces_[way[w]].from;
            std::size_t last = w;
            while (last + 1 < way.size() && way[last + 1] == way[last] + 1 &&
                   pieces_[way[last + 1]].raw == pieces_[way[w]].raw)
                ++last;
            const Segment part = geometry::part(raw.segment, from, pieces_[way[last]].to);
            const bool jumped = w > 0 && way[w] != way[w - 1] + 1;
            // Where it was cut the side that comes first says the height.
            addCorner(part.start, jumped ? end : raw.sourceAt(part.start));
            out.vertices.back().through = part.through;
            const double a = raw.sourceAt(part.start);
            end = raw.sourceAt(part.end);
            for (auto d = std::upper_bound(heights.begin(), heights.end(), a + tiny);
                 d != heights.end() && *d < end - tiny; ++d) {
                const Vec2 on = pointAt(raw.core, (*d - raw.from) / (raw.to - raw.from));
                LineVertex v;
                v.isCorner = false;
                v.fraction = nearestFraction(part, on);
                v.rule = heightFor(*d);
                const double before = out.vertices.back().isCorner ? 0.0 : out.vertices.back().fraction;
                if (v.fraction > before + tiny && v.fraction < 1 - tiny) out.vertices.push_back(v);
            }
            w = last + 1;
            if (w == way.size() && !out.closed) addCorner(part.end, end);
        }
        if (out.closed && way.size() > 1 && pieces_[way.front()].from > 0) {
            // The ring is closed by a cut: that one too has the height of the side that comes first.
            out.vertices.front().rule = heightFor(end);
        }
        return out;
    }

    const ResolvedLine& resolved_;
    const OffsetRow& row_;
    const OffsetOptions& options_;
    double widest_;
    std::vector<Side> sides_;
    geometry::BoxIndex source_;  ///< of the sides
    std::vector<Raw> raws_;
    std::vector<Piece> pieces_;
};

}  // namespace

Result<Line3D> offset(const ResolvedLine& resolved, const OffsetRow& row, const OffsetOptions& options,
                      const Context& context) {
    if (!(row.run >= 0)) return badInput("a run is 0 or more");
    return Offsetter(resolved, row, options).run(context);
}

}  // namespace erdwerk::linework
