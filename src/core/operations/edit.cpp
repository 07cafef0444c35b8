#include "core/operations/edit.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/document/edit_trace.h"
#include "core/linework/edit.h"
#include "core/linework/line3d.h"
#include "core/linework/web.h"
#include "core/objects/line.h"

namespace erdwerk::operations {

Document addPoints(const Document& document, const std::string& setName,
                   std::vector<survey::SurveyPoint> points, ObjectId* set) {
    const ObjectId existing = document.byName<Points>(setName);
    if (!existing) return document.added(setName, Points{survey::PointSet(std::move(points))}, set);
    if (set != nullptr) *set = existing;
    return changed<Points>(document, existing, [&](Points& p) { p.set = p.set.appended(std::move(points)); });
}

Document setPoint(const Document& document, PointRef ref, survey::SurveyPoint point) {
    const auto* points = document.get<Points>(ref.set);
    if (points == nullptr || ref.index >= points->set.size() || points->set[ref.index] == point)
        return document;
    return document.withPayload(ref.set, Points{points->set.with(ref.index, std::move(point)), points->tie});
}

namespace {

template <class Change>
Document changePoint(const Document& document, PointRef ref, const Change& change) {
    const auto* points = document.get<Points>(ref.set);
    if (points == nullptr || ref.index >= points->set.size()) return document;
    survey::SurveyPoint p = points->set[ref.index];
    change(p);
    return setPoint(document, ref, std::move(p));
}

}  // namespace

Document setPointHeight(const Document& document, PointRef ref, std::optional<double> height) {
    return changePoint(document, ref, [&](survey::SurveyPoint& p) { p.height = height; });
}

Document movePoint(const Document& document, PointRef ref, geometry::Vec2 place) {
    return changePoint(document, ref, [&](survey::SurveyPoint& p) { p.plan = place; });
}

Document renumberPoint(const Document& document, PointRef ref) {
    unsigned long long largest = 0;
    for (const ObjectId id : document.all<Points>())
        largest = std::max(largest, std::stoull(survey::nextNumber(document.get<Points>(id)->set)));
    return changePoint(document, ref, [&](survey::SurveyPoint& p) { p.number = std::to_string(largest); });
}

Document letterPoint(const Document& document, PointRef ref) {
    std::set<std::string> used;
    for (const ObjectId id : document.all<Points>()) {
        const auto& set = document.get<Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) used.insert(set[i].number);
    }
    return changePoint(document, ref, [&](survey::SurveyPoint& p) {
        // a … z, then za … zz and so on.
        std::string letters = "a";
        while (used.count(p.number + letters) != 0) {
            if (letters.back() == 'z')
                letters += 'a';
            else
                ++letters.back();
        }
        p.number += letters;
    });
}

Document removePoints(const Document& document, const std::vector<PointRef>& points) {
    std::map<ObjectId, std::vector<std::size_t>> bySet;
    for (const PointRef& ref : points) bySet[ref.set].push_back(ref.index);
    Document out = document;
    for (auto& [set, positions] : bySet) {
        const auto* old = document.get<Points>(set);
        if (old == nullptr) continue;
        std::sort(positions.begin(), positions.end());
        positions.erase(std::unique(positions.begin(), positions.end()), positions.end());
        out = out.withPayload(set, Points{old->set.without(positions), old->tie});
    }
    return out;
}

Document connectPoints(const Document& document, ObjectId set, const survey::Chain& chain,
                       const std::string& name, ObjectId* line) {
    const auto* points = document.get<Points>(set);
    if (points == nullptr || chain.size() < 2) return document;
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
    return document.added(name, Line{linework::lineThrough(corners, heights, closed), {}}, line);
}

Document changeDefinition(const Document& document, ObjectId surface,
                          const std::function<void(SurfaceDefinition&)>& change) {
    return changed<Surface>(document, surface, [&](Surface& s) {
        SurfaceDefinition definition = *s.definition;
        change(definition);
        s.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
    });
}

Document setSource(const Document& document, ObjectId surface, Source source) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) {
        for (Source& s : d.sources)
            if (s.object == source.object) s = source;
    });
}

Document moveSource(const Document& document, ObjectId surface, ObjectId object, int by) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) {
        const auto it = std::find_if(d.sources.begin(), d.sources.end(),
                                     [&](const Source& s) { return s.object == object; });
        if (it == d.sources.end()) return;
        const auto from = it - d.sources.begin();
        const auto to =
            std::clamp<std::ptrdiff_t>(from + by, 0, static_cast<std::ptrdiff_t>(d.sources.size()) - 1);
        const Source moved = *it;
        d.sources.erase(it);
        d.sources.insert(d.sources.begin() + to, moved);
    });
}

Document addEdit(const Document& document, ObjectId surface, SurfaceEdit edit) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) { d.edits.push_back(edit); });
}

Document accept(const Document& document, Accepted accepted) {
    Settings settings = document.settings();
    settings.accepted.push_back(std::move(accepted));
    return document.withSettings(std::move(settings));
}

Document addSource(const Document& document, ObjectId surface, Source source) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) {
        // One role an object, and one edge.
        std::erase_if(d.sources, [&](const Source& s) {
            return s.object == source.object || (source.role == Role::Edge && s.role == Role::Edge);
        });
        d.sources.push_back(source);
    });
}

Document removeSource(const Document& document, ObjectId surface, ObjectId object) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) {
        std::erase_if(d.sources, [&](const Source& s) { return s.object == object; });
    });
}

Document setMaxEdge(const Document& document, ObjectId surface, double maxEdge) {
    return changeDefinition(document, surface, [&](SurfaceDefinition& d) { d.maxEdge = maxEdge; });
}

bool hasSource(const Document& document, ObjectId surface, ObjectId object) {
    const auto* s = document.get<Surface>(surface);
    return s != nullptr && std::any_of(s->definition->sources.begin(), s->definition->sources.end(),
                                       [&](const Source& x) { return x.object == object; });
}

std::vector<Source> possibleSources(const Document& document, ObjectId surface) {
    std::vector<Source> out;
    for (const auto& [id, object] : document.objects())
        if (const auto role = sourceRole(object->payload); role && !hasSource(document, surface, id))
            out.push_back({id, *role});
    return out;
}

namespace {

bool isDense(const Object& object) {
    const auto role = sourceRole(object.payload);
    return role == Role::Cloud || role == Role::Raster;
}

}  // namespace

std::vector<ObjectId> denseObjects(const Document& document) {
    std::vector<ObjectId> out;
    for (const auto& [id, object] : document.objects())
        if (isDense(*object)) out.push_back(id);
    return out;
}

bool hasDenseSources(const Document& document, ObjectId surface) {
    const auto* s = document.get<Surface>(surface);
    return s != nullptr &&
           std::any_of(document.objects().begin(), document.objects().end(), [&](const auto& entry) {
               const auto& [id, object] = entry;
               return isDense(*object) && (hasSource(document, surface, id) ||
                                           (object->group && hasSource(document, surface, object->group)));
           });
}

Document addSurface(const Document& document, const std::string& name, const std::vector<Source>& sources,
                    ObjectId* id) {
    SurfaceDefinition definition;
    definition.sources = sources;
    Surface surface;
    surface.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
    return document.added(name, std::move(surface), id);
}

Document setLine(const Document& document, ObjectId line, linework::Line3D value) {
    return changed<Line>(document, line, [&](Line& l) { l.line = std::move(value); });
}

Document setHeightOnLine(const Document& document, ObjectId line, geometry::Vec2 place, double height) {
    const auto* payload = document.get<Line>(line);
    if (payload == nullptr) return document;
    const auto path = planPath(payload->line);
    const auto nearest = geometry::nearestOn(path, place);
    if (!nearest) return document;
    // A vertex that stands there already takes the height.
    const auto flat = linework::resolve(
        payload->line,
        [](ObjectId, geometry::Vec2) -> Result<std::optional<double>> { return std::optional<double>{}; });
    for (std::size_t i = 0; i < flat.vertices.size(); ++i)
        if (geometry::distance(flat.vertices[i].place, nearest->place) < 1e-6)
            return setLine(document, line,
                           *linework::setRule(payload->line, i, linework::FixedHeight{height}));
    auto with = linework::insertGradePoint(payload->line, nearest->segment, nearest->fraction,
                                           linework::FixedHeight{height});
    return with ? setLine(document, line, std::move(*with)) : document;
}

Document interpolateMissing(const Document& document, ObjectId line) {
    return changed<Line>(document, line, [](Line& l) {
        auto& vs = l.line.vertices;
        const auto absent = [](const linework::LineVertex& v) {
            return std::holds_alternative<linework::NoHeight>(v.rule);
        };
        for (auto& v : vs)
            if (absent(v)) v.rule = linework::Interpolated{};
        if (l.line.closed) return;
        const auto known = [](const linework::LineVertex& v) {
            return std::holds_alternative<linework::FixedHeight>(v.rule);
        };
        const auto first = std::find_if(vs.begin(), vs.end(), known);
        const auto last = std::find_if(vs.rbegin(), vs.rend(), known);
        if (first == vs.end()) return;
        if (std::holds_alternative<linework::Interpolated>(vs.front().rule)) vs.front().rule = first->rule;
        if (std::holds_alternative<linework::Interpolated>(vs.back().rule)) vs.back().rule = last->rule;
    });
}

Document closeLine(const Document& document, ObjectId line) {
    return changed<Line>(document, line, [](Line& l) {
        if (!l.line.closed && cornersOf(l.line).size() > 2) l.line.closed = true;
    });
}

Document rename(const Document& document, ObjectId id, std::string name) {
    const auto object = document.find(id);
    if (!object || object->name == name || name.empty()) return document;
    Object next = *object;
    next.name = std::move(name);
    return document.with(std::move(next));
}

Document setGroup(const Document& document, ObjectId id, ObjectId group) {
    const auto object = document.find(id);
    if (!object || object->group == group) return document;
    Object next = *object;
    next.group = group;
    return document.with(std::move(next));
}

}  // namespace erdwerk::operations
