#include "core/operations/dense.h"

#include <cmath>

#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/terrain/ground.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

Document addCreases(const Document& document, const std::vector<terrain::Crease>& creases,
                    const std::string& crestGroup, const std::string& toeGroup, std::vector<ObjectId>* made) {
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
        ObjectId id;
        next = next.added(freshName<Line>(next, crest ? "Crest" : "Toe"),
                          Line{linework::lineThrough(corners, heights, crease.closed),
                               crest ? LineStyle::Crest : LineStyle::Toe},
                          &id, group);
        if (made != nullptr) made->push_back(id);
    }
    return next;
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

document::Edit keepGround(ObjectId cloud, std::shared_ptr<const survey::PointCloud> seen,
                          std::vector<std::uint8_t> classes) {
    return [cloud, seen = std::move(seen),
            classes = std::move(classes)](const Document& d) -> Result<document::Edited> {
        const auto* payload = d.get<Cloud>(cloud);
        if (payload == nullptr || seen == nullptr || payload->cloud != seen || classes.size() != seen->size())
            return badInput("the cloud changed meanwhile; look again");
        return changed<Cloud>(withClasses(d, cloud, classes), cloud,
                              [](Cloud& c) { c.filter.classes = {survey::cloud_class::ground}; });
    };
}

}  // namespace erdwerk::operations
