// Alignments, profiles, parcels, labels and sheets on a plane.

#include "core/operations/records.h"
#include "core/operations/labels.h"

#include "core/derive/parcel_result.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/route/profile.h"
#include "support/after_edit.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::IsNear;
using test::places;
using test::PlaneSite;

/// With an alignment on the lane (70 long) and a profile over the ground.
struct Route : PlaneSite {
    ObjectId alignment;
    ObjectId profile;
    Route() {
        EXPECT_TRUE(apply(makeAlignment(lane)));
        alignment = last<objects::Alignment>();
        EXPECT_TRUE(apply(newProfile(alignment, ground)));
        profile = last<objects::Profile>();
    }
    [[nodiscard]] const std::vector<route::Pvi>& design() const {
        return document.get<objects::Profile>(profile)->design;
    }
    void designed() {
        EXPECT_TRUE(apply(addPvi(results(), profile)));
        EXPECT_TRUE(apply(addPvi(results(), profile)));
    }
};

TEST(Alignments, RunAlongTheLineAndAreTurnedRound) {
    Route r;
    EXPECT_NEAR(r.results()->alignments.at(r.alignment)->length, 70, 1e-9);
    const auto begin = r.results()->alignments.at(r.alignment)->path.front().start;
    EXPECT_THAT(begin, IsNear(10, 10, 0));
    ASSERT_TRUE(r.apply(reverseAlignment(r.alignment)));
    EXPECT_THAT(r.results()->alignments.at(r.alignment)->path.front().start, IsNear(40, 50, 0));
    EXPECT_FALSE(r.apply(makeAlignment(r.points)));
    EXPECT_FALSE(r.apply(reverseAlignment(r.lane)));
}

TEST(Profiles, BeginWithTheEndsOnTheGroundAndFillTheLongestStretch) {
    Route r;
    ASSERT_TRUE(r.apply(addPvi(r.results(), r.profile)));
    ASSERT_EQ(r.design().size(), 2U);
    EXPECT_NEAR(r.design()[0].station, 0, 1e-9);
    EXPECT_NEAR(r.design()[0].height, PlaneSite::height(10, 10), 1e-3);
    EXPECT_NEAR(r.design()[1].station, 70, 1e-2);
    EXPECT_NEAR(r.design()[1].height, PlaneSite::height(40, 50), 1e-3);
    ASSERT_TRUE(r.apply(addPvi(r.results(), r.profile)));
    ASSERT_EQ(r.design().size(), 3U);
    EXPECT_NEAR(r.design()[1].station, 35, 1e-2);
    // On the straight between the ends.
    EXPECT_NEAR(r.design()[1].height, (r.design()[0].height + r.design()[2].height) / 2, 1e-3);
}

TEST(Profiles, APviStaysBetweenItsNeighbours) {
    Route r;
    r.designed();
    ASSERT_TRUE(r.apply(movePvi(r.profile, 1, 500, 20.12345)));
    EXPECT_LT(r.design()[1].station, 70);
    EXPECT_GT(r.design()[1].station, 69);
    EXPECT_NEAR(r.design()[1].height, 20.123, 1e-9);
    ASSERT_TRUE(r.apply(movePvi(r.profile, 1, 12.3456, 11)));
    EXPECT_NEAR(r.design()[1].station, 12.35, 1e-9);
    ASSERT_TRUE(r.apply(removePvi(r.profile, 1)));
    EXPECT_EQ(r.design().size(), 2U);
    EXPECT_FALSE(r.apply(removePvi(r.profile, 7)));
    EXPECT_FALSE(r.apply(movePvi(r.profile, 7, 1, 1)));
}

TEST(Profiles, FiguresAreTypedInTheNotation) {
    Route r;
    r.designed();
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::Station, "0+040")));
    EXPECT_NEAR(r.design()[1].station, 40, 1e-9);
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::Height, "12.5")));
    EXPECT_NEAR(r.design()[1].height, 12.5, 1e-9);
    const double first = r.design()[0].height;
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::Height, "+0.8")));
    EXPECT_NEAR(r.design()[1].height, first + 0.8, 1e-9);
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::GradeIn, "2.5")));
    EXPECT_NEAR(r.design()[1].height, first + 1.0, 1e-9);
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::GradeIn, "-20:1")));
    EXPECT_NEAR(r.design()[1].height, first - 2.0, 1e-9);
    ASSERT_TRUE(r.apply(typePvi(r.profile, 1, PviFigure::CurveLength, "20")));
    EXPECT_NEAR(r.design()[1].curveLength, 20, 1e-9);
}

TEST(Profiles, WhatCannotBeReadChangesNothing) {
    Route r;
    r.designed();
    const auto before = r.document;
    EXPECT_FALSE(r.apply(typePvi(r.profile, 1, PviFigure::CurveLength, "9000")));
    EXPECT_FALSE(r.apply(typePvi(r.profile, 1, PviFigure::CurveLength, "long")));
    EXPECT_FALSE(r.apply(typePvi(r.profile, 1, PviFigure::Station, "here")));
    EXPECT_FALSE(r.apply(typePvi(r.profile, 1, PviFigure::Height, "high")));
    EXPECT_FALSE(r.apply(typePvi(r.profile, 0, PviFigure::GradeIn, "2%")));
    EXPECT_FALSE(r.apply(typePvi(r.lane, 1, PviFigure::Height, "3")));
    EXPECT_TRUE(difference(before, r.document).empty());
}

TEST(Parcels, HaveAreaAndClose) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    const auto results = s.results();
    const auto& parcel = *results->parcels.at(s.last<objects::Parcel>());
    EXPECT_NEAR(parcel.geometry.area, 900, 1e-9);
    EXPECT_NEAR(parcel.geometry.perimeter, 120, 1e-9);
    EXPECT_TRUE(parcel.geometry.closure.closes(LengthUnit::Metre));
    ObjectId two;
    s.document = s.document.added("Two", objects::Line{linework::lineThrough(places("0 0, 1 0"), {})}, &two);
    EXPECT_FALSE(s.apply(makeParcel(two)));
    EXPECT_FALSE(s.apply(makeParcel(s.points)));
}

TEST(Profiles, APviIsPutWhereSomebodyPoints) {
    Route r;
    ASSERT_TRUE(r.apply(addPviAt(r.results(), r.profile, 20.0049, 11.23456)));
    ASSERT_EQ(r.design().size(), 3U);  // with the ends on the ground
    EXPECT_NEAR(r.design()[1].station, 20, 1e-12);
    EXPECT_NEAR(r.design()[1].height, 11.235, 1e-12);
    EXPECT_FALSE(r.apply(addPviAt(r.results(), r.profile, 20, 12)));  // there is one
    EXPECT_FALSE(r.apply(addPviAt(r.results(), r.profile, 70.02, 12)));
    EXPECT_FALSE(r.apply(addPviAt(r.results(), r.profile, -0.01, 12)));
    ASSERT_TRUE(r.apply(addPviAt(r.results(), r.profile, 19.99, 12)));
    EXPECT_EQ(r.design().size(), 4U);
    EXPECT_FALSE(r.apply(addPviAt(r.results(), r.lane, 30, 12)));
}

TEST(Profiles, LieOverTheSurfaceThatIsUnderTheirAlignment) {
    Route r;
    EXPECT_EQ(surfaceUnder(*r.results(), r.alignment), r.ground);
    // A later surface that covers only a part of the alignment is not taken, one that covers it all is.
    const auto patch = [&](const std::string& name, const std::string& where) {
        ObjectId points;
        ObjectId surface;
        std::vector<survey::SurveyPoint> set;
        for (const auto& p : places(where)) set.push_back({"9", p, 50.0, "", ""});
        r.document = test::afterEdit(r.document, operations::addPoints(name, set), &points);
        r.document = test::afterEdit(
            r.document, operations::addSurface(name, {{points, objects::Role::Points}}), &surface);
        return surface;
    };
    patch("Half", "0 0, 30 0, 30 30, 0 30");
    EXPECT_EQ(surfaceUnder(*r.results(), r.alignment), r.ground);
    const ObjectId all = patch("All", "0 0, 60 0, 60 60, 0 60");
    EXPECT_EQ(surfaceUnder(*r.results(), r.alignment), all);
    patch("Elsewhere", "500 500, 560 500, 560 560");
    EXPECT_EQ(surfaceUnder(*r.results(), r.alignment), all);
    EXPECT_FALSE(surfaceUnder(*r.results(), r.lane));
}

TEST(Parcels, InABoxAreThoseThatReachIntoIt) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    const ObjectId parcel = s.last<objects::Parcel>();
    EXPECT_THAT(parcelsIn(*s.results(), {0, 0, 65, 65}), testing::ElementsAre(parcel));
    EXPECT_TRUE(parcelsIn(*s.results(), {0, 0, 50, 50}).empty());
}

}  // namespace
}  // namespace erdwerk::operations
