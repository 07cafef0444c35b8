#pragma once
// Drives the real window as a person would: clicks, drags, keys and typed text.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <QApplication>
#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMessageBox>
#include <QMouseEvent>
#include <QPushButton>
#include <QRegularExpression>
#include <QStandardPaths>
#include <QStatusBar>
#include <QTimer>
#include <QtTest/QTest>

#include "app/base/remembered.h"
#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/bench/findings_page.h"
#include "app/bench/fit_page.h"
#include "app/bench/grades_page.h"
#include "app/bench/profile_page.h"
#include "app/bench/slice_page.h"
#include "app/bench/tables_page.h"
#include "app/bench/volumes_page.h"
#include "app/panels/contents.h"
#include "app/panels/facts.h"
#include "app/panels/rack.h"
#include "app/plan/plan_view.h"
#include "app/scene/scene_view.h"
#include "app/sheet/sheet_canvas.h"
#include "app/sheet/sheet_page.h"
#include "app/window/commands/file_commands.h"
#include "app/window/commands/help_commands.h"
#include "app/window/commands/shape_commands.h"
#include "app/window/commands/sheet_commands.h"
#include "app/window/guide_panel.h"
#include "app/window/imports.h"
#include "app/window/keeping_bar.h"
#include "app/window/main_window.h"
#include "app/window/object_menu.h"
#include "app/window/project_files.h"
#include "app/window/prompt_line.h"
#include "app/window/stage_bar.h"
#include "app/window/tool_in_hand.h"
#include "app/window/twin_views.h"
#include "support/geometry.h"

namespace erdwerk::app {

class WindowTest : public testing::Test {
protected:
    void SetUp() override {
        // As on the first run.
        remembered::clear();
        window = std::make_unique<MainWindow>();
        window->show();
        ASSERT_TRUE(QTest::qWaitForWindowExposed(window.get()));
    }
    void TearDown() override {
        window->session().project().close(true);
        window.reset();
    }

    void demo() {
        ASSERT_TRUE(window->files().openDemo());
        window->settle();
    }
    [[nodiscard]] const document::Document& doc() const { return window->session().document(); }
    [[nodiscard]] const derive::Derived& derived() const { return window->session().derived(); }
    template <class T>
    [[nodiscard]] ObjectId named(const std::string& name) const {
        const ObjectId id = doc().byName<T>(name);
        if (!id) throw std::runtime_error("nothing is named " + name);
        return id;
    }

    /// An edit that was worked out in the test.
    void put(const QString& what, const document::Document& next) {
        ASSERT_TRUE(window->session().edit(
            what, [next](const document::Document&) -> Result<document::Edited> { return next; }));
    }
    void look(geometry::Vec2 centre, double scale) {
        window->plan()->setView(centre, scale);
        window->settle();
    }
    [[nodiscard]] QPoint pixel(geometry::Vec2 place) const {
        return window->plan()->view().toPicture(place).toPoint();
    }
    void moveTo(geometry::Vec2 place) {
        QMouseEvent move(QEvent::MouseMove, pixel(place), window->plan()->mapToGlobal(pixel(place)),
                         Qt::NoButton, Qt::NoButton, Qt::NoModifier);
        QApplication::sendEvent(window->plan(), &move);
    }
    void click(geometry::Vec2 place, Qt::KeyboardModifiers modifiers = {}) {
        moveTo(place);
        QTest::mouseClick(window->plan(), Qt::LeftButton, modifiers, pixel(place));
        window->settle();
    }
    void drag(geometry::Vec2 from, geometry::Vec2 to) {
        moveTo(from);
        QTest::mousePress(window->plan(), Qt::LeftButton, {}, pixel(from));
        for (const double t : {0.3, 0.7, 1.0}) {
            const QPoint at = pixel(geometry::lerp(from, to, t));
            QMouseEvent move(QEvent::MouseMove, at, window->plan()->mapToGlobal(at), Qt::NoButton,
                             Qt::LeftButton, Qt::NoModifier);
            QApplication::sendEvent(window->plan(), &move);
        }
    }
    void drop(geometry::Vec2 at) {
        QTest::mouseRelease(window->plan(), Qt::LeftButton, {}, pixel(at));
        window->settle();
    }
    void run(const char* action) {
        window->actions().run(QString::fromUtf8(action));
        window->settle();
    }
    void type(const QString& text) {
        QLineEdit* entry = window->prompt()->entry();
        entry->setFocus();
        entry->clear();
        QTest::keyClicks(entry, text);
        QTest::keyClick(entry, Qt::Key_Return);
        window->settle();
    }
    void key(Qt::Key k, Qt::KeyboardModifiers modifiers = {}) {
        window->plan()->setFocus();
        QTest::keyClick(window->plan(), k, modifiers);
        window->settle();
    }
    void setCell(QTableWidget* table, int row, int column, const QString& text) {
        table->item(row, column)->setText(text);
        window->settle();
    }
    void select(ObjectId id, std::optional<std::size_t> part = {}) {
        window->session().selection().set({{id, part}});
        window->settle();
    }
    /// Does something with the next modal dialog when it is there.
    template <class Do>
    void withDialog(const Do& act) {
        auto* timer = new QTimer(window.get());
        QObject::connect(timer, &QTimer::timeout, window.get(), [timer, act] {
            auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget());
            if (dialog == nullptr) return;
            timer->stop();
            timer->deleteLater();
            act(dialog);
        });
        timer->start(20);
    }

    std::unique_ptr<MainWindow> window;
    test::Folder folder;
};

}  // namespace erdwerk::app
