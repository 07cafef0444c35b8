#include "core/derive/volume_report.h"

#include "core/linework/line3d.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::derive {
namespace {

using namespace document;
using namespace operations;

using test::places;
using test::valueOf;

/// Two level squares of 40 x 40, the second 2 higher; a region of 10 x 10.
struct Two {
    Document document;
    ObjectId low;
    ObjectId high;
    ObjectId regions;
    Derived derived;

    Two() {
        const auto level = [&](const std::string& name, double h) {
            ObjectId points;
            document = test::afterEdit(document,
                                       addPoints(name + " points", {{"1", {0, 0}, h, "", ""},
                                                                    {"2", {40, 0}, h, "", ""},
                                                                    {"3", {40, 40}, h, "", ""},
                                                                    {"4", {0, 40}, h, "", ""}}),
                                       &points);
            ObjectId id;
            document = test::afterEdit(document, addSurface(name, {{points, Role::Points}}), &id);
            return id;
        };
        low = level("Ground & rock", 10);
        high = level("Design", 12);
        document = document.added("Pads", Group{}, &regions);
        document = document.added(
            "Pad <A>", Line{linework::lineThrough(places("10 10, 20 10, 20 20, 10 20"), {}, true), {}},
            nullptr, regions);
        document =
            document.added("Open", Line{linework::lineThrough(places("0 0, 5 5"), {}), {}}, nullptr, regions);
        derived = valueOf(evaluate(document));
    }
};

TEST(VolumeReport, TheWholeAndEachRegion) {
    const Two t;
    const auto result = valueOf(volumesOf(t.derived, {t.low, t.high, t.regions}));
    ASSERT_EQ(result.rows.size(), 2U);
    EXPECT_NEAR(result.rows[0].volumes.fill, 3200, 1e-6);
    EXPECT_EQ(result.rows[1].name, "Pad <A>");
    EXPECT_NEAR(result.rows[1].volumes.fill, 200, 1e-6);
    EXPECT_NEAR(result.map.largestFill, 2, 1e-5);
}

TEST(VolumeReport, ThePageEscapesNamesAndHoldsTheSums) {
    const Two t;
    const VolumeRequest request{t.low, t.high, t.regions};
    const auto page = volumeReport(t.derived, request, valueOf(volumesOf(t.derived, request)), "2026-11-25");
    EXPECT_THAT(page, testing::HasSubstr("Pad &lt;A&gt;"));
    EXPECT_THAT(page, testing::HasSubstr("Ground &amp; rock"));
    EXPECT_THAT(page, testing::HasSubstr("3200.0 m³"));
}

TEST(VolumeReport, OneSurfaceIsNotEnough) {
    const Two t;
    EXPECT_FALSE(volumesOf(t.derived, {t.low, t.low, {}}));
    EXPECT_FALSE(volumesOf(t.derived, {t.low, {}, {}}));
}

}  // namespace
}  // namespace erdwerk::derive
