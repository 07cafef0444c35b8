#include "core/operations/mend.h"

#include <algorithm>
#include <limits>

#include "core/linework/edit.h"
#include "core/linework/height_solver.h"
#include "core/linework/line3d.h"
#include "core/linework/pieces.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

namespace {

constexpr double sameVertex = 1e-6;

linework::ResolvedLine flat(const linework::Line3D& line) {
    return linework::resolve(line, [](ObjectId, geometry::Vec2) -> Result<std::optional<double>> {
        return std::optional<double>{};
    });
}

std::size_t nearestVertex(const linework::ResolvedLine& line, geometry::Vec2 place) {
    std::size_t best = 0;
    for (std::size_t i = 1; i < line.vertices.size(); ++i)
        if (geometry::distance(line.vertices[i].place, place) <
            geometry::distance(line.vertices[best].place, place))
            best = i;
    return best;
}

/// The line with a corner of this height at the place of it that is nearest.
Result<linework::Line3D> withCornerAt(const linework::Line3D& line, geometry::Vec2 place, double height) {
    auto resolved = flat(line);
    std::size_t at = nearestVertex(resolved, place);
    auto next = line;
    if (geometry::distance(resolved.vertices[at].place, place) > sameVertex) {
        const auto nearest = geometry::nearestOn(planPath(line), place);
        if (!nearest) return badInput("the line has no side");
        auto with = linework::insertCorner(line, nearest->segment, nearest->fraction);
        if (!with) return with;
        next = std::move(*with);
        resolved = flat(next);
        at = nearestVertex(resolved, place);
    }
    if (next.vertices[at].isCorner) next.vertices[at].place = place;
    return linework::setRule(next, at, linework::FixedHeight{height});
}

/// The document with this line changed; BadInput when it is gone or follows others.
Result<Document> withChanged(const Document& document, ObjectId id,
                             const std::function<Result<linework::Line3D>(const linework::Line3D&)>& edit) {
    const auto line = ownLine(document, id);
    if (!line) return tl::unexpected(line.error());
    auto next = edit((*line)->line);
    if (!next) return tl::unexpected(next.error());
    return withLine(document, id, std::move(*next));
}

/// An edit of one line.
Edit mendedLine(ObjectId id, std::function<Result<linework::Line3D>(const linework::Line3D&)> edit) {
    return [id, edit = std::move(edit)](const Document& d) -> Result<Edited> {
        auto next = withChanged(d, id, edit);
        if (!next) return tl::unexpected(next.error());
        return std::move(*next);
    };
}

/// With a grade point of this height where it passes the place; a vertex that stands there already takes it.
Result<linework::Line3D> withHeightAt(const linework::Line3D& line, geometry::Vec2 place, double height) {
    const auto nearest = geometry::nearestOn(planPath(line), place);
    if (!nearest) return badInput("the line has no side");
    const auto at = flat(line);
    for (std::size_t i = 0; i < at.vertices.size(); ++i)
        if (geometry::distance(at.vertices[i].place, nearest->place) < sameVertex)
            return linework::setRule(line, i, linework::FixedHeight{height});
    return linework::insertGradePoint(line, nearest->segment, nearest->fraction,
                                      linework::FixedHeight{height});
}

/// The corner of two lines that is nearest to a place.
struct NearestCorner {
    ObjectId line;
    ObjectId other;
    std::size_t vertex = 0;
    double distance = std::numeric_limits<double>::infinity();
};

Result<NearestCorner> nearestCorner(const Document& document, ObjectId first, ObjectId second,
                                    geometry::Vec2 place) {
    NearestCorner best;
    for (const auto& [id, other] : {std::pair{first, second}, std::pair{second, first}}) {
        const auto* line = document.get<Line>(id);
        if (line == nullptr) return badInput("one of the lines is gone");
        if (line->follows) continue;
        for (const std::size_t i : cornersOf(line->line)) {
            const double d = geometry::distance(line->line.vertices[i].place, place);
            if (d < best.distance) best = {id, other, i, d};
        }
    }
    if (!best.line) return tl::unexpected(ownLine(document, first).error());
    return best;
}

bool follows(const Document& document, ObjectId id) {
    const auto* line = document.get<Line>(id);
    return line != nullptr && line->follows != nullptr;
}

}  // namespace

Edit shareCorner(ObjectId first, ObjectId second, geometry::Vec2 place, double height) {
    return [=](const Document& document) -> Result<Edited> {
        if (follows(document, first) && follows(document, second))
            return tl::unexpected(ownLine(document, first).error());
        Document next = document;
        for (const ObjectId id : {first, second}) {
            // A line that follows others keeps its height; the other one can take it.
            if (follows(document, id)) continue;
            auto with =
                withChanged(next, id, [&](const auto& line) { return withCornerAt(line, place, height); });
            if (!with) return tl::unexpected(with.error());
            next = std::move(*with);
        }
        return next;
    };
}

Edit moveNearestCorner(const Results& seen, ObjectId first, ObjectId second, geometry::Vec2 place) {
    return [=](const Document& document) -> Result<Edited> {
        const auto corner = nearestCorner(document, first, second, place);
        if (!corner) return tl::unexpected(corner.error());
        const auto* target = Derived::in(seen->lines, corner->other);
        if (target == nullptr) return badInput("the other line is gone");
        const auto on = geometry::nearestOn(
            target->path, document.get<Line>(corner->line)->line.vertices[corner->vertex].place);
        if (!on) return badInput("the other line has no side");
        const auto height = linework::heightAt(*target, geometry::distanceAlong(target->path, *on));
        auto moved = withChanged(document, corner->line, [&](const auto& line) -> Result<linework::Line3D> {
            auto to = linework::moveCorner(line, corner->vertex, on->place);
            if (!to || !height) return to;
            return linework::setRule(*to, corner->vertex, linework::FixedHeight{*height});
        });
        if (!moved) return tl::unexpected(moved.error());
        if (!height || follows(document, corner->other)) return std::move(*moved);
        auto both = withChanged(*moved, corner->other,
                                [&](const auto& line) { return withCornerAt(line, on->place, *height); });
        if (!both) return tl::unexpected(both.error());
        return std::move(*both);
    };
}

std::optional<double> overshoot(const Document& document, ObjectId line, geometry::Vec2 place) {
    const auto* payload = document.get<Line>(line);
    if (payload == nullptr || payload->line.closed) return std::nullopt;
    const auto path = planPath(payload->line);
    const auto nearest = geometry::nearestOn(path, place);
    if (!nearest) return std::nullopt;
    const double before = geometry::distanceAlong(path, *nearest);
    return std::min(before, geometry::lengthOf(path) - before);
}

Edit trimOvershoot(const Results& seen, ObjectId line, geometry::Vec2 place, double height) {
    return mendedLine(line, [=](const linework::Line3D& l) -> Result<linework::Line3D> {
        const auto* resolved = Derived::in(seen->lines, line);
        const auto on = resolved == nullptr ? std::nullopt : geometry::nearestOn(resolved->path, place);
        if (!on) return badInput("there is nothing beyond");
        const double at = geometry::distanceAlong(resolved->path, *on);
        const bool keepFirst = at * 2 > resolved->length;
        auto piece = linework::pieceOf(l, *resolved, keepFirst ? 0 : at, keepFirst ? at : resolved->length,
                                       surroundings(*seen));
        if (!piece) return tl::unexpected(piece.error());
        auto& end = keepFirst ? piece->line.vertices.back() : piece->line.vertices.front();
        end.rule = linework::FixedHeight{height};
        return std::move(piece->line);
    });
}

Edit moveEnd(ObjectId line, bool last, geometry::Vec3 place) {
    return mendedLine(line, [=](const linework::Line3D& l) -> Result<linework::Line3D> {
        const std::size_t vertex = last ? l.vertices.size() - 1 : 0;
        auto moved = linework::moveCorner(l, vertex, {place.x, place.y});
        if (!moved) return moved;
        return linework::setRule(*moved, vertex, linework::FixedHeight{place.z});
    });
}

Edit moveEndOnto(ObjectId line, bool last, geometry::Vec3 place, ObjectId other) {
    return [=](const Document& d) -> Result<Edited> {
        auto moved = moveEnd(line, last, place)(d);
        if (!moved) return moved;
        return setHeightOnLine(other, place.plan(), place.z)(moved->document);
    };
}

Edit setHeightOnLine(ObjectId line, geometry::Vec2 place, double height) {
    return mendedLine(line, [=](const linework::Line3D& l) { return withHeightAt(l, place, height); });
}

Edit interpolateMissing(ObjectId line) {
    return mendedLine(line, [](const linework::Line3D& before) -> Result<linework::Line3D> {
        auto next = before;
        auto& vs = next.vertices;
        for (auto& v : vs)
            if (std::holds_alternative<linework::NoHeight>(v.rule)) v.rule = linework::Interpolated{};
        if (next.closed) return next;
        const auto known = [](const linework::LineVertex& v) {
            return std::holds_alternative<linework::FixedHeight>(v.rule);
        };
        const auto first = std::find_if(vs.begin(), vs.end(), known);
        const auto last = std::find_if(vs.rbegin(), vs.rend(), known);
        if (first == vs.end()) return next;
        if (std::holds_alternative<linework::Interpolated>(vs.front().rule)) vs.front().rule = first->rule;
        if (std::holds_alternative<linework::Interpolated>(vs.back().rule)) vs.back().rule = last->rule;
        return next;
    });
}

}  // namespace erdwerk::operations
