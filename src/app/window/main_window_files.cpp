// What the main window does with files: open, save, import, export.

#include <QDragEnterEvent>
#include <QFileInfo>
#include <QMessageBox>
#include <QMimeData>

#include "app/base/aside.h"
#include "app/base/file_dialog.h"
#include "app/base/remembered.h"
#include "app/window/import_dialog.h"
#include "app/window/main_window.h"
#include "app/window/recovery_dialog.h"
#include "core/format/export.h"
#include "core/format/import.h"
#include "core/format/output.h"

namespace erdwerk::app {

bool MainWindow::takeFile(const QString& path) {
    switch (format::sortOf(path.toStdString())) {
        case format::FileSort::Project:
            return askToSave() && openProject(path);
        case format::FileSort::Points:
            return importSurvey(path);
        case format::FileSort::Cloud:
        case format::FileSort::Raster:
        case format::FileSort::Lines:
            break;
    }
    if (!session_.isOpen()) session_.startNew({});
    const auto sort = format::sortOf(path.toStdString());
    if (sort == format::FileSort::Lines)
        importLines(path);
    else
        importDense(path, sort == format::FileSort::Cloud);
    return true;
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (!urls.isEmpty() &&
        std::all_of(urls.begin(), urls.end(), [](const QUrl& u) { return u.isLocalFile(); }))
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    QStringList paths;
    for (const QUrl& url : event->mimeData()->urls()) paths << url.toLocalFile();
    // What is asked turns the event loop: when the drop has ended.
    QMetaObject::invokeMethod(
        this,
        [this, paths] {
            for (const QString& path : paths) {
                remembered::setLastFile(path);
                takeFile(path);
            }
        },
        Qt::QueuedConnection);
}

bool MainWindow::openProject(const QString& path) {
    const auto opened = session_.open(path);
    if (!opened) {
        QMessageBox::warning(this, tr("Not opened"), QString::fromStdString(opened.error().message()));
        return false;
    }
    remembered::addRecentProject(path);
    const auto& recovery = session_.recovery();
    if (session_.isReadOnly()) return true;  // what was brought back belongs to the one who has it open
    if (recovery.problem.empty()) {
        if (const QString recovered = recoveryText(recovery); !recovered.isEmpty()) say(recovered, false);
    } else {
        say(tr("%1 of %2 unsaved changes were brought back; the rest is kept, see the list")
                .arg(recovery.what.size())
                .arg(recovery.entries.size()),
            true);
        showRecovery();
    }
    return true;
}

bool MainWindow::openDemo() {
    const QString folder = demoFolder();
    const auto done = session_.openCopy(folder + QStringLiteral("/quillmoor.erdwerk"));
    if (!done) QMessageBox::warning(this, tr("Not opened"), QString::fromStdString(done.error().message()));
    return done.has_value();
}

bool MainWindow::showDemo() {
    if (!openDemo()) return false;
    stageBar_->setStage(Stage::Ground);
    showTwin(true);
    const auto& d = session_.document();
    if (const ObjectId ditch = d.byName<objects::Line>("Peat ditch"))
        session_.select({{ditch, std::nullopt}});
    bench_->open(Bench::Page::Grades);
    return true;
}

QString MainWindow::pathToSave(bool askName) {
    QString path = session_.path();
    if (path.isEmpty() || askName || session_.isReadOnly())
        path = fileToWrite(this, tr("Save the project"), path, tr("Erdwerk projects (*.erdwerk)"));
    if (!path.isEmpty() && !path.endsWith(QStringLiteral(".erdwerk"))) path += QStringLiteral(".erdwerk");
    return path;
}

void MainWindow::saveAside(bool askName) {
    if (const QString path = pathToSave(askName); !path.isEmpty()) session_.save(path);
}

bool MainWindow::save(bool askName) {
    const QString path = pathToSave(askName);
    if (path.isEmpty()) return false;
    const auto done = session_.saveAndWait(path);
    if (!done) QMessageBox::warning(this, tr("Not saved"), QString::fromStdString(done.error().message()));
    return done.has_value();
}

bool MainWindow::importSurvey(const QString& path, bool asNew) {
    const auto refuse = [this](const Error& error) {
        QMessageBox::warning(this, tr("Not imported"),
                             QString::fromStdString(error.message()) + tr("\n\nNothing was changed."));
        return false;
    };
    auto bytes = aside([&] { return format::readFile(path.toStdString()); });
    if (!bytes) return refuse(bytes.error());
    auto layout = aside([&] { return format::proposeLayout(*bytes, path.toStdString()); });
    if (!layout) return refuse(layout.error());
    ImportDialog dialog(path, std::move(*bytes), std::move(*layout),
                        session_.document().settings().display.unit, this);
    if (dialog.exec() != QDialog::Accepted || !dialog.points()) return false;
    if (asNew || !session_.isOpen()) session_.startNew({});
    const bool first = session_.document().objects().empty();
    const auto points = *dialog.points();
    const auto made = editAndSelectNew(
        tr("Import %1 points from %2").arg(points.points.size()).arg(QFileInfo(path).fileName()),
        [&](const document::Document& d) -> Result<document::Edited> {
            return std::move(format::addPoints(d, path.toStdString(), points).document);
        });
    if (made.empty()) return false;
    bench_->open(Bench::Page::Tables);
    say(tr("%1 points read, %2 rows skipped").arg(points.points.size()).arg(points.skipped.size()), false);
    if (first) fitPending_ = true;
    return true;
}

/// A box that says why, and lets everything else go on.
void MainWindow::notImported(const QString& why) {
    auto* box = new QMessageBox(QMessageBox::Warning, tr("Not imported"),
                                why + tr("\n\nNothing was changed."), QMessageBox::Ok, this);
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->open();
}

void MainWindow::readIn(const QString& path, document::LongEdit read) {
    const bool first = session_.document().objects().empty();
    session_.editAside(tr("Import from %1").arg(QFileInfo(path).fileName()), std::move(read),
                       [this, first](const Outcome& outcome) {
                           if (!outcome.problem.isEmpty()) notImported(outcome.problem);
                           showMade(outcome.made);
                           if (outcome && first) fitPending_ = true;
                       });
}

void MainWindow::importLines(const QString& path) {
    readIn(path,
           [path = path.toStdString()](const document::Document& d,
                                       const Context& context) -> Result<document::Edited> {
               auto imported = format::importFile(d, path, {}, context);
               if (!imported) return tl::unexpected(imported.error());
               std::string said = std::to_string(imported->lines) + " lines and " +
                                  std::to_string(imported->points) + " points read";
               if (!imported->left.empty()) said += "; left out: " + imported->left.front();
               if (imported->left.size() > 1)
                   said += " and " + std::to_string(imported->left.size() - 1) + " more";
               return document::Edited(std::move(imported->document), {}, std::move(said));
           });
}

bool MainWindow::exportTo(const QString& path, format::Figures figures) {
    session_.waitForResults();
    const auto left = aside([&, snapshot = session_.snapshot()] {
        return format::exportFile(path.toStdString(), snapshot->derived, figures);
    });
    if (!left) {
        QMessageBox::warning(this, tr("Not exported"), QString::fromStdString(left.error().message()));
        return false;
    }
    QString text = tr("Written to %1").arg(QFileInfo(path).fileName());
    if (session_.isStale()) text += QStringLiteral(", ") + session_.staleText();
    if (!left->empty()) {
        QStringList names;
        for (const auto& l : *left) names << QString::fromStdString(l);
        text += tr("; the format cannot hold: %1").arg(names.join(QStringLiteral(", ")));
    }
    say(text, false);
    return true;
}

}  // namespace erdwerk::app
