#include "core/derive/dense_source.h"
#include "core/operations/dense.h"

#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/survey/raster.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::derive {
namespace {

using namespace document;
using namespace operations;

using geometry::Vec3;
using test::valueOf;

/// A roof: ridge along y = 20, falling 1 in 1 to both sides, points every half unit, half of them class 5.
struct Roof {
    Document document;
    ObjectId cloud;
    Derived derived;

    Roof() {
        std::vector<Vec3> places;
        for (int y = 0; y <= 80; ++y)
            for (int x = 0; x <= 80; ++x) places.push_back({x * 0.5, y * 0.5, 20 - std::abs(y * 0.5 - 20)});
        Cloud payload;
        payload.cloud = std::make_shared<const survey::PointCloud>(survey::cloudFrom(places));
        document = Document().added("flight", payload, &cloud);
        derived = valueOf(evaluate(document));
    }
};

TEST(DenseSource, HeightsOfACloudAreThoseOfItsPoints) {
    const Roof r;
    EXPECT_NEAR(spacingOf(r.derived, r.cloud), 0.5, 0.02);
    EXPECT_NEAR(*denseHeight(r.derived, r.cloud, {10.2, 12.7}), 12.7, 1e-3);
    EXPECT_FALSE(denseHeight(r.derived, r.cloud, {500, 500}));
    EXPECT_FALSE(denseHeight(r.derived, ObjectId{99}, {10, 10}));
}

TEST(DenseSource, ARidgeBecomesACrestInItsGroup) {
    const Roof r;
    const auto field = valueOf(creaseField(r.derived, r.cloud, boundsOf(r.derived, r.cloud)));
    const auto found = terrain::findCreases(field, {0.5, 10, 0.05});
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found.front().kind, terrain::CreaseKind::Crest);
    const auto with = test::afterEdit(r.document, addCreases(found));
    const auto made = with.all<Line>();
    ASSERT_EQ(made.size(), r.document.all<Line>().size() + 1);
    EXPECT_EQ(with.get<Line>(made.back())->style, LineStyle::Crest);
    EXPECT_EQ(with.find(made.back())->group, with.byName<Group>("Crests"));
    for (const auto& v : with.get<Line>(made.back())->line.vertices) EXPECT_NEAR(v.place.y, 20, 0.25);
    // The groups are used again.
    EXPECT_EQ(test::afterEdit(with, addCreases(found)).all<Group>().size(), 1U);
}

TEST(DenseSource, OnlyTheClassesThatTakePartCount) {
    Roof r;
    r.document = changed<Cloud>(r.document, r.cloud, [](Cloud& c) { c.filter.classes = {2}; });
    const auto derived = valueOf(evaluate(r.document));
    EXPECT_FALSE(denseSurface(derived, r.cloud, boundsOf(derived, r.cloud)));
}

TEST(DenseSource, ASliceHoldsThePointsBesideTheLine) {
    const Roof r;
    // Along x = 10 from south to north, then back: every point of that column, and of its neighbours.
    const auto slice = sliceOf(r.derived, r.cloud, {{{10, 0}, {10, 40}, {}}}, 0.1);
    EXPECT_EQ(slice.size(), 81U);
    for (const auto& p : slice) EXPECT_NEAR(p.height, 20 - std::abs(p.station - 20), 1e-3);
    EXPECT_EQ(sliceOf(r.derived, r.cloud, {{{10, 0}, {10, 40}, {}}}, 0.6).size(), 3 * 81U);
    EXPECT_LE(sliceOf(r.derived, r.cloud, {{{10, 0}, {10, 40}, {}}}, 0.6, 50).size(), 50U);
    EXPECT_TRUE(sliceOf(r.derived, ObjectId{77}, {{{10, 0}, {10, 40}, {}}}, 1).empty());
}

TEST(DenseSource, ClassesByHandAndACropDecideWhatTakesPart) {
    Roof r;
    const std::vector<geometry::Vec2> ring{{-1, -1}, {10.1, -1}, {10.1, 10.1}, {-1, 10.1}};
    const auto classed = test::afterEdit(r.document, document::atOnce(classify(r.cloud, ring, 6)));
    EXPECT_EQ(classed.get<Cloud>(r.cloud)->cloud->classCounts()[6], 21U * 21U);
    EXPECT_TRUE(classed.get<Cloud>(r.cloud)->classified);
    EXPECT_EQ(test::afterEdit(classed, document::atOnce(classify(r.cloud, ring, 6))).find(r.cloud),
              classed.find(r.cloud));  // nothing to do
    const auto cropped = changed<Cloud>(r.document, r.cloud, [&](Cloud& c) { c.filter.inside = ring; });
    const auto* payload = cropped.get<Cloud>(r.cloud);
    const survey::CloudPart part(*payload->cloud, payload->filter);
    std::size_t count = 0;
    for (std::size_t i = 0; i < 81 * 81; ++i) count += part.has(i) ? 1 : 0;
    EXPECT_EQ(count, 21U * 21U);
    // A surface from the cloud follows the crop.
    Document d = test::afterEdit(cropped, addSurface("S", {{r.cloud, Role::Cloud}}));
    const auto derived = valueOf(evaluate(d));
    EXPECT_NEAR(derived.surfaces.begin()->second->figures.planArea, 100, 1e-6);
}

TEST(DenseSource, AThinnedSurfaceTakesCreasesFirstAndIsCheckedAgainstItsSource) {
    Roof r;
    ObjectId group;
    ObjectId edge;
    Document d = r.document.added("Crests", Group{}, &group);
    d = d.added("Edge", Line{linework::lineThrough(test::places("2 2, 30 2, 30 30, 2 30"), {}, true), {}},
                &edge);
    ObjectId id;
    d = test::afterEdit(d, surfaceFromDense(r.cloud, {edge}), &id);
    const auto& surface = *d.get<Surface>(id);
    ASSERT_EQ(surface.definition->sources.size(), 3U);
    EXPECT_EQ(surface.definition->sources[0].object, group);
    EXPECT_EQ(surface.definition->sources[1].role, Role::Edge);
    EXPECT_FALSE(surface.definition->sources[1].ownHeights);
    EXPECT_DOUBLE_EQ(surface.definition->tolerance, 0.1);
    EXPECT_EQ(fitSource(d, id), r.cloud);
    // Without a choice it is the first dense source.
    d = changed<Surface>(d, id, [](Surface& s) { s.fit.source = {}; });
    EXPECT_EQ(fitSource(d, id), r.cloud);
    EXPECT_FALSE(fitSource(d, edge));
    // In feet a tenth of a metre is 0.328.
    auto settings = r.document.settings();
    settings.display.unit = LengthUnit::InternationalFoot;
    d = test::afterEdit(r.document.withSettings(settings), surfaceFromDense(r.cloud, {}), &id);
    EXPECT_DOUBLE_EQ(d.get<Surface>(id)->definition->tolerance, 0.328);
    // A line is no dense source.
    EXPECT_FALSE(surfaceFromDense(edge, {})(r.document));
}

TEST(DenseSource, RastersAndSurfacesAnswerToo) {
    HeightRaster payload;
    survey::Raster raster;
    raster.columns = 10;
    raster.rows = 10;
    raster.transform = {0, 1, 0, 10, 0, -1};
    raster.heights.assign(100, 7);
    raster.present.assign(100, true);
    payload.raster = std::make_shared<const survey::Raster>(raster);
    ObjectId id;
    const auto derived = valueOf(evaluate(Document().added("dem", payload, &id)));
    EXPECT_DOUBLE_EQ(spacingOf(derived, id), 1);
    EXPECT_NEAR(*denseHeight(derived, id, {5, 5}), 7, 1e-12);
    EXPECT_NEAR(*valueOf(denseSurface(derived, id, boundsOf(derived, id)))->heightAt({5, 5}), 7, 1e-12);
}

}  // namespace
}  // namespace erdwerk::derive
