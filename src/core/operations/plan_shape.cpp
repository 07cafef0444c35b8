#include "core/operations/plan_shape.h"

#include <algorithm>
#include <array>

#include "core/annotate/dimension.h"
#include "core/base/notation.h"
#include "core/document/edit_trace.h"
#include "core/linework/chorded_arcs.h"
#include "core/linework/edit.h"
#include "core/linework/line3d.h"
#include "core/linework/path_crossings.h"
#include "core/linework/pieces.h"
#include "core/linework/smooth_side.h"
#include "core/objects/line.h"
#include "core/operations/free_name.h"
#include "core/operations/with.h"
#include "core/route/alignment.h"

namespace erdwerk::operations {

using geometry::Vec2;
using linework::Line3D;
using linework::Reshaped;
using linework::ResolvedLine;

namespace {

/// "2% and =Kerb became heights; 1 control went"; empty when all was kept.
std::string whatBecame(const Document& document, const std::vector<Reshaped>& all) {
    constexpr std::size_t most = 3;
    std::vector<std::string> rules;
    std::size_t left = 0;
    for (const auto& part : all) {
        left += part.left;
        for (const auto& s : part.settled) {
            const auto text = ruleText(document, s.rule);
            if (std::find(rules.begin(), rules.end(), text) == rules.end()) rules.push_back(text);
        }
    }
    std::string out;
    for (std::size_t i = 0; i < std::min(most, rules.size()); ++i) out += (i == 0 ? "" : ", ") + rules[i];
    if (rules.size() > most) out += " and " + std::to_string(rules.size() - most) + " more";
    if (!rules.empty()) out += rules.size() == 1 ? " became its height" : " became heights";
    if (left > 0)
        out += (out.empty() ? "" : "; ") + std::to_string(left) +
               (left == 1 ? " control went" : " controls went");
    return out;
}

struct OfLine {
    const objects::Line& object;
    const ResolvedLine& resolved;
};

/// An edit of a line together with what it was worked out to.
Edit onResolved(const Results& seen, ObjectId id,
                std::function<Result<Edited>(const Document&, const OfLine&)> edit) {
    return document::onlyWhileSame(
        seen->document, {id}, [seen, id, edit = std::move(edit)](const Document& document) -> Result<Edited> {
            const auto own = ownLine(document, id);
            if (!own) return tl::unexpected(own.error());
            const auto* resolved = Derived::in(seen->lines, id);
            if (resolved == nullptr || resolved->vertices.size() != (*own)->line.vertices.size())
                return badInput("the line is still being worked out; press once more");
            return edit(document, OfLine{**own, *resolved});
        });
}

/// An edit that gives the line one other shape.
Edit reshaping(const Results& seen, ObjectId id,
               std::function<Result<Reshaped>(const OfLine&, const linework::Surroundings&)> edit) {
    return onResolved(
        seen, id,
        [seen, id, edit = std::move(edit)](const Document& document, const OfLine& of) -> Result<Edited> {
            auto next = edit(of, surroundings(*seen));
            if (!next) return tl::unexpected(next.error());
            Document d = withLine(document, id, next->line);
            return Edited(std::move(d), {}, whatBecame(document, {*next}));
        });
}

/// The first part keeps its name, the others are "NAME (2)", "NAME (3)" …
Edited inParts(const Document& document, ObjectId id, std::vector<Reshaped> parts) {
    const auto object = document.find(id);
    objects::Line like = *document.get<objects::Line>(id);
    std::string said = whatBecame(document, parts);
    Document d = withLine(document, id, std::move(parts.front().line));
    for (std::size_t i = 1; i < parts.size(); ++i) {
        like.line = std::move(parts[i].line);
        d = d.added(copyName(d, object->name), like, nullptr, object->group);
    }
    return {std::move(d), {}, std::move(said)};
}

}  // namespace

Edit splitLine(const Results& seen, LinePlace at) {
    return onResolved(seen, at.line, [=](const Document& document, const OfLine& of) -> Result<Edited> {
        const auto where = distanceOf(*seen, at);
        if (!where) return tl::unexpected(where.error());
        if (!of.object.line.closed &&
            (*where <= linework::cutsMeet || *where >= of.resolved.length - linework::cutsMeet))
            return badInput("a line cannot be cut at its end");
        auto parts = linework::cutAt(of.object.line, of.resolved, {*where}, surroundings(*seen));
        if (!parts) return tl::unexpected(parts.error());
        return inParts(document, at.line, std::move(*parts));
    });
}

Edit splitAtCrossings(const Results& seen, ObjectId line, const std::vector<ObjectId>& others) {
    return onResolved(seen, line, [=](const Document& document, const OfLine& of) -> Result<Edited> {
        std::vector<double> cuts;
        const auto box = boundsOf(of.resolved.path);
        for (const auto& [id, other] : seen->lines) {
            const auto object = document.find(id);
            if (id == line || !object || !boundsOf(other->path).meets(box)) continue;
            const bool meant = others.empty() ? !document.hidden(*object)
                                              : std::find(others.begin(), others.end(), id) != others.end();
            if (!meant) continue;
            for (const auto& [d, there] : linework::pathCrossings(of.resolved.path, other->path))
                cuts.push_back(d);
        }
        if (cuts.empty()) return badInput("no line crosses it");
        auto parts = linework::cutAt(of.object.line, of.resolved, std::move(cuts), surroundings(*seen));
        if (!parts) return tl::unexpected(parts.error());
        return inParts(document, line, std::move(*parts));
    });
}

Edit cutStretchOut(const Results& seen, LinePlace from, LinePlace to) {
    return onResolved(seen, from.line, [=](const Document& document, const OfLine& of) -> Result<Edited> {
        if (to.line != from.line) return badInput("both places must be on the same line");
        const auto a = distanceOf(*seen, from);
        const auto b = distanceOf(*seen, to);
        if (!a || !b) return tl::unexpected((a ? b : a).error());
        const double low = std::min(*a, *b);
        const double high = std::max(*a, *b);
        const double length = of.resolved.length;
        if (high - low <= linework::cutsMeet) return badInput("the two places are the same");
        std::vector<std::pair<double, double>> stay;
        if (of.object.line.closed) {
            // The shorter way round goes.
            stay.emplace_back(high - low <= length / 2 ? std::pair{high, low} : std::pair{low, high});
        } else {
            if (low > linework::cutsMeet) stay.emplace_back(0, low);
            if (high < length - linework::cutsMeet) stay.emplace_back(high, length);
        }
        if (stay.empty()) return badInput("nothing of the line would be left; delete it instead");
        std::vector<Reshaped> parts;
        for (const auto& [start, end] : stay) {
            auto part = linework::pieceOf(of.object.line, of.resolved, start, end, surroundings(*seen));
            if (!part) return tl::unexpected(part.error());
            parts.push_back(std::move(*part));
        }
        return inParts(document, from.line, std::move(parts));
    });
}

namespace {

/// Two lines so that the end of the first meets the start of the second.
struct Meeting {
    Line3D a;
    Line3D b;
    ResolvedLine resolvedA;
    ResolvedLine resolvedB;
    double gap = 0;
};

std::optional<Meeting> meetingEnds(const Derived& seen, const Line3D& first, const Line3D& second) {
    const auto ends = [](const Line3D& l) {
        return std::array{l.vertices.front().place, l.vertices.back().place};
    };
    double best = -1;
    bool turnA = false;
    bool turnB = false;
    for (const bool ta : {false, true})
        for (const bool tb : {false, true}) {
            const double d = geometry::distance(ends(first)[ta ? 0 : 1], ends(second)[tb ? 1 : 0]);
            if (best >= 0 && d >= best) continue;
            best = d;
            turnA = ta;
            turnB = tb;
        }
    Meeting out;
    out.a = turnA ? linework::reversed(first) : first;
    out.b = turnB ? linework::reversed(second) : second;
    out.resolvedA = linework::resolve(out.a, surroundings(seen));
    out.resolvedB = linework::resolve(out.b, surroundings(seen));
    out.gap = best;
    return out;
}

/// The joined line, with heights as they were; in one corner as it was chosen.
Result<Reshaped> joined(Meeting m, const JoinOptions& options, const linework::Surroundings& around) {
    const auto heightA = m.resolvedA.vertices.back().height;
    const auto heightB = m.resolvedB.vertices.front().height;
    const std::size_t endOfA = m.a.vertices.size() - 1;
    const bool shared = m.gap <= options.gap;
    if (shared && m.gap > 0) {
        auto moved = linework::moveCorner(m.b, 0, m.a.vertices.back().place);
        if (!moved) return tl::unexpected(moved.error());
        m.b = std::move(*moved);
    }
    const auto frontB = m.b.vertices.front();
    auto out = linework::join(m.a, m.b, 1e-9);
    if (!out) return tl::unexpected(out.error());
    std::optional<double> corner = heightA ? heightA : heightB;
    auto& end = out->vertices[endOfA];
    if (shared && heightA && heightB && options.step != JoinOptions::Step::First) {
        corner = options.step == JoinOptions::Step::Second ? heightB : (*heightA + *heightB) / 2;
        end.rule = options.step == JoinOptions::Step::Second
                       ? frontB.rule
                       : linework::HeightRule{linework::FixedHeight{*corner}};
    } else if (shared && !heightA && heightB) {
        end.rule = frontB.rule;
    }
    const auto keepOf = [&](std::size_t vertex) -> std::optional<linework::Wanted> {
        if (shared && vertex == endOfA) return linework::Wanted{corner, corner};
        if (vertex <= endOfA) return linework::wantedFrom(m.resolvedA, m.resolvedA.vertices[vertex].distance);
        const std::size_t inB = vertex - endOfA - (shared ? 0 : 1);
        return linework::wantedFrom(m.resolvedB, m.resolvedB.vertices[inB].distance);
    };
    return linework::keepHeights(std::move(*out), [&](std::size_t vertex, double) { return keepOf(vertex); },
                                 around, {endOfA});
}

}  // namespace

std::optional<JoinGap> gapBetween(const Derived& seen, ObjectId first, ObjectId second) {
    const auto* a = seen.definition(first);
    const auto* b = seen.definition(second);
    if (a == nullptr || b == nullptr || first == second || a->closed || b->closed) return std::nullopt;
    const auto m = meetingEnds(seen, *a, *b);
    return JoinGap{m->gap, m->resolvedA.vertices.back().height, m->resolvedB.vertices.front().height};
}

Edit joinLines(const Results& seen, ObjectId first, ObjectId second, const JoinOptions& options) {
    return document::onlyWhileSame(
        seen->document, {first, second}, [=](const Document& document) -> Result<Edited> {
            if (first == second) return badInput("pick two different lines");
            const auto a = ownLine(document, first);
            const auto b = ownLine(document, second);
            if (!a || !b) return tl::unexpected((a ? b : a).error());
            if ((*a)->line.closed || (*b)->line.closed) return badInput("a closed line has no end to join");
            if (!(options.gap >= 0)) return badInput("a gap is 0 or more");
            auto m = meetingEnds(*seen, (*a)->line, (*b)->line);
            auto next = joined(std::move(*m), options, surroundings(*seen));
            if (!next) return tl::unexpected(next.error());
            // What named parts of the second names them in the first, before what cannot be carried along
            // goes.
            const Document with = withLine(document, first, next->line).withoutOnly(second);
            const document::EditTrace trace(document, with);
            return Edited(document::withPartsCarried(document, with, trace).withoutUsesOf(second), {},
                          whatBecame(document, {*next}));
        });
}

Edit reachLine(const Results& seen, LinePlace picked, ObjectId target) {
    return reshaping(
        seen, picked.line, [=](const OfLine& of, const linework::Surroundings& around) -> Result<Reshaped> {
            const auto where = distanceOf(*seen, picked);
            if (!where) return tl::unexpected(where.error());
            if (target == picked.line) return badInput("pick another line to go to");
            const auto* line = Derived::in(seen->lines, target);
            const auto* alignment = Derived::in(seen->alignments, target);
            if (line == nullptr && alignment == nullptr)
                return badInput("pick a line or an alignment to go to");
            auto reached = linework::reachTo(of.object.line, of.resolved, *where,
                                             line != nullptr ? line->path : alignment->path, around);
            if (!reached) return tl::unexpected(reached.error());
            return std::move(reached->reshaped);
        });
}

Edit roundCorner(const Results& seen, ObjectId line, std::size_t vertex, double radius) {
    return reshaping(seen, line, [=](const OfLine& of, const linework::Surroundings& around) {
        return linework::roundCorner(of.object.line, of.resolved, vertex, radius, around);
    });
}

Edit setArcRadius(const Results& seen, ObjectId line, std::size_t segment, double radius) {
    return reshaping(seen, line, [=](const OfLine& of, const linework::Surroundings& around) {
        return linework::setRadius(of.object.line, of.resolved, segment, radius, around);
    });
}

Edit setSide(ObjectId line, std::size_t segment, std::optional<Vec2> through) {
    return [=](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        if (!own) return tl::unexpected(own.error());
        if (segment >= planPath((*own)->line).size()) return badInput("the line has no such side");
        const auto start = [&](const Line3D& l) {
            const auto corners = cornersOf(l);
            return corners[std::min(segment, corners.size() - 1)];
        };
        std::size_t from = start((*own)->line);
        if (const auto joint = linework::jointOf((*own)->line, from); joint == from) {
            // The second arc of a smooth side: the side begins at the corner before.
            const auto corners = cornersOf((*own)->line);
            from = corners[(segment + corners.size() - 1) % corners.size()];
        }
        const Vec2 place = (*own)->line.vertices[from].place;
        auto next = linework::withoutSmoothSide((*own)->line, segment);
        if (!next) return tl::unexpected(next.error());
        const auto corners = cornersOf(*next);
        const auto at = std::find_if(corners.begin(), corners.end(),
                                     [&](std::size_t c) { return next->vertices[c].place == place; });
        if (at == corners.end()) return badInput("the line has no such side");
        next->vertices[*at].through = through;
        const auto side = planPath(*next)[static_cast<std::size_t>(at - corners.begin())];
        if (through && !geometry::isCurved(side))
            return badInput("an arc through this place would be straight");
        linework::refitSmooth(*next, *at);
        if (const auto problem = validate(*next)) return badInput(*problem);
        return withLine(document, line, std::move(*next));
    };
}

Edit setSideSmooth(ObjectId line, std::size_t segment) {
    return [=](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        if (!own) return tl::unexpected(own.error());
        auto next = linework::withSmoothSide((*own)->line, segment);
        if (!next) return tl::unexpected(next.error());
        return withLine(document, line, std::move(*next));
    };
}

double roundingOf(const Document& document) {
    return convertLength(0.001, LengthUnit::Metre, document.settings().display.unit);
}

Edit chordsToArcs(ObjectId line) {
    return [line](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        if (!own) return tl::unexpected(own.error());
        const auto arcs = linework::chordedArcs((*own)->line, roundingOf(document));
        if (arcs.empty()) return badInput("it has no runs of chords");
        auto next = linework::withArcs((*own)->line, arcs);
        if (auto problem = validate(next)) return badInput(std::move(*problem));
        double off = 0;
        for (const auto& arc : arcs) off = std::max(off, arc.off);
        return Edited(withLine(document, line, std::move(next)), {},
                      std::to_string(arcs.size()) + (arcs.size() == 1 ? " arc" : " arcs") + ", at most " +
                          formatFixed(off, 3) + " off the chords");
    };
}

Edit fitArc(const Results& seen, ObjectId line, std::size_t firstCorner, std::size_t lastCorner) {
    return onResolved(seen, line, [=](const Document& document, const OfLine& of) -> Result<Edited> {
        auto fitted =
            linework::fitArc(of.object.line, of.resolved, firstCorner, lastCorner, surroundings(*seen));
        if (!fitted) return tl::unexpected(fitted.error());
        const auto& display = document.settings().display;
        auto became = whatBecame(document, {fitted->reshaped});
        std::string said = "Arc of radius " + formatLength(fitted->radius, display) + ", off by at most " +
                           formatFixed(fitted->deviation, 3);
        if (!became.empty()) said += "; " + became;
        return Edited(withLine(document, line, std::move(fitted->reshaped.line)), {}, std::move(said));
    });
}

Edit smoothLine(const Results& seen, ObjectId line) {
    return reshaping(seen, line, [](const OfLine& of, const linework::Surroundings& around) {
        return linework::smoothed(of.object.line, of.resolved, around);
    });
}

document::LongEdit thinLines(const Results& seen, const std::vector<ObjectId>& lines,
                             const linework::ThinLineOptions& options) {
    return document::onlyWhileSame(
        seen->document, lines, [=](const Document& document, const Context& context) -> Result<Edited> {
            Document d = document;
            std::size_t seenLines = 0;
            std::size_t before = 0;
            std::size_t gone = 0;
            std::vector<Reshaped> all;
            for (const ObjectId id : lines) {
                if (context.isCancelled()) return cancelled();
                context.report(static_cast<double>(seenLines++) / static_cast<double>(lines.size()));
                const auto own = ownLine(d, id);
                const auto* resolved = Derived::in(seen->lines, id);
                if (!own) return tl::unexpected(own.error());
                if (resolved == nullptr) continue;
                auto thin = linework::thinnedLine((*own)->line, *resolved, options, surroundings(*seen));
                if (!thin) return tl::unexpected(thin.error());
                before += thin->before;
                gone += thin->gone;
                if (thin->gone == 0) continue;
                d = withLine(d, id, thin->reshaped.line);
                all.push_back(std::move(thin->reshaped));
            }
            if (gone == 0) return badInput("no point can go");
            // Controls that went are what was asked for.
            for (auto& part : all) part.left = 0;
            auto became = whatBecame(document, all);
            return Edited(d, {},
                          std::to_string(gone) + " of " + std::to_string(before) + " points went" +
                              (became.empty() ? "" : "; " + became));
        });
}

Edit insertTyped(ObjectId line, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        if (!own) return tl::unexpected(own.error());
        std::string typed(trimmed(text));
        const bool every = typed.rfind("every", 0) == 0;
        const auto figure = parseNumber(trimmed(every ? typed.substr(5) : typed));
        if (!figure || !(*figure > 0))
            return badInput("'" + text + "' is no distance; write 25 from the start, or every 5");
        if (every) {
            auto next = linework::withCornersEvery((*own)->line, *figure);
            if (!next) return tl::unexpected(next.error());
            return withLine(document, line, std::move(*next));
        }
        Line3D next = (*own)->line;
        if (*figure >= linework::placed(next).length) return badInput("that is beyond the end of the line");
        const std::size_t before = next.vertices.size();
        linework::cornerAt(next, *figure);
        if (next.vertices.size() == before && next == (*own)->line)
            return badInput("there is a corner here already");
        return withLine(document, line, std::move(next));
    };
}

Edit setTypedPlace(ObjectId line, std::size_t vertex, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto place = parsePlaceEntry(text, document.settings().display);
        if (!place) return tl::unexpected(place.error());
        const auto* at = std::get_if<TypedPosition>(&*place);
        if (at == nullptr) return badInput("type a place: E, N");
        return moveVertex(line, vertex, {at->easting, at->northing})(document);
    };
}

}  // namespace erdwerk::operations
