#include "core/operations/dense.h"

#include <cmath>

#include "core/linework/line3d.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/terrain/ground.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

Edit addCreases(std::vector<terrain::Crease> creases, const std::string& crestGroup,
                const std::string& toeGroup) {
    return [=, creases = std::move(creases)](const Document& document) -> Result<Edited> {
        Document next = document;
        for (const terrain::Crease& crease : creases) {
            const bool crest = crease.kind == terrain::CreaseKind::Crest;
            if (crease.places.size() < (crease.closed ? 3U : 2U)) continue;
            ObjectId group = next.byName<Group>(crest ? crestGroup : toeGroup);
            if (!group) next = next.added(crest ? crestGroup : toeGroup, Group{"#3F5C73"}, &group);
            std::vector<Vec2> corners;
            std::vector<std::optional<double>> heights;
            for (const Vec3& p : crease.places) {
                corners.push_back(p.plan());
                heights.emplace_back(p.z);
            }
            next = next.added(freshName<Line>(next, crest ? "Crest" : "Toe"),
                              Line{linework::lineThrough(corners, heights, crease.closed),
                                   crest ? LineStyle::Crest : LineStyle::Toe},
                              nullptr, group);
        }
        return next;
    };
}

Edit surfaceFromDense(ObjectId dense, const std::vector<ObjectId>& closedLines) {
    return [=](const Document& document) -> Result<Edited> {
        const bool cloud = document.get<Cloud>(dense) != nullptr;
        if (!cloud && document.get<HeightRaster>(dense) == nullptr)
            return badInput("import a cloud or a raster first");
        SurfaceDefinition definition;
        // Lines come first: they hold where points beside them differ.
        for (const char* group : {"Crests", "Toes"})
            if (const ObjectId lines = document.byName<Group>(group))
                definition.sources.push_back({lines, Role::Breakline});
        for (const ObjectId edge : closedLines) definition.sources.push_back({edge, Role::Edge, true, false});
        definition.sources.push_back({dense, cloud ? Role::Cloud : Role::Raster});
        definition.tolerance = std::round(0.1 / metresPer(document.settings().display.unit) * 1000) / 1000;
        Surface surface;
        surface.fit = {dense, definition.tolerance};
        surface.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
        return Edited(document.added(freshName<Surface>(document, "From " + document.nameOf(dense)),
                                     std::move(surface)),
                      "Surface from " + document.nameOf(dense));
    };
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

document::LongEdit classify(ObjectId cloud, std::vector<Vec2> ring, std::uint8_t classNumber) {
    return [cloud, ring = std::move(ring), classNumber](const Document& document,
                                                        const Context& context) -> Result<Edited> {
        const auto* payload = document.get<Cloud>(cloud);
        if (payload == nullptr || !payload->cloud) return badInput("the cloud is gone");
        if (ring.size() < 3) return badInput("pick a closed line");
        Box box;
        for (const Vec2 p : ring) box.add(p);
        std::vector<std::uint8_t> classes(payload->cloud->size());
        bool differs = false;
        for (std::size_t i = 0; i < classes.size(); ++i) {
            if (i % 100'000 == 0) {
                if (context.isCancelled()) return cancelled();
                context.report(static_cast<double>(i) / static_cast<double>(classes.size()));
            }
            const Vec2 p = payload->cloud->place(i).plan();
            classes[i] = payload->cloud->classOf(i);
            if (classes[i] == classNumber || !box.contains(p) ||
                geometry::sideOf(ring, p) == geometry::Side::Outside)
                continue;
            classes[i] = classNumber;
            differs = true;
        }
        return differs ? withClasses(document, cloud, std::move(classes)) : document;
    };
}

Edit keepGround(ObjectId cloud, std::shared_ptr<const survey::PointCloud> seen,
                std::vector<std::uint8_t> classes) {
    return [cloud, seen = std::move(seen),
            classes = std::move(classes)](const Document& d) -> Result<Edited> {
        const auto* payload = d.get<Cloud>(cloud);
        if (payload == nullptr || seen == nullptr || payload->cloud != seen || classes.size() != seen->size())
            return badInput("the cloud changed meanwhile; look again");
        return changed<Cloud>(withClasses(d, cloud, classes), cloud,
                              [](Cloud& c) { c.filter.classes = {survey::cloud_class::ground}; });
    };
}

}  // namespace erdwerk::operations
