#include <nlohmann/json.hpp>

#include "core/operations/parcel_split.h"

#include "core/check/finding.h"
#include "core/format/object_json.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/operations/derived_lines.h"
#include "core/operations/descriptions.h"
#include "core/operations/labels.h"
#include "core/operations/plan_move.h"
#include "core/operations/plan_shape.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::PlaneSite;
using testing::HasSubstr;

TEST(SplitParcel, KeepsTheBeginningAndGivesTheOtherPartItsNames) {
    PlaneSite s;
    // 60 60 to 90 90.
    ObjectId land;
    s.document = s.document.added("Plot", objects::Parcel{s.plot, false, 0, "the pin"}, &land);
    ASSERT_TRUE(s.apply(nameAdjoiner(land, 1, "the lane")));
    ASSERT_TRUE(s.apply(nameThing(land, 1, "a stone")));
    ASSERT_TRUE(s.apply(makeLabel(s.plot, std::nullopt, 1)));
    const ObjectId label = s.last<objects::Label>();
    const auto before = s.document;
    ASSERT_TRUE(s.apply(splitParcel(s.results(), land, {ParcelCut::By::Parallel, {60, 75}, {}, 300})))
        << s.said;
    const ObjectId other = s.last<objects::Parcel>();
    ASSERT_NE(other, land);
    const auto results = s.results();
    EXPECT_NEAR(results->parcels.at(land)->geometry.area, 300, 1e-9);
    EXPECT_NEAR(results->parcels.at(other)->geometry.area, 600, 1e-9);
    EXPECT_EQ(s.document.get<objects::Parcel>(land)->beginning, "the pin");
    // The east side went to the other part, with its names and its label.
    EXPECT_TRUE(s.document.get<objects::Parcel>(land)->adjoiners.empty());
    EXPECT_THAT(results->parcels.at(other)->description, HasSubstr("along the lane, due North"));
    EXPECT_THAT(results->parcels.at(other)->description, HasSubstr("to a stone"));
    ASSERT_NE(s.document.get<objects::Label>(label), nullptr);
    EXPECT_EQ(s.document.get<objects::Label>(label)->target, s.document.get<objects::Parcel>(other)->line);
    // What was shown on another boundary is not done.
    s.document = before;
    const auto seen = s.results();
    s.document = document::changed<objects::Line>(s.document, s.plot,
                                                  [](objects::Line& l) { l.line.vertices[0].place.x = 50; });
    EXPECT_FALSE(s.apply(splitParcel(seen, land, {ParcelCut::By::Line, {75, 0}, {75, 100}, 0})));
    EXPECT_FALSE(s.apply(splitParcel(s.results(), land, {ParcelCut::By::Parallel, {60, 75}, {}, 9000})));
    EXPECT_THAT(s.said, HasSubstr("between 0 and the whole"));
    EXPECT_FALSE(s.apply(splitParcel(s.results(), s.plot, {ParcelCut::By::Line, {75, 0}, {75, 100}, 0})));
}

TEST(ParcelRound, TakesTheShownLinesAroundAPlace) {
    PlaneSite s;
    // A line across the plot of 60 60 to 90 90.
    ObjectId across;
    s.document = s.document.added(
        "Across", objects::Line{linework::lineThrough(test::places("50 70, 100 70"), {})}, &across);
    ASSERT_TRUE(s.apply(parcelRound(s.results(), {75, 80})));
    const ObjectId made = s.last<objects::Parcel>();
    EXPECT_NEAR(s.results()->parcels.at(made)->geometry.area, 30 * 20, 1e-9);
    EXPECT_EQ(s.results()->parcels.at(made)->geometry.courses.size(), 4U);
    EXPECT_FALSE(s.apply(parcelRound(s.results(), {20, 80})));
    EXPECT_THAT(s.said, HasSubstr("nothing round"));
    // What was shown on other lines is not done.
    const auto seen = s.results();
    s.document = document::changed<objects::Line>(s.document, across,
                                                  [](objects::Line& l) { l.line.vertices[0].place.y = 65; });
    EXPECT_FALSE(s.apply(parcelRound(seen, {75, 80})));
}

/// The upper part of the plot, 60 70 to 90 90, picked inside; with a name at a side and a thing at a corner.
struct PickedSite : PlaneSite {
    ObjectId across;
    ObjectId parcel;
    ObjectId boundary;

    PickedSite() {
        document = document.added(
            "Across", objects::Line{linework::lineThrough(test::places("50 70, 100 70"), {})}, &across);
        EXPECT_TRUE(apply(parcelRound(results(), {75, 80})));
        parcel = last<objects::Parcel>();
        boundary = document.get<objects::Parcel>(parcel)->line;
        EXPECT_TRUE(apply(nameAdjoiner(parcel, sideNear({75, 70}), "the lane")));
        EXPECT_TRUE(apply(nameThing(parcel, cornerAt({90, 90}), "a stone")));
    }
    [[nodiscard]] std::size_t sideNear(geometry::Vec2 place) const {
        return geometry::nearestOn(planPath(line(boundary)), place)->segment;
    }
    [[nodiscard]] std::size_t cornerAt(geometry::Vec2 place) const {
        const auto& all = line(boundary).vertices;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (geometry::distance(all[i].place, place) < 1e-6) return i;
        ADD_FAILURE() << "no corner";
        return 0;
    }
    [[nodiscard]] double area() const { return results()->parcels.at(parcel)->geometry.area; }
    [[nodiscard]] std::size_t findings() const {
        const auto all = check::run(*results());
        return static_cast<std::size_t>(std::count_if(
            all.begin(), all.end(), [](const check::Finding& f) { return f.kind == "line-follows"; }));
    }
};

TEST(ParcelRound, FollowsTheLinesItWasPickedFrom) {
    PickedSite s;
    EXPECT_NEAR(s.area(), 600, 1e-9);
    ASSERT_TRUE(s.apply(moveVertex(s.across, 0, {50, 75})));
    ASSERT_TRUE(s.apply(moveVertex(s.across, 1, {100, 75})));
    EXPECT_NEAR(s.area(), 450, 1e-9);
    // A corner of the plot that is the parcel's as well, dragged at the parcel: out to 100 100.
    ASSERT_TRUE(s.apply(moveVertex(s.boundary, s.cornerAt({90, 90}), {100, 100}))) << s.said;
    EXPECT_THAT(s.line(s.plot).vertices[2].place, test::IsNear(100, 100, 1e-9));
    // Shoelace of 60 75, 93.75 75, 100 100, 60 90.
    EXPECT_NEAR(s.area(), 721.875, 1e-9);
    const auto text = s.results()->parcels.at(s.parcel)->description;
    EXPECT_THAT(text, HasSubstr("along the lane"));
    EXPECT_THAT(text, HasSubstr("to a stone"));
    // Where two lines cross there is no corner to drag.
    EXPECT_FALSE(s.apply(moveVertex(s.boundary, s.cornerAt({60, 75}), {61, 76})));
    EXPECT_THAT(s.said, HasSubstr("cross here"));
    EXPECT_EQ(s.findings(), 0U);
}

TEST(ParcelRound, GoesAlongWhenAllOfItIsMoved) {
    PickedSite s;
    const auto far = linework::PlanMove::by({500, -300});
    ASSERT_TRUE(s.apply(movePlan({{s.plot, {}}, {s.across, {}}}, far, false))) << s.said;
    EXPECT_NEAR(s.area(), 600, 1e-9);
    EXPECT_THAT(s.line(s.boundary).vertices[s.cornerAt({590, -210})].place, test::IsNear(590, -210, 1e-9));
    ASSERT_TRUE(s.apply(moveVertex(s.across, 0, {550, -220})));
    EXPECT_LT(s.area(), 500);
}

TEST(ParcelRound, SaysWhenItsFigureIsOpen) {
    PickedSite s;
    const auto before = s.document;
    // A line of it is cut in two: the same figure of other lines.
    ASSERT_TRUE(s.apply(splitLine(s.results(), {s.across, {}, 0, 0.5}))) << s.said;
    EXPECT_EQ(s.findings(), 0U);
    EXPECT_EQ(objects::figureOf(*s.document.get<objects::Line>(s.boundary))->lines.size(), 3U);
    ASSERT_TRUE(s.apply(moveVertex(s.across, 0, {50, 65})));
    EXPECT_GT(s.area(), 600);
    // It leads nowhere any more: the boundary stays as it was, and says so.
    s.document = before;
    ASSERT_TRUE(s.apply(moveVertex(s.across, 1, {70, 70})));
    EXPECT_NEAR(s.area(), 600, 1e-9);
    EXPECT_EQ(s.findings(), 1U);
    // Put back it follows again.
    ASSERT_TRUE(s.apply(moveVertex(s.across, 1, {100, 75})));
    EXPECT_EQ(s.findings(), 0U);
    EXPECT_NEAR(s.area(), 30 * (19 + 16) / 2.0, 1e-9);
    // The line is gone: not the figure of what is left.
    ASSERT_TRUE(s.apply([&](const Document& d) -> Result<Edited> { return d.without(s.across); }));
    EXPECT_EQ(s.findings(), 1U);
    EXPECT_NEAR(s.area(), 30 * (19 + 16) / 2.0, 1e-9);
    // Another line in its place is offered, not one that it follows already; taken, it is the side.
    ObjectId instead;
    s.document = s.document.added(
        "Instead", objects::Line{linework::lineThrough(test::places("55 78, 95 78"), {})}, &instead);
    bool taken = false;
    const auto left = s.document;
    for (const auto& finding : check::run(*s.results()))
        for (const auto& fix : finding.fixes) {
            if (finding.kind != "line-follows") continue;
            EXPECT_EQ(fix.label.find("'Plot'"), std::string::npos) << fix.label;
            if (fix.label == "Follow 'Instead'") taken = s.apply(fix.apply);
        }
    ASSERT_TRUE(taken);
    EXPECT_EQ(s.findings(), 0U);
    EXPECT_NEAR(s.area(), 30 * 12, 1e-9);
    s.document = left;
    ASSERT_TRUE(s.apply(loosen(s.results(), {s.boundary})));
    EXPECT_EQ(s.findings(), 0U);
    ASSERT_TRUE(s.apply(moveVertex(s.boundary, s.cornerAt({90, 90}), {90, 95})));
}

TEST(ParcelRound, SplitInTwoItIsItsOwn) {
    PickedSite s;
    ASSERT_TRUE(s.apply(splitParcel(s.results(), s.parcel, {ParcelCut::By::Line, {75, 0}, {75, 100}, 0})))
        << s.said;
    EXPECT_THAT(s.said, HasSubstr("no longer follows"));
    EXPECT_EQ(s.document.get<objects::Line>(s.boundary)->follows, nullptr);
    EXPECT_NEAR(s.area(), 300, 1e-9);
}

TEST(ParcelRound, ANeighboursCornerIsMovedOnce) {
    // The plot is a parcel itself; its corner is that of the picked one, which follows.
    PickedSite s;
    s.document = s.document.added("Plot parcel", objects::Parcel{s.plot, false, 0, {}});
    ASSERT_TRUE(s.apply(moveVertex(s.plot, 2, {95, 95}))) << s.said;
    EXPECT_THAT(s.line(s.boundary).vertices[s.cornerAt({95, 95})].place, test::IsNear(95, 95, 1e-9));
    ASSERT_TRUE(s.apply(insertCorner({s.plot, {}, 2, 0.5}))) << s.said;
    EXPECT_EQ(s.line(s.boundary).vertices.size(), 5U);
}

TEST(ParcelRound, InACircleItStaysAndSaysSo) {
    // As a damaged file may have it: itself among its lines, and two that follow each other.
    PickedSite s;
    const auto follow = [&](ObjectId line, std::vector<ObjectId> lines) {
        s.document = document::changed<objects::Line>(s.document, line, [&](objects::Line& l) {
            l.follows = std::make_shared<const objects::Follows>(objects::FigureOf{lines, {75, 80}});
        });
    };
    follow(s.boundary, {s.boundary, s.plot});
    EXPECT_EQ(s.findings(), 1U);
    EXPECT_NEAR(s.area(), 600, 1e-9);
    ASSERT_TRUE(s.apply(moveVertex(s.plot, 0, {61, 61})));
    EXPECT_FALSE(s.apply(moveVertex(s.boundary, s.cornerAt({60, 70}), {61, 71})));
    follow(s.boundary, {s.plot, s.across});
    follow(s.plot, {s.boundary, s.across});
    EXPECT_EQ(s.findings(), 2U);
    ASSERT_TRUE(s.apply(moveVertex(s.across, 0, {50, 72})));
    EXPECT_NEAR(s.area(), 600, 1e-9);
}

TEST(ParcelRound, ComesBackFromAFile) {
    PickedSite s;
    const auto written = format::toJson(*s.document.find(s.boundary));
    const auto read = test::valueOf(format::objectFromJson(written));
    EXPECT_EQ(format::toJson(read), written);
    const auto& line = *read.payload.as<objects::Line>();
    ASSERT_NE(objects::figureOf(line), nullptr);
    EXPECT_EQ(*objects::figureOf(line), *objects::figureOf(*s.document.get<objects::Line>(s.boundary)));
    auto damaged = written;
    damaged["follows"]["inside"] = "here";
    EXPECT_FALSE(format::objectFromJson(damaged));
}

}  // namespace
}  // namespace erdwerk::operations
