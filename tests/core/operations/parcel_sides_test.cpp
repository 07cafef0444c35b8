// Two parcels with a side in common, straight or curved.

#include "core/operations/parcel_sides.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/operations/records.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::PlaneSite;
using testing::ElementsAre;

/// East of the plot (60 60 to 90 90) lies another one.
struct Neighbours : PlaneSite {
    ObjectId west;
    ObjectId east;
    ObjectId eastLine;
    explicit Neighbours(const std::string& corners = "90 90, 90 60, 120 60, 120 90") {
        EXPECT_TRUE(apply(makeParcel(plot)));
        west = last<Parcel>();
        document =
            document.added("East", Line{linework::lineThrough(test::places(corners), {}, true)}, &eastLine);
        EXPECT_TRUE(apply(makeParcel(eastLine)));
        east = last<Parcel>();
    }
    [[nodiscard]] geometry::Vec2 corner(ObjectId line, std::size_t i) const {
        return document.get<Line>(line)->line.vertices[i].place;
    }
};

TEST(NeighbouringParcels, ShareTheSideBetweenTheSameCorners) {
    Neighbours s;
    // 90 60 to 90 90 is side 1 of the plot; the other parcel runs it the other way, as its side 0.
    EXPECT_EQ(sideShared(s.document, s.west, 1), (SharedSide{s.east, 0, false}));
    EXPECT_EQ(sideShared(s.document, s.east, 0), (SharedSide{s.west, 1, false}));
    for (const std::size_t side : {0U, 2U, 3U, 9U})
        EXPECT_FALSE(sideShared(s.document, s.west, side)) << side;
}

TEST(NeighbouringParcels, ACornerMovesInBoth) {
    Neighbours s;
    ASSERT_TRUE(s.apply(moveVertex(s.plot, 2, {92, 93})));
    EXPECT_EQ(s.corner(s.plot, 2), (geometry::Vec2{92, 93}));
    EXPECT_EQ(s.corner(s.eastLine, 0), (geometry::Vec2{92, 93}));
    // The other way round as well, and the areas together stay the sum: 30 x 60 and what the corner added.
    ASSERT_TRUE(s.apply(moveVertex(s.eastLine, 1, {91, 58})));
    EXPECT_EQ(s.corner(s.plot, 1), (geometry::Vec2{91, 58}));
    EXPECT_TRUE(sideShared(s.document, s.west, 1));
    EXPECT_EQ(s.corner(s.plot, 0), (geometry::Vec2{60, 60}));
}

TEST(NeighbouringParcels, LinesThatAreNoParcelsStayWhereTheyAre) {
    Neighbours s;
    ObjectId fence;
    s.document =
        s.document.added("Fence", Line{linework::lineThrough(test::places("90 90, 90 130"), {})}, &fence);
    ASSERT_TRUE(s.apply(moveVertex(s.plot, 2, {92, 93})));
    EXPECT_EQ(s.corner(fence, 0), (geometry::Vec2{90, 90}));
    // And a corner of the fence moves alone.
    ASSERT_TRUE(s.apply(moveVertex(fence, 0, {92, 93})));
    ASSERT_TRUE(s.apply(moveVertex(fence, 0, {80, 80})));
    EXPECT_EQ(s.corner(s.plot, 2), (geometry::Vec2{92, 93}));
}

TEST(NeighbouringParcels, AnArcIsSharedOnlyByTheSameArc) {
    Neighbours s;
    s.document = document::changed<Line>(s.document, s.eastLine, [](Line& l) {
        l.line.vertices[0].through = geometry::Vec2{94, 75};
    });
    EXPECT_FALSE(sideShared(s.document, s.west, 1));
    s.document = document::changed<Line>(s.document, s.plot, [](Line& l) {
        l.line.vertices[1].through = geometry::Vec2{94, 75};
    });
    EXPECT_TRUE(sideShared(s.document, s.west, 1));
}

TEST(NeighbouringParcels, ACornerPutInOrTakenOutOfTheSideInCommonIsSoInBoth) {
    Neighbours s;
    // A third of the way from 90 60 to 90 90, and aside.
    ASSERT_TRUE(s.apply(insertCorner({s.plot, {}, 1, 1.0 / 3}))) << s.said;
    EXPECT_EQ(s.document.get<Line>(s.plot)->line.vertices.size(), 5U);
    ASSERT_EQ(s.document.get<Line>(s.eastLine)->line.vertices.size(), 5U);
    EXPECT_NEAR(geometry::distance(s.corner(s.eastLine, 1), {90, 70}), 0, 1e-9);
    ASSERT_TRUE(s.apply(moveVertex(s.eastLine, 1, {95, 72})));
    EXPECT_EQ(s.corner(s.plot, 2), (geometry::Vec2{95, 72}));
    EXPECT_EQ(sidesShared(s.document, s.west).size(), 2U);
    ASSERT_TRUE(s.apply(removeVertex(s.plot, 2)));
    EXPECT_EQ(s.document.get<Line>(s.eastLine)->line.vertices.size(), 4U);
    EXPECT_EQ(sidesShared(s.document, s.west).size(), 1U);
}

TEST(NeighbouringParcels, ACornerAtTheEndOfTheSideInCommonGoesFromOneAlone) {
    Neighbours s;
    ASSERT_TRUE(s.apply(removeVertex(s.plot, 2)));
    EXPECT_EQ(s.document.get<Line>(s.eastLine)->line.vertices.size(), 4U);
    ASSERT_TRUE(s.apply(insertCorner({s.eastLine, {}, 2, 0.5})));
    EXPECT_EQ(s.document.get<Line>(s.plot)->line.vertices.size(), 3U);
}

TEST(NeighbouringParcels, AreNamedOnTheirSidesAndOwnNamesStay) {
    Neighbours s;
    ASSERT_TRUE(s.apply(nameNeighbours(s.west)));
    EXPECT_THAT(s.document.get<Parcel>(s.west)->adjoiners,
                ElementsAre(Parcel::Named{1, s.document.nameOf(s.east)}));
    ASSERT_TRUE(s.apply(nameNeighbours(s.west)));
    EXPECT_EQ(s.document.get<Parcel>(s.west)->adjoiners.size(), 1U);
    s.document = s.document.without(s.east);
    EXPECT_FALSE(s.apply(nameNeighbours(s.west)));
    EXPECT_THAT(s.said, testing::HasSubstr("no other parcel"));
}

}  // namespace
}  // namespace erdwerk::operations
