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
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/dense.h"
#include "core/survey/points.h"
#include "core/terrain/drop.h"
#include "core/terrain/sampling.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Vec2;
using geometry::Vec3;

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

Edit addParts(Parts parts) {
    return [parts = std::move(parts)](const Document& d) -> Result<Edited> {
        return std::move(withParts(d, parts).document);
    };
}

namespace {

/// Parts that are taken when the edit is done.
Edit take(const Results& seen, ObjectId surface, const ExtractOptions& options) {
    return [=](const Document& d) -> Result<Edited> {
        auto parts = partsOf(*seen, surface, options);
        if (!parts) return tl::unexpected(parts.error());
        return std::move(withParts(d, std::move(*parts)).document);
    };
}

}  // namespace

Edit contourAt(const Results& seen, ObjectId surface, Vec2 place) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        const auto height = locator == nullptr ? std::nullopt : locator->heightAt(place);
        if (!height) return badInput("the surface does not reach this place");
        const double interval = seen->document.get<objects::Surface>(surface)->style.interval;
        ExtractOptions options;
        options.what = Extract::Contours;
        options.levels = {std::round(*height / interval) * interval};
        return take(seen, surface, options)(d);
    };
}

Edit triangleAt(const Results& seen, ObjectId surface, Vec2 place) {
    ExtractOptions options;
    options.what = Extract::Triangles;
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

}  // namespace erdwerk::operations
