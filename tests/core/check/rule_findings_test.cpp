// Height rules in a project: lines that use each other, circles, what is gone, curves that do not fit.

#include "core/check/finding.h"

#include <random>
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/rules.h"
#include "core/operations/surfaces.h"
#include "core/terrain/locator.h"
#include "support/after_edit.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::check {
namespace {

using test::places;
using test::valueOf;

/// The plane site with three more lines: "Kerb" beside the lane, "Ditch" across it.
struct Site : test::PlaneSite {
    ObjectId kerb = add("Kerb", "10 8, 40 8, 60 8");
    ObjectId ditch = add("Ditch", "25 0, 25 30");

    ObjectId add(const char* name, const char* corners) {
        ObjectId id;
        document = document.added(name, objects::Line{linework::lineThrough(places(corners), {}), {}}, &id);
        return id;
    }
    void type(ObjectId of, std::size_t vertex, const std::string& text) {
        ASSERT_TRUE(apply(operations::setTypedRule(of, vertex, text))) << said;
    }
    [[nodiscard]] std::vector<Finding> findings() const { return check::run(*results()); }
    [[nodiscard]] const Finding* find(const std::vector<Finding>& all, const std::string& kind) const {
        for (const auto& f : all)
            if (f.kind == kind) return &f;
        return nullptr;
    }
};

TEST(RuleFindings, LinesOfAProjectTakeHeightsFromEachOther) {
    Site s;
    s.type(s.kerb, 0, "=Lane+0.10");
    s.type(s.kerb, 1, "=Lane-2%");
    s.type(s.kerb, 2, "=Ground");
    const auto kerb = s.resolved(s.kerb);
    EXPECT_NEAR(*kerb.vertices[0].height, 10.4, 1e-9);
    // The lane's corner at 40 10 is between 10.3 and 12 over 30 + 40: 10.3 + 1.7 * 3 / 7; 2 away at 2 %.
    EXPECT_NEAR(*kerb.vertices[1].height, 10.3 + 1.7 * 3 / 7 - 0.04, 1e-9);
    EXPECT_NEAR(*kerb.vertices[2].height, test::PlaneSite::height(60, 8), 1e-9);
    // It follows, and what does not depend on it stays the same result.
    derive::Model model;
    const auto before = valueOf(model.evaluate(s.document));
    s.type(s.lane, 0, "11");
    const auto after = valueOf(model.evaluate(s.document));
    EXPECT_NEAR(*after.lines.at(s.kerb)->vertices[0].height, 11.1, 1e-9);
    EXPECT_EQ(before.lines.at(s.plot), after.lines.at(s.plot));
    EXPECT_EQ(model.computedLast(), 2U);  // the lane and the kerb
}

TEST(RuleFindings, TwoLinesAndASurfaceUseEachOtherByControl) {
    Site s;
    // The ditch is part of the ground and starts from the lane; the lane ends on the ground.
    s.document =
        test::afterEdit(s.document, operations::addSource(s.ground, {s.ditch, objects::Role::Breakline}));
    s.type(s.ditch, 0, "=Lane");
    s.type(s.ditch, 1, "-1%");
    s.type(s.lane, 2, "=Ground");
    EXPECT_TRUE(s.resolved(s.ditch).vertices[0].circular);  // the place on the lane lies before that end
    s.type(s.lane, 1, "10.9");
    const auto all = s.results();
    const auto& ditch = *all->lines.at(s.ditch);
    ASSERT_TRUE(ditch.complete());
    EXPECT_NEAR(*ditch.vertices[0].height, 10.6, 1e-9);  // half way between 10.3 and 10.9
    EXPECT_NEAR(*all->lines.at(s.lane)->vertices[2].height, *all->surface(s.ground)->heightAt({40, 50}),
                1e-9);
    for (const auto& f : check::run(*all)) EXPECT_NE(f.kind, "height-rule-circle") << f.text;
}

/// Two lines of three corners that use each other: b starts at a's start and rises 2 %, a goes on 1 above b.
struct CycleSite : Site {
    ObjectId a = add("A", "0 60, 10 60, 20 60");
    ObjectId b = add("B", "0 62, 10 62, 20 62");
    CycleSite() {
        type(a, 0, "5");
        type(b, 0, "=A");
        type(b, 1, "2%");
        type(a, 1, "=B+1");
        type(a, 2, "9");
        type(b, 2, "=A");
    }
};

TEST(RuleFindings, AnEditInAKnotIsFollowedAsIfAllWereWorkedOutAnew) {
    CycleSite s;
    derive::Model model;
    for (const double height : {5.0, 7.0, 7.5}) {
        s.type(s.a, 0, formatExact(height));
        const auto kept = valueOf(model.evaluate(s.document));
        EXPECT_NEAR(*kept.lines.at(s.a)->vertices[1].height, height + 0.2 + 1, 1e-12);
        EXPECT_NEAR(*kept.lines.at(s.b)->vertices[2].height, 9, 1e-12);
        const auto anew = valueOf(derive::evaluate(s.document));
        for (const ObjectId id : {s.a, s.b}) EXPECT_EQ(*kept.lines.at(id), *anew.lines.at(id));
    }
}

TEST(RuleFindings, RandomEditsOfAKnotEndWhereAWholeSolutionEnds) {
    // Twelve lines that use each other along the way, changed 200 times: figures, rules and places.
    for (unsigned seed = 1; seed <= 5; ++seed) {
        std::mt19937 random(seed);
        const auto pick = [&](std::size_t n) {
            return std::uniform_int_distribution<std::size_t>(0, n - 1)(random);
        };
        document::Document d;
        std::vector<ObjectId> ids(12);
        for (std::size_t l = 0; l < ids.size(); ++l) {
            std::vector<geometry::Vec2> corners;
            for (std::size_t k = 0; k < 12; ++k)
                corners.push_back({10.0 * static_cast<double>(k), static_cast<double>(l)});
            std::vector<std::optional<double>> heights(12, 50.0 + static_cast<double>(l));
            d = d.added("L" + std::to_string(l), objects::Line{linework::lineThrough(corners, heights), {}},
                        &ids[l]);
        }
        derive::Model model;
        for (int round = 0; round < 200; ++round) {
            const std::size_t l = pick(ids.size());
            const std::size_t k = 1 + pick(10);
            const std::string names = "L" + std::to_string(pick(ids.size()));
            const std::string texts[] = {std::to_string(40 + pick(20)), "1%", "-0.5",
                                         "=" + names + "+0.25",         "~",  "50 curve 8"};
            auto next = operations::setTypedRule(ids[l], k, texts[pick(6)])(d);
            if (pick(8) == 0)
                next = operations::moveVertex(ids[l], k, {10.0 * static_cast<double>(k) + 2, 0})(d);
            if (!next) continue;
            d = next->document;
            const auto kept = valueOf(model.evaluate(d));
            const auto anew = valueOf(derive::evaluate(d));
            for (const ObjectId id : ids) {
                const auto& a = *kept.lines.at(id);
                const auto& b = *anew.lines.at(id);
                ASSERT_EQ(a.curves, b.curves) << "seed " << seed << ", round " << round;
                for (std::size_t i = 0; i < a.vertices.size(); ++i) {
                    ASSERT_EQ(a.vertices[i].height.has_value(), b.vertices[i].height.has_value())
                        << "seed " << seed << ", round " << round;
                    ASSERT_EQ(a.vertices[i].circular, b.vertices[i].circular);
                    if (a.vertices[i].height)
                        ASSERT_NEAR(*a.vertices[i].height, *b.vertices[i].height, 1e-9)
                            << "seed " << seed << ", round " << round;
                }
            }
        }
    }
}

TEST(RuleFindings, ACircleIsOneFindingThatNamesEveryControl) {
    Site s;
    s.type(s.kerb, 0, "=Ditch");
    s.type(s.ditch, 0, "=Kerb");
    s.type(s.ditch, 1, "3");
    const auto all = s.findings();
    std::size_t circles = 0;
    for (const auto& f : all)
        if (f.kind == "height-rule-circle") ++circles;
    EXPECT_EQ(circles, 1U);
    const auto* f = s.find(all, "height-rule-circle");
    ASSERT_NE(f, nullptr);
    EXPECT_THAT(f->names, testing::UnorderedElementsAre("Kerb", "Ditch"));
    EXPECT_THAT(f->text, testing::HasSubstr("'Kerb', point 1"));
    EXPECT_THAT(f->text, testing::HasSubstr("'Ditch', point 1"));
    s.document = test::mended(f->fixes.front(), s.document);
    EXPECT_EQ(s.find(s.findings(), "height-rule-circle"), nullptr);
}

TEST(RuleFindings, ALineThatNamesItselfIsACircleOfOne) {
    Site s;
    s.type(s.kerb, 0, "3");
    s.type(s.kerb, 1, "=Kerb+1");
    s.type(s.kerb, 2, "5");
    const auto all = s.findings();
    const auto* f = s.find(all, "height-rule-circle");
    ASSERT_NE(f, nullptr);
    EXPECT_THAT(f->names, testing::ElementsAre("Kerb"));
    EXPECT_NEAR(*s.resolved(s.kerb).vertices[2].height, 5, 1e-12);
    // At a crossing with itself as well.
    ASSERT_TRUE(s.apply(operations::insertGradePoint({s.kerb, {}, 1, 0.5})));
    s.type(s.kerb, 2, "x Kerb");
    EXPECT_NE(s.find(s.findings(), "height-rule"), nullptr);
}

TEST(RuleFindings, WhatGoesAwayLeavesAFindingThatKeepsTheHeightsOrChoosesAnother) {
    Site s;
    s.type(s.kerb, 0, "=Lane+0.10");
    s.type(s.kerb, 1, "2%");
    derive::Model model;
    valueOf(model.evaluate(s.document));
    ASSERT_TRUE(s.apply([id = s.lane](const document::Document& d) -> Result<document::Edited> {
        return document::removeAll(d, {id});
    }));
    const auto derived = valueOf(model.evaluate(s.document));
    const auto all = check::run(derived);
    const auto* f = s.find(all, "height-rule-lost");
    ASSERT_NE(f, nullptr);
    EXPECT_EQ(f->fixes.front().label, "Keep the height 10.40");
    EXPECT_FALSE(derived.lines.at(s.kerb)->vertices[0].height);  // and no zero
    auto kept = s;
    kept.document = test::mended(f->fixes.front(), s.document);
    EXPECT_NEAR(*kept.resolved(s.kerb).vertices[1].height, 10.4 + 0.6, 1e-9);
    // The nearest lines are offered by name.
    const auto from = std::find_if(f->fixes.begin(), f->fixes.end(),
                                   [](const Fix& fix) { return fix.label == "Measure from 'Ditch'"; });
    EXPECT_EQ(from, f->fixes.end());  // it has no heights yet
    s.type(s.ditch, 0, "3");
    s.type(s.ditch, 1, "3");
    const auto again = check::run(valueOf(model.evaluate(s.document)));
    const auto* g = s.find(again, "height-rule-lost");
    ASSERT_NE(g, nullptr);
    ASSERT_EQ(g->fixes.size(), 3U);
    s.document = test::mended(g->fixes[1], s.document);
    EXPECT_NEAR(*s.resolved(s.kerb).vertices[0].height, 3.1, 1e-9);
}

TEST(RuleFindings, WhatGoesAwayFromAKnotLeavesTheNewestHeights) {
    CycleSite s;
    derive::Model model;
    valueOf(model.evaluate(s.document));
    for (const char* height : {"6", "7"}) {
        s.type(s.a, 0, height);
        valueOf(model.evaluate(s.document));
    }
    ASSERT_TRUE(s.apply([id = s.a](const document::Document& d) -> Result<document::Edited> {
        return document::removeAll(d, {id});
    }));
    const auto derived = valueOf(model.evaluate(s.document));
    EXPECT_EQ(derived.lines.at(s.b)->vertices[0].lastHeight, 7);
    EXPECT_EQ(derived.lines.at(s.b)->vertices[1].lastHeight, 7.2);
}

TEST(RuleFindings, ACurveThatDoesNotFitAndGradesThatDoNotMeetAreTold) {
    Site s;
    s.type(s.kerb, 0, "10");
    s.type(s.kerb, 1, "12 curve 50");
    s.type(s.kerb, 2, "10");
    ASSERT_TRUE(s.apply(operations::insertGradePoint({s.lane, {}, 0, 0.5})));
    s.type(s.lane, 1, "meet 1% 1%");
    const auto all = s.findings();
    const auto* curve = s.find(all, "vertical-curve");
    ASSERT_NE(curve, nullptr);
    EXPECT_THAT(curve->text, testing::HasSubstr("reaches past"));
    const auto* meet = s.find(all, "height-rule");
    ASSERT_NE(meet, nullptr);
    EXPECT_THAT(meet->text, testing::HasSubstr("do not meet"));
    EXPECT_EQ(s.find(check::run(valueOf(derive::evaluate(test::mended(curve->fixes.front(), s.document)))),
                     "vertical-curve"),
              nullptr);
}

// ---- freeze and free

TEST(RuleFindings, FreezeMakesRulesTheirHeightsAndFreeTakesThemAway) {
    Site s;
    s.type(s.kerb, 0, "=Lane+0.10");
    s.type(s.kerb, 1, "2% curve 10");
    s.type(s.kerb, 2, "=Ground");
    ASSERT_TRUE(s.apply(operations::insertGradePoint({s.kerb, {}, 1, 0.25})));
    const auto before = s.resolved(s.kerb);
    auto one = s;
    ASSERT_TRUE(one.apply(operations::freeze(one.results(), {{one.kerb, 1}})));
    EXPECT_TRUE(std::holds_alternative<linework::FixedHeight>(one.line(one.kerb).vertices[1].rule));
    EXPECT_TRUE(std::holds_alternative<linework::OnLine>(one.line(one.kerb).vertices[0].rule));
    ASSERT_TRUE(s.apply(operations::freeze(s.results(), {{s.kerb, {}}, {s.lane, {}}})));
    EXPECT_EQ(s.resolved(s.kerb), before);
    for (const std::size_t i : {0U, 1U, 3U})
        EXPECT_TRUE(std::holds_alternative<linework::FixedHeight>(s.line(s.kerb).vertices[i].rule)) << i;
    EXPECT_TRUE(std::holds_alternative<linework::Interpolated>(s.line(s.kerb).vertices[2].rule));
    EXPECT_FALSE(s.apply(operations::freeze(s.results(), {{s.kerb, {}}})));  // nothing left to do
    ASSERT_TRUE(s.apply(operations::freeHeights({{s.kerb, 1}})));
    EXPECT_TRUE(std::holds_alternative<linework::NoHeight>(s.line(s.kerb).vertices[1].rule));
    EXPECT_FALSE(s.line(s.kerb).vertices[1].curve);
}

TEST(RuleFindings, AFrozenMeetingPointStaysWhereItWasFound) {
    Site s;
    s.type(s.kerb, 0, "10");
    s.type(s.kerb, 2, "10");
    ASSERT_TRUE(s.apply(operations::insertGradePoint({s.kerb, {}, 0, 0.5})));
    s.type(s.kerb, 1, "meet 1% -2%");
    s.type(s.kerb, 2, "~");
    const auto before = s.resolved(s.kerb);  // 50 long: at 33.3, behind the corner at 30
    EXPECT_NEAR(before.vertices[1].distance, 100.0 / 3, 1e-9);
    ASSERT_TRUE(s.apply(operations::freeze(s.results(), {{s.kerb, {}}})));
    const auto after = s.resolved(s.kerb);
    ASSERT_FALSE(s.line(s.kerb).vertices[2].isCorner);
    EXPECT_NEAR(after.vertices[2].distance, 100.0 / 3, 1e-9);
    for (double d = 0; d <= 50; d += 1.25) EXPECT_NEAR(*heightAt(after, d), *heightAt(before, d), 1e-9) << d;
}

}  // namespace
}  // namespace erdwerk::check
