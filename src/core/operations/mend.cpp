#include "core/operations/mend.h"

#include <limits>

#include "core/linework/edit.h"
#include "core/linework/line3d.h"
#include "core/linework/pieces.h"
#include "core/linework/web.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "core/terrain/locator.h"

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

Document withLine(const Document& document, ObjectId id,
                  const std::function<Result<linework::Line3D>(const linework::Line3D&)>& edit) {
    const auto* line = document.get<Line>(id);
    if (line == nullptr || line->follows) return document;
    auto next = edit(line->line);
    return next ? setLine(document, id, std::move(*next)) : document;
}

}  // namespace

Document shareCorner(const Document& document, ObjectId first, ObjectId second, geometry::Vec2 place,
                     double height) {
    Document next = document;
    for (const ObjectId id : {first, second})
        next = withLine(next, id, [&](const auto& line) { return withCornerAt(line, place, height); });
    return next;
}

Document moveNearestCorner(const Document& document, const Derived& derived, ObjectId first, ObjectId second,
                           geometry::Vec2 place) {
    ObjectId moved;
    ObjectId onto;
    std::size_t vertex = 0;
    double best = std::numeric_limits<double>::infinity();
    for (const auto& [id, other] : {std::pair{first, second}, std::pair{second, first}}) {
        const auto* line = document.get<Line>(id);
        if (line == nullptr) return document;
        for (const std::size_t i : cornersOf(line->line)) {
            const double d = geometry::distance(line->line.vertices[i].place, place);
            if (d >= best) continue;
            best = d;
            moved = id;
            onto = other;
            vertex = i;
        }
    }
    const auto* target = Derived::in(derived.lines, onto);
    if (!moved || target == nullptr) return document;
    const auto nearest =
        geometry::nearestOn(target->path, document.get<Line>(moved)->line.vertices[vertex].place);
    if (!nearest) return document;
    const auto height = linework::heightAt(*target, geometry::distanceAlong(target->path, *nearest));
    Document next = withLine(document, moved, [&](const auto& line) -> Result<linework::Line3D> {
        auto to = linework::moveCorner(line, vertex, nearest->place);
        if (!to || !height) return to;
        return linework::setRule(*to, vertex, linework::FixedHeight{*height});
    });
    if (!height) return next;
    return withLine(next, onto,
                    [&](const auto& line) { return withCornerAt(line, nearest->place, *height); });
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

Document trimOvershoot(const Document& document, const Derived& derived, ObjectId line, geometry::Vec2 place,
                       double height) {
    const auto* resolved = Derived::in(derived.lines, line);
    if (resolved == nullptr) return document;
    return withLine(document, line, [&](const linework::Line3D& l) -> Result<linework::Line3D> {
        const auto on = geometry::nearestOn(resolved->path, place);
        if (!on) return badInput("there is nothing beyond");
        const double at = geometry::distanceAlong(resolved->path, *on);
        const bool keepFirst = at * 2 > resolved->length;
        auto piece = linework::pieceOf(l, *resolved, keepFirst ? 0 : at, keepFirst ? at : resolved->length,
                                       surroundings(derived));
        if (!piece) return tl::unexpected(piece.error());
        auto& end = keepFirst ? piece->line.vertices.back() : piece->line.vertices.front();
        end.rule = linework::FixedHeight{height};
        return std::move(piece->line);
    });
}

Document moveEnd(const Document& document, ObjectId line, bool last, geometry::Vec3 place) {
    return withLine(document, line, [&](const linework::Line3D& l) -> Result<linework::Line3D> {
        const std::size_t vertex = last ? l.vertices.size() - 1 : 0;
        auto moved = linework::moveCorner(l, vertex, {place.x, place.y});
        if (!moved) return moved;
        return linework::setRule(*moved, vertex, linework::FixedHeight{place.z});
    });
}

Document addToSurface(const Document& document, ObjectId surface, const std::string& setName,
                      const std::vector<geometry::Vec3>& points, const std::string& code) {
    // Numbers are unique in the whole project.
    unsigned long long number = 1;
    for (const ObjectId id : document.all<Points>())
        number = std::max(number, std::stoull(survey::nextNumber(document.get<Points>(id)->set)));
    std::vector<survey::SurveyPoint> added;
    added.reserve(points.size());
    for (const auto& p : points) added.push_back({std::to_string(number++), {p.x, p.y}, p.z, code, ""});
    ObjectId set;
    Document next = addPoints(document, setName, std::move(added), &set);
    if (!hasSource(next, surface, set)) next = addSource(next, surface, {set, Role::Points});
    return next;
}

Result<Document> tryEdit(const Derived& derived, ObjectId surface, const SurfaceEdit& edit) {
    const auto* locator = derived.surface(surface);
    if (locator == nullptr) return badInput("there is no surface to edit");
    if (edit.edit.kind == terrain::EditKind::TakeOver) {
        if (edit.surface == surface) return badInput("a surface cannot take over itself");
        if (derived.surface(edit.surface) == nullptr) return badInput("that surface cannot be built");
    } else if (edit.edit.kind != terrain::EditKind::Raise) {
        const auto tin = terrain::edited(locator->tin(), edit.edit);
        if (!tin) return tl::unexpected(tin.error());
    }
    return addEdit(derived.document, surface, edit);
}

}  // namespace erdwerk::operations
