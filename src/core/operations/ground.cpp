#include "core/operations/ground.h"

#include <algorithm>
#include <cmath>

#include "core/base/notation.h"
#include "core/document/dense_source.h"
#include "core/document/edge.h"
#include "core/document/edit.h"
#include "core/document/mend.h"
#include "core/terrain/drop.h"
#include "core/terrain/sampling.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Vec2;
using geometry::Vec3;

Edit connectPoints(ObjectId set, std::vector<std::size_t> members, bool byCode) {
    return [set, members = std::move(members), byCode](const Document& document) -> Result<Edited> {
        const auto* points = document.get<document::Points>(set);
        if (points == nullptr || members.size() < 2) return badInput("select at least two survey points");
        for (const std::size_t i : members)
            if (i >= points->set.size()) return badInput("one of these points is gone");
        std::vector<std::pair<std::string, survey::Chain>> chains;
        if (byCode)
            chains = survey::chainsByCode(points->set, members);
        else
            chains.emplace_back(freshName<document::Line>(document, "Line"),
                                survey::chainByNumber(points->set, members));
        if (chains.empty()) return badInput("no two of these points have the same code");
        Document next = document;
        for (const auto& [name, chain] : chains)
            next = document::connectPoints(
                next, set, chain,
                next.byName<document::Line>(name) ? freshName<document::Line>(next, name) : name);
        const auto made = difference(document, next).changed.size();
        return Edited(next, "Connect points into " + std::to_string(made) + (made == 1 ? " line" : " lines"));
    };
}

Edit addPoint(survey::SurveyPoint point) {
    return [point = std::move(point)](const Document& d) -> Result<Edited> {
        const auto sets = d.all<document::Points>();
        return document::addPoints(d, sets.empty() ? "Points" : d.nameOf(sets.front()), {point});
    };
}

Edit setTypedHeight(Results seen, document::PointRef ref, std::string text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* points = d.get<document::Points>(ref.set);
        if (points == nullptr || ref.index >= points->set.size()) return badInput("the point is gone");
        const auto& p = points->set[ref.index];
        if (text.find_first_not_of(' ') == std::string::npos)
            return document::setPointHeight(d, ref, std::nullopt);
        const auto typed = parseHeightEntry(text);
        if (!typed) return tl::unexpected(typed.error());
        if (const auto* h = std::get_if<TypedHeight>(&*typed))
            return document::setPointHeight(d, ref, h->height);
        if (const auto* r = std::get_if<TypedRise>(&*typed); r != nullptr && p.height)
            return document::setPointHeight(d, ref, *p.height + r->rise);
        if (const auto* s = std::get_if<TypedSurface>(&*typed)) {
            const auto* surface = seen->surface(d.byName<document::Surface>(s->surface));
            const auto h = surface == nullptr ? std::nullopt : surface->heightAt(p.plan);
            if (!h) return badInput("there is no surface '" + s->surface + "' here");
            return document::setPointHeight(d, ref, *h + s->amount);
        }
        return badInput("a point takes a height, a rise like +0.15, or =Surface");
    };
}

Edit newSurface(std::vector<ObjectId> chosen) {
    return [chosen = std::move(chosen)](const Document& d) -> Result<Edited> {
        std::vector<document::Source> sources;
        const auto add = [&](ObjectId id) {
            if (std::any_of(sources.begin(), sources.end(), [&](const auto& s) { return s.object == id; }))
                return;
            if (d.get<document::Points>(id) != nullptr) sources.push_back({id, document::Role::Points});
            if (d.get<document::Line>(id) != nullptr) sources.push_back({id, document::Role::Breakline});
        };
        for (const ObjectId id : chosen) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<document::Points>()) add(id);
        if (sources.empty())
            for (const ObjectId id : d.all<document::Line>()) add(id);
        if (sources.empty()) return badInput("there are no points or lines yet");
        const std::string name =
            d.byName<document::Surface>("Ground") ? freshName<document::Surface>(d, "Surface") : "Ground";
        return document::addSurface(d, name, sources);
    };
}

Edit addRole(ObjectId surface, ObjectId line, document::Role role) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<document::Surface>(surface) == nullptr) return badInput("there is no surface yet");
        const auto* on = d.get<document::Line>(line);
        if (on == nullptr) return badInput("pick a line");
        if (document::isRing(role) && !on->line.closed)
            return badInput(role == document::Role::Edge ? "the edge must be a closed line"
                                                         : "pick a closed line");
        return document::addSource(d, surface, {line, role});
    };
}

Edit removeSource(ObjectId surface, ObjectId object) {
    return [=](const Document& d) -> Result<Edited> {
        if (!document::hasSource(d, surface, object))
            return badInput("this line is no source of the surface");
        return document::removeSource(d, surface, object);
    };
}

Edit ownEdit(Results seen, ObjectId surface, document::SurfaceEdit edit) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<document::Surface>(surface) == nullptr) return badInput("there is no surface to edit");
        const auto tried = document::tryEdit(*seen, surface, edit);
        if (!tried) return tl::unexpected(tried.error());
        return document::addEdit(d, surface, edit);
    };
}

Edit surfaceFromDense(ObjectId dense, std::vector<ObjectId> closedLines) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<document::Cloud>(dense) == nullptr && d.get<document::HeightRaster>(dense) == nullptr)
            return badInput("import a cloud or a raster first");
        return Edited(document::addThinnedSurface(d, dense, closedLines), "Surface from " + d.nameOf(dense));
    };
}

Edit runoffLine(Results seen, ObjectId surface, Vec2 from) {
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
        ObjectId group = next.byName<document::Group>("Runoff");
        if (!group) next = next.added("Runoff", document::Group{"#2C6E68", true}, &group);
        return next.added(freshName<document::Line>(next, "Runoff line"),
                          document::Line{linework::lineThrough(corners, heights), document::LineStyle::Plain},
                          nullptr, group);
    };
}

Edit addParts(document::Parts parts) {
    return [parts = std::move(parts)](const Document& d) -> Result<Edited> {
        return std::move(document::withParts(d, parts).document);
    };
}

namespace {

/// Parts that are taken when the edit is done.
Edit take(Results seen, ObjectId surface, document::ExtractOptions options) {
    return [=](const Document& d) -> Result<Edited> {
        auto parts = document::partsOf(*seen, surface, options);
        if (!parts) return tl::unexpected(parts.error());
        return std::move(document::withParts(d, std::move(*parts)).document);
    };
}

}  // namespace

Edit contourAt(Results seen, ObjectId surface, Vec2 place) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        const auto height = locator == nullptr ? std::nullopt : locator->heightAt(place);
        if (!height) return badInput("the surface does not reach this place");
        const double interval = seen->document.get<document::Surface>(surface)->style.interval;
        document::ExtractOptions options;
        options.what = document::Extract::Contours;
        options.levels = {std::round(*height / interval) * interval};
        return take(seen, surface, options)(d);
    };
}

Edit triangleAt(Results seen, ObjectId surface, Vec2 place) {
    document::ExtractOptions options;
    options.what = document::Extract::Triangles;
    options.picked = {place};
    return take(std::move(seen), surface, options);
}

Result<std::vector<Vec2>> ringOf(const Derived& derived, ObjectId id) {
    const auto* line = Derived::in(derived.lines, id);
    if (line == nullptr || !line->closed) return badInput("pick a closed line");
    return document::boundaryAlong(*line, document::breaklineSagitta).ring;
}

Edit cropCloud(Results seen, ObjectId cloud, ObjectId line) {
    return [=](const Document& d) -> Result<Edited> {
        const auto ring = ringOf(*seen, line);
        if (!ring) return tl::unexpected(ring.error());
        return document::changed<document::Cloud>(d, cloud,
                                                  [&](document::Cloud& c) { c.filter.inside = *ring; });
    };
}

Result<std::vector<Vec3>> gridOf(const Derived& derived, ObjectId source, ObjectId line, double spacing) {
    const auto ring = ringOf(derived, line);
    if (!ring) return tl::unexpected(ring.error());
    geometry::Box box;
    for (const Vec2 p : *ring) box.add(p);
    if (box.width() * box.height() / (spacing * spacing) > 1e6)
        return badInput("that would be more than a million points; take a wider spacing");
    const auto dense = document::denseSurface(derived, source, box);
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
        return d.added(freshName<document::Points>(d, "Grid of " + d.nameOf(source)),
                       document::Points{survey::PointSet(std::move(points))});
    };
}

Edit remove(std::vector<ObjectId> objects, std::vector<document::PointRef> points) {
    return [objects = std::move(objects), points = std::move(points)](const Document& d) -> Result<Edited> {
        return document::removePoints(document::removeAll(d, objects), points);
    };
}

Edit accept(document::Accepted accepted) {
    return [accepted = std::move(accepted)](const Document& d) -> Result<Edited> {
        return document::accept(d, accepted);
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
