#include "core/operations/descriptions.h"

#include "core/check/finding.h"
#include "core/document/edit_trace.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/reading.h"
#include "core/operations/lines.h"
#include "core/operations/records.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using test::PlaneSite;
using testing::HasSubstr;

/// A plot of 100 x 60: east, north, west, south.
struct Plotted : PlaneSite {
    ObjectId rim;
    ObjectId land;
    Plotted() {
        document = document.added(
            "Boundary",
            objects::Line{linework::lineThrough(test::places("0 0, 100 0, 100 60, 0 60"), {}, true)}, &rim);
        document = document.added("Plot", objects::Parcel{rim, false, 0, "the pin"}, &land);
    }
    const objects::Parcel& parcel() const { return *document.get<objects::Parcel>(land); }
    derive::ParcelResult result() { return *results()->parcels.at(land); }
    std::string text() { return result().description; }
    std::vector<std::string> findings(const std::string& kind) {
        std::vector<std::string> out;
        for (const auto& f : check::run(*results()))
            if (f.kind == kind) out.push_back(f.text);
        return out;
    }
    void fixAll(const std::string& kind) {
        for (const auto& f : check::run(*results()))
            if (f.kind == kind) document = test::mended(f.fixes.front(), document);
    }
    void moveCorner(std::size_t vertex, Vec2 to) {
        auto changed = *document.get<objects::Line>(rim);
        changed.line.vertices[vertex].place = to;
        const auto next = document.withPayload(rim, changed);
        document = document::withPartsCarried(document, next, document::EditTrace(document, next));
    }
};

TEST(Descriptions, NamesStayAtTheirSideAndCorner) {
    Plotted s;
    ASSERT_TRUE(s.apply(nameAdjoiner(s.land, 1, "the lane")));
    ASSERT_TRUE(s.apply(nameThing(s.land, 1, "a stone")));
    EXPECT_THAT(s.text(),
                HasSubstr("thence along the lane, due North, a distance of 60.00 metres, to a stone;"));
    // Another way round, and from another corner: the same side, the other end of it.
    auto turned = s.parcel();
    turned.reversed = true;
    turned.begin = 1;
    s.document = s.document.withPayload(s.land, turned);
    EXPECT_THAT(
        s.text(),
        HasSubstr("due East, a distance of 100.00 metres, to a stone;\nthence along the lane, due South"));
    // A corner more before it, and the line turned round: it is still that side.
    ASSERT_TRUE(s.apply(reverseLine(s.rim)));
    EXPECT_THAT(s.text(), HasSubstr("to a stone"));
    EXPECT_THAT(s.text(), HasSubstr("along the lane, due"));
    EXPECT_FALSE(s.apply(nameAdjoiner(s.land, 9, "nobody")));
    ASSERT_TRUE(s.apply(nameThing(s.land, 0, "")));
}

TEST(Descriptions, APassageChangedByHandStaysAndSaysWhenItIsBehind) {
    Plotted s;
    const auto course = s.result().passages[2];
    EXPECT_EQ(course.part.text, "thence due East, a distance of 100.00 metres");
    ASSERT_TRUE(s.apply(typePassage(s.land, course, "thence to the gate, 100 metres")));
    EXPECT_THAT(s.text(), HasSubstr("beginning;\nthence to the gate, 100 metres;\nthence due North"));
    EXPECT_TRUE(s.findings("passage-behind").empty());
    s.moveCorner(1, {104, 0});
    EXPECT_THAT(s.text(), HasSubstr("to the gate, 100 metres"));
    ASSERT_EQ(s.findings("passage-behind").size(), 1U);
    EXPECT_THAT(s.findings("passage-behind")[0], HasSubstr("a distance of 104.00 metres"));
    s.fixAll("passage-behind");
    EXPECT_TRUE(s.findings("passage-behind").empty());
    EXPECT_THAT(s.text(), HasSubstr("thence due East, a distance of 104.00 metres"));
    // Typed as it writes itself it is by hand no more; so is the empty one.
    ASSERT_TRUE(s.apply(typePassage(s.land, s.result().passages[2], "x")));
    EXPECT_EQ(s.parcel().passages.size(), 1U);
    ASSERT_TRUE(s.apply(typePassage(s.land, s.result().passages[2], "")));
    EXPECT_TRUE(s.parcel().passages.empty());
    // The line goes, and the parcel with it.
    s.document = s.document.without(s.rim);
    EXPECT_EQ(s.document.get<objects::Parcel>(s.land), nullptr);
    EXPECT_FALSE(s.apply(typePassage(s.land, course, "late")));
}

TEST(Descriptions, AWordingIsOfTheProjectAndOneThatIsNotValidIsRefused) {
    Plotted s;
    ASSERT_TRUE(s.apply(ownWording(s.land, parcel::shippedTemplates()[2])));
    const ObjectId wording = s.parcel().wording;
    EXPECT_EQ(s.document.nameOf(wording), "Numbered list, metres");
    EXPECT_THAT(s.text(), HasSubstr("the following four (4) courses:\n(1) due East"));
    ASSERT_TRUE(s.apply(changeSentence(wording, "line", "go {direction} for {distance:1} m")));
    EXPECT_THAT(s.text(), HasSubstr("(1) go due East for 100.0 m;"));
    EXPECT_FALSE(s.apply(changeSentence(wording, "line", "{radius}")));
    EXPECT_THAT(s.said, HasSubstr("no field {radius}"));
    // It goes: plain again.
    s.document = s.document.without(wording);
    EXPECT_FALSE(s.parcel().wording);
    EXPECT_THAT(s.text(), HasSubstr("thence due East, a distance of 100.00 metres"));
}

TEST(Descriptions, TheWayToTheBeginningIsToldAndFollows) {
    Plotted s;
    ObjectId way;
    s.document =
        s.document.added("Way", objects::Line{linework::lineThrough(test::places("-30 -40, 0 0"), {})}, &way);
    auto tied = s.parcel();
    tied.tie = way;
    tied.commencement = "the pillar";
    s.document = s.document.withPayload(s.land, tied);
    EXPECT_THAT(
        s.text(),
        HasSubstr("Commencing at the pillar; thence N 36°52'12\" E, a distance of 50.00 metres, to the pin"));
    s.document = s.document.without(way);
    EXPECT_THAT(s.text(), HasSubstr("Beginning at the pin"));
}

TEST(Descriptions, ATextIsReadBackAndFollowsTheParcel) {
    Plotted s;
    ASSERT_TRUE(s.apply(readBack(*s.results(), "Deed", s.text(), s.land, {7, 7})));
    const ObjectId deed = s.last<objects::Reading>();
    // It lies where the parcel begins.
    EXPECT_EQ(s.document.get<objects::Reading>(deed)->at, (Vec2{0, 0}));
    EXPECT_TRUE(s.results()->readings.at(deed)->differences.empty());
    EXPECT_TRUE(s.findings("description-differs").empty());
    s.moveCorner(1, {104, 0});
    // East is longer, north leans, the area is another, in both units.
    EXPECT_EQ(s.findings("description-differs").size(), 5U);
    EXPECT_THAT(s.findings("description-differs")[0],
                HasSubstr("Deed, course 1, distance called 100.000, it is 104.000 (\"100.00 metres\")"));
    ASSERT_TRUE(s.apply(changeReading(deed, "nothing of a call")));
    EXPECT_EQ(s.findings("nothing-read").size(), 1U);
    ASSERT_TRUE(s.apply(changeReading(deed, "thence N 10° 5 m; thence S 20° W 8 m")));
    EXPECT_EQ(s.findings("not-read").size(), 1U);
    EXPECT_EQ(s.findings("description-open").size(), 1U);
    ASSERT_TRUE(s.apply(turnReading(deed, "90")));
    ASSERT_TRUE(s.apply(placeReading(deed, "10, 20")));
    EXPECT_FALSE(s.apply(placeReading(deed, "10")));
    EXPECT_FALSE(s.apply(turnReading(deed, "round")));
    EXPECT_EQ(s.results()->readings.at(deed)->path.front().start, (Vec2{10, 20}));
    EXPECT_FALSE(s.apply(readBack(*s.results(), "Empty", "", s.land, {})));
    // The parcel goes; the text stays.
    s.document = s.document.without(s.land);
    EXPECT_FALSE(s.document.get<objects::Reading>(deed)->parcel);
}

TEST(Descriptions, CalledCoursesThatDoNotCloseAreAFinding) {
    Plotted s;
    ASSERT_TRUE(s.apply(ownWording(s.land, parcel::plainTemplate(LengthUnit::Metre))));
    EXPECT_TRUE(s.findings("called-courses-open").empty());
    ASSERT_TRUE(s.apply(changeSentence(s.parcel().wording, "line", "{direction:0} {distance:0} m")));
    s.moveCorner(1, {100.4, 0.3});
    EXPECT_EQ(s.findings("called-courses-open").size(), 1U);
}

}  // namespace
}  // namespace erdwerk::operations
