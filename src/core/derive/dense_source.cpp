#include "core/derive/dense_source.h"

#include <cmath>

#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/objects/cloud.h"
#include "core/objects/height_raster.h"
#include "core/survey/cloud.h"
#include "core/survey/cloud_tiles.h"
#include "core/terrain/sampling.h"

namespace erdwerk::derive {

using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

namespace {

/// About as many nodes as a field is worked out for while somebody waits.
constexpr double mostNodes = 4e6;
/// Points of a cloud that are triangulated for it; more are thinned evenly.
constexpr std::size_t mostPoints = 6'000'000;

const Cloud* cloudOf(const Derived& derived, ObjectId id) {
    const auto* cloud = derived.document.get<Cloud>(id);
    return cloud != nullptr && cloud->cloud && !cloud->cloud->empty() ? cloud : nullptr;
}

const survey::Raster* rasterOf(const Derived& derived, ObjectId id) {
    const auto* raster = derived.document.get<HeightRaster>(id);
    return raster != nullptr ? raster->raster.get() : nullptr;
}

Box widened(const Box& box, double by) {
    Box out = box;
    out.add(Vec2{box.minX - by, box.minY - by});
    out.add(Vec2{box.maxX + by, box.maxY + by});
    return out;
}

}  // namespace

double spacingOf(const Derived& derived, ObjectId source) {
    if (const auto* cloud = cloudOf(derived, source)) return cloud->cloud->spacing();
    if (const auto* raster = rasterOf(derived, source)) return raster->cell();
    const auto* surface = derived.surface(source);
    return surface == nullptr ? 0 : terrain::meanSpacing(surface->tin());
}

Box boundsOf(const Derived& derived, ObjectId source) {
    if (const auto* cloud = cloudOf(derived, source)) return cloud->cloud->bounds();
    if (const auto* raster = rasterOf(derived, source)) return raster->bounds();
    const auto* surface = derived.surface(source);
    return surface == nullptr ? Box{} : surface->tin().bounds();
}

Result<std::shared_ptr<const terrain::TinLocator>> denseSurface(const Derived& derived, ObjectId source,
                                                                const Box& area, const Context& context) {
    if (const auto it = derived.surfaces.find(source); it != derived.surfaces.end() && it->second->locator)
        return it->second->locator;
    const Box window = widened(area, 10 * spacingOf(derived, source));
    terrain::BuildInput input;
    if (const auto* cloud = cloudOf(derived, source)) {
        const survey::CloudPart part(*cloud->cloud, cloud->filter);
        const auto take = [&](std::uint32_t i) {
            const Vec3 p = cloud->cloud->place(i);
            if (window.contains(p.plan()) && part.has(i)) input.points.push_back(p);
        };
        if (const auto* tiles = Derived::in(derived.clouds, source)) {
            // The tiles hold the same points, which may have other classes by now.
            tiles->sample(window, mostPoints, take);
        } else {
            for (std::size_t i = 0; i < cloud->cloud->size(); ++i) take(static_cast<std::uint32_t>(i));
        }
    } else if (const auto* raster = rasterOf(derived, source)) {
        for (const Vec3& p : raster->places())
            if (window.contains(p.plan())) input.points.push_back(p);
    } else {
        return badInput("pick a cloud, a raster or a surface");
    }
    if (input.points.size() < 3) return badInput("there are no heights here");
    auto built = terrain::build(std::move(input), context);
    if (!built) return tl::unexpected(built.error());
    return std::make_shared<const terrain::TinLocator>(
        std::make_shared<const terrain::Tin>(std::move(built->tin)));
}

Result<terrain::CreaseField> creaseField(const Derived& derived, ObjectId source, const Box& area,
                                         const Context& context) {
    const auto surface = denseSurface(derived, source, area, context);
    if (!surface) return tl::unexpected(surface.error());
    Box box = (*surface)->tin().bounds();
    box.minX = std::max(box.minX, area.minX);
    box.minY = std::max(box.minY, area.minY);
    box.maxX = std::min(box.maxX, area.maxX);
    box.maxY = std::min(box.maxY, area.maxY);
    if (box.empty() || box.width() <= 0 || box.height() <= 0) return badInput("there are no heights here");
    const double cell =
        std::max(spacingOf(derived, source), std::sqrt(box.width() * box.height() / mostNodes));
    auto grid = terrain::gridOf(**surface, box, cell, context);
    if (!grid) return tl::unexpected(grid.error());
    return terrain::CreaseField(std::move(*grid));
}

std::optional<double> denseHeight(const Derived& derived, ObjectId source, Vec2 place) {
    if (const auto* surface = derived.surface(source)) return surface->heightAt(place);
    if (const auto* raster = rasterOf(derived, source)) return raster->heightAt(place);
    const auto* cloud = cloudOf(derived, source);
    if (cloud == nullptr) return std::nullopt;
    const double reach = 3 * cloud->cloud->spacing();
    Box window;
    window.add(place);
    const auto local = denseSurface(derived, source, widened(window, reach));
    if (local)
        if (const auto h = (*local)->heightAt(place)) return h;
    const auto* tiles = Derived::in(derived.clouds, source);
    const auto nearest = tiles == nullptr ? std::nullopt : tiles->nearest(place, reach);
    return nearest ? std::optional(tiles->cloud().place(*nearest).z) : std::nullopt;
}

std::vector<SlicePoint> sliceOf(const Derived& derived, ObjectId cloud, const geometry::Path& path,
                                double halfWidth, std::size_t most) {
    std::vector<SlicePoint> out;
    const auto* payload = cloudOf(derived, cloud);
    const auto* tiles = Derived::in(derived.clouds, cloud);
    if (payload == nullptr || tiles == nullptr) return out;
    const survey::CloudPart part(*payload->cloud, payload->filter);
    double before = 0;
    for (const geometry::Segment& element : path) {
        const double length = lengthOf(element);
        if (length == 0) continue;
        // In pieces, so that a slanting line does not ask for the whole box around it.
        const double wanted = std::min(64.0, length / std::max(10 * halfWidth, 1e-9));
        const auto pieces = std::max(isCurved(element) ? 16 : 1, static_cast<int>(std::ceil(wanted)));
        for (int k = 0; k < pieces; ++k) {
            const double from = static_cast<double>(k) / pieces;
            const double to = static_cast<double>(k + 1) / pieces;
            const Box box = boundsOf(geometry::part(element, from, to)).grown(halfWidth);
            tiles->near(box, [&](std::uint32_t i) {
                const Vec3 p = payload->cloud->place(i);
                if (!box.contains(p.plan())) return;
                const double at = nearestFraction(element, p.plan());
                if (at < from || (k + 1 == pieces ? at > to : at >= to) || !part.has(i)) return;
                const Vec2 off = p.plan() - pointAt(element, at);
                if (geometry::length(off) > halfWidth) return;
                // Beyond an end the nearest place is the end, but not at right angles.
                const Vec2 along = geometry::directionOf(tangentAt(element, at));
                if (std::abs(geometry::dot(off, along)) > 1e-6) return;
                out.push_back({before + at * length, p.z});
            });
        }
        before += length;
    }
    if (out.size() > most) {
        const std::size_t every = out.size() / most + 1;
        std::size_t n = 0;
        for (std::size_t i = 0; i < out.size(); i += every) out[n++] = out[i];
        out.resize(n);
    }
    return out;
}

ObjectId fitSource(const Document& document, ObjectId surface) {
    const auto* payload = document.get<Surface>(surface);
    if (payload == nullptr || payload->fit.source)
        return payload == nullptr ? ObjectId{} : payload->fit.source;
    for (const Source& s : expandedSources(document, *payload->definition))
        if (s.role == Role::Cloud || s.role == Role::Raster) return s.object;
    return {};
}

}  // namespace erdwerk::derive
