#include "core/operations/ground.h"

#include <algorithm>
#include <cmath>

#include "core/base/notation.h"
#include "core/derive/dense_source.h"
#include "core/derive/edge.h"
#include "core/derive/surface_result.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/dense.h"
#include "core/operations/edit.h"
#include "core/operations/mend.h"
#include "core/terrain/drop.h"
#include "core/terrain/sampling.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Vec2;
using geometry::Vec3;

Edit connectPoints(ObjectId set, std::vector<std::size_t> members, bool byCode) {
    return [set, members = std::move(members), byCode](const Document& document) -> Result<Edited> {
        const auto* points = document.get<objects::Points>(set);
        if (points == nullptr || members.size() < 2) return badInput("select at least two survey points");
        for (const std::size_t i : members)
            if (i >= points->set.size()) return badInput("one of these points is gone");
        std::vector<std::pair<std::string, survey::Chain>> chains;
        if (byCode)
            chains = survey::chainsByCode(points->set, members);
        else
            chains.emplace_back(freshName<objects::Line>(document, "Line"),
                                survey::chainByNumber(points->set, members));
        if (chains.empty()) return badInput("no two of these points have the same code");
        Document next = document;
        for (const auto& [name, chain] : chains)
            next = operations::connectPoints(
                next, set, chain,
                next.byName<objects::Line>(name) ? freshName<objects::Line>(next, name) : name);
        const auto made = difference(document, next).changed.size();
        return Edited(next, "Connect points into " + std::to_string(made) + (made == 1 ? " line" : " lines"));
    };
}

Edit addPoint(survey::SurveyPoint point) {
    return [point = std::move(point)](const Document& d) -> Result<Edited> {
        const auto sets = d.all<objects::Points>();
        return operations::addPoints(d, sets.empty() ? "Points" : d.nameOf(sets.front()), {point});
    };
}

Edit setTypedHeight(const Results& seen, objects::PointRef ref, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* points = d.get<objects::Points>(ref.set);
        if (points == nullptr || ref.index >= points->set.size()) return badInput("the point is gone");
        const auto& p = points->set[ref.index];
        if (text.find_first_not_of(' ') == std::string::npos)
            return operations::setPointHeight(d, ref, std::nullopt);
        const auto typed = parseHeightEntry(text);
        if (!typed) return tl::unexpected(typed.error());
        if (const auto* h = std::get_if<TypedHeight>(&*typed))
            return operations::setPointHeight(d, ref, h->height);
        if (const auto* r = std::get_if<TypedRise>(&*typed); r != nullptr && p.height)
            return operations::setPointHeight(d, ref, *p.height + r->rise);
        if (const auto* s = std::get_if<TypedSurface>(&*typed)) {
            const auto* surface = seen->surface(d.byName<objects::Surface>(s->surface));
            const auto h = surface == nullptr ? std::nullopt : surface->heightAt(p.plan);
            if (!h) return badInput("there is no surface '" + s->surface + "' here");
            return operations::setPointHeight(d, ref, *h + s->amount);
        }
        return badInput("a point takes a height, a rise like +0.15, or =Surface");
    };
}

Edit newSurface(std::vector<ObjectId> chosen) {
    return [chosen = std::move(chosen)](const Document& d) -> Result<Edited> {
        std::vector<objects::Source> sources;
        const auto add = [&](ObjectId id) {
            if (std::any_of(sources.begin(), sources.end(), [&](const auto& s) { return s.object == id; }))
                return;
            if (d.get<objects::Points>(id) != nullptr) sources.push_back({id, objects::Role::Points});
            if (d.get<objects::Line>(id) != nullptr) sources.push_back({id, objects::Role::Breakline});
        };
        for (const ObjectId id : chosen) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<objects::Points>()) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<objects::Line>()) add(id);
        if (sources.empty()) return badInput("there are no points or lines yet");
        const std::string name =
            d.byName<objects::Surface>("Ground") ? freshName<objects::Surface>(d, "Surface") : "Ground";
        return operations::addSurface(d, name, sources);
    };
}

Edit addRole(ObjectId surface, ObjectId line, objects::Role role) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Surface>(surface) == nullptr) return badInput("there is no surface yet");
        const auto* on = d.get<objects::Line>(line);
        if (on == nullptr) return badInput("pick a line");
        if (objects::isRing(role) && !on->line.closed)
            return badInput(role == objects::Role::Edge ? "the edge must be a closed line"
                                                        : "pick a closed line");
        return operations::addSource(d, surface, {line, role});
    };
}

Edit setRoles(ObjectId surface, std::vector<ObjectId> lines, objects::Role role) {
    return [surface, lines = std::move(lines), role](const Document& given) -> Result<Edited> {
        const auto* payload = given.get<objects::Surface>(surface);
        if (payload == nullptr) return badInput("the surface is gone");
        Document d = given;
        for (objects::Source s : payload->definition->sources) {
            if (std::find(lines.begin(), lines.end(), s.object) == lines.end()) continue;
            const auto* on = given.get<objects::Line>(s.object);
            if (objects::isRing(role) && (on == nullptr || !on->line.closed))
                return badInput("'" + given.nameOf(s.object) + "' is not closed");
            s.role = role;
            d = setSource(d, surface, s);
        }
        return d;
    };
}

Edit removeSource(ObjectId surface, ObjectId object) {
    return [=](const Document& d) -> Result<Edited> {
        if (!operations::hasSource(d, surface, object))
            return badInput("this line is no source of the surface");
        return operations::removeSource(d, surface, object);
    };
}

Edit ownEdit(const Results& seen, ObjectId surface, objects::SurfaceEdit edit) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Surface>(surface) == nullptr) return badInput("there is no surface to edit");
        const auto tried = operations::tryEdit(*seen, surface, edit);
        if (!tried) return tl::unexpected(tried.error());
        return operations::addEdit(d, surface, edit);
    };
}

Edit surfaceFromDense(ObjectId dense, const std::vector<ObjectId>& closedLines) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Cloud>(dense) == nullptr && d.get<objects::HeightRaster>(dense) == nullptr)
            return badInput("import a cloud or a raster first");
        return Edited(operations::addThinnedSurface(d, dense, closedLines),
                      "Surface from " + d.nameOf(dense));
    };
}

Edit runoffLine(const Results& seen, ObjectId surface, Vec2 from) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        if (locator == nullptr) return badInput("there is no surface yet");
        const auto path = terrain::dropPath(*locator, from);
        if (path.end == terrain::DropEnd::NotOnSurface)
            return badInput("the surface does not reach this place");
        if (path.places.size() < 2)
            return badInput("the water stays where it falls: the ground is level or a hollow");
        std::vector<Vec2> corners;
        std::vector<std::optional<double>> heights;
        for (const Vec3& p : path.places) {
            corners.push_back(p.plan());
            heights.emplace_back(p.z);
        }
        Document next = d;
        ObjectId group = next.byName<objects::Group>("Runoff");
        if (!group) next = next.added("Runoff", objects::Group{"#2C6E68"}, &group);
        return next.added(freshName<objects::Line>(next, "Runoff line"),
                          objects::Line{linework::lineThrough(corners, heights), objects::LineStyle::Plain},
                          nullptr, group);
    };
}

Edit addParts(operations::Parts parts) {
    return [parts = std::move(parts)](const Document& d) -> Result<Edited> {
        return std::move(operations::withParts(d, parts).document);
    };
}

namespace {

/// Parts that are taken when the edit is done.
Edit take(const Results& seen, ObjectId surface, const ExtractOptions& options) {
    return [=](const Document& d) -> Result<Edited> {
        auto parts = operations::partsOf(*seen, surface, options);
        if (!parts) return tl::unexpected(parts.error());
        return std::move(operations::withParts(d, std::move(*parts)).document);
    };
}

}  // namespace

Edit contourAt(const Results& seen, ObjectId surface, Vec2 place) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        const auto height = locator == nullptr ? std::nullopt : locator->heightAt(place);
        if (!height) return badInput("the surface does not reach this place");
        const double interval = seen->document.get<objects::Surface>(surface)->style.interval;
        operations::ExtractOptions options;
        options.what = operations::Extract::Contours;
        options.levels = {std::round(*height / interval) * interval};
        return take(seen, surface, options)(d);
    };
}

Edit triangleAt(const Results& seen, ObjectId surface, Vec2 place) {
    operations::ExtractOptions options;
    options.what = operations::Extract::Triangles;
    options.picked = {place};
    return take(seen, surface, options);
}

Result<std::vector<Vec2>> ringOf(const Derived& derived, ObjectId id) {
    const auto* line = Derived::in(derived.lines, id);
    if (line == nullptr || !line->closed) return badInput("pick a closed line");
    return derive::boundaryAlong(*line, derive::breaklineSagitta).ring;
}

Edit cropCloud(const Results& seen, ObjectId cloud, ObjectId line) {
    return [=](const Document& d) -> Result<Edited> {
        const auto ring = ringOf(*seen, line);
        if (!ring) return tl::unexpected(ring.error());
        return document::changed<objects::Cloud>(d, cloud,
                                                 [&](objects::Cloud& c) { c.filter.inside = *ring; });
    };
}

Result<std::vector<Vec3>> gridOf(const Derived& derived, ObjectId source, ObjectId line, double spacing) {
    const auto ring = ringOf(derived, line);
    if (!ring) return tl::unexpected(ring.error());
    geometry::Box box;
    for (const Vec2 p : *ring) box.add(p);
    if (box.width() * box.height() / (spacing * spacing) > 1e6)
        return badInput("that would be more than a million points; take a wider spacing");
    const auto dense = derive::denseSurface(derived, source, box);
    if (!dense) return tl::unexpected(dense.error());
    auto places = terrain::sampleOnGrid(**dense, spacing, *ring);
    if (!places) return tl::unexpected(places.error());
    if (places->empty()) return badInput("there are no heights inside this line");
    return std::move(*places);
}

Edit addGrid(ObjectId source, std::vector<Vec3> places) {
    return [source, places = std::move(places)](const Document& d) -> Result<Edited> {
        std::vector<survey::SurveyPoint> points;
        for (const Vec3& p : places)
            points.push_back({"G" + std::to_string(points.size() + 1), p.plan(), p.z, "", ""});
        return d.added(freshName<objects::Points>(d, "Grid of " + d.nameOf(source)),
                       objects::Points{survey::PointSet(std::move(points))});
    };
}

Edit remove(std::vector<ObjectId> objects, std::vector<objects::PointRef> points) {
    return [objects = std::move(objects), points = std::move(points)](const Document& d) -> Result<Edited> {
        return operations::removePoints(document::removeAll(d, objects), points);
    };
}

Edit accept(document::Accepted accepted) {
    return [accepted = std::move(accepted)](const Document& d) -> Result<Edited> {
        return operations::accept(d, accepted);
    };
}

Edit takeBackAcceptance(document::Accepted accepted) {
    return changeSettings(
        [accepted = std::move(accepted)](document::Settings& s) { std::erase(s.accepted, accepted); });
}

Edit changeSettings(std::function<void(document::Settings&)> change) {
    return [change = std::move(change)](const Document& d) -> Result<Edited> {
        auto settings = d.settings();
        change(settings);
        return settings == d.settings() ? d : d.withSettings(std::move(settings));
    };
}

}  // namespace erdwerk::operations
