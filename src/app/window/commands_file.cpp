// The commands of files, editing and viewing.

#include <QFileDialog>

#include "app/window/finder.h"
#include "app/window/main_window.h"
#include "app/window/recovery_dialog.h"
#include "app/window/settings_dialog.h"

namespace erdwerk::app {

void MainWindow::command(const char* id, const QString& text, const QString& help, const QIcon& icon,
                         const QString& menu, const QKeySequence& key, std::function<void()> run,
                         std::function<QString()> whyNot) {
    actions_.add({QString::fromLatin1(id), text, help, icon, menu, key, std::move(run), std::move(whyNot)});
}

void MainWindow::openCommands() {
    const QString file = tr("File");
    command("new-from-survey", tr("New from a survey file…"),
            tr("Starts a project with the points of a CSV file"),
            theme::icon(QStringLiteral("import-points")), file, {}, [this] {
                if (!askToSave()) return;
                const QString path = QFileDialog::getOpenFileName(
                    this, tr("Survey file"), {}, tr("Survey points (*.csv *.txt);;All files (*)"));
                if (path.isEmpty()) return;
                if (!session_.isOpen()) session_.startNew({});
                importSurvey(path);
            });
    command("open", tr("Open…"), tr("Opens a project"), theme::icon(QStringLiteral("import-lines")), file,
            QKeySequence::Open, [this] {
                if (!askToSave()) return;
                const QString path = QFileDialog::getOpenFileName(this, tr("Open a project"), {},
                                                                  tr("Erdwerk projects (*.erdwerk)"));
                if (!path.isEmpty()) openProject(path);
            });
    command("demo", tr("Open the demo"), tr("Opens a copy of Quillmoor Observatory"),
            theme::icon(QStringLiteral("new-surface")), file, {}, [this] {
                if (askToSave()) openDemo();
            });
    command(
        "recovered", tr("What was recovered…"), tr("What was found beside the project when it was opened"),
        theme::icon(QStringLiteral("undo")), file, {}, [this] { showRecovery(); },
        [this] {
            return session_.recovery().entries.empty() ? tr("nothing was found beside this project")
                                                       : QString();
        });
}

void MainWindow::fileCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString file = tr("File");
    const QIcon out = theme::icon(QStringLiteral("export"));
    openCommands();
    command(
        "save", tr("Save"), tr("Saves the project"), out, file, QKeySequence::Save,
        [this] { saveAside(false); }, needProject);
    command(
        "save-as", tr("Save as…"), tr("Saves the project under another name"), out, file,
        QKeySequence(QStringLiteral("Ctrl+Shift+S")), [this] { saveAside(true); }, needProject);
    command(
        "export", tr("Export…"), tr("Writes LandXML, GeoPackage, GeoJSON, CSV, OBJ or glTF"), out, file,
        QKeySequence(QStringLiteral("Ctrl+E")),
        [this] {
            const QString path = QFileDialog::getSaveFileName(
                this, tr("Export"), {},
                tr("LandXML 1.2 (*.xml);;GeoPackage (*.gpkg);;GeoJSON (*.geojson);;CSV of points "
                   "(*.csv);;OBJ (*.obj);;Binary glTF (*.glb)"));
            if (!path.isEmpty()) exportTo(path);
        },
        needProject);
    command(
        "settings", tr("Units and display…"), tr("How figures are written in this project"),
        theme::icon(QStringLiteral("settings")), file, QKeySequence(QStringLiteral("Ctrl+,")),
        [this] { SettingsDialog(session_, this).exec(); }, needProject);
    command("quit", tr("Quit"), tr("Ends Erdwerk"), theme::icon(QStringLiteral("delete")), file,
            QKeySequence::Quit, [this] { close(); });
}

void MainWindow::editCommands() {
    const QString edit = tr("Edit");
    command("undo", tr("Undo"), tr("Takes back the last step, inside a tool too"),
            theme::icon(QStringLiteral("undo")), edit, QKeySequence::Undo, [this] { undo(); });
    command("redo", tr("Redo"), tr("Does again what was undone"), theme::icon(QStringLiteral("redo")), edit,
            QKeySequence(QStringLiteral("Ctrl+Y")), [this] { redo(); });
    command(
        "delete", tr("Delete"), tr("Deletes what is selected"), theme::icon(QStringLiteral("delete")), edit,
        {}, [this] { deleteSelection(); },
        [this] { return session_.selection().empty() ? tr("select something first") : QString(); });
    command("finder", tr("Finder"), tr("Finds every tool and every thing by a few letters"),
            theme::icon(QStringLiteral("finder")), edit, QKeySequence(QStringLiteral("Ctrl+K")), [this] {
                auto* finder = new Finder(actions_, session_, this);
                finder->setAttribute(Qt::WA_DeleteOnClose);
                finder->move(mapToGlobal(QPoint((width() - finder->minimumWidth()) / 2, 90)));
                finder->show();
                finder->entry()->setFocus();
            });
    command(
        "work-out", tr("Work out again"), tr("Works out all results that were stopped"),
        theme::icon(QStringLiteral("redo")), edit, QKeySequence(QStringLiteral("Ctrl+R")),
        [this] { session_.workOut(); },
        [this] {
            return session_.isStale() ? QString() : tr("the results are those of the project as it is");
        });
}

void MainWindow::viewCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString view = tr("View");
    const QIcon icon = theme::icon(QStringLiteral("twin"));
    command(
        "fit", tr("Fit all"), tr("Shows everything in the plan and in 3D"),
        theme::icon(QStringLiteral("fit")), view, QKeySequence(QStringLiteral("Ctrl+0")),
        [this] {
            plan_->fit();
            scene_->fit();
        },
        needProject);
    const auto twin = [&](const char* id, const QString& text, const QString& help, const char* key,
                          TwinViews::Twin which) {
        command(
            id, text, help, icon, view, QKeySequence(QString::fromLatin1(key)),
            [this, which] { views_->setTwin(views_->twin() == which ? TwinViews::Twin::None : which); },
            needProject);
    };
    twin("twin", tr("3D twin view"), tr("Shows or hides the 3D view beside the plan"), "Ctrl+T",
         TwinViews::Twin::Scene);
    twin("twin-plan", tr("Source and surface side by side"),
         tr("Two plans in step: the surface in one, its source in the other, faded over each other"),
         "Ctrl+Shift+T", TwinViews::Twin::Plan);
    command(
        "in-step", tr("Keep both views in step"),
        tr("The plan and its twin show the same place at the same scale, or each its own"), icon, view, {},
        [this] {
            views_->setInStep(!views_->inStep());
            say(views_->inStep() ? tr("Both views move together") : tr("Each view moves alone"), false);
        },
        needProject);
    for (const double factor : {1.0, 2.0, 5.0})
        command(
            qPrintable(QStringLiteral("exaggerate-%1").arg(factor)), tr("3D heights × %1").arg(factor),
            tr("Vertical exaggeration of the 3D view"), icon, view, {},
            [this, factor] { scene_->setExaggeration(factor); }, needProject);
}

}  // namespace erdwerk::app
