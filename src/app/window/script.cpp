#include "app/window/script.h"

#include <QApplication>
#include <QDialog>
#include <QEventLoop>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QTimer>

#include "app/window/main_window.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

namespace {

ObjectId byName(const document::Document& document, const std::string& name) {
    ObjectId found;
    for (const auto& [id, object] : document.objects())
        if (object->name == name) found = id;
    return found;
}

QString step(MainWindow& window, const QString& key, const QString& value) {
    if (key == QStringLiteral("stage")) {
        for (const Stage stage : {Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record})
            if (stageName(stage) == value) {
                window.stageBar()->setStage(stage);
                return {};
            }
        return QStringLiteral("no stage ") + value;
    }
    if (key == QStringLiteral("page")) {
        for (const auto page : Bench::allPages)
            if (Bench::pageName(page) == value) {
                window.bench()->open(page);
                return {};
            }
        return QStringLiteral("no page ") + value;
    }
    if (key == QStringLiteral("select")) {
        const QString name = value.section(QLatin1Char('#'), 0, 0);
        const ObjectId id = byName(window.session().document(), name.toStdString());
        if (!id) return QStringLiteral("nothing is named ") + value;
        std::optional<std::size_t> part;
        if (value.contains(QLatin1Char('#'))) part = value.section(QLatin1Char('#'), 1).toULongLong();
        window.session().select({{id, part}});
        return {};
    }
    if (key == QStringLiteral("twin")) {
        window.showTwin(true);
        return {};
    }
    if (key == QStringLiteral("zoom")) {
        const auto& view = window.plan()->view();
        window.plan()->setView(view.centre, view.scale * value.toDouble());
        return {};
    }
    if (key == QStringLiteral("at")) {
        window.plan()->setView(
            {value.section(QLatin1Char(' '), 0, 0).toDouble(), value.section(QLatin1Char(' '), 1).toDouble()},
            window.plan()->view().scale);
        return {};
    }
    if (key == QStringLiteral("dialog")) {
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
    if (key == QStringLiteral("wait")) {
        QEventLoop loop;
        QTimer::singleShot(value.toInt(), &loop, &QEventLoop::quit);
        loop.exec();
        return {};
    }
    if (key == QStringLiteral("click") || key == QStringLiteral("hover")) {
        const geometry::Vec2 place{value.section(QLatin1Char(' '), 0, 0).toDouble(),
                                   value.section(QLatin1Char(' '), 1).toDouble()};
        const QPointF at = window.plan()->view().toPicture(place);
        const auto send = [&](QEvent::Type type, Qt::MouseButton button) {
            QMouseEvent event(type, at, window.plan()->mapToGlobal(at), button, button, Qt::NoModifier);
            QApplication::sendEvent(window.plan(), &event);
        };
        send(QEvent::MouseMove, Qt::NoButton);
        if (key == QStringLiteral("click")) {
            send(QEvent::MouseButtonPress, Qt::LeftButton);
            send(QEvent::MouseButtonRelease, Qt::LeftButton);
        }
        return {};
    }
    if (key == QStringLiteral("type")) {
        window.prompt()->entry()->setText(value);
        QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
        QApplication::sendEvent(window.prompt()->entry(), &enter);
        return {};
    }
    if (key == QStringLiteral("enter")) {
        if (window.tool() != nullptr) window.tool()->complete();
        return {};
    }
    if (key == QStringLiteral("against")) {
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
    if (key == QStringLiteral("map")) {
        window.volumes()->showMap(true);
        return {};
    }
    if (key == QStringLiteral("fade")) {
        window.views()->fade()->setValue(value.toInt());
        return {};
    }
    if (key == QStringLiteral("open")) {
        window.openProject(value);
        return {};
    }
    if (key == QStringLiteral("cloud") || key == QStringLiteral("raster")) {
        window.importDense(value, key == QStringLiteral("cloud"));
        return {};
    }
    if (key == QStringLiteral("fit")) {
        window.plan()->fit();
        return {};
    }
    if (key == QStringLiteral("import")) {
        window.importSurvey(value);
        return {};
    }
    if (key == QStringLiteral("run") || key == QStringLiteral("tool")) {
        if (window.actions().find(value) == nullptr) return QStringLiteral("no action ") + value;
        window.actions().run(value);
        return {};
    }
    return QStringLiteral("not understood: ") + key;
}

}  // namespace

QString showForPicture(MainWindow& window, const QString& list) {
    window.settle();
    for (const QString& part : list.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        const QString reason = step(window, part.section(QLatin1Char('='), 0, 0).trimmed(),
                                    part.section(QLatin1Char('='), 1).trimmed());
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
