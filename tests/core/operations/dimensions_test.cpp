#include "core/operations/dimensions.h"

#include <random>

#include "core/annotate/label.h"
#include "core/check/finding.h"
#include "core/document/history.h"
#include "core/linework/edit.h"
#include "core/linework/line3d.h"
#include "core/objects/dimension.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/labels.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/with.h"
#include "support/after_edit.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using annotate::DimensionKind;
using geometry::Vec2;
using test::PlaneSite;
using testing::HasSubstr;

struct Dimensioned : PlaneSite {
    Anchor corner(std::size_t i) const { return {Anchor::On::Vertex, lane, i, 0.5, {}}; }
    Anchor side(std::size_t i) const { return {Anchor::On::Side, lane, i, 0.5, {}}; }
    ObjectId made(DimensionKind kind, std::vector<Anchor> anchors, annotate::DimensionLine line = {5, {}}) {
        EXPECT_TRUE(apply(newDimension(kind, std::move(anchors), line))) << said;
        return last<objects::Dimension>();
    }
    std::string says(ObjectId id) const {
        const auto result = results()->dimensions.at(id);
        return result->problem.empty() ? result->spans.front().text : result->problem;
    }
    void move(std::size_t vertex, Vec2 to) {
        document = document::changed<objects::Line>(
            document, lane, [&](objects::Line& l) { l.line.vertices[vertex].place = to; });
    }
};

TEST(Dimensions, FollowWhatTheyMeasure) {
    Dimensioned s;
    const ObjectId length = s.made(DimensionKind::Aligned, {s.corner(0), s.corner(1)});
    const ObjectId angle = s.made(DimensionKind::Angle, {s.side(0), s.side(1)}, {8, {}});
    const ObjectId rise = s.made(DimensionKind::Height, {s.corner(0), s.corner(2)});
    const ObjectId points = s.made(DimensionKind::Aligned, {{Anchor::On::Vertex, s.points, 0, 0.5, {}},
                                                            {Anchor::On::Place, {}, 0, 0.5, {3, 4}}});
    EXPECT_EQ(s.says(length), "30.00");
    EXPECT_EQ(s.says(angle), "90°00'00\"");
    EXPECT_EQ(s.says(rise), "+1.70");  // from 10.3 to 12
    EXPECT_EQ(s.says(points), "5.00");
    s.move(1, {50, 10});
    EXPECT_EQ(s.says(length), "40.00");
    // (-10, 40) against (-40, 0): atan 4.
    EXPECT_EQ(s.says(angle), "75°57'50\"");
    EXPECT_EQ(s.document.all<objects::DimensionStyle>().size(), 1U);
}

TEST(Dimensions, StayAsAFindingWhenWhatTheyMeasureIsGone) {
    Dimensioned s;
    const ObjectId length = s.made(DimensionKind::Aligned, {s.corner(0), s.corner(1)});
    const auto perform = document::perform(
        "Remove", [&](const Document& d) -> Result<Edited> { return d.without(s.lane); }, s.document);
    ASSERT_TRUE(perform);
    s.document = perform->document;
    EXPECT_THAT(s.says(length), HasSubstr("gone"));
    const auto findings = check::run(*s.results());
    const auto found = std::find_if(findings.begin(), findings.end(),
                                    [](const auto& f) { return f.kind == "lost-dimension"; });
    ASSERT_NE(found, findings.end());
    ASSERT_EQ(found->fixes.size(), 2U);
    // One way it measures on where it was, as far as that is known; the other it goes.
    EXPECT_EQ(test::mended(found->fixes[1], s.document).find(length), nullptr);
    s.document = test::mended(found->fixes[0], s.document);
    for (const auto& f : check::run(*s.results())) EXPECT_NE(f.kind, "lost-dimension") << f.text;
}

TEST(Dimensions, ACornerThatGoesLeavesItsPlace) {
    Dimensioned s;
    const ObjectId length = s.made(DimensionKind::Aligned, {s.corner(0), s.corner(1)});
    ASSERT_TRUE(s.apply([&](const Document& d) -> Result<Edited> {
        auto line = d.get<objects::Line>(s.lane)->line;
        line.vertices.erase(line.vertices.begin() + 1);
        return withLine(d, s.lane, line);
    }));
    EXPECT_THAT(s.said, HasSubstr("an end of Dimension 1"));
    const auto& anchors = s.document.get<objects::Dimension>(length)->anchors;
    EXPECT_EQ(anchors[1].on, Anchor::On::Gone);
    EXPECT_THAT(anchors[1].place, test::IsNear(40, 10, 1e-9));
    ASSERT_TRUE(s.apply(keepDimensionInPlace(length)));
    EXPECT_EQ(s.says(length), "30.00");
}

TEST(Dimensions, TheirLineGoesWhereItIsDragged) {
    Dimensioned s;
    const ObjectId length = s.made(DimensionKind::Aligned, {s.corner(0), s.corner(1)});
    ASSERT_TRUE(s.apply(dragDimension(length, {20, 17})));
    const auto span = s.results()->dimensions.at(length)->spans.front();
    EXPECT_THAT(span.from, test::IsNear(10, 17, 1e-9));
    EXPECT_THAT(span.to, test::IsNear(40, 17, 1e-9));
    const ObjectId angle = s.made(DimensionKind::Angle, {s.side(0), s.side(1)}, {8, {}});
    ASSERT_TRUE(s.apply(dragDimension(angle, {37, 14})));
    EXPECT_NEAR(s.document.get<objects::Dimension>(angle)->line.offset, 5, 1e-9);
}

TEST(Dimensions, TakeOnlyWhatFits) {
    Dimensioned s;
    const auto before = s.document;
    EXPECT_FALSE(s.apply(newDimension(DimensionKind::Aligned, {s.corner(0)}, {})));
    EXPECT_FALSE(s.apply(newDimension(DimensionKind::Angle, {s.corner(0), s.side(1)}, {})));
    EXPECT_THAT(s.said, HasSubstr("pick a side"));
    EXPECT_FALSE(s.apply(
        newDimension(DimensionKind::Aligned, {{Anchor::On::Vertex, {999}, 0, 0.5, {}}, s.corner(0)}, {})));
    EXPECT_FALSE(s.apply(moveDimension(s.lane, 3)));
    EXPECT_TRUE(document::difference(before, s.document).empty());
}

TEST(Dimensions, AreTiedToWhatWasClicked) {
    Dimensioned s;
    const auto results = s.results();
    EXPECT_EQ(anchorOn(*results, s.lane, 1, {40, 10}).on, Anchor::On::Vertex);
    const auto side = anchorOn(*results, s.lane, std::nullopt, {40, 20});
    EXPECT_EQ(side.on, Anchor::On::Side);
    EXPECT_NEAR(side.fraction, 0.25, 1e-9);
    EXPECT_EQ(anchorOn(*results, s.points, 2, {100, 100}).object, s.points);
    EXPECT_EQ(anchorOn(*results, s.ground, std::nullopt, {7, 8}).on, Anchor::On::Place);
    EXPECT_THAT(*anchorPlace(*results, side), test::IsNear(40, 20, 1e-9));
    EXPECT_THAT(*anchorPlace(s.document, side), test::IsNear(40, 20, 1e-9));
}

/// Anything that may befall a line and what stands beside it; `die` is any number.
std::vector<Edit> stormEdits(ObjectId line, const linework::Line3D& now, std::size_t vertex, Vec2 place,
                             std::size_t die, ObjectId points) {
    return {
        [=](const Document& d) -> Result<Edited> {
            auto next = now;
            next.vertices[vertex].place = place;
            return withLine(d, line, next);
        },
        [=](const Document& d) -> Result<Edited> { return withLine(d, line, linework::reversed(now)); },
        [=](const Document& d) -> Result<Edited> {
            auto next = now;
            if (next.vertices.size() > 4)
                next.vertices.erase(next.vertices.begin() + static_cast<std::ptrdiff_t>(vertex));
            return linework::validate(next) ? badInput("no line") : Result<Edited>(withLine(d, line, next));
        },
        [=](const Document& d) -> Result<Edited> {
            auto next = now;
            linework::LineVertex fresh;
            fresh.place = place;
            next.vertices.insert(next.vertices.begin() + static_cast<std::ptrdiff_t>(vertex), fresh);
            return linework::validate(next) ? badInput("no line") : Result<Edited>(withLine(d, line, next));
        },
        [=](const Document& d) -> Result<Edited> {
            return movePoint({points, die % d.get<objects::Points>(points)->set.size()}, place)(d);
        },
        makeLabel(line, std::nullopt, die % now.vertices.size()),
        relabel({line}),
        newDimension(DimensionKind::Aligned,
                     {{Anchor::On::Vertex, line, vertex, 0.5, {}}, {Anchor::On::Place, {}, 0, 0.5, place}},
                     {4, {}}),
        [=](const Document& d) -> Result<Edited> {
            auto next = now;
            if (next.vertices[vertex].isCorner) next.vertices[vertex].through = place;
            return linework::validate(next) ? badInput("no line") : Result<Edited>(withLine(d, line, next));
        }};
}

/// Every label and dimension names what is there; with results, each says something or why not.
void expectWhole(const Document& after, bool withResults) {
    for (const ObjectId id : after.all<objects::Label>()) {
        const auto& l = *after.get<objects::Label>(id);
        ASSERT_NE(after.find(l.target), nullptr);
        ASSERT_NE(after.find(l.style), nullptr);
        if (l.on == Label::On::Side && after.get<objects::Line>(l.target) != nullptr)
            ASSERT_LT(l.part, planPath(after.get<objects::Line>(l.target)->line).size());
    }
    for (const ObjectId id : after.all<objects::Dimension>())
        for (const Anchor& a : after.get<objects::Dimension>(id)->anchors)
            if (a.object) ASSERT_TRUE(anchorPlace(after, a)) << after.nameOf(id);
    if (withResults) {
        const auto results = test::valueOf(derive::evaluate(after));
        for (const ObjectId id : after.all<objects::Label>()) {
            ASSERT_EQ(results.labels.count(id), 1U);
            const auto& l = *results.labels.at(id);
            EXPECT_TRUE(!l.lines.empty() || !l.problem.empty());
        }
    }
}

/// Labels and dimensions of everything through any edits: each is there or its going was said, none names
/// what is gone, and undo brings back just what was.
TEST(RecordStorm, LabelsAndDimensionsThroughFiveHundredRandomEdits) {
    std::mt19937 random(2027);
    const auto below = [&](std::size_t n) { return n == 0 ? 0 : random() % n; };
    Dimensioned s;
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    LabelMany all;
    all.controls = true;
    ASSERT_TRUE(s.apply(labelMany({s.lane, s.last<objects::Parcel>(), s.points}, all)));
    ASSERT_TRUE(s.apply(labelPlace(s.ground, annotate::LabelKind::Contour, {31, 39})));
    s.made(DimensionKind::Chain, {s.corner(0), s.corner(1), s.corner(2)});
    s.made(DimensionKind::Angle, {s.side(0), s.side(1)}, {8, {}});
    document::History history(s.document);
    std::size_t done = 0;
    for (int step = 0; step < 500; ++step) {
        SCOPED_TRACE(step);
        const auto lines = history.current().all<objects::Line>();
        const ObjectId line = lines[below(lines.size())];
        const auto& now = history.current().get<objects::Line>(line)->line;
        const std::size_t vertex = below(now.vertices.size());
        const Vec2 place{static_cast<double>(below(100)), static_cast<double>(below(100))};
        const auto edits = stormEdits(line, now, vertex, place, below(100), s.points);
        const auto performed = document::perform("step", edits[below(edits.size())], history.fresh());
        if (!performed) continue;
        ++done;
        history.apply("step", performed->document);
        expectWhole(history.current(), step % 25 == 0);
    }
    EXPECT_GT(done, 300U);
    const Document last = history.current();
    while (history.canUndo()) history.goTo(history.position() - 1);
    EXPECT_TRUE(document::difference(history.current(), s.document).empty());
    while (history.canRedo()) history.goTo(history.position() + 1);
    EXPECT_TRUE(document::difference(history.current(), last).empty());
}

}  // namespace
}  // namespace erdwerk::operations
