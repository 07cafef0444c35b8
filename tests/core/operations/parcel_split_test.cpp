#include "core/operations/parcel_split.h"

#include "core/operations/descriptions.h"
#include "core/operations/labels.h"
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

}  // namespace
}  // namespace erdwerk::operations
