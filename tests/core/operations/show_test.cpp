#include "core/operations/show.h"

#include "core/format/project_file.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/groups.h"
#include "support/plane_site.h"
#include "support/same.h"

namespace erdwerk::operations {
namespace {

using objects::PlanPart;
using test::PlaneSite;

TEST(Shown, AnObjectIsHiddenByItselfOrWithItsGroup) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setShown({s.plot, s.group}, false)));
    EXPECT_TRUE(s.document.hidden(*s.document.find(s.plot)));
    EXPECT_TRUE(s.document.hidden(*s.document.find(s.lane)));  // in the group
    EXPECT_FALSE(s.document.hidden(*s.document.find(s.points)));
    ASSERT_TRUE(s.apply(setShown({s.plot}, true)));
    EXPECT_FALSE(s.document.hidden(*s.document.find(s.plot)));
}

TEST(Shown, ChangesNoObjectSoNothingIsWorkedOutAgain) {
    PlaneSite s;
    derive::Model model;
    (void)test::valueOf(model.evaluate(s.document));
    ASSERT_TRUE(s.apply(setShown({s.points, s.ground, s.lane}, false)));
    ASSERT_TRUE(s.apply(setPlanPart(PlanPart::Contours, false)));
    (void)test::valueOf(model.evaluate(s.document));
    EXPECT_EQ(model.computedLast(), 0U);
}

TEST(Shown, IsKeptInTheProjectFile) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setShown({s.plot}, false)));
    ASSERT_TRUE(s.apply(setPlanPart(PlanPart::PointHeights, false)));
    const test::Folder folder;
    ASSERT_TRUE(format::saveProject(folder / "p.erdwerk", *s.results(), {}));
    const auto opened = format::openProject(folder / "p.erdwerk");
    ASSERT_TRUE(opened);
    test::expectSame(opened->document, s.document);
    EXPECT_EQ(opened->document.shown().hidden, std::set{s.plot});
    EXPECT_EQ(opened->document.shown().off, objects::PlanPartsOff{PlanPart::PointHeights});
}

TEST(Shown, DamagedWordsAreRefused) {
    using nlohmann::json;
    EXPECT_FALSE(format::shownFromJson(json::parse(R"({"hidden": ["x"], "off": []})")));
    EXPECT_FALSE(format::shownFromJson(json::parse(R"({"hidden": [], "off": ["walls"]})")));
    EXPECT_FALSE(format::shownFromJson(json::parse(R"({"off": []})")));
    EXPECT_TRUE(format::wasHidden(json::parse(R"({"kind": "group", "visible": false})")));
    EXPECT_FALSE(format::wasHidden(json::parse(R"({"kind": "group"})")));
}

TEST(PlanParts, EachHasANameThatIsReadBack) {
    for (const PlanPart part : objects::allPlanParts)
        EXPECT_EQ(objects::planPartFrom(objects::planPartName(part)), part);
    EXPECT_FALSE(objects::planPartFrom("walls"));
}

TEST(Grouping, PutsObjectsInAndTakesThemOut) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(newGroup({s.plot, s.points, s.group})));
    const ObjectId made = s.last<objects::Group>();
    EXPECT_EQ(s.document.nameOf(made), "Group 1");
    EXPECT_EQ(s.document.find(s.plot)->group, made);
    EXPECT_EQ(s.document.find(s.points)->group, made);
    EXPECT_FALSE(s.document.find(s.group)->group);  // groups hold no groups
    ASSERT_TRUE(s.apply(putInGroup({s.plot, s.lane}, {})));
    EXPECT_FALSE(s.document.find(s.plot)->group);
    EXPECT_FALSE(s.document.find(s.lane)->group);
    EXPECT_FALSE(s.apply(putInGroup({s.plot}, s.lane)));  // no group
}

}  // namespace
}  // namespace erdwerk::operations
