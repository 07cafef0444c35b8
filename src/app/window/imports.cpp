#include "app/window/imports.h"

#include <QFileInfo>
#include <QMessageBox>
#include "app/base/open_project.h"

#include "app/base/await_work.h"
#include "app/bench/bench.h"
#include "app/window/import_dialog.h"
#include "app/window/project_files.h"
#include "app/window/workbench.h"
#include "core/document/transaction.h"
#include "core/format/import.h"
#include "core/format/output.h"

namespace erdwerk::app {

using document::Document;

Imports::Imports(Workbench& work, ProjectFiles& files) : work_(work), session_(work.session), files_(files) {}

bool Imports::take(const QString& path) {
    switch (format::sortOf(path.toStdString())) {
        case format::FileSort::Project:
            return files_.askToSave() && files_.openProject(path);
        case format::FileSort::Points:
            return survey(path);
        case format::FileSort::Cloud:
        case format::FileSort::Raster:
        case format::FileSort::Lines:
            break;
    }
    if (!session_.isOpen()) session_.project().startNew({});
    const auto sort = format::sortOf(path.toStdString());
    if (sort == format::FileSort::Lines)
        lines(path);
    else
        dense(path, sort == format::FileSort::Cloud);
    return true;
}

bool Imports::survey(const QString& path, bool asNew) {
    const auto refuse = [this](const Error& error) {
        QMessageBox::warning(work_.window, tr("Not imported"),
                             QString::fromStdString(error.message()) + tr("\n\nNothing was changed."));
        return false;
    };
    auto bytes = awaitWork([&] { return format::readFile(path.toStdString()); });
    if (!bytes) return refuse(bytes.error());
    auto layout = awaitWork([&] { return format::proposeLayout(*bytes, path.toStdString()); });
    if (!layout) return refuse(layout.error());
    ImportDialog dialog(path, std::move(*bytes), std::move(*layout),
                        session_.document().settings().display.unit, work_.window);
    if (dialog.exec() != QDialog::Accepted || !dialog.points()) return false;
    if (asNew || !session_.isOpen()) session_.project().startNew({});
    const bool first = session_.document().objects().empty();
    const auto points = *dialog.points();
    const auto made = work_.editAndSelectNew(
        tr("Import %1 points from %2").arg(points.points.size()).arg(QFileInfo(path).fileName()),
        [&](const document::Document& d) -> Result<document::Edited> {
            return std::move(format::addPoints(d, path.toStdString(), points).document);
        });
    if (made.empty()) return false;
    work_.bench->open(Bench::Page::Tables);
    work_.say(tr("%1 points read, %2 rows skipped").arg(points.points.size()).arg(points.skipped.size()),
              false);
    if (first) work_.fitWhenShown();
    return true;
}

/// A box that says why, and lets everything else go on.
void Imports::notImported(const QString& why) {
    auto* box = new QMessageBox(QMessageBox::Warning, tr("Not imported"),
                                why + tr("\n\nNothing was changed."), QMessageBox::Ok, work_.window);
    box->setAttribute(Qt::WA_DeleteOnClose);
    box->open();
}

void Imports::readIn(const QString& path, document::LongEdit read, Then then) {
    const bool first = session_.document().objects().empty();
    session_.longEdit(tr("Import from %1").arg(QFileInfo(path).fileName()), std::move(read),
                      [this, first, then](const Outcome& outcome) {
                          if (!outcome.problem.isEmpty()) notImported(outcome.problem);
                          if (then == Then::Select) work_.showMade(outcome.made);
                          if (outcome && first) work_.fitWhenShown();
                      });
}

void Imports::lines(const QString& path) {
    readIn(
        path,
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
        },
        // A tool that comes next is meant for all lines, not for those of the file alone.
        Then::Leave);
}

void Imports::dense(const QString& path, bool cloud) {
    readIn(
        path,
        [path = path.toStdString(), cloud](const Document& d,
                                           const Context& context) -> Result<document::Edited> {
            auto imported = cloud ? format::addCloud(d, path, context) : format::addRaster(d, path, context);
            if (!imported) return tl::unexpected(imported.error());
            std::string said = imported->points > 0 ? std::to_string(imported->points) + " points read"
                                                    : format::stemOf(path) + " read";
            return document::Edited(std::move(imported->document), {}, std::move(said));
        },
        Then::Select);
}

}  // namespace erdwerk::app

#include "moc_imports.cpp"
