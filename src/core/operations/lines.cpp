#include "core/operations/lines.h"

#include "core/base/notation.h"

#include <algorithm>

#include "core/annotate/dimension.h"
#include "core/base/display.h"
#include "core/document/edit_trace.h"
#include "core/linework/drape.h"
#include "core/linework/edit.h"
#include "core/linework/grade_limits.h"
#include "core/linework/rules/height_rule.h"
#include "core/objects/line.h"
#include "core/operations/parcel_sides.h"
#include "core/operations/surfaces.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

using geometry::Vec2;
using linework::Line3D;

namespace {

using LineEdit = std::function<Result<Line3D>(const Line3D&)>;

/// An edit of one line.
Edit ofLine(ObjectId id, LineEdit edit) {
    return [id, edit = std::move(edit)](const Document& document) -> Result<Edited> {
        const auto line = ownLine(document, id);
        if (!line) return tl::unexpected(line.error());
        auto next = edit((*line)->line);
        if (!next) return tl::unexpected(next.error());
        return withLine(document, id, std::move(*next));
    };
}

}  // namespace

Result<const objects::Line*> ownLine(const Document& document, ObjectId id) {
    const auto* line = document.get<objects::Line>(id);
    if (line == nullptr) return badInput("pick a line");
    if (line->follows)
        return badInput("'" + document.nameOf(id) + "' follows '" +
                        document.nameOf(objects::references(document.find(id)->payload).front()) +
                        "'; loosen it first");
    return line;
}

Result<double> distanceOf(const Derived& seen, const LinePlace& at) {
    const auto* resolved = Derived::in(seen.lines, at.line);
    if (resolved == nullptr) return badInput("pick a line");
    if (at.vertex) {
        if (*at.vertex >= resolved->vertices.size()) return badInput("the line has no such point");
        return resolved->vertices[*at.vertex].distance;
    }
    if (at.segment >= resolved->path.size()) return badInput("the line has no such side");
    double out = 0;
    for (std::size_t s = 0; s < at.segment; ++s) out += lengthOf(resolved->path[s]);
    return out + at.fraction * lengthOf(resolved->path[at.segment]);
}

linework::Surroundings surroundings(const Derived& derived) {
    linework::Surroundings around;
    around.surface = [&derived](ObjectId id, Vec2 p) -> Result<std::optional<double>> {
        const auto* surface = derived.surface(id);
        return surface == nullptr ? std::optional<double>{} : surface->heightAt(p);
    };
    around.line = [&derived](ObjectId id) -> const Line3D* { return derived.definition(id); };
    around.finished = [&derived](ObjectId id) -> std::shared_ptr<const linework::ResolvedLine> {
        const auto it = derived.lines.find(id);
        return it == derived.lines.end() ? nullptr : it->second;
    };
    around.nameOf = [&derived](ObjectId id) { return derived.document.nameOf(id); };
    return around;
}

Edit drapeLine(const Results& seen, ObjectId surface, ObjectId line) {
    return [seen, surface, line](const Document& document) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        if (locator == nullptr) return badInput("there is no surface to lay the line on");
        if (operations::hasSource(document, surface, line))
            return badInput("the line is a source of this surface; its heights would go in a circle");
        return ofLine(line, [&](const Line3D& l) { return linework::drape(l, *locator, surface); })(document);
    };
}

Edit reverseLine(ObjectId line) {
    return ofLine(line, [](const Line3D& l) -> Result<Line3D> { return linework::reversed(l); });
}

Edit closeLine(ObjectId line) {
    return ofLine(line, [](const Line3D& l) -> Result<Line3D> {
        if (l.closed) return badInput("the line is closed already");
        if (cornersOf(l).size() < 3) return badInput("a closed line needs at least three corners");
        Line3D next = l;
        next.closed = true;
        return next;
    });
}

Edit insertCorner(LinePlace at) {
    return [at](const Document& document) -> Result<Edited> {
        const auto insert = [](const LinePlace& place) {
            return ofLine(place.line, [place](const Line3D& l) {
                return linework::insertCorner(l, place.segment, place.fraction);
            });
        };
        auto next = insert(at)(document);
        // A side that neighbours have in common stays one.
        for (const LinePlace& place : placesShared(document, at)) {
            if (!next) return next;
            next = insert(place)(next->document);
        }
        return next;
    };
}

Edit insertGradePoint(LinePlace at) {
    return ofLine(at.line,
                  [at](const Line3D& l) { return linework::insertGradePoint(l, at.segment, at.fraction); });
}

Edit removeVertex(ObjectId line, std::size_t vertex) {
    return [=](const Document& document) -> Result<Edited> {
        const auto removed = [](ObjectId of, std::size_t at) {
            return ofLine(of, [at](const Line3D& l) { return linework::removeVertex(l, at); });
        };
        auto next = removed(line, vertex)(document);
        for (const LineCorner& corner : cornersBetweenShared(document, line, vertex)) {
            if (!next) return next;
            next = removed(corner.line, corner.vertex)(next->document);
        }
        return next;
    };
}

namespace {

Edit moveAlone(ObjectId line, std::size_t vertex, Vec2 to) {
    return ofLine(line, [vertex, to](const Line3D& l) -> Result<Line3D> {
        if (vertex >= l.vertices.size()) return badInput("the line has no such point");
        if (l.vertices[vertex].isCorner) return linework::moveCorner(l, vertex, to);
        const auto path = planPath(l);
        const std::size_t segment = segmentOf(l, vertex);
        const auto near = segment < path.size() ? geometry::nearestOn({path[segment]}, to) : std::nullopt;
        if (!near) return badInput("the line has no side there");
        return linework::moveGradePoint(l, vertex, near->fraction);
    });
}

bool isFigure(const Document& document, ObjectId line) {
    const auto* of = document.get<objects::Line>(line);
    return of != nullptr && objects::figureOf(*of) != nullptr;
}

/// The corner of a boundary is one of the lines that it follows.
Result<Edited> movedUnder(const Document& document, ObjectId boundary, std::size_t vertex, Vec2 to) {
    const auto corners = cornersUnder(document, boundary, vertex);
    if (corners.empty())
        return badInput("two of the lines that '" + document.nameOf(boundary) +
                        "' follows cross here: move one of them, or loosen it");
    Result<Edited> next = Edited(document);
    for (const LineCorner& corner : corners) {
        next = moveVertex(corner.line, corner.vertex, to)(next->document);
        if (!next) return next;
    }
    return next;
}

}  // namespace

Edit moveVertex(ObjectId line, std::size_t vertex, Vec2 to) {
    return [=](const Document& document) -> Result<Edited> {
        if (isFigure(document, line)) return movedUnder(document, line, vertex, to);
        auto next = moveAlone(line, vertex, to)(document);
        // Neighbours keep their corner in common.
        for (const LineCorner& corner : cornersShared(document, line, vertex)) {
            if (!next) return next;
            next = moveAlone(corner.line, corner.vertex, to)(next->document);
        }
        return next;
    };
}

Edit moveVertexTo(ObjectId line, std::size_t vertex, Vec2 to, std::optional<double> height) {
    return [=](const Document& document) -> Result<Edited> {
        auto next = moveVertex(line, vertex, to)(document);
        if (!next || !height || isFigure(document, line)) return next;
        const auto& rule = next->document.get<objects::Line>(line)->line.vertices[vertex].rule;
        const bool own = isControl(rule) && !std::holds_alternative<linework::FixedHeight>(rule);
        return own ? next : setRule(line, vertex, linework::FixedHeight{*height})(next->document);
    };
}

Edit drawLine(Line3D line) {
    return [line = std::move(line)](const Document& document) -> Result<Edited> {
        if (const auto problem = validate(line)) return badInput(*problem);
        const std::string name = document::freshName<objects::Line>(document, "Line");
        return Edited(document.added(name, objects::Line{line, {}}), "Draw " + name);
    };
}

Line3D continued(const Line3D& line, bool atStart, const std::vector<linework::LineVertex>& drawn,
                 std::optional<Vec2> throughFromEnd) {
    // The rules of the new corners hold in the drawn direction, and are turned back with it.
    Line3D out = atStart ? linework::reversed(line) : line;
    if (!drawn.empty() && !out.vertices.empty()) out.vertices.back().through = throughFromEnd;
    out.vertices.insert(out.vertices.end(), drawn.begin(), drawn.end());
    return atStart ? linework::reversed(out) : out;
}

Edit continueLine(ObjectId line, bool atStart, const std::vector<linework::LineVertex>& drawn,
                  std::optional<Vec2> throughFromEnd) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* now = document.get<objects::Line>(line);
        if (now == nullptr) return badInput("the line that was continued is gone");
        if (now->line.closed) return badInput("the line was closed meanwhile; it has no end to go on from");
        auto next = continued(now->line, atStart, drawn, throughFromEnd);
        if (const auto problem = validate(next)) return badInput(*problem);
        return Edited(withLine(document, line, std::move(next)), "Continue " + document.nameOf(line));
    };
}

linework::RuleNames namesIn(const Document& document) {
    return {[&document](ObjectId id) { return document.nameOf(id); },
            [&document](const std::string& name) { return document.byName<objects::Surface>(name); },
            [&document](const std::string& name) { return document.byName<objects::Line>(name); }};
}

Result<linework::HeightRule> typedRule(const Document& document, const std::string& text) {
    return linework::parseRule(text, namesIn(document));
}

std::string ruleText(const Document& document, const linework::HeightRule& rule) {
    return linework::ruleText(rule, namesIn(document));
}

Edit setRule(ObjectId line, std::size_t vertex, linework::HeightRule rule) {
    return ofLine(line, [vertex, rule = std::move(rule)](const Line3D& l) -> Result<Line3D> {
        if (vertex == 0 && !l.closed && looksBack(rule) && isControl(rule))
            return badInput("the first point has no point before it to rise from");
        if (vertex + 1 == l.vertices.size() && !l.closed && looksAhead(rule) && isControl(rule))
            return badInput("the last point has no point after it to rise to");
        if (vertex < l.vertices.size() && l.vertices[vertex].isCorner &&
            standing(rule) != linework::Standing::Own)
            return badInput("a corner cannot move; only a grade point can have this rule");
        return linework::setRule(l, vertex, rule);
    });
}

std::string controlText(const Document& document, const linework::LineVertex& vertex) {
    return linework::controlText(vertex, namesIn(document));
}

Edit setCurve(ObjectId line, std::size_t vertex, std::optional<linework::VerticalCurve> curve) {
    return ofLine(line, [vertex, curve](const Line3D& l) -> Result<Line3D> {
        if (vertex >= l.vertices.size()) return badInput("the line has no such point");
        if (curve && !isControl(l.vertices[vertex].rule))
            return badInput("a vertical curve stands at a point with a height of its own");
        if (curve && !l.closed && (vertex == 0 || vertex + 1 == l.vertices.size()))
            return badInput("a vertical curve needs a grade on both sides");
        Line3D next = l;
        next.vertices[vertex].curve = curve;
        return next;
    });
}

Edit setTypedRule(ObjectId line, std::size_t vertex, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        auto control = linework::parseControl(text, namesIn(document));
        if (!control) return tl::unexpected(control.error());
        auto next = setRule(line, vertex, std::move(control->rule))(document);
        return next ? setCurve(line, vertex, control->curve)(next->document) : next;
    };
}

Edit setTypedHeight(ObjectId line, std::size_t vertex, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        auto rule = typedRule(document, text);
        if (!rule) return tl::unexpected(rule.error());
        return setRule(line, vertex, std::move(*rule))(document);
    };
}

Edit setTypedCurve(ObjectId line, std::size_t vertex, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        std::string typed(trimmed(text));
        if (typed.empty() || typed == "none") return setCurve(line, vertex, std::nullopt)(document);
        if (linework::plainWord(typed).rfind("curve", 0) != 0) typed = "curve " + typed;
        const auto parts = linework::parseCurve("~ " + typed);
        if (!parts) return tl::unexpected(parts.error());
        return setCurve(line, vertex, parts->second)(document);
    };
}

Edit setTypedRules(std::vector<std::pair<ObjectId, std::size_t>> points, const std::string& text) {
    return [points = std::move(points), text](const Document& given) -> Result<Edited> {
        Document d = given;
        for (const auto& [line, vertex] : points) {
            auto next = setTypedRule(line, vertex, text)(d);
            if (!next)
                return badInput("'" + d.nameOf(line) + "', point " + std::to_string(vertex + 1) + ": " +
                                next.error().text);
            d = std::move(next->document);
        }
        return d;
    };
}

namespace {

/// The rule of the far end that a text for the way there means.
Result<linework::HeightRule> typedWay(const Document& document, ToNextFigure figure,
                                      const std::string& text) {
    std::string typed(trimmed(text));
    const auto bare = parseNumber(typed);
    if (bare && figure == ToNextFigure::Grade) typed += "%";
    if (bare && figure == ToNextFigure::Ratio) typed += ":1";
    auto rule = typedRule(document, typed);
    if (!rule) return rule;
    if (const auto* fixed = std::get_if<linework::FixedHeight>(&*rule); fixed != nullptr && bare)
        return linework::RiseFromPrevious{fixed->height};
    if (std::holds_alternative<linework::RiseFromPrevious>(*rule) ||
        std::holds_alternative<linework::GradeFromPrevious>(*rule))
        return rule;
    return badInput("type a rise like +0.15, a grade like 2% or a ratio like 3:1");
}

}  // namespace

Edit setTypedToNext(ObjectId line, std::size_t vertex, ToNextFigure figure, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr || vertex >= on->line.vertices.size()) return badInput("the line is gone");
        auto way = typedWay(document, figure, text);
        if (!way) return tl::unexpected(way.error());
        if (linework::looksAhead(on->line.vertices[vertex].rule)) {
            // This height is measured from the next one: it is this rule that changes.
            if (const auto* grade = std::get_if<linework::GradeFromPrevious>(&*way))
                return setRule(line, vertex, linework::GradeToNext{grade->grade, grade->typed})(document);
            return setRule(line, vertex,
                           linework::RiseToNext{std::get<linework::RiseFromPrevious>(*way).rise})(document);
        }
        auto next = linework::controlOf(on->line, vertex, true);
        const std::size_t count = on->line.vertices.size();
        if (!next && (vertex + 1 < count || on->line.closed)) next = (vertex + 1) % count;
        if (!next) return badInput("there is no point after this one");
        return setRule(line, *next, std::move(*way))(document);
    };
}

Edit moveGradePointTo(ObjectId line, std::size_t vertex, double distance) {
    return ofLine(line, [=](const Line3D& l) -> Result<Line3D> {
        const auto path = planPath(l);
        const std::size_t segment = segmentOf(l, vertex);
        if (vertex >= l.vertices.size() || segment >= path.size())
            return badInput("the line has no such point");
        double base = 0;
        for (std::size_t s = 0; s < segment; ++s) base += lengthOf(path[s]);
        return linework::moveGradePoint(l, vertex, (distance - base) / lengthOf(path[segment]));
    });
}

Edit setTypedLimits(ObjectId line, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        if (document.get<objects::Line>(line) == nullptr) return badInput("the line is gone");
        const auto limits = linework::parseGradeLimits(text);
        if (!limits) return tl::unexpected(limits.error());
        return document::changed<objects::Line>(document, line,
                                                [&](objects::Line& l) { l.limits = *limits; });
    };
}

}  // namespace erdwerk::operations
