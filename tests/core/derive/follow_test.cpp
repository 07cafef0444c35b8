#include "core/derive/follow.h"

// Lines that follow other lines.

#include "core/check/finding.h"
#include "core/derive/line_result.h"
#include "core/format/project_file.h"
#include "core/linework/offset_row.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/operations/derived_lines.h"
#include "core/operations/labels.h"
#include "core/operations/plan_move.h"
#include "core/operations/plan_shape.h"
#include "core/operations/records.h"
#include "core/operations/shape.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::places;
using test::PlaneSite;
using test::valueOf;

/// A kerb of two rows to the right of the lane.
struct Kerb : PlaneSite {
    std::vector<ObjectId> rows;
    explicit Kerb(bool chained = false, const std::vector<std::string>& typed = {"2,+0.15", "5,-10%"}) {
        std::vector<linework::OffsetRow> all;
        for (const auto& t : typed) all.push_back(valueOf(linework::parseOffsetRow(t)));
        linework::OffsetOptions options;
        options.right = true;
        options.chained = chained;
        const Document before = document;
        EXPECT_TRUE(apply(offsetRows(results(), lane, all, options, ground))) << said;
        for (const auto& [id, object] : document.objects())
            if (!before.find(id) && document.get<objects::Line>(id) != nullptr) rows.push_back(id);
    }
    std::vector<check::Finding> findings(const std::string& kind) {
        std::vector<check::Finding> out;
        for (auto& f : check::run(*results()))
            if (f.kind == kind) out.push_back(std::move(f));
        return out;
    }
};

TEST(Follow, ARowGoesWithItsLineInPlanAndHeight) {
    Kerb s;
    ASSERT_EQ(s.rows.size(), 2U);
    ASSERT_TRUE(s.apply(moveVertex(s.lane, 0, {-30, 10})));
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 0, "250")));
    const auto lane = s.resolved(s.lane);
    for (std::size_t r = 0; r < 2; ++r) {
        const auto row = s.resolved(s.rows[r]);
        // The first side of the row is the lane's, 2 or 5 to its right.
        const auto on = geometry::nearestOn(lane.path, row.vertices.front().place);
        EXPECT_NEAR(on->distance, r == 0 ? 2 : 5, 1e-9);
        EXPECT_NEAR(*row.vertices.front().height, r == 0 ? 250.15 : 249.5, 1e-9);
        // What the document holds of it has the same corners.
        EXPECT_EQ(planPath(s.document.get<objects::Line>(s.rows[r])->line), row.path);
    }
}

TEST(Follow, AChainedRowFollowsTheRowBefore) {
    Kerb s(true);
    const auto before = s.resolved(s.rows[1]);
    const Results seen = s.results();
    ASSERT_TRUE(s.apply(setTypedRow(s.rows[0], "3,+0.25")));
    const auto after = s.resolved(s.rows[1]);
    const auto on = geometry::nearestOn(s.resolved(s.lane).path, after.vertices.front().place);
    EXPECT_NEAR(on->distance, 8, 1e-9);
    EXPECT_NEAR(*after.vertices.front().height - *before.vertices.front().height, 0.1, 1e-9);
    EXPECT_FALSE(s.apply(setTypedRow(s.rows[0], "kerb")));
    EXPECT_FALSE(s.apply(setTypedRow(s.lane, "3")));
}

TEST(Follow, NobodyChangesARowButThroughWhatItFollows) {
    Kerb s;
    const ObjectId row = s.rows[0];
    const Document before = s.document;
    EXPECT_FALSE(s.apply(moveVertex(row, 0, {0, 0})));
    EXPECT_NE(s.said.find("follows"), std::string::npos) << s.said;
    EXPECT_FALSE(s.apply(setTypedRule(row, 0, "3")));
    EXPECT_FALSE(s.apply(splitLine(s.results(), {row, std::nullopt, 0, 0.5})));
    EXPECT_FALSE(s.apply(joinLines(s.results(), row, s.lane)));
    EXPECT_FALSE(s.apply(joinLines(s.results(), s.lane, row)));
    EXPECT_FALSE(s.apply(freeze(s.results(), {{row, std::nullopt}})));
    EXPECT_FALSE(s.apply(movePlan({{row, std::nullopt}}, linework::PlanMove::by({1, 0}), false)));
    EXPECT_TRUE(difference(before, s.document).empty());
    // With the line it goes along.
    const auto was = s.resolved(row).vertices.front().place;
    ASSERT_TRUE(s.apply(
        movePlan({{row, std::nullopt}, {s.lane, std::nullopt}}, linework::PlanMove::by({7, 0}), false)));
    EXPECT_NEAR(s.resolved(row).vertices.front().place.x - was.x, 7, 1e-9);
}

TEST(Follow, LoosenedItStaysAsItIs) {
    Kerb s;
    const ObjectId row = s.rows[0];
    const auto before = s.resolved(row);
    ASSERT_TRUE(s.apply(loosen(s.results(), {row})));
    EXPECT_FALSE(s.document.get<objects::Line>(row)->follows);
    EXPECT_EQ(s.resolved(row).vertices, before.vertices);
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 0, "250")));
    EXPECT_EQ(s.resolved(row).vertices, before.vertices);
    EXPECT_TRUE(s.apply(moveVertex(row, 0, {0, 0})));
    EXPECT_FALSE(s.apply(loosen(s.results(), {row, s.lane})));
}

TEST(Follow, WithoutItsLineItIsAFindingThatCanKeepIt) {
    Kerb s;
    derive::Model model;
    const auto with = valueOf(model.evaluate(s.document));
    const auto heights = with.lines.at(s.rows[0])->vertices;
    s.document = s.document.without(s.lane);
    const auto derived = valueOf(model.evaluate(s.document));
    std::vector<check::Finding> lost;
    for (auto& f : check::run(derived))
        if (f.kind == "line-follows") lost.push_back(std::move(f));
    ASSERT_EQ(lost.size(), 2U);
    EXPECT_NE(lost[0].text.find("no longer there"), std::string::npos);
    const auto kept = test::mended(lost[0].fixes.at(0), s.document);
    ASSERT_FALSE(kept.get<objects::Line>(s.rows[0])->follows);
    const auto now = valueOf(derive::evaluate(kept)).lines.at(s.rows[0]);
    ASSERT_EQ(now->vertices.size(), heights.size());
    for (std::size_t i = 0; i < heights.size(); ++i) EXPECT_EQ(now->vertices[i].height, heights[i].height);
}

TEST(Follow, ACircleOfRowsIsAFindingAndNoHang) {
    Kerb s;
    const std::string row = s.document.nameOf(s.rows[0]);
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 1, "=" + row + "+1")));
    EXPECT_FALSE(s.resolved(s.rows[0]).complete());
    const auto found = s.findings("line-follows");
    ASSERT_FALSE(found.empty());
    EXPECT_NE(found[0].text.find("takes its heights from it"), std::string::npos) << found[0].text;
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 1, "11")));
    EXPECT_TRUE(s.resolved(s.rows[0]).complete());
}

TEST(Follow, ALabelOnARowStaysOnItsSide) {
    Kerb s;
    ASSERT_TRUE(s.apply(makeLabel(s.rows[0], std::nullopt, 1)));
    const ObjectId label = s.last<objects::Label>();
    const auto side = s.resolved(s.rows[0]).path[1];
    ASSERT_TRUE(s.apply(insertCorner({s.lane, std::nullopt, 0, 0.5})));
    const auto part = s.document.get<objects::Label>(label)->part;
    EXPECT_EQ(part, 2U);
    const auto now = s.resolved(s.rows[0]).path[part];
    EXPECT_NEAR(geometry::distance(now.start, side.start), 0, 1e-9);
}

TEST(Follow, WhatMeetsFollowsBothLines) {
    PlaneSite s;
    ObjectId a;
    ObjectId b;
    s.document =
        s.document.added("Left", objects::Line{linework::lineThrough(places("0 0, 50 0"), {10.0, 10.0})}, &a);
    s.document = s.document.added(
        "Right", objects::Line{linework::lineThrough(places("0 20, 50 20"), {10.0, 10.0})}, &b);
    const linework::MeetOptions slopes{Grade::percent(-50), Grade::percent(-50)};
    ASSERT_TRUE(s.apply(meetLines(s.results(), a, b, slopes)));
    const ObjectId bottom = s.last<objects::Line>();
    EXPECT_NEAR(*s.resolved(bottom).vertices.front().height, 5, 1e-9);
    EXPECT_NEAR(s.resolved(bottom).vertices.front().place.y, 10, 1e-9);
    // One side 2 higher: they meet 2 m farther away from it, at 12 and 10 − 4.
    ASSERT_TRUE(s.apply(lift(s.results(), {{a, std::nullopt}}, 2)));
    EXPECT_NEAR(s.resolved(bottom).vertices.front().place.y, 12, 1e-9);
    EXPECT_NEAR(*s.resolved(bottom).vertices.front().height, 6, 1e-9);
    ASSERT_TRUE(s.apply(lift(s.results(), {{a, std::nullopt}}, 100)));
    EXPECT_NE(s.results()->followed.at(bottom)->problem.find("never meet"), std::string::npos);
}

TEST(Follow, IsInTheProjectFile) {
    Kerb s(true, {"2,+0.15", "1,="});
    test::Folder folder;
    const std::string file = folder / "kerb.erdwerk";
    ASSERT_TRUE(format::saveProject(file, *s.results()));
    const auto opened = valueOf(format::openProject(file));
    for (const ObjectId row : s.rows) {
        const auto* now = opened.document.get<objects::Line>(row);
        ASSERT_TRUE(now != nullptr && now->follows);
        EXPECT_EQ(*now->follows, *s.document.get<objects::Line>(row)->follows);
    }
    const auto derived = valueOf(derive::evaluate(opened.document));
    EXPECT_EQ(*derived.lines.at(s.rows[1]), s.resolved(s.rows[1]));
}

TEST(Following, LinesWithTooManySidesToMeetSaySo) {
    std::vector<geometry::Vec2> a;
    std::vector<geometry::Vec2> b;
    for (int i = 0; i < 4000; ++i) {
        a.push_back({0.1 * i, 0});
        b.push_back({0.1 * i, 10});
    }
    const std::vector<std::optional<double>> heights(a.size(), 100.0);
    const auto made =
        derive::meetingOf(linework::resolve(linework::lineThrough(a, heights), linework::Surroundings{}),
                          linework::resolve(linework::lineThrough(b, heights), linework::Surroundings{}), {});
    ASSERT_FALSE(made);
    EXPECT_NE(made.error().text.find("too many sides"), std::string::npos) << made.error().text;
}

}  // namespace
}  // namespace erdwerk::operations
