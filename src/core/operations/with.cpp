#include "core/operations/with.h"

#include <algorithm>
#include <cassert>
#include <map>

#include "core/linework/edit.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/points.h"

namespace erdwerk::operations {

Document withLine(const Document& document, ObjectId line, linework::Line3D value) {
    assert(document.get<Line>(line) != nullptr);
    return changed<Line>(document, line, [&](Line& l) { l.line = std::move(value); });
}

Document withPointsIn(const Document& document, const std::string& setName,
                      std::vector<survey::SurveyPoint> points, ObjectId* set) {
    const ObjectId existing = document.byName<Points>(setName);
    if (!existing) return document.added(setName, Points{survey::PointSet(std::move(points))}, set);
    if (set != nullptr) *set = existing;
    return changed<Points>(document, existing, [&](Points& p) { p.set = p.set.appended(std::move(points)); });
}

Document withPoint(const Document& document, PointRef ref, survey::SurveyPoint point) {
    const auto* points = document.get<Points>(ref.set);
    assert(points != nullptr && ref.index < points->set.size());
    if (points->set[ref.index] == point) return document;
    return document.withPayload(ref.set, Points{points->set.with(ref.index, std::move(point)), points->tie});
}

Document withoutPoints(const Document& document, const std::vector<PointRef>& points) {
    std::map<ObjectId, std::vector<std::size_t>> bySet;
    for (const PointRef& ref : points) bySet[ref.set].push_back(ref.index);
    Document out = document;
    for (auto& [set, positions] : bySet) {
        const auto* old = document.get<Points>(set);
        assert(old != nullptr);
        std::sort(positions.begin(), positions.end());
        positions.erase(std::unique(positions.begin(), positions.end()), positions.end());
        out = out.withPayload(set, Points{old->set.without(positions), old->tie});
    }
    return out;
}

Document withLineThrough(const Document& document, ObjectId set, const survey::Chain& chain,
                         const std::string& name) {
    const auto* points = document.get<Points>(set);
    assert(points != nullptr);
    std::vector<geometry::Vec2> corners;
    std::vector<std::optional<double>> heights;
    for (const std::size_t i : chain) {
        const auto& p = points->set[i];
        if (!corners.empty() && corners.back() == p.plan) continue;
        corners.push_back(p.plan);
        heights.push_back(p.height);
    }
    // Points back at the start close the line.
    const bool closed = corners.size() > 3 && corners.front() == corners.back();
    if (closed) {
        corners.pop_back();
        heights.pop_back();
    }
    if (corners.size() < 2) return document;
    return document.added(name, Line{linework::lineThrough(corners, heights, closed), {}});
}

Document withDefinition(const Document& document, ObjectId surface,
                        const std::function<void(SurfaceDefinition&)>& change) {
    assert(document.get<Surface>(surface) != nullptr);
    return changed<Surface>(document, surface, [&](Surface& s) {
        SurfaceDefinition definition = *s.definition;
        change(definition);
        s.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
    });
}

Document withSource(const Document& document, ObjectId surface, Source source) {
    return withDefinition(document, surface, [&](SurfaceDefinition& d) {
        std::erase_if(d.sources, [&](const Source& s) {
            return s.object == source.object || (source.role == Role::Edge && s.role == Role::Edge);
        });
        d.sources.push_back(source);
    });
}

Document withOwnEdit(const Document& document, ObjectId surface, SurfaceEdit edit) {
    return withDefinition(document, surface, [&](SurfaceDefinition& d) { d.edits.push_back(edit); });
}

Document withGroup(const Document& document, ObjectId object, ObjectId group) {
    const auto it = document.find(object);
    assert(it != nullptr);
    if (it->group == group) return document;
    Object next = *it;
    next.group = group;
    return document.with(std::move(next));
}

}  // namespace erdwerk::operations
