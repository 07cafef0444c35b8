#include "core/check/finding.h"

#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/operations/with.h"
#include "demo_site/project.h"
#include "support/after_edit.h"
#include "support/geometry.h"
#include "support/mended.h"

namespace erdwerk::check {
namespace {

using document::Document;
using test::places;
using test::valueOf;

std::vector<Finding> findingsOf(const Document& d) {
    return run(valueOf(derive::evaluate(d)));
}

const Finding* find(const std::vector<Finding>& all, const std::string& kind) {
    for (const auto& f : all)
        if (f.kind == kind) return &f;
    return nullptr;
}

TEST(Findings, TheDemoShowsItsDeliberateFaults) {
    const auto all = findingsOf(demo::project(demo::survey(7)));
    const auto* crossing = find(all, "crossing-breaklines");
    ASSERT_NE(crossing, nullptr);
    EXPECT_EQ(crossing->severity, Severity::MustFix);
    ASSERT_EQ(crossing->heights.size(), 2U);
    EXPECT_NEAR(crossing->heights[1] - crossing->heights[0], 0.65, 0.05);
    EXPECT_NE(find(all, "without-height"), nullptr);
    EXPECT_NE(find(all, "same-place"), nullptr);
    ASSERT_NE(find(all, "non-tangent"), nullptr);
    EXPECT_THAT(find(all, "non-tangent")->text, testing::HasSubstr("1°12'"));
    EXPECT_EQ(all.front().severity, Severity::MustFix);
}

TEST(Findings, EveryFixRemovesItsFinding) {
    Document d = demo::project(demo::survey(7));
    for (int round = 0; round < 10; ++round) {
        const auto all = findingsOf(d);
        const auto fixable =
            std::find_if(all.begin(), all.end(), [](const Finding& f) { return !f.fixes.empty(); });
        if (fixable == all.end()) break;
        for (const auto& fix : fixable->fixes) {
            const auto after = findingsOf(test::mended(fix, d));
            EXPECT_LT(after.size(), all.size()) << fixable->text << ": " << fix.label;
        }
        d = test::mended(fixable->fixes.front(), d);
    }
    const auto left = findingsOf(d);
    // The joint that is not tangent has no fix by button; points beyond the edge are only worth knowing.
    ASSERT_EQ(left.size(), 2U);
    EXPECT_NE(find(left, "non-tangent"), nullptr);
    EXPECT_NE(find(left, "points-outside"), nullptr);
}

TEST(Findings, AFixThatChangesNothingSaysSo) {
    const auto before = test::afterEdit(
        {}, operations::addPoints("s", {{"7", {0, 0}, 1.0, "", ""}, {"7", {5, 0}, 1.0, "", ""}}));
    const auto all = findingsOf(before);
    const auto* f = find(all, "same-number");
    ASSERT_NE(f, nullptr);
    // Nobody else changed the points: it holds.
    const auto done = mend(before, *f, 0)(before);
    ASSERT_TRUE(done);
    EXPECT_FALSE(difference(before, done->document).empty());
    // The points changed since the finding was made.
    const auto late = mend(before, *f, 0)(done->document);
    ASSERT_FALSE(late);
    EXPECT_THAT(late.error().text, testing::HasSubstr("changed meanwhile"));
    // One that does nothing is refused, alone and with all others of its kind.
    Finding idle = *f;
    idle.fixes.front().apply = [](const Document& d) -> Result<document::Edited> { return d; };
    idle.fixes.front().removes = {};
    idle.fixes.front().way = "do nothing";
    for (const auto& edit : {mend(before, idle, 0), fixAll({idle}, idle.kind, "do nothing")}) {
        const auto nothing = edit(before);
        ASSERT_FALSE(nothing);
        EXPECT_THAT(nothing.error().text, testing::HasSubstr("nothing left to mend"));
    }
}

TEST(Findings, AHeightRuleCircleIsNamed) {
    linework::Line3D ring = linework::lineThrough(places("0 0, 10 0, 10 10"), {}, true);
    for (auto& v : ring.vertices) v.rule = linework::GradeFromPrevious{Grade::percent(1)};
    const auto all = findingsOf(Document().added("Ring", objects::Line{ring, {}}));
    ASSERT_NE(find(all, "height-rule-circle"), nullptr);
    EXPECT_THAT(find(all, "height-rule-circle")->text, testing::HasSubstr("Ring"));
}

TEST(Findings, AnOpenParcelMustBeFixed) {
    ObjectId line;
    Document d = Document().added(
        "P", objects::Line{linework::lineThrough(places("0 0, 10 0, 10 10"), {}), {}}, &line);
    d = d.added("P", objects::Parcel{line, false, 0, ""});
    const auto all = findingsOf(d);
    const auto* f = find(all, "parcel-open");
    ASSERT_NE(f, nullptr);
    EXPECT_TRUE(findingsOf(test::mended(f->fixes.front(), d)).empty());
}

TEST(Findings, APlanLineWithoutAnyHeightIsFine) {
    EXPECT_TRUE(
        findingsOf(Document().added("P", objects::Line{linework::lineThrough(places("0 0, 10 0"), {}), {}}))
            .empty());
    EXPECT_EQ(findingsOf(
                  Document().added("P", objects::Line{linework::lineThrough(places("0 0, 10 0"), {1.0}), {}}))
                  .size(),
              1U);
}

TEST(Findings, ASurfaceThatCannotBeBuiltSaysWhy) {
    const auto all = findingsOf(test::afterEdit({}, operations::addSurface("Empty", {})));
    ASSERT_NE(find(all, "no-surface"), nullptr);
    EXPECT_THAT(all.front().text, testing::HasSubstr("fewer than three points"));
}

TEST(Findings, RepeatedNumbersAreFound) {
    const auto d = test::afterEdit(
        {}, operations::addPoints("s", {{"7", {0, 0}, 1.0, "", ""}, {"7", {5, 0}, 1.0, "", ""}}));
    const auto all = findingsOf(d);
    ASSERT_NE(find(all, "same-number"), nullptr);
    EXPECT_TRUE(findingsOf(test::mended(find(all, "same-number")->fixes.front(), d)).empty());
}

TEST(Findings, RepeatedNumbersCanAllBeMendedInOneOfThreeWays) {
    const auto d = test::afterEdit({}, operations::addPoints("s", {{"7", {0, 0}, 1.0, "", ""},
                                                                   {"7", {5, 0}, 1.0, "", ""},
                                                                   {"8", {9, 0}, 1.0, "", ""},
                                                                   {"7", {9, 5}, 1.0, "", ""},
                                                                   {"7a", {9, 9}, 1.0, "", ""}}));
    const auto all = findingsOf(d);
    const auto ways = waysToFixAll(all, "same-number");
    ASSERT_EQ(ways.size(), 3U);
    for (const auto& [way, count] : ways) EXPECT_EQ(count, 2U);
    const auto numbersAfter = [&](std::size_t way) {
        const auto next = test::valueOf(fixAll(all, "same-number", ways[way].first)(d)).document;
        EXPECT_TRUE(findingsOf(next).empty());
        std::vector<std::string> out;
        const auto& set = next.get<objects::Points>(next.all<objects::Points>().front())->set;
        for (std::size_t i = 0; i < set.size(); ++i) out.push_back(set[i].number);
        return out;
    };
    EXPECT_THAT(numbersAfter(0), testing::ElementsAre("7", "9", "8", "10", "7a"));
    EXPECT_THAT(numbersAfter(1), testing::ElementsAre("7", "7b", "8", "7c", "7a"));
    // Two points of one set go at once, whatever their places become in between.
    EXPECT_THAT(numbersAfter(2), testing::ElementsAre("7", "8", "7a"));
    EXPECT_TRUE(waysToFixAll(all, "without-height").empty());
}

TEST(Findings, AFixSaysItsFigureAndWhoseItIs) {
    Document d;
    ObjectId a;
    ObjectId b;
    d = test::afterEdit(
        d, operations::addPoints(
               "p", {{"1", {0, 0}, 1.0, "", ""}, {"2", {50, 0}, 2.0, "", ""}, {"3", {0, 50}, 3.0, "", ""}}));
    d = d.added("Ditch", objects::Line{linework::lineThrough(places("2 10, 20 10"), {1.0, 1.0}), {}}, &a);
    d = d.added("Path", objects::Line{linework::lineThrough(places("10 2, 10 20"), {4.0, 4.0}), {}}, &b);
    d = test::afterEdit(
        d, operations::addSurface("Ground", {{d.byName<objects::Points>("p"), objects::Role::Points},
                                             {a, objects::Role::Breakline},
                                             {b, objects::Role::Breakline}}));
    const auto all = findingsOf(d);
    const auto* f = find(all, "crossing-breaklines");
    ASSERT_NE(f, nullptr);
    EXPECT_EQ(f->fixes[0].brief, "Ditch's 1.00");
    EXPECT_EQ(f->fixes[1].brief, "Path's 4.00");
    EXPECT_EQ(f->fixes[2].brief, "the mean 2.50");
}

TEST(Findings, ARimFixSaysHowMuchItTakes) {
    // A square, and a point 0.1 outside the middle of its south side: two needles of 5 m² in all at the rim.
    Document d = test::afterEdit({}, operations::addPoints("p", {{"1", {0, 0}, 1.0, "", ""},
                                                                 {"2", {100, 0}, 1.0, "", ""},
                                                                 {"3", {100, 100}, 1.0, "", ""},
                                                                 {"4", {0, 100}, 1.0, "", ""},
                                                                 {"5", {50, -0.1}, 1.0, "", ""},
                                                                 {"6", {50, 0.1}, 1.0, "", ""}}));
    d = test::afterEdit(
        d, operations::addSurface("Ground", {{d.byName<objects::Points>("p"), objects::Role::Points}}));
    const auto all = findingsOf(d);
    const auto* f = find(all, "rim-needles");
    ASSERT_NE(f, nullptr);
    // (0 0, 50 -0.1, 50 0.1) and its mirror image: 50 x 0.2 / 2 = 5 m² each.
    EXPECT_EQ(f->fixes.front().brief, "leave out 2 triangles, 10.00 m²");
    EXPECT_EQ(f->parts.size(), 2U);
}

TEST(Findings, ACircleThroughLinesAndASurfaceNamesAllThatIsInIt) {
    // The surface is made from A, whose first height is taken from the surface.
    Document d;
    ObjectId a;
    ObjectId ground;
    d = test::afterEdit(
        d, operations::addPoints(
               "p", {{"1", {0, 0}, 1.0, "", ""}, {"2", {50, 0}, 2.0, "", ""}, {"3", {0, 50}, 3.0, "", ""}}));
    d = d.added("A", objects::Line{linework::lineThrough(places("5 5, 20 5, 20 20"), {10.0, 11.0, 12.0}), {}},
                &a);
    d = test::afterEdit(
        d,
        operations::addSurface("Ground", {{d.byName<objects::Points>("p"), objects::Role::Points},
                                          {a, objects::Role::Breakline}}),
        &ground);
    auto line = d.get<objects::Line>(a)->line;
    line.vertices[0].rule = linework::OnSurface{ground, 0};
    d = operations::withLine(d, a, line);
    const auto all = findingsOf(d);
    const auto* f = find(all, "height-rule-circle");
    ASSERT_NE(f, nullptr);
    EXPECT_THAT(f->names, testing::UnorderedElementsAre("A", "Ground"));
    EXPECT_THAT(f->text, testing::HasSubstr("('A', point 1 → 'Ground' → 'A', point 1)"));
    EXPECT_EQ(find(findingsOf(test::mended(f->fixes.front(), d)), "height-rule-circle"), nullptr);
}

TEST(Findings, TwoHeightsAtOnePlaceAreAsSeriousAsACrossing) {
    const auto d = test::afterEdit({}, operations::addPoints("p", {{"1", {0, 0}, 1.0, "", ""},
                                                                   {"2", {0, 0}, 2.0, "", ""},
                                                                   {"3", {9, 9}, 3.0, "", ""},
                                                                   {"4", {9, 9}, 3.0, "", ""}}));
    std::vector<Severity> severities;
    for (const auto& f : findingsOf(d))
        if (f.kind == "same-place") severities.push_back(f.severity);
    EXPECT_THAT(severities, testing::ElementsAre(Severity::MustFix, Severity::LookAt));
}

TEST(Findings, FollowUnitsDecimalsAndNamesAsTheyChange) {
    Document d = demo::project(demo::survey(7));
    Memory memory;
    derive::Model model;
    const auto texts = [&] {
        std::string out;
        for (const auto& f : run(valueOf(model.evaluate(d)), &memory)) out += f.text + "\n";
        return out;
    };
    const auto fresh = [&] {
        std::string out;
        for (const auto& f : findingsOf(d)) out += f.text + "\n";
        return out;
    };
    (void)texts();
    auto settings = d.settings();
    settings.display.unit = LengthUnit::UsSurveyFoot;
    settings.display.heightDecimals = 4;
    settings.display.lengthDecimals = 4;
    d = d.withSettings(settings);
    EXPECT_EQ(texts(), fresh());
    for (const auto id : d.all<objects::Surface>()) d = test::afterEdit(d, operations::rename(id, "Renamed"));
    for (const auto id : d.all<objects::Line>())
        d = test::afterEdit(d, operations::rename(id, "Line of " + d.nameOf(id)));
    EXPECT_EQ(texts(), fresh());
}

}  // namespace
}  // namespace erdwerk::check
