#include "app/window/commands/file_commands.h"

#include <QFileInfo>
#include <QMessageBox>
#include "app/base/open_project.h"

#include <QPrintDialog>
#include <QPrintPreviewDialog>
#include <QPrinter>
#include "app/base/await_work.h"
#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/plan/plan_view.h"
#include "app/sheet/sheet_output.h"
#include "app/window/imports.h"
#include "app/window/project_files.h"
#include "app/window/settings_dialog.h"
#include "app/window/workbench.h"
#include "core/format/export.h"
#include "core/format/keeper.h"
#include "core/objects/sheet.h"

namespace erdwerk::app {

FileCommands::FileCommands(Workbench& work, ProjectFiles& files, Imports& imports)
    : CommandSet(work), files_(files), imports_(imports) {
    openCommands();
    add();
}

void FileCommands::openCommands() {
    const QString file = tr("File");
    command("new-from-survey", tr("New from a survey file…"),
            tr("Starts a project with the points of a CSV file"),
            theme::icon(QStringLiteral("import-points")), file, {}, [this] {
                if (!files_.askToSave()) return;
                const QString path = fileToOpen(work_.window, tr("Survey file"),
                                                filterToOpen(tr("Survey points"), format::FileSort::Points));
                if (!path.isEmpty()) imports_.survey(path, true);
            });
    command("new-empty", tr("New empty project"), tr("Starts a project with nothing in it"),
            theme::icon(QStringLiteral("sheet")), file, QKeySequence::New, [this] {
                if (files_.askToSave()) session_.project().startNew({});
            });
    command("open", tr("Open…"), tr("Opens a project"), theme::icon(QStringLiteral("import-lines")), file,
            QKeySequence::Open, [this] {
                if (!files_.askToSave()) return;
                const QString path =
                    fileToOpen(work_.window, tr("Open a project"), tr("Erdwerk projects (*.erdwerk)"));
                if (!path.isEmpty()) files_.openProject(path);
            });
    command("demo", tr("Open the demo"), tr("Opens a copy of Quillmoor Observatory"),
            theme::icon(QStringLiteral("new-surface")), file, {}, [this] {
                if (files_.askToSave()) files_.showDemo();
            });
    command(
        "recovered", tr("What was recovered…"), tr("What was found beside the project when it was opened"),
        theme::icon(QStringLiteral("undo")), file, {}, [this] { files_.showRecovery(); },
        [this] {
            return session_.project().recovery().entries.empty() ? tr("nothing was found beside this project")
                                                                 : QString();
        });
}

void FileCommands::add() {
    const auto needProject = anOpenProject();
    const QString file = tr("File");
    const QIcon out = theme::icon(QStringLiteral("export"));
    command(
        "save", tr("Save"), tr("Saves the project"), out, file, QKeySequence::Save,
        [this] { files_.startSaving(false); }, needProject);
    command(
        "save-as", tr("Save as…"), tr("Saves the project under another name"), out, file,
        QKeySequence(QStringLiteral("Ctrl+Shift+S")), [this] { files_.startSaving(true); }, needProject);
    command(
        "export", tr("Export…"), tr("Writes LandXML, GeoPackage, GeoJSON, CSV, OBJ or glTF"), out, file,
        QKeySequence(QStringLiteral("Ctrl+E")),
        [this] {
            QString chosen;
            const QString path = fileToWrite(work_.window, tr("Export"), {}, filterToExport(), &chosen);
            if (!path.isEmpty()) exportTo(path, figuresOf(chosen));
        },
        needProject);
    command(
        "settings", tr("Units and display…"), tr("How figures are written in this project"),
        theme::icon(QStringLiteral("settings")), file, QKeySequence(QStringLiteral("Ctrl+,")),
        [this] { SettingsDialog(session_, work_.window).exec(); }, needProject);
    printCommands();
    actions_.nameAlso(QStringLiteral("settings"), tr("settings metres feet bearing azimuth degrees gon "
                                                     "decimals station format coordinate order checks"));
    command("quit", tr("Quit"), tr("Ends Erdwerk"), theme::icon(QStringLiteral("delete")), file,
            QKeySequence::Quit, [this] { work_.window->close(); });
}

bool FileCommands::exportTo(const QString& path, format::Figures figures) {
    session_.waitForResults();
    const auto left = awaitWork([&, snapshot = session_.snapshot()] {
        return format::exportFile(path.toStdString(), snapshot->derived, figures);
    });
    if (!left) {
        QMessageBox::warning(work_.window, tr("Not exported"),
                             QString::fromStdString(left.error().message()));
        return false;
    }
    QString text = tr("Written to %1").arg(QFileInfo(path).fileName());
    if (session_.isStale()) text += QStringLiteral(", ") + session_.staleText();
    if (!left->empty()) {
        QStringList names;
        for (const auto& l : *left) names << QString::fromStdString(l);
        text += tr("; the format cannot hold: %1").arg(names.join(QStringLiteral(", ")));
    }
    work_.say(text, false);
    return true;
}

void FileCommands::printCommands() {
    const QString file = tr("File");
    const QIcon icon = theme::icon(QStringLiteral("print"));
    const auto needProject = anOpenProject();
    command(
        "print", tr("Print…"), tr("The selected sheet true to scale, or what the plan shows"), icon, file,
        QKeySequence::Print,
        [this] {
            QPrinter printer(QPrinter::HighResolution);
            QPrintDialog dialog(&printer, work_.window);
            if (dialog.exec() == QDialog::Accepted) work_.report(printTo(printer), printer.outputFileName());
        },
        needProject);
    command(
        "print-preview", tr("Print preview…"), tr("What would be printed, page by page"), icon, file, {},
        [this] {
            QPrinter printer(QPrinter::HighResolution);
            QPrintPreviewDialog dialog(&printer, work_.window);
            connect(&dialog, &QPrintPreviewDialog::paintRequested, this,
                    [this](QPrinter* to) { (void)printTo(*to); });
            dialog.exec();
        },
        needProject);
}

Result<void> FileCommands::printTo(QPrinter& printer) {
    session_.waitForResults();
    std::vector<ObjectId> chosen;
    for (const ObjectId id : session_.document().all<objects::Sheet>())
        if (session_.selection().holds(id)) chosen.push_back(id);
    if (const ObjectId sheet = work_.sheetInHand(); chosen.empty() && sheet) chosen = {sheet};
    if (chosen.empty()) return printPlan(printer, *session_.snapshot(), work_.plan->view());
    return printSheets(printer, *session_.snapshot(), chosen);
}

}  // namespace erdwerk::app

#include "moc_file_commands.cpp"
