// What the plan and the 3D view make of the layers of all kinds together.

#include <gtest/gtest.h>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "core/derive/surface_result.h"
#include "core/objects/alignment.h"
#include "core/objects/artwork.h"
#include "core/objects/backdrop.h"
#include "core/objects/cloud.h"
#include "core/objects/design_criteria.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/earthwork.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/marking.h"
#include "core/objects/offset_set.h"
#include "core/objects/parcel.h"
#include "core/objects/profile.h"
#include "core/objects/reading.h"
#include "core/objects/section.h"
#include "core/objects/wording.h"
#include "core/terrain/shade.h"
#include "one_of_each.h"
#include "view_at.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Layers : public testing::Test {
protected:
    const ViewTransform view = viewAt({50, 50}, 8, {800, 800});
    Site site;

    /// The snapshot after an edit of the site.
    void apply(const document::Document& next) {
        site.document = next;
        site.snapshot.derived = test::valueOf(derive::evaluate(next));
    }
    [[nodiscard]] ObjectId named(const std::string& name) const {
        for (const auto& [id, object] : site.document.objects())
            if (object->name == name) return id;
        throw std::runtime_error("nothing is named " + name);
    }
    QImage painted(PlanOptions options = {}) {
        options.off.insert(objects::PlanPart::GridCrosses);
        QImage image(800, 800, QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter painter(&image);
        PlanPainter(painter, site.snapshot, view, planLayers(), options).paint();
        painter.end();
        return image;
    }
    [[nodiscard]] QRgb at(const QImage& image, Vec2 place) const {
        return image.pixel(view.toPicture(place).toPoint());
    }
    [[nodiscard]] SceneContent scene(std::vector<Ref> selection = {}) const {
        return contentOf(std::make_shared<const Snapshot>(site.snapshot), selection, sceneLayers());
    }
};

TEST_F(Layers, WhatIsHiddenIsNeitherPaintedNorFoundNorSeen) {
    // The alignment on the wall goes, so that only the wall itself is there.
    apply(site.document.without(named("Lane")));
    const auto shown = painted();
    const auto strokes = scene().strokes().size();
    const QPointF cursor = view.toPicture({26, 20});
    EXPECT_FALSE(snapsAt(site.snapshot, view, planLayers(), cursor, 9).empty());
    apply(site.document.withShown({{named("Survey")}, {}}));
    EXPECT_NE(painted(), shown);
    EXPECT_TRUE(snapsAt(site.snapshot, view, planLayers(), cursor, 9).empty());
    EXPECT_EQ(scene().strokes().size(), strokes - 1);
}

TEST_F(Layers, SourcesAndGroundAreLeftOutWhereAsked) {
    PlanOptions bare;
    bare.source = bare.ground = false;
    const QRgb photo = at(painted(), {35, 70});
    EXPECT_EQ(photo, qRgb(40, 40, 40));
    EXPECT_EQ(at(painted(bare), {35, 70}), qRgb(255, 255, 255));
    PlanOptions noSource;
    noSource.source = false;
    EXPECT_NE(painted(noSource), painted(bare));  // the ground is there
    PlanOptions noGround;
    noGround.ground = false;
    EXPECT_EQ(at(painted(noGround), {35, 70}), photo);
}

TEST_F(Layers, APictureLiesUnderTheLines) {
    linework::Line3D over = linework::lineThrough(test::places("32 70, 38 70"), {});
    apply(site.document.added("Over", objects::Line{over}));
    EXPECT_NE(at(painted(), {35, 70}), qRgb(40, 40, 40));
    EXPECT_EQ(at(painted(), {35, 68}), qRgb(40, 40, 40));
}

TEST_F(Layers, ACancelledPictureStopsAtOnce) {
    const std::atomic<bool> cancel{true};
    PlanOptions options;
    options.cancel = &cancel;
    QImage blank(800, 800, QImage::Format_RGB32);
    blank.fill(Qt::white);
    EXPECT_EQ(painted(options), blank);
}

TEST_F(Layers, TheSceneReachesOverTheGroundFromLowestToHighest) {
    const auto extent = scene().extent();
    // The cloud lies at 3, the highest survey point at 9.
    EXPECT_EQ(extent.low, 3);
    EXPECT_EQ(extent.high, 9);
    EXPECT_EQ(scene().meshes().size(), 1U);
    EXPECT_EQ(scene().dense().size(), 1U);
    EXPECT_NE(scene().picture(), nullptr);
}

TEST_F(Layers, WithoutGroundTheSceneReachesOverTheLines) {
    document::Document only;
    only = only.added("L", objects::Line{linework::lineThrough(test::places("0 0, 30 40"), {2.0, 8.0})});
    apply(only);
    const auto extent = scene().extent();
    EXPECT_EQ(extent.low, 2);
    EXPECT_EQ(extent.high, 8);
    EXPECT_EQ(extent.plan.width(), 30);
    apply({});
    EXPECT_TRUE(scene().extent().plan.empty());
}

TEST_F(Layers, OnTheGroundALineIsBrokenWhereTheGroundEnds) {
    // The survey points span a triangle; its side from 50 90 to 90 10 is crossed.
    SceneContent content(std::make_shared<const Snapshot>(site.snapshot), {});
    content.addOnGround({{{50, 40}, {95, 40}, std::nullopt}}, Qt::black, 1);
    ASSERT_EQ(content.strokes().size(), 1U);
    const auto& places = content.strokes().front().places;
    EXPECT_EQ(places.front().x, 50);
    EXPECT_LE(places.back().x, 75 + 1e-9);
    EXPECT_GE(places.back().x, 75 - 1.6);
    content.addOnGround({{{200, 40}, {300, 40}, std::nullopt}}, Qt::black, 1);
    EXPECT_EQ(content.strokes().size(), 1U);
}

TEST_F(Layers, WhatIsSelectedIsSeenInClay) {
    const auto clay = [](const SceneContent& content) {
        return std::count_if(content.strokes().begin(), content.strokes().end(),
                             [](const SceneStroke& s) { return s.colour == theme::clay; });
    };
    EXPECT_EQ(clay(scene()), 0);
    EXPECT_EQ(clay(scene({{named("Wall"), std::nullopt}})), 1);
    const auto content = scene({{named("Wall"), std::nullopt}});
    EXPECT_TRUE(content.selected(named("Wall")));
    EXPECT_FALSE(content.selected(named("Rim")));
}

}  // namespace
}  // namespace erdwerk::app
