// The commands of files, editing and viewing.

#include <QPrintDialog>
#include <QPrinter>

#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
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
                const QString path = fileToOpen(this, tr("Survey file"),
                                                filterToOpen(tr("Survey points"), format::FileSort::Points));
                if (!path.isEmpty()) importSurvey(path, true);
            });
    command("new-empty", tr("New empty project"), tr("Starts a project with nothing in it"),
            theme::icon(QStringLiteral("sheet")), file, QKeySequence::New, [this] {
                if (askToSave()) session_.startNew({});
            });
    command("open", tr("Open…"), tr("Opens a project"), theme::icon(QStringLiteral("import-lines")), file,
            QKeySequence::Open, [this] {
                if (!askToSave()) return;
                const QString path =
                    fileToOpen(this, tr("Open a project"), tr("Erdwerk projects (*.erdwerk)"));
                if (!path.isEmpty()) openProject(path);
            });
    command("demo", tr("Open the demo"), tr("Opens a copy of Quillmoor Observatory"),
            theme::icon(QStringLiteral("new-surface")), file, {}, [this] {
                if (askToSave()) showDemo();
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
            QString chosen;
            const QString path = fileToWrite(this, tr("Export"), {}, filterToExport(), &chosen);
            if (!path.isEmpty()) exportTo(path, figuresOf(chosen));
        },
        needProject);
    command(
        "settings", tr("Units and display…"), tr("How figures are written in this project"),
        theme::icon(QStringLiteral("settings")), file, QKeySequence(QStringLiteral("Ctrl+,")),
        [this] { SettingsDialog(session_, this).exec(); }, needProject);
    printCommand();
    actions_.nameAlso(QStringLiteral("settings"), tr("settings metres feet bearing azimuth degrees gon "
                                                     "decimals station format coordinate order checks"));
    command("quit", tr("Quit"), tr("Ends Erdwerk"), theme::icon(QStringLiteral("delete")), file,
            QKeySequence::Quit, [this] { close(); });
}

void MainWindow::printCommand() {
    command(
        "print", tr("Print…"), tr("The selected sheet true to scale, or what the plan shows"),
        theme::icon(QStringLiteral("print")), tr("File"), QKeySequence::Print,
        [this] {
            QPrinter printer(QPrinter::HighResolution);
            QPrintDialog dialog(&printer, this);
            if (dialog.exec() == QDialog::Accepted) report(printTo(printer), printer.outputFileName());
        },
        [this] { return tools::anOpenProject(session_); });
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

}  // namespace erdwerk::app
