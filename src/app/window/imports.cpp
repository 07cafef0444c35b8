#include "app/window/imports.h"

#include <QAbstractButton>
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
#include "core/operations/shape.h"

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

void Imports::readIn(const QString& path, document::LongEdit read, Then then,
                     const std::function<void()>& after) {
    const bool first = session_.document().objects().empty();
    session_.longEdit(tr("Import from %1").arg(QFileInfo(path).fileName()), std::move(read),
                      [this, first, then, after](const Outcome& outcome) {
                          if (!outcome.problem.isEmpty()) notImported(outcome.problem);
                          if (then == Then::Select) work_.showMade(outcome.made);
                          if (outcome && first) work_.fitWhenShown();
                          if (outcome && after) after();
                      });
}

namespace {

/// What came in and what was left out, in one sentence.
std::string saidOf(const format::Imported& imported) {
    const auto many = [](std::size_t n, const char* one, const char* more) {
        return std::to_string(n) + (n == 1 ? one : more);
    };
    std::string said = many(imported.lines, " line and ", " lines and ") +
                       many(imported.points, " point read", " points read");
    if (imported.textsAtNothing > 0)
        said += "; " + many(imported.textsAtNothing, " text at 0", " texts at 0") + " without height";
    if (imported.chordedArcs > 0)
        said += "; " + many(imported.chordedArcs, " arc is", " arcs are") +
                " drawn as chords (Findings makes them arcs)";
    if (!imported.left.empty()) said += "; left out: " + imported.left.front();
    if (imported.left.size() > 1) said += " and " + std::to_string(imported.left.size() - 1) + " more";
    return said;
}

}  // namespace

void Imports::lines(const QString& path) {
    const auto flat = std::make_shared<std::vector<ObjectId>>();
    readIn(
        path,
        [path = path.toStdString(), flat](const document::Document& d,
                                          const Context& context) -> Result<document::Edited> {
            auto imported = format::importFile(d, path, {}, context);
            if (!imported) return tl::unexpected(imported.error());
            *flat = imported->flat;
            std::string said = saidOf(*imported);
            return document::Edited(std::move(imported->document), {}, std::move(said));
        },
        // A tool that comes next is meant for all lines, not for those of the file alone.
        Then::Leave, [this, flat] { askAboutFlat(*flat); });
}

/// Lines at 0 throughout came in without heights; whoever meant the 0 has it back, in one step.
void Imports::askAboutFlat(const std::vector<ObjectId>& lines) {
    if (lines.empty()) return;
    auto* box = new QMessageBox(
        QMessageBox::Question, tr("Lines at height 0"),
        lines.size() == 1
            ? tr("A line of the file is at height 0 from end to end. It came in without heights.")
            : tr("%1 lines of the file are at height 0 from end to end. They came in without heights.")
                  .arg(lines.size()),
        QMessageBox::NoButton, work_.window);
    box->setObjectName(QStringLiteral("flatLines"));
    auto* leave = box->addButton(tr("Without heights"), QMessageBox::AcceptRole);
    auto* keep = box->addButton(tr("Height 0 is meant"), QMessageBox::ActionRole);
    box->setDefaultButton(leave);
    box->setEscapeButton(leave);  // Esc changes nothing
    box->setAttribute(Qt::WA_DeleteOnClose);
    connect(keep, &QAbstractButton::clicked, this,
            [this, lines] { session_.edit(tr("Height 0 as in the file"), operations::levelAt(lines, 0)); });
    box->open();
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
