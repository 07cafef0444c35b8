#include "app/window/script.h"

#include <QAbstractButton>
#include <QApplication>
#include <QClipboard>
#include <QDialog>
#include <QEventLoop>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QTimer>
#include <map>

#include "app/base/snapshot.h"
#include "app/bench/bench.h"
#include "app/bench/volumes_page.h"
#include "app/plan/plan_view.h"
#include "app/plan/tool.h"
#include "app/window/imports.h"
#include "app/window/main_window.h"
#include "app/window/project_files.h"
#include "app/window/prompt_line.h"
#include "app/window/stage_bar.h"
#include "app/window/twin_views.h"
#include "core/format/output.h"
#include "core/objects/surface.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

namespace {

ObjectId byName(const document::Document& document, const std::string& name) {
    ObjectId found;
    for (const auto& [id, object] : document.objects())
        if (object->name == name) found = id;
    return found;
}

QString openStage(MainWindow& window, const QString& value) {
    for (const Stage stage : {Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record})
        if (stageName(stage) == value) {
            window.stageBar()->setStage(stage);
            return {};
        }
    return QStringLiteral("no stage ") + value;
}

QString openPage(MainWindow& window, const QString& value) {
    for (const auto page : Bench::allPages)
        if (Bench::pageName(page) == value) {
            window.bench()->open(page);
            return {};
        }
    return QStringLiteral("no page ") + value;
}

QString select(MainWindow& window, const QString& value) {
    const QString name = value.section(QLatin1Char('#'), 0, 0);
    const ObjectId id = byName(window.session().document(), name.toStdString());
    if (!id) return QStringLiteral("nothing is named ") + value;
    std::optional<std::size_t> part;
    if (value.contains(QLatin1Char('#'))) part = value.section(QLatin1Char('#'), 1).toULongLong();
    window.session().selection().set({{id, part}});
    return {};
}

QString showTwin(MainWindow& window, const QString&) {
    window.views()->setTwin(TwinViews::Twin::Scene);
    return {};
}

QString zoom(MainWindow& window, const QString& value) {
    const auto& view = window.plan()->view();
    window.plan()->setView(view.centre, view.scale * value.toDouble());
    return {};
}

QString lookAt(MainWindow& window, const QString& value) {
    window.plan()->setView(
        {value.section(QLatin1Char(' '), 0, 0).toDouble(), value.section(QLatin1Char(' '), 1).toDouble()},
        window.plan()->view().scale);
    return {};
}

QString pictureOfDialog(MainWindow& window, const QString& value) {
    // The picture is then of the dialog that the next action opens.
    QTimer::singleShot(600, &window, [value] {
        QWidget* dialog = QApplication::activeModalWidget();
        if (dialog == nullptr) dialog = QApplication::activePopupWidget();
        for (QWidget* other : QApplication::topLevelWidgets())
            if (dialog == nullptr && other->isVisible() && qobject_cast<QDialog*>(other) != nullptr)
                dialog = other;
        if (dialog == nullptr) return;
        dialog->grab().save(value);
        dialog->close();
    });
    return {};
}

QString wait(MainWindow&, const QString& value) {
    QEventLoop loop;
    QTimer::singleShot(value.toInt(), &loop, &QEventLoop::quit);
    loop.exec();
    return {};
}

QString point(MainWindow& window, const QString& value, bool click) {
    const geometry::Vec2 place{value.section(QLatin1Char(' '), 0, 0).toDouble(),
                               value.section(QLatin1Char(' '), 1).toDouble()};
    const QPointF at = window.plan()->view().toPicture(place);
    const auto send = [&](QEvent::Type type, Qt::MouseButton button) {
        QMouseEvent event(type, at, window.plan()->mapToGlobal(at), button, button, Qt::NoModifier);
        QApplication::sendEvent(window.plan(), &event);
    };
    send(QEvent::MouseMove, Qt::NoButton);
    if (click) {
        send(QEvent::MouseButtonPress, Qt::LeftButton);
        send(QEvent::MouseButtonRelease, Qt::LeftButton);
    }
    return {};
}

QString type(MainWindow& window, const QString& value) {
    window.prompt()->entry()->setText(value);
    QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
    QApplication::sendEvent(window.prompt()->entry(), &enter);
    return {};
}

QString complete(MainWindow& window, const QString&) {
    if (window.tool() != nullptr) window.tool()->complete();
    return {};
}

QString compareAgainst(MainWindow& window, const QString& value) {
    // The selected surface is compared with this, and the map is shown.
    const auto surface = window.session().selected<objects::Surface>();
    const ObjectId source = byName(window.session().document(), value.toStdString());
    if (!surface || !source) return QStringLiteral("select a surface and name a source");
    window.session().edit(
        QStringLiteral("Fit check"), [&](const document::Document& d) -> Result<document::Edited> {
            return document::changed<objects::Surface>(d, *surface, [&](objects::Surface& s) {
                s.fit.source = source;
                s.style.deviation = true;
            });
        });
    return {};
}

QString showMap(MainWindow& window, const QString&) {
    window.volumes()->showMap(true);
    return {};
}

QString resizeTo(MainWindow& window, const QString& value) {
    window.resize(value.section(QLatin1Char('x'), 0, 0).toInt(), value.section(QLatin1Char('x'), 1).toInt());
    return {};
}

QString fade(MainWindow& window, const QString& value) {
    window.views()->fade()->setValue(value.toInt());
    return {};
}

QString openFile(MainWindow& window, const QString& value) {
    window.files().openProject(value);
    return {};
}

QString importDense(MainWindow& window, const QString& value, bool cloud) {
    window.imports().dense(value, cloud);
    return {};
}

QString fit(MainWindow& window, const QString&) {
    window.plan()->fit();
    return {};
}

QString importSurvey(MainWindow& window, const QString& value) {
    window.imports().survey(value);
    return {};
}

QString importLines(MainWindow& window, const QString& value) {
    window.imports().lines(value);
    return {};
}

QString run(MainWindow& window, const QString& value) {
    if (window.actions().find(value) == nullptr) return QStringLiteral("no action ") + value;
    window.actions().run(value);
    return {};
}

/// The text of a file as if it had been copied.
QString copy(MainWindow&, const QString& value) {
    const auto text = format::readFile(value.toStdString());
    if (!text) return QString::fromStdString(text.error().message());
    QGuiApplication::clipboard()->setText(QString::fromStdString(*text));
    return {};
}

/// Presses a button by its name.
QString press(MainWindow& window, const QString& value) {
    auto* button = window.findChild<QAbstractButton*>(value);
    if (button == nullptr) return QStringLiteral("no button ") + value;
    button->click();
    return {};
}

using Step = QString (*)(MainWindow&, const QString&);

/// What can stand in a list of steps, "WORD" or "WORD=VALUE".
const std::map<QString, Step>& steps() {
    static const std::map<QString, Step> all{
        {QStringLiteral("stage"), openStage},
        {QStringLiteral("page"), openPage},
        {QStringLiteral("select"), select},
        {QStringLiteral("twin"), showTwin},
        {QStringLiteral("zoom"), zoom},
        {QStringLiteral("at"), lookAt},
        {QStringLiteral("dialog"), pictureOfDialog},
        {QStringLiteral("wait"), wait},
        {QStringLiteral("click"), [](MainWindow& w, const QString& v) { return point(w, v, true); }},
        {QStringLiteral("hover"), [](MainWindow& w, const QString& v) { return point(w, v, false); }},
        {QStringLiteral("type"), type},
        {QStringLiteral("enter"), complete},
        {QStringLiteral("against"), compareAgainst},
        {QStringLiteral("map"), showMap},
        {QStringLiteral("fade"), fade},
        {QStringLiteral("size"), resizeTo},
        {QStringLiteral("open"), openFile},
        {QStringLiteral("cloud"), [](MainWindow& w, const QString& v) { return importDense(w, v, true); }},
        {QStringLiteral("raster"), [](MainWindow& w, const QString& v) { return importDense(w, v, false); }},
        {QStringLiteral("fit"), fit},
        {QStringLiteral("import"), importSurvey},
        {QStringLiteral("lines"), importLines},
        {QStringLiteral("copy"), copy},
        {QStringLiteral("press"), press},
        {QStringLiteral("run"), run},
        {QStringLiteral("tool"), run}};
    return all;
}

}  // namespace

QString showForPicture(MainWindow& window, const QString& list) {
    window.settle();
    for (const QString& part : list.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        const QString word = part.section(QLatin1Char('='), 0, 0).trimmed();
        const auto step = steps().find(word);
        if (step == steps().end()) return QStringLiteral("not understood: ") + word;
        const QString reason = step->second(window, part.section(QLatin1Char('='), 1).trimmed());
        if (!reason.isEmpty()) return reason;
        window.settle();
    }
    for (int i = 0; i < 3; ++i) {
        QCoreApplication::processEvents();
        window.settle();
    }
    return {};
}

}  // namespace erdwerk::app
