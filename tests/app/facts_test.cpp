// The facts of each kind: what is typed or chosen there is an edit of the object, what cannot be read is said
// and changes nothing.

#include <QCheckBox>
#include <QComboBox>
#include <QPicture>
#include <QSignalSpy>

#include "app/base/open_project.h"
#include "app/base/snapshot.h"
#include "core/derive/parcel_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/alignment.h"
#include "core/objects/artwork.h"
#include "core/objects/backdrop.h"
#include "core/objects/cloud.h"
#include "core/objects/design_criteria.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/earthwork.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/marking.h"
#include "core/objects/offset_set.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/reading.h"
#include "core/objects/section.h"
#include "core/objects/table.h"
#include "core/objects/wording.h"
#include "core/terrain/shade.h"
#include "one_of_each.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class FactsOf : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        window->session().project().startNew(site.document);
        window->settle();
    }
    template <class T>
    ObjectId pick(std::optional<std::size_t> part = {}) {
        const ObjectId id = site.ids.at(objects::kindIndex<T>);
        select(id, part);
        return id;
    }
    template <class T>
    [[nodiscard]] const T& now(ObjectId id) const {
        return *doc().get<T>(id);
    }
    template <class Widget>
    Widget* row(const char* name) {
        auto* found = window->facts()->findChild<Widget*>(QStringLiteral("fact:") + QString::fromUtf8(name));
        if (found == nullptr) throw std::runtime_error(std::string("no fact ") + name);
        return found;
    }
    void typeInto(const char* name, const char* text) {
        auto* entry = row<QLineEdit>(name);
        entry->setFocus();
        entry->selectAll();
        QTest::keyClicks(entry, QString::fromUtf8(text));
        QTest::keyClick(entry, Qt::Key_Return);
        window->settle();
    }
    void tick(const char* name) {
        row<QCheckBox>(name)->click();
        window->settle();
    }
    void choose(const char* name, int i) {
        auto* box = row<QComboBox>(name);
        box->setCurrentIndex(i);
        Q_EMIT box->activated(i);
        window->settle();
    }
    /// Typed there it is refused with words, and nothing is a step.
    void expectRefused(const char* name, const char* text) {
        const auto steps = window->session().history().steps().size();
        const auto before = doc();
        const QSignalSpy said(&window->session(), &Session::message);
        typeInto(name, text);
        EXPECT_EQ(window->session().history().steps().size(), steps) << name << ": " << text;
        EXPECT_TRUE(difference(before, doc()).empty());
        ASSERT_EQ(said.count(), 1) << name << ": " << text;
        EXPECT_FALSE(said.front().at(0).toString().isEmpty());
        EXPECT_TRUE(said.front().at(1).toBool());
    }
    Site site;
};

TEST_F(FactsOf, APoint) {
    const ObjectId id = pick<objects::Points>(1);
    typeInto("Number", "77");
    typeInto("Easting", "91.5");
    typeInto("Northing", "11.25");
    typeInto("Height", "+0.5");
    typeInto("Code", "TOE");
    typeInto("Note", "wet");
    EXPECT_EQ(now<objects::Points>(id).set[1], (survey::SurveyPoint{"77", {91.5, 11.25}, 7.5, "TOE", "wet"}));
    expectRefused("Easting", "east");
    expectRefused("Height", "high");
    typeInto("Height", " ");
    EXPECT_FALSE(now<objects::Points>(id).set[1].height);
}

TEST_F(FactsOf, ALineAndItsCorner) {
    const ObjectId id = pick<objects::Line>(1);
    typeInto("Rule", "2%");
    EXPECT_NEAR(*derived().lines.at(id)->vertices[1].height, 6.4, 1e-9);
    expectRefused("Rule", "steep");
    select(id);
    choose("Drawn as", 1);
    EXPECT_EQ(now<objects::Line>(id).style, objects::LineStyle::Crest);
    EXPECT_TRUE(doc().find(id)->group);
    choose("Group", 0);
    EXPECT_FALSE(doc().find(id)->group);
}

TEST_F(FactsOf, ASurface) {
    const ObjectId id = pick<objects::Surface>();
    typeInto("Interval", "0.25");
    typeInto("Index every", "4");
    tick("Contours");
    tick("Triangles");
    choose("Bands of", 2);
    const auto& style = now<objects::Surface>(id).style;
    EXPECT_EQ(style.interval, 0.25);
    EXPECT_EQ(style.indexEvery, 4);
    EXPECT_FALSE(style.contours);
    EXPECT_TRUE(style.triangles);
    EXPECT_EQ(style.bands, objects::Bands::Slope);
    expectRefused("Interval", "0");
    expectRefused("Interval", "often");
    typeInto("Longest edge", "30");
    EXPECT_EQ(now<objects::Surface>(id).definition->maxEdge, 30);
    choose("At crossings", 3);
    EXPECT_EQ(now<objects::Surface>(id).definition->onCrossing, terrain::CrossingRule::Mean);
    choose("Against", 1);
    typeInto("Within", "0.2");
    EXPECT_EQ(now<objects::Surface>(id).fit.tolerance, 0.2);
    EXPECT_EQ(doc().nameOf(now<objects::Surface>(id).fit.source), "Flight");
}

TEST_F(FactsOf, ASurfaceOffersWhatCouldBeASourceMore) {
    const ObjectId id = pick<objects::Surface>();
    auto* add = window->facts()->findChild<QComboBox*>(QStringLiteral("addSource"));
    QStringList offered;
    for (int i = 1; i < add->count(); ++i) offered << add->itemText(i).section(QStringLiteral("   "), 0, 0);
    EXPECT_EQ(offered, (QStringList{QStringLiteral("Rim"), QStringLiteral("Survey"), QStringLiteral("Flight"),
                                    QStringLiteral("Heights")}));
    Q_EMIT add->activated(3);
    window->settle();
    const auto& source = now<objects::Surface>(id).definition->sources.back();
    EXPECT_EQ(doc().nameOf(source.object), "Flight");
    EXPECT_EQ(source.role, objects::Role::Cloud);
}

TEST_F(FactsOf, AnAlignmentAndItsProfile) {
    const ObjectId id = pick<objects::Alignment>();
    typeInto("Name", "Old lane");
    typeInto("Start station", "1+250");
    typeInto("Short ticks every", "10");
    tick("Curve figures");
    tick("Against the line's direction");
    EXPECT_EQ(doc().nameOf(id), "Old lane");
    EXPECT_EQ(now<objects::Alignment>(id).startStation, 1250);
    const ObjectId marking = now<objects::Alignment>(id).marking;
    ASSERT_TRUE(marking);
    EXPECT_EQ(now<objects::Marking>(marking).marking.small, 10);
    EXPECT_TRUE(now<objects::Marking>(marking).marking.curves);
    EXPECT_TRUE(now<objects::Alignment>(id).reversed);
    expectRefused("Start station", "here");
    expectRefused("Short ticks every", "-5");
    expectRefused("Long ticks every", "far");
    const ObjectId profile = pick<objects::Profile>();
    choose("Ground", 0);
    EXPECT_FALSE(now<objects::Profile>(profile).ground);
    window->session().selection().set({{marking, std::nullopt}});
    window->settle();
    typeInto("Texts, mm", "3.5");
    EXPECT_EQ(now<objects::Marking>(marking).marking.height, 3.5);
    expectRefused("Texts, mm", "0");
    window->session().selection().set({{profile, std::nullopt}});
    window->settle();
    typeInto("Name", "Along the lane");
    EXPECT_EQ(doc().nameOf(profile), "Along the lane");
}

TEST_F(FactsOf, AParcelAndItsLabel) {
    const ObjectId id = pick<objects::Parcel>();
    typeInto("Beginning", "an iron pin");
    typeInto("Begins at corner", "3");
    EXPECT_EQ(now<objects::Parcel>(id).beginning, "an iron pin");
    EXPECT_EQ(now<objects::Parcel>(id).begin, 2U);
    expectRefused("Begins at corner", "0");
    tick("Against the line's direction");
    EXPECT_TRUE(now<objects::Parcel>(id).reversed);
    EXPECT_TRUE(derived().parcels.at(id)->description.find("an iron pin") != std::string::npos);
    const ObjectId label = pick<objects::Label>();
    const ObjectId style = now<objects::Label>(label).style;
    // None is no choice for a label.
    choose("Style", 0);
    EXPECT_EQ(now<objects::Label>(label).style, style);
}

TEST_F(FactsOf, ASheet) {
    const ObjectId id = pick<objects::Sheet>();
    choose("Paper", 3);
    EXPECT_EQ(now<objects::Sheet>(id).paper, (std::array<double, 2>{841, 594}));
    typeInto("Height, mm", "600");
    EXPECT_EQ(now<objects::Sheet>(id).paper[1], 600);
    expectRefused("Width, mm", "0");
    typeInto("Title", "Plan of the lot");
    typeInto("Drawn by", "A. N.");
    typeInto("Contours", "0.13");
    expectRefused("Parcels", "thick");
    const auto& sheet = now<objects::Sheet>(id);
    EXPECT_EQ(sheet.fields.at("title"), "Plan of the lot");
    EXPECT_EQ(sheet.fields.at("drawnBy"), "A. N.");
    EXPECT_EQ(sheet.weights.ground, 0.13);
}

TEST_F(FactsOf, APlanFrame) {
    const ObjectId id = pick<objects::Sheet>();
    window->session().selection().set({{id, 0}});
    QCoreApplication::processEvents();
    typeInto("From left, mm", "9.5");
    typeInto("Scale 1 :", "250");
    typeInto("Centre E", "48000");
    typeInto("Centre N", "91000");
    typeInto("Up is azimuth", "45.5");
    const auto plan = [&] { return std::get<objects::PlanFrame>(now<objects::Sheet>(id).frames[0].content); };
    EXPECT_EQ(now<objects::Sheet>(id).frames[0].room.left, 9.5);
    EXPECT_EQ(plan().scale, 250);
    EXPECT_EQ(plan().centre, (geometry::Vec2{48000, 91000}));
    EXPECT_NEAR(plan().up.degrees(), 45.5, 1e-9);
    expectRefused("Scale 1 :", "0");
    expectRefused("From left, mm", "290");
    expectRefused("Up is azimuth", "upwards");
    choose("Turned along", 1);
    EXPECT_TRUE(plan().along);
    EXPECT_GT(plan().to, 0);
    choose("Turned along", 0);
    EXPECT_FALSE(plan().along);
}

TEST_F(FactsOf, AGroupAndABackdropAreHiddenHereAndInContents) {
    const ObjectId group = pick<objects::Group>();
    typeInto("Colour", "#ff8800");
    EXPECT_EQ(now<objects::Group>(group).colour, "#ff8800");
    expectRefused("Colour", "orangeish");
    tick("Shown");
    EXPECT_TRUE(doc().shown().hidden.contains(group));
    const ObjectId photo = pick<objects::Backdrop>();
    tick("Shown");
    EXPECT_TRUE(doc().shown().hidden.contains(photo));
    // Both come back by their eyes in contents.
    for (const ObjectId id : {group, photo}) {
        window->contents()->pressEye(window->contents()->rowOf(id));
        window->settle();
    }
    EXPECT_TRUE(doc().shown().hidden.empty());
}

TEST_F(FactsOf, ACloudAndItsClasses) {
    const ObjectId id = pick<objects::Cloud>();
    choose("Coloured by", 1);
    typeInto("Show one every", "2.5");
    EXPECT_EQ(now<objects::Cloud>(id).colouring, objects::CloudColouring::Class);
    EXPECT_EQ(now<objects::Cloud>(id).spacing, 2.5);
    expectRefused("Show one every", "-1");
    choose("Group", 1);
    EXPECT_EQ(doc().nameOf(doc().find(id)->group), "Survey");
}

TEST_F(FactsOf, SeveralAreCountedByKind) {
    window->session().selection().set({{site.ids.at(0), {}}, {site.ids.at(1), {}}, {site.ids.at(2), {}}});
    window->settle();
    QStringList texts;
    for (const auto* label : window->facts()->findChildren<QLabel*>()) texts << label->text();
    EXPECT_TRUE(texts.contains(QStringLiteral("3 selected")));
    EXPECT_TRUE(texts.contains(QStringLiteral("3D lines")));
}

}  // namespace
}  // namespace erdwerk::app
