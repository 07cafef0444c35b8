// Walks over all kinds of objects on the screens: each has words, a place in plan that can be painted, found
// and marked, what is seen of it in 3D, facts, a row in contents, a match in the finder.

#include <QFormLayout>
#include <QTreeWidget>

#include "app/base/open_project.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "app/window/finder.h"
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
#include "core/objects/wording.h"
#include "core/terrain/shade.h"
#include "one_of_each.h"
#include "view_at.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;
using test::places;

/// Where each kind can be pointed at; nothing for those that cannot.
std::optional<Vec2> placeToPoint(const Site& site, ObjectId id) {
    const auto& payload = site.document.find(id)->payload;
    if (payload.is<objects::Points>()) return Vec2{10, 10};
    if (payload.is<objects::Line>()) return Vec2{26, 20};
    if (payload.is<objects::Alignment>()) return Vec2{34, 20};
    if (payload.is<objects::Earthwork>()) return Vec2{70, 16.5};
    if (payload.is<objects::Parcel>()) return Vec2{80, 34};
    if (payload.is<objects::Label>()) return Vec2{70, 40};
    if (payload.is<objects::Cloud>()) return Vec2{12, 52};
    if (payload.is<objects::HeightRaster>()) return Vec2{80, 90};
    if (payload.is<objects::Section>()) return Vec2{27, 72};
    if (payload.is<objects::Dimension>()) return Vec2{30, 17};
    if (payload.is<objects::Reading>()) return Vec2{15, 45};
    return std::nullopt;
}

const ViewTransform shownPart = viewAt({50, 50}, 8, {800, 800});

template <class Paint>
bool paints(const Paint& paint) {
    QImage image(800, 800, QImage::Format_RGB32);
    image.fill(Qt::white);
    const QImage blank = image;
    QPainter painter(&image);
    paint(painter);
    painter.end();
    return image != blank;
}

/// An object of the kind on the site.
template <class T>
struct OfKind {
    Site site;
    ObjectId id = site.ids.at(objects::kindIndex<T>);
    const ObjectKind& kind = kindOf<T>();
};
template <class T>
class EveryKindOnScreen : public testing::Test, protected OfKind<T> {};
template <class T>
class EveryKindInWindow : public WindowTest, protected OfKind<T> {};

template <class>
struct TypesOf;
template <class... T>
struct TypesOf<objects::KindList<T...>> {
    using Type = testing::Types<T...>;
};
using AllKinds = TypesOf<objects::Kinds>::Type;
TYPED_TEST_SUITE(EveryKindOnScreen, AllKinds);
TYPED_TEST_SUITE(EveryKindInWindow, AllKinds);

TYPED_TEST(EveryKindOnScreen, HasWordsOfItsOwn) {
    EXPECT_FALSE(this->kind.noun().isEmpty());
    int same = 0;
    for (const auto& [position, other] : this->site.ids) {
        const auto& listed = kindOf(*this->site.document.find(other));
        same += listed.title() == this->kind.title() ? 1 : 0;
        same += listed.noun() == this->kind.noun() ? 1 : 0;
    }
    EXPECT_EQ(same, 2);
    EXPECT_EQ(&kindOf(*this->site.document.find(this->id)), &this->kind);
}

TYPED_TEST(EveryKindOnScreen, LiesSomewhereInPlanAndIsMarkedThere) {
    geometry::Box box;
    this->kind.bounds(this->site.snapshot.derived, this->id, box);
    ASSERT_EQ(box.empty(), !this->kind.hasPlace());
    if (box.empty()) return;
    EXPECT_TRUE(box.meets(shownPart.window()));
    EXPECT_TRUE(paints([&](QPainter& painter) {
        HandlePainter handles(painter, this->site.snapshot.derived, this->site.document, shownPart);
        this->kind.handles(handles, {this->id, 0});
    }));
}

TYPED_TEST(EveryKindOnScreen, IsPaintedInItsPasses) {
    // In one of them at least: a cloud lies above or below, heights of contours need room.
    const auto passes = this->kind.passes();
    EXPECT_EQ(std::any_of(passes.begin(), passes.end(),
                          [&](PlanPass pass) {
                              return paints([&](QPainter& painter) {
                                  PlanCanvas canvas(painter, this->site.snapshot, shownPart, {});
                                  this->kind.paint(canvas, this->id, pass);
                                  canvas.texts.write(painter);
                              });
                          }),
              !passes.empty());
}

TYPED_TEST(EveryKindOnScreen, IsFoundUnderTheCursor) {
    const auto place = placeToPoint(this->site, this->id);
    if (!place) {
        // Drawn elsewhere, or under everything: found nowhere.
        for (double x = 2; x < 100; x += 7)
            for (double y = 2; y < 100; y += 7) {
                SnapSearch search(this->site.snapshot, shownPart, shownPart.toPicture({x, y}), 9,
                                  std::nullopt);
                this->kind.hit(search, this->id);
                EXPECT_TRUE(search.finish().empty());
            }
        return;
    }
    SnapSearch search(this->site.snapshot, shownPart, shownPart.toPicture(*place), 9, std::nullopt);
    this->kind.hit(search, this->id);
    const auto found = search.finish();
    ASSERT_FALSE(found.empty());
    EXPECT_EQ(found.front().ref.object, this->id);
    EXPECT_LT(geometry::distance(found.front().place, *place), 1.2);
    EXPECT_FALSE(found.front().name.isEmpty());
    // Far from it there is nothing.
    SnapSearch elsewhere(this->site.snapshot, shownPart, shownPart.toPicture({500, 500}), 9, std::nullopt);
    this->kind.hit(elsewhere, this->id);
    EXPECT_TRUE(elsewhere.finish().empty());
}

TYPED_TEST(EveryKindOnScreen, IsSeenIn3DWhenItIsOneOfThose) {
    const std::set<std::string_view> seen{"line",  "surface",  "alignment", "parcel",
                                          "cloud", "backdrop", "earthwork", "section"};
    SceneContent content(std::make_shared<const Snapshot>(this->site.snapshot), {});
    this->kind.show(content, this->id);
    const bool any = !content.meshes().empty() || !content.dense().empty() || !content.strokes().empty() ||
                     content.picture() != nullptr;
    EXPECT_EQ(any, seen.count(objects::Kind<TypeParam>::name) == 1);
}

TYPED_TEST(EveryKindInWindow, HasFactsARowInContentsAndAMatchInTheFinder) {
    this->window->session().project().startNew(this->site.document);
    this->window->settle();
    this->select(this->id);
    const QString name = QString::fromStdString(this->site.document.nameOf(this->id));
    auto* facts = this->window->template findChild<QScrollArea*>(QStringLiteral("facts"));
    auto* form = qobject_cast<QFormLayout*>(facts->widget()->layout());
    ASSERT_NE(form, nullptr);
    EXPECT_GE(form->rowCount(), 2);
    bool named = false;
    for (const auto* label : facts->template findChildren<QLabel*>()) named |= label->text().contains(name);
    EXPECT_TRUE(named);
    auto* contents = this->window->template findChild<QTreeWidget*>(QStringLiteral("contentsTree"));
    const auto rows = contents->findItems(name, Qt::MatchExactly | Qt::MatchRecursive);
    const bool row = std::any_of(rows.begin(), rows.end(), [&](const QTreeWidgetItem* item) {
        return item->data(0, Qt::UserRole).toULongLong() == this->id.value && item->isSelected();
    });
    EXPECT_TRUE(row);
    Finder finder(this->window->actions(), this->window->session(), nullptr);
    finder.entry()->setText(name);
    bool matched = false;
    for (int i = 0; i < finder.list()->count(); ++i) {
        const QString text = finder.list()->item(i)->text();
        matched |= text.startsWith(name) && text.endsWith(this->kind.noun());
    }
    EXPECT_TRUE(matched);
}

TYPED_TEST(EveryKindInWindow, IsSelectedBeforeItHasResults) {
    this->window->session().project().startNew({});
    this->window->settle();
    this->put(QStringLiteral("make"), this->site.document);
    this->window->session().selection().set({{this->id, 0}});
    this->window->plan()->repaint();
    this->window->scene()->repaint();
    this->window->settle();
    EXPECT_TRUE(this->window->session().selection().holds(this->id));
}

TYPED_TEST(EveryKindInWindow, IsDeletedFromContentsAndComesBack) {
    this->window->session().project().startNew(this->site.document);
    this->window->settle();
    this->select(this->id);
    auto* contents = this->window->template findChild<QTreeWidget*>(QStringLiteral("contentsTree"));
    contents->setFocus();
    QTest::keyClick(contents, Qt::Key_Delete);
    this->window->settle();
    EXPECT_EQ(this->doc().find(this->id), nullptr);
    EXPECT_TRUE(this->window->session().selection().empty());
    this->run("undo");
    EXPECT_NE(this->doc().find(this->id), nullptr);
}

}  // namespace
}  // namespace erdwerk::app
