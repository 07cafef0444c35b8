#include "core/operations/surfaces.h"

#include <algorithm>

#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/with.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::operations {

using document::freshName;

namespace {

const SurfaceDefinition* definitionIn(const Document& document, ObjectId surface) {
    const auto* s = document.get<Surface>(surface);
    return s == nullptr ? nullptr : s->definition.get();
}

/// An edit of one surface.
Edit ofSurface(ObjectId surface, std::function<Result<Edited>(const Document&)> edit) {
    return [surface, edit = std::move(edit)](const Document& d) -> Result<Edited> {
        if (definitionIn(d, surface) == nullptr) return badInput("the surface is gone");
        return edit(d);
    };
}

/// An edit of one source of a surface.
Edit ofSource(ObjectId surface, ObjectId source, const std::function<Result<Edited>(const Document&)>& edit) {
    return ofSurface(surface, [=](const Document& d) -> Result<Edited> {
        if (!hasSource(d, surface, source)) return badInput("this is no source of the surface");
        return edit(d);
    });
}

bool isDense(const Object& object) {
    const auto role = sourceRole(object.payload);
    return role == Role::Cloud || role == Role::Raster;
}

}  // namespace

Edit newSurface(std::vector<ObjectId> chosen) {
    return [chosen = std::move(chosen)](const Document& d) -> Result<Edited> {
        std::vector<Source> sources;
        const auto add = [&](ObjectId id) {
            if (std::any_of(sources.begin(), sources.end(), [&](const auto& s) { return s.object == id; }))
                return;
            if (d.get<Points>(id) != nullptr) sources.push_back({id, Role::Points});
            if (d.get<Line>(id) != nullptr) sources.push_back({id, Role::Breakline});
        };
        for (const ObjectId id : chosen) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<Points>()) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<Line>()) add(id);
        if (sources.empty()) return badInput("there are no points or lines yet");
        return addSurface(d.byName<Surface>("Ground") ? freshName<Surface>(d, "Surface") : "Ground",
                          std::move(sources))(d);
    };
}

Edit addSurface(const std::string& name, std::vector<Source> sources) {
    return [name, sources = std::move(sources)](const Document& d) -> Result<Edited> {
        SurfaceDefinition definition;
        definition.sources = sources;
        Surface surface;
        surface.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
        return d.added(name, std::move(surface));
    };
}

Edit addRole(ObjectId surface, ObjectId line, Role role) {
    return [=](const Document& d) -> Result<Edited> {
        if (definitionIn(d, surface) == nullptr) return badInput("there is no surface yet");
        const auto* on = d.get<Line>(line);
        if (on == nullptr) return badInput("pick a line");
        if (isRing(role) && !on->line.closed)
            return badInput(role == Role::Edge ? "the edge must be a closed line" : "pick a closed line");
        return withSource(d, surface, {line, role});
    };
}

Edit setRoles(ObjectId surface, std::vector<ObjectId> lines, Role role) {
    return ofSurface(surface, [surface, lines = std::move(lines), role](const Document& d) -> Result<Edited> {
        const auto chosen = [&](const Source& s) {
            return std::find(lines.begin(), lines.end(), s.object) != lines.end();
        };
        for (const Source& s : definitionIn(d, surface)->sources) {
            const auto* on = d.get<Line>(s.object);
            if (chosen(s) && isRing(role) && (on == nullptr || !on->line.closed))
                return badInput("'" + d.nameOf(s.object) + "' is not closed");
        }
        return withDefinition(d, surface, [&](SurfaceDefinition& definition) {
            for (Source& s : definition.sources)
                if (chosen(s)) s.role = role;
        });
    });
}

Edit addSource(ObjectId surface, Source source) {
    return ofSurface(surface, [=](const Document& d) -> Result<Edited> {
        if (!d.find(source.object)) return badInput("what was to be a source is gone");
        return withSource(d, surface, source);
    });
}

Edit removeSource(ObjectId surface, ObjectId object) {
    return ofSource(surface, object, [=](const Document& d) -> Result<Edited> {
        return withDefinition(d, surface, [&](SurfaceDefinition& definition) {
            std::erase_if(definition.sources, [&](const Source& s) { return s.object == object; });
        });
    });
}

Edit setSource(ObjectId surface, Source source) {
    return ofSource(surface, source.object, [=](const Document& d) -> Result<Edited> {
        return withDefinition(d, surface, [&](SurfaceDefinition& definition) {
            for (Source& s : definition.sources)
                if (s.object == source.object) s = source;
        });
    });
}

Edit moveSource(ObjectId surface, ObjectId object, int by) {
    return ofSource(surface, object, [=](const Document& d) -> Result<Edited> {
        return withDefinition(d, surface, [&](SurfaceDefinition& definition) {
            auto& sources = definition.sources;
            const auto it = std::find_if(sources.begin(), sources.end(),
                                         [&](const Source& s) { return s.object == object; });
            const auto last = static_cast<std::ptrdiff_t>(sources.size()) - 1;
            const auto to = std::clamp<std::ptrdiff_t>(it - sources.begin() + by, 0, last);
            const Source moved = *it;
            sources.erase(it);
            sources.insert(sources.begin() + to, moved);
        });
    });
}

Edit setMaxEdge(ObjectId surface, double maxEdge) {
    return changeDefinition(surface, [maxEdge](SurfaceDefinition& d) { d.maxEdge = maxEdge; });
}

Edit changeDefinition(ObjectId surface, std::function<void(SurfaceDefinition&)> change) {
    return ofSurface(surface, [surface, change = std::move(change)](const Document& d) -> Result<Edited> {
        return withDefinition(d, surface, change);
    });
}

Edit ownEdit(const Results& seen, ObjectId surface, SurfaceEdit edit) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        if (definitionIn(d, surface) == nullptr || locator == nullptr)
            return badInput("there is no surface to edit");
        if (edit.edit.kind == terrain::EditKind::TakeOver) {
            if (edit.surface == surface) return badInput("a surface cannot take over itself");
            if (seen->surface(edit.surface) == nullptr) return badInput("that surface cannot be built");
        } else if (edit.edit.kind != terrain::EditKind::Raise) {
            const auto tin = terrain::edited(locator->tin(), edit.edit);
            if (!tin) return tl::unexpected(tin.error());
        }
        return withOwnEdit(d, surface, edit);
    };
}

Edit addOwnEdit(ObjectId surface, SurfaceEdit edit) {
    return ofSurface(surface,
                     [=](const Document& d) -> Result<Edited> { return withOwnEdit(d, surface, edit); });
}

Edit addToSurface(ObjectId surface, const std::string& setName, std::vector<geometry::Vec3> points,
                  const std::string& code) {
    return ofSurface(
        surface, [surface, setName, points = std::move(points), code](const Document& d) -> Result<Edited> {
            // Numbers are unique in the whole project.
            unsigned long long number = 1;
            for (const ObjectId id : d.all<Points>())
                number = std::max(number, std::stoull(survey::nextNumber(d.get<Points>(id)->set)));
            std::vector<survey::SurveyPoint> added;
            added.reserve(points.size());
            for (const auto& p : points)
                added.push_back({std::to_string(number++), {p.x, p.y}, p.z, code, ""});
            ObjectId set;
            Document next = withPointsIn(d, setName, std::move(added), &set);
            return hasSource(next, surface, set) ? next : withSource(next, surface, {set, Role::Points});
        });
}

bool hasSource(const Document& document, ObjectId surface, ObjectId object) {
    const auto* definition = definitionIn(document, surface);
    return definition != nullptr && std::any_of(definition->sources.begin(), definition->sources.end(),
                                                [&](const Source& x) { return x.object == object; });
}

std::vector<Source> possibleSources(const Document& document, ObjectId surface) {
    std::vector<Source> out;
    for (const auto& [id, object] : document.objects())
        if (const auto role = sourceRole(object->payload); role && !hasSource(document, surface, id))
            out.push_back({id, *role});
    return out;
}

std::vector<ObjectId> denseObjects(const Document& document) {
    std::vector<ObjectId> out;
    for (const auto& [id, object] : document.objects())
        if (isDense(*object)) out.push_back(id);
    return out;
}

bool hasDenseSources(const Document& document, ObjectId surface) {
    const auto& objects = document.objects();
    return std::any_of(objects.begin(), objects.end(), [&](const auto& entry) {
        const auto& [id, object] = entry;
        return isDense(*object) && (hasSource(document, surface, id) ||
                                    (object->group && hasSource(document, surface, object->group)));
    });
}

}  // namespace erdwerk::operations
