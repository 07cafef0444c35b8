#include "core/check/finding.h"

#include "core/document/edit.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::check {
namespace {

using document::Document;
using test::places;
using test::valueOf;

std::vector<Finding> findingsOf(const Document& d) {
    return run(valueOf(document::derive(d)));
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
            const auto after = findingsOf(fix.apply(d));
            EXPECT_LT(after.size(), all.size()) << fixable->text << ": " << fix.label;
        }
        d = fixable->fixes.front().apply(d);
    }
    const auto left = findingsOf(d);
    // The joint that is not tangent has no fix by button; points beyond the edge are only worth knowing.
    ASSERT_EQ(left.size(), 2U);
    EXPECT_NE(find(left, "non-tangent"), nullptr);
    EXPECT_NE(find(left, "points-outside"), nullptr);
}

TEST(Findings, AHeightRuleCircleIsNamed) {
    linework::Line3D ring = linework::lineThrough(places("0 0, 10 0, 10 10"), {}, true);
    for (auto& v : ring.vertices) v.rule = linework::GradeFromPrevious{Grade::percent(1)};
    const auto all = findingsOf(Document().added("Ring", document::Line{ring, {}}));
    ASSERT_NE(find(all, "height-rule-circle"), nullptr);
    EXPECT_THAT(find(all, "height-rule-circle")->text, testing::HasSubstr("Ring"));
}

TEST(Findings, AnOpenParcelMustBeFixed) {
    ObjectId line;
    Document d = Document().added(
        "P", document::Line{linework::lineThrough(places("0 0, 10 0, 10 10"), {}), {}}, &line);
    d = d.added("P", document::Parcel{line, false, 0, ""});
    const auto all = findingsOf(d);
    const auto* f = find(all, "parcel-open");
    ASSERT_NE(f, nullptr);
    EXPECT_TRUE(findingsOf(f->fixes.front().apply(d)).empty());
}

TEST(Findings, APlanLineWithoutAnyHeightIsFine) {
    EXPECT_TRUE(
        findingsOf(Document().added("P", document::Line{linework::lineThrough(places("0 0, 10 0"), {}), {}}))
            .empty());
    EXPECT_EQ(findingsOf(Document().added(
                             "P", document::Line{linework::lineThrough(places("0 0, 10 0"), {1.0}), {}}))
                  .size(),
              1U);
}

TEST(Findings, ASurfaceThatCannotBeBuiltSaysWhy) {
    const auto all = findingsOf(document::addSurface({}, "Empty", {}));
    ASSERT_NE(find(all, "no-surface"), nullptr);
    EXPECT_THAT(all.front().text, testing::HasSubstr("fewer than three points"));
}

TEST(Findings, RepeatedNumbersAreFound) {
    const auto d = document::addPoints({}, "s", {{"7", {0, 0}, 1.0, "", ""}, {"7", {5, 0}, 1.0, "", ""}});
    const auto all = findingsOf(d);
    ASSERT_NE(find(all, "same-number"), nullptr);
    EXPECT_TRUE(findingsOf(find(all, "same-number")->fixes.front().apply(d)).empty());
}

}  // namespace
}  // namespace erdwerk::check
