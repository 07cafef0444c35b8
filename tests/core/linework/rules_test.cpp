// Every height rule: its typed form, its fields, how it looks from the other end, and heights in closed form.

#include "core/linework/rules/height_rule.h"

#include "core/linework/edit.h"
#include "core/linework/height_solver.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

const RuleNames names{[](ObjectId id) { return std::string(id.value == 9 ? "Kerb-2" : "Ground"); },
                      [](const std::string& name) { return name == "Ground" ? ObjectId{7} : ObjectId{}; },
                      [](const std::string& name) { return name == "Kerb-2" ? ObjectId{9} : ObjectId{}; }};

HeightRule rule(const std::string& text) {
    return valueOf(parseRule(text, names));
}

/// A straight line along x with rules at these stations; ends are corners, the rest grade points.
Line3D along(const std::vector<std::pair<double, std::string>>& rules) {
    Line3D line;
    const double from = rules.front().first;
    const double length = rules.back().first - from;
    for (std::size_t i = 0; i < rules.size(); ++i) {
        LineVertex v;
        v.isCorner = i == 0 || i + 1 == rules.size();
        v.place = {rules[i].first, 0};
        v.fraction = (rules[i].first - from) / length;
        v.rule = rule(rules[i].second);
        line.vertices.push_back(v);
    }
    return line;
}

/// The surface z = 50 + x / 100.
Result<std::optional<double>> plane(ObjectId, Vec2 p) {
    return std::optional<double>(50 + p.x / 100);
}

std::vector<std::optional<double>> heightsOf(const Line3D& line) {
    std::vector<std::optional<double>> out;
    for (const auto& v : resolve(line, plane).vertices) out.push_back(v.height);
    return out;
}

void expectHeights(const Line3D& line, const std::vector<double>& expected) {
    const auto heights = heightsOf(line);
    ASSERT_EQ(heights.size(), expected.size());
    for (std::size_t i = 0; i < expected.size(); ++i) {
        ASSERT_TRUE(heights[i]) << i << ": " << resolve(line, plane).vertices[i].problem;
        EXPECT_NEAR(*heights[i], expected[i], 1e-9) << i;
    }
}

class EveryRule : public testing::TestWithParam<const char*> {};

TEST_P(EveryRule, IsShownAsItWasTyped) {
    EXPECT_EQ(ruleText(rule(GetParam()), names), GetParam());
}

TEST_P(EveryRule, ComesBackFromItsFields) {
    const HeightRule r = rule(GetParam());
    EXPECT_EQ(valueOf(readRule(std::string(ruleName(r)), writeRule(r))), r);
}

TEST_P(EveryRule, IsItsOwnOppositeTurnedTwice) {
    const HeightRule r = rule(GetParam());
    EXPECT_EQ(reversed(reversed(r)), r);
    EXPECT_EQ(isControl(reversed(r)), isControl(r));
    EXPECT_EQ(looksBack(reversed(r)), looksAhead(r));
}

INSTANTIATE_TEST_SUITE_P(Typed, EveryRule,
                         testing::Values("101.25", "h -3.2", "+0.15", "-0.15", "2%", "-2%", "3:1", "-3:1",
                                         "1 in 3", "2.50%", "to 2%", "to 3:1", "to -0.15", "=Ground",
                                         "=Ground+0.1", "interpolated", "none", "=\"Kerb-2\"",
                                         "=\"Kerb-2\"+0.1", "=\"Kerb-2\"-2%", "=\"Kerb-2\"-3:1",
                                         "x \"Kerb-2\"", "x \"Kerb-2\"-0.1", "meet 2% -3%",
                                         "meet 50:1 -1 in 20"));

TEST(Rules, WhatIsNoneIsRefusedWithAReason) {
    for (const char* text :
         {"", "abc", "1 in 0", "to", "to abc", "h abc", "0:0", "=Nowhere", "2%%", "=Kerb-2", "x Nowhere",
          "x \"Kerb-2\"-2%", "meet 2%", "meet 2% x", "=\"Kerb-2", "=\"Kerb-2\"abc", "x ", "=Ground-2%"}) {
        const auto r = parseRule(text, names);
        ASSERT_FALSE(r) << text;
        EXPECT_FALSE(r.error().text.empty()) << text;
    }
    EXPECT_FALSE(readRule("bend", {}));
    EXPECT_FALSE(readRule("grade", {}));
}

TEST(Rules, MeasureFromThePreviousControlAndLookPastOthers) {
    // 2 % over 40 m from the fixed height, not from the points between.
    expectHeights(along({{0, "100"}, {10, "interpolated"}, {25, "interpolated"}, {40, "2%"}}),
                  {100, 100.2, 100.5, 100.8});
    expectHeights(along({{0, "100"}, {30, "3:1"}, {60, "+0.15"}}), {100, 110, 110.15});
    const auto past = heightsOf(along({{0, "100"}, {10, "none"}, {40, "2%"}}));
    EXPECT_FALSE(past[1]);
    EXPECT_NEAR(*past[2], 100.8, 1e-9);
}

TEST(Rules, MeasureToTheNextControl) {
    // The first lies so that 2 % leads up to the next.
    expectHeights(along({{0, "to 2%"}, {20, "interpolated"}, {50, "101"}}), {100, 100.4, 101});
    expectHeights(along({{0, "to -0.15"}, {50, "101"}}), {101.15, 101});
    expectHeights(along({{0, "to 2%"}, {50, "to 1:1"}, {60, "200"}}), {189, 190, 200});
    EXPECT_FALSE(heightsOf(along({{0, "100"}, {50, "to 2%"}}))[1]);
}

TEST(Rules, OnASurfaceWithAnAmount) {
    expectHeights(along({{0, "=Ground+0.10"}, {50, "interpolated"}, {100, "=Ground"}}), {50.1, 50.55, 51});
}

TEST(Rules, InACircleSayIt) {
    auto r = resolve(along({{0, "to 2%"}, {50, "+0.15"}}), plane);
    EXPECT_TRUE(r.vertices[0].circular);
    EXPECT_FALSE(r.vertices[0].height);
    EXPECT_FALSE(r.vertices[1].height);
    Line3D closed = lineThrough(places("0 0, 10 0, 10 10"), {}, true);
    for (auto& v : closed.vertices) v.rule = rule("+1");
    r = resolve(closed, plane);
    for (const auto& v : r.vertices) EXPECT_TRUE(v.circular);
    // One height that stands by itself ends it: the rules go round.
    closed.vertices[1].rule = rule("100");
    expectHeights(closed, {102, 100, 101});
}

TEST(Rules, RandomLinesKeepTheirHeightsWhenTheyAreTurnedCutOrGetAPoint) {
    std::mt19937 random(20261126);
    const auto pick = [&](std::size_t n) {
        return std::uniform_int_distribution<std::size_t>(0, n - 1)(random);
    };
    const std::vector<std::string> all{"101.25",   "+0.15",       "2%",           "3:1",          "to 2%",
                                       "to -0.15", "=Ground+0.1", "interpolated", "interpolated", "none"};
    int complete = 0;
    for (int run = 0; run < 400; ++run) {
        Line3D line;
        const std::size_t n = 3 + pick(6);
        for (std::size_t i = 0; i < n; ++i) {
            LineVertex v;
            v.place = {static_cast<double>(i) * 10 + static_cast<double>(pick(5)),
                       static_cast<double>(pick(20))};
            v.rule = rule(all[pick(all.size())]);
            line.vertices.push_back(v);
        }
        line.closed = run % 3 == 0;
        const auto before = resolve(line, plane);
        if (before.complete()) ++complete;
        const auto same = [&](const ResolvedVertex& a, const ResolvedVertex& b) {
            if (!a.height) return;
            ASSERT_TRUE(b.height) << "run " << run << ": " << b.problem;
            EXPECT_NEAR(*a.height, *b.height, 1e-9) << "run " << run;
        };
        const auto turned = resolve(reversed(line), plane);
        for (std::size_t i = 0; i < n; ++i)
            same(before.vertices[i], turned.vertices[line.closed ? (n - i) % n : n - 1 - i]);
        const auto with = resolve(valueOf(insertGradePoint(line, 0, 0.5)), plane);
        for (std::size_t i = 0; i < n; ++i) same(before.vertices[i], with.vertices[i == 0 ? 0 : i + 1]);
    }
    EXPECT_GT(complete, 50);
}

}  // namespace
}  // namespace erdwerk::linework
