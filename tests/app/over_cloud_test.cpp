// A repair over a cloud, counted: the edge of Starling Lane where the turning place joins it.

#include "app/base/open_project.h"
#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/vector_file.h"
#include "core/objects/points.h"
#include "core/operations/shape.h"
#include "demo_site/cloud.h"
#include "demo_site/site.h"
#include "support/places.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class OverCloud : public WindowTest {
protected:
    /// The demo with the turning place, which has its heights, and a cloud of the ditch.
    void SetUp() override {
        WindowTest::SetUp();
        demo();
        const std::string drawing = std::string(test::demoFolder) + "/turning-place.gpkg";
        const auto read = format::readVectorFile(drawing);
        ASSERT_TRUE(read);
        const auto with = format::addVectorContent(doc(), drawing, *read);
        ASSERT_TRUE(with);
        put(QStringLiteral("the drawing"), with->document);
        window->settle();
        const auto seen = window->session().results();
        const auto lines = operations::flatLines(*seen, linework::GiveOptions{0.1, {}});
        const auto found = operations::heightsFor(*seen, {lines, {}, linework::GiveOptions{0.1, 322.5}, "k"});
        ASSERT_TRUE(found);
        ASSERT_TRUE(
            window->session().edit(QStringLiteral("heights"), operations::giveHeights(seen, lines, *found)));
        demo::CloudPlan plan;
        plan.area = {at(50, 60).x, at(50, 60).y, at(75, 85).x, at(75, 85).y};
        plan.shrubs = false;
        file = folder / "ditch.las";
        ASSERT_TRUE(format::writeLas(file, demo::makeCloud(plan).cloud));
        const auto cloud = format::addCloud(doc(), file);
        ASSERT_TRUE(cloud);
        put(QStringLiteral("the cloud"), cloud->document);
        window->settle();
        QApplication::setActiveWindow(window.get());
        edge = named<objects::Line>("Lane edge left");
        kerb = named<objects::Line>("Turning place kerb");
        presses = 0;
    }
    static Vec2 at(double u, double v) { return {demo::originEast + u, demo::originNorth + v}; }
    [[nodiscard]] const linework::ResolvedLine& line(ObjectId id) const { return *derived().lines.at(id); }

    void clicked(Vec2 place) {
        ++presses;
        click(place);
    }
    void pressed(Qt::Key k) {
        ++presses;
        key(k);
    }
    void stage(Stage to) {  // a click on the stage bar
        ++presses;
        window->stageBar()->setStage(to);
        window->settle();
    }

    /// The edge across the mouth of the turning place; the second part.
    ObjectId cutAcross(Vec2 west, Vec2 east) {
        const double whole = line(edge).length;
        look((west + east) * 0.5, 9);
        stage(Stage::Shape);
        // In hand the edge comes before the kerb that ends on it.
        clicked(geometry::positionAt(line(edge).path, whole - 60).place);
        EXPECT_EQ(window->session().selected<objects::Line>(), edge);
        pressed(Qt::Key_U);
        clicked(west);
        clicked(east);
        const ObjectId rest = named<objects::Line>("Lane edge left (2)");
        EXPECT_NEAR(line(edge).length + line(rest).length, whole - geometry::distance(west, east), 1.0);
        return rest;
    }
    /// Survey points from the cloud; the last two of the set.
    std::pair<survey::SurveyPoint, survey::SurveyPoint> twoPoints(const std::vector<Vec2>& places) {
        look(at(64, 78), 12);
        stage(Stage::Field);
        pressed(Qt::Key_A);
        for (const Vec2 p : places) clicked(p);
        pressed(Qt::Key_Escape);
        const auto& set = doc().get<objects::Points>(doc().all<objects::Points>().front())->set;
        return {set[set.size() - 2], set[set.size() - 1]};
    }

    test::Folder folder;
    std::string file;
    ObjectId edge;
    ObjectId kerb;
    int presses = 0;
};

TEST_F(OverCloud, TheLaneEdgeIsLedIntoTheDitchAndTheTurningPlaceInFortyPressesAndClicks) {
    const auto west = line(kerb).vertices.front().place;
    const auto east = line(kerb).vertices.back().place;
    const double whole = line(edge).length;
    const ObjectId rest = cutAcross(west, east);
    const auto [first, second] = twoPoints({at(61.5, 85), at(60.2, 79.5)});
    ASSERT_TRUE(first.height && second.height);
    EXPECT_NEAR(*first.height, demo::groundHeight(first.plan), 0.8);
    // The loose ends go to them.
    stage(Stage::Shape);
    pressed(Qt::Key_M);
    look((west + east) * 0.5, 9);
    clicked(line(edge).vertices.back().place);
    look(at(64, 78), 12);
    clicked(first.plan);
    look((west + east) * 0.5, 9);
    clicked(line(rest).vertices.front().place);
    look(at(64, 78), 12);
    clicked(second.plan);
    pressed(Qt::Key_Escape);
    EXPECT_EQ(line(edge).vertices.back().place, first.plan);
    EXPECT_EQ(line(edge).vertices.back().height, first.height);
    EXPECT_EQ(line(rest).vertices.front().place, second.plan);
    EXPECT_EQ(line(rest).vertices.front().height, second.height);
    // The other one is trimmed to the kerb, where it crosses it first.
    look((west + east) * 0.5, 9);
    pressed(Qt::Key_X);
    clicked(line(rest).vertices.back().place);
    clicked(line(kerb).vertices[1].place);
    pressed(Qt::Key_Escape);
    const auto met = geometry::nearestOn(line(kerb).path, line(rest).vertices.front().place);
    EXPECT_NEAR(met->distance, 0, 1e-6);
    EXPECT_GT(line(rest).vertices.front().place.x, west.x);
    // And this one is joined with the kerb.
    pressed(Qt::Key_J);
    // The one in hand is not meant: Backspace lets it go.
    pressed(Qt::Key_Backspace);
    const auto& left = line(edge).vertices;
    clicked(left[left.size() - 2].place);
    clicked(line(kerb).vertices[2].place);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("apart")));
    pressed(Qt::Key_Return);
    EXPECT_FALSE(doc().find(kerb));
    EXPECT_GT(line(edge).length, 100);
    EXPECT_LE(presses, 40);
    RecordProperty("presses", presses);
    // All of it can be taken back.
    for (int i = 0; i < 7; ++i) run("undo");
    EXPECT_NEAR(line(edge).length, whole, 1e-9);
}

}  // namespace
}  // namespace erdwerk::app
