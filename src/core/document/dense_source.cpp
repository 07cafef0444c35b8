#include "core/document/dense_source.h"

#include <cmath>

#include "core/document/edit.h"
#include "core/document/surface_build.h"
#include "core/terrain/ground.h"
#include "core/terrain/sampling.h"

namespace erdwerk::document {

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

Document addCreases(const Document& document, const std::vector<terrain::Crease>& creases,
                    const std::string& crestGroup, const std::string& toeGroup, std::vector<ObjectId>* made) {
    Document next = document;
    for (const terrain::Crease& crease : creases) {
        const bool crest = crease.kind == terrain::CreaseKind::Crest;
        if (crease.places.size() < (crease.closed ? 3U : 2U)) continue;
        ObjectId group = next.byName<Group>(crest ? crestGroup : toeGroup);
        if (!group) next = next.added(crest ? crestGroup : toeGroup, Group{"#3F5C73", true}, &group);
        std::vector<Vec2> corners;
        std::vector<std::optional<double>> heights;
        for (const Vec3& p : crease.places) {
            corners.push_back(p.plan());
            heights.emplace_back(p.z);
        }
        ObjectId id;
        next = next.added(freshName<Line>(next, crest ? "Crest" : "Toe"),
                          Line{linework::lineThrough(corners, heights, crease.closed),
                               crest ? LineStyle::Crest : LineStyle::Toe},
                          &id, group);
        if (made != nullptr) made->push_back(id);
    }
    return next;
}

std::vector<SlicePoint> sliceOf(const Derived& derived, ObjectId cloud, const std::vector<Vec2>& chain,
                                double halfWidth, std::size_t most) {
    std::vector<SlicePoint> out;
    const auto* payload = cloudOf(derived, cloud);
    const auto* tiles = Derived::in(derived.clouds, cloud);
    if (payload == nullptr || tiles == nullptr) return out;
    const survey::CloudPart part(*payload->cloud, payload->filter);
    double before = 0;
    for (std::size_t k = 1; k < chain.size(); ++k) {
        const Vec2 a = chain[k - 1];
        const double length = geometry::distance(a, chain[k]);
        if (length == 0) continue;
        const Vec2 along = (chain[k] - a) * (1 / length);
        // In pieces, so that a slanting line does not ask for the whole box around it.
        const double step = std::max(10 * halfWidth, length / 64);
        for (double from = 0; from < length; from += step) {
            const double to = std::min(length, from + step);
            Box box;
            box.add(a + along * from);
            box.add(a + along * to);
            tiles->near(widened(box, halfWidth), [&](std::uint32_t i) {
                const Vec3 p = payload->cloud->place(i);
                const double station = geometry::dot(p.plan() - a, along);
                const bool last = to == length;
                if (station < from || (last ? station > to : station >= to)) return;
                if (std::abs(geometry::cross(along, p.plan() - a)) > halfWidth || !part.has(i)) return;
                out.push_back({before + station, p.z});
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

Document addThinnedSurface(const Document& document, ObjectId dense, const std::vector<ObjectId>& edges,
                           ObjectId* id) {
    const bool cloud = document.get<Cloud>(dense) != nullptr;
    if (!cloud && document.get<HeightRaster>(dense) == nullptr) return document;
    // Lines come first: they hold where points beside them differ.
    std::vector<Source> sources;
    for (const char* group : {"Crests", "Toes"})
        if (const ObjectId lines = document.byName<Group>(group)) sources.push_back({lines, Role::Breakline});
    for (const ObjectId edge : edges) sources.push_back({edge, Role::Edge, true, false});
    sources.push_back({dense, cloud ? Role::Cloud : Role::Raster});
    ObjectId made;
    Document next =
        addSurface(document, freshName<Surface>(document, "From " + document.nameOf(dense)), sources, &made);
    const double tolerance = std::round(0.1 / metresPer(document.settings().display.unit) * 1000) / 1000;
    next = changeDefinition(next, made, [&](auto& definition) { definition.tolerance = tolerance; });
    if (id != nullptr) *id = made;
    return changed<Surface>(next, made, [&](Surface& s) { s.fit = {dense, tolerance}; });
}

ObjectId fitSource(const Document& document, ObjectId surface) {
    const auto* payload = document.get<Surface>(surface);
    if (payload == nullptr || payload->fit.source)
        return payload == nullptr ? ObjectId{} : payload->fit.source;
    for (const Source& s : expandedSources(document, *payload->definition))
        if (s.role == Role::Cloud || s.role == Role::Raster) return s.object;
    return {};
}

namespace {

Document withClasses(const Document& document, ObjectId cloud, std::vector<std::uint8_t> classes) {
    return changed<Cloud>(document, cloud, [&](Cloud& c) {
        auto shared = std::shared_ptr<std::uint8_t[]>(new std::uint8_t[classes.size()]);
        std::copy(classes.begin(), classes.end(), shared.get());
        c.cloud = std::make_shared<const survey::PointCloud>(c.cloud->withClasses(std::move(shared)));
        c.classified = true;
    });
}

}  // namespace

Document classify(const Document& document, ObjectId cloud, const std::vector<Vec2>& ring,
                  std::uint8_t classNumber) {
    const auto* payload = document.get<Cloud>(cloud);
    if (payload == nullptr || !payload->cloud || ring.size() < 3) return document;
    Box box;
    for (const Vec2 p : ring) box.add(p);
    std::vector<std::uint8_t> classes(payload->cloud->size());
    bool differs = false;
    for (std::size_t i = 0; i < classes.size(); ++i) {
        const Vec2 p = payload->cloud->place(i).plan();
        classes[i] = payload->cloud->classOf(i);
        if (classes[i] == classNumber || !box.contains(p) ||
            geometry::sideOf(ring, p) == geometry::Side::Outside)
            continue;
        classes[i] = classNumber;
        differs = true;
    }
    return differs ? withClasses(document, cloud, std::move(classes)) : document;
}

Result<Document> classifyGround(const Document& document, ObjectId cloud, const Context& context) {
    const auto* payload = document.get<Cloud>(cloud);
    if (payload == nullptr || !payload->cloud) return badInput("pick a cloud");
    auto classes = terrain::groundClasses(*payload->cloud, {}, context);
    if (!classes) return tl::unexpected(classes.error());
    return withClasses(document, cloud, std::move(*classes));
}

}  // namespace erdwerk::document
