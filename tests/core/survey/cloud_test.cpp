#include "core/survey/cloud.h"

#include "core/survey/raster.h"
#include "support/geometry.h"

namespace erdwerk::survey {
namespace {

using test::valueOf;

TEST(Cloud, KeepsPlacesWrittenWithFourDecimalsExactlyToTheirGrid) {
    const std::vector<Vec3> places{{48123.4567, 91000.0001, 312.5}, {48000, 91234.1111, 355.9999}};
    const PointCloud cloud = cloudFrom(places);
    ASSERT_EQ(cloud.size(), 2U);
    for (std::size_t i = 0; i < 2; ++i) {
        EXPECT_NEAR(cloud.place(i).x, places[i].x, 1e-9);
        EXPECT_NEAR(cloud.place(i).y, places[i].y, 1e-9);
        EXPECT_NEAR(cloud.place(i).z, places[i].z, 1e-9);
    }
    EXPECT_EQ(cloud.min().plan(), (Vec2{cloud.place(1).x, cloud.place(0).y}));
    EXPECT_EQ(cloud.max().z, cloud.place(1).z);
}

TEST(Cloud, CostsAtMostTwentyBytesAPoint) {
    EXPECT_EQ(PointCloud(CloudColumns(0, true)).memory(), 0U);
    CloudColumns columns(1000, true);
    for (std::size_t i = 0; i < 1000; ++i) columns.grid[i] = {0, 0, 0};
    EXPECT_LE(PointCloud(std::move(columns)).memory(), 20U * 1000U);
}

TEST(Cloud, AFilterTakesClassesAndARingAndNeverWithheldPoints) {
    CloudColumns columns(4, false);
    columns.scale = {1, 1, 1};
    const std::array<std::uint8_t, 4> classes{2, 2, 5, 2};
    for (std::size_t i = 0; i < 4; ++i) {
        columns.grid[i] = {static_cast<std::int32_t>(i) * 10, 0, 7};
        columns.classes[i] = classes[i];
        columns.flags[i] = i == 3 ? cloud_flag::withheld : 0;
        columns.intensity[i] = 0;
        columns.returns[i] = 0x11;
    }
    const PointCloud cloud(std::move(columns));
    EXPECT_EQ(valueOf(placesOf(cloud, {})).size(), 3U);
    EXPECT_EQ(valueOf(placesOf(cloud, {{2}, {}})).size(), 2U);
    const auto inside = valueOf(placesOf(cloud, {{2}, test::places("5 -5, 15 -5, 15 5, 5 5")}));
    ASSERT_EQ(inside.size(), 1U);
    EXPECT_EQ(inside[0], (Vec3{10, 0, 7}));
}

TEST(Cloud, OtherClassesShareTheRestAndReorderingMovesAllColumns) {
    const PointCloud cloud = cloudFrom(test::places3("0 0 1, 1 0 2, 2 0 3"));
    auto classes = std::shared_ptr<std::uint8_t[]>(new std::uint8_t[3]{2, 5, 6});
    const PointCloud other = cloud.withClasses(classes);
    EXPECT_EQ(cloud.classOf(1), cloud_class::unclassified);
    EXPECT_EQ(other.classOf(1), cloud_class::vegetation);
    const PointCloud turned = other.reordered({2, 0, 1});
    EXPECT_NEAR(turned.place(0).z, 3, 1e-12);
    EXPECT_EQ(turned.classOf(0), cloud_class::building);
    EXPECT_EQ(turned.classCounts()[cloud_class::vegetation], 1U);
}

TEST(Raster, HeightsAreBetweenTheFourCentresAndAbsentBesideAbsentCells) {
    Raster raster;
    raster.columns = 3;
    raster.rows = 2;
    raster.transform = {100, 2, 0, 50, 0, -2};
    raster.heights = {1, 2, 3, 4, 5, 6};
    raster.present = {true, true, true, true, true, false};
    EXPECT_EQ(raster.centre(0, 0), (Vec2{101, 49}));
    EXPECT_EQ(raster.heightAt({101, 49}), 1.0);
    EXPECT_EQ(raster.heightAt({102, 48}), 3.0);  // mean of 1, 2, 4, 5
    EXPECT_FALSE(raster.heightAt({104, 48}));    // its corner is absent
    EXPECT_FALSE(raster.heightAt({100.5, 49}));  // outside the centres
    EXPECT_EQ(raster.places().size(), 5U);
}

}  // namespace
}  // namespace erdwerk::survey
