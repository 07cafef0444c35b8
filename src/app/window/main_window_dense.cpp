// What the commands of dense data and surfaces do.

#include <QFileInfo>
#include <QMessageBox>

#include "app/base/aside.h"
#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
#include "app/kinds/current.h"
#include "app/window/extract_dialog.h"
#include "app/window/main_window.h"
#include "core/derive/dense_source.h"
#include "core/format/export.h"
#include "core/format/import.h"
#include "core/objects/line.h"
#include "core/operations/dense.h"

namespace erdwerk::app {

using document::Document;

void MainWindow::importDense(const QString& path, bool cloud) {
    readIn(path,
           [path = path.toStdString(), cloud](const Document& d,
                                              const Context& context) -> Result<document::Edited> {
               auto imported =
                   cloud ? format::addCloud(d, path, context) : format::addRaster(d, path, context);
               if (!imported) return tl::unexpected(imported.error());
               std::string said = imported->points > 0 ? std::to_string(imported->points) + " points read"
                                                       : format::stemOf(path) + " read";
               return document::Edited(std::move(imported->document), {}, std::move(said));
           });
}

void MainWindow::surfaceFromDense() {
    const auto& d = session_.document();
    ObjectId dense = currentDense(session_);
    if (d.get<objects::Surface>(dense) != nullptr) dense = {};
    if (!dense) return say(tr("Import a cloud or a raster first"), true);
    std::vector<ObjectId> edges;
    for (const Ref& r : session_.selection()) {
        const auto* line = d.get<objects::Line>(r.object);
        if (line != nullptr && line->line.closed) edges.push_back(r.object);
    }
    if (!editAndSelectNew(tr("Surface from a cloud"), operations::surfaceFromDense(dense, edges)).empty())
        bench_->open(Bench::Page::Fit);
}

void MainWindow::report(const Result<void>& done, const QString& path) {
    if (!done)
        QMessageBox::warning(this, tr("Not written"), QString::fromStdString(done.error().message()));
    else
        say(path.isEmpty() ? tr("Sent to the printer") : tr("Written to %1").arg(QFileInfo(path).fileName()),
            false);
}

void MainWindow::exportSurface() {
    const ObjectId surface = currentSurface(session_);
    const QString path =
        fileToWrite(this, tr("Export %1").arg(QString::fromStdString(session_.document().nameOf(surface))),
                    {}, filterToWriteSurface());
    if (path.isEmpty()) return;
    session_.waitForResults();
    report(aside([&, snapshot = session_.snapshot()] {
               return format::exportSurface(path.toStdString(), snapshot->derived, surface);
           }),
           path);
}

void MainWindow::connectGroundPages() {
    // The crease is followed on the source, which may lie where the surface does not.
    const auto trace = [this](ObjectId surface) {
        session_.select({{derive::fitSource(session_.document(), surface), std::nullopt}});
        actions_.run(QStringLiteral("trace-crease"));
    };
    connect(fit_, &FitPage::tracePressed, this, trace);
    connect(findings_, &FindingsPage::tracePressed, this, trace);
    connect(findings_, &FindingsPage::typePressed, this, [this](const Ref& point) {
        session_.select({point});
        actions_.run(QStringLiteral("heights-at-hand"));
    });
    connect(volumes_, &VolumesPage::mapChanged, plan_, &PlanView::setCutFill);
    connect(volumes_, &VolumesPage::exportPressed, this, [this] {
        const QString path =
            fileToWrite(this, tr("Volumes"), {}, tr("Report (*.html);;Table (*.csv);;Table (*.xlsx)"));
        if (!path.isEmpty()) report(volumes_->exportTo(path), path);
    });
    connect(slice_, &SlicePage::exportPressed, this, [this] {
        const QString path = fileToWrite(this, tr("Section"), {}, tr("CSV (*.csv);;XLSX (*.xlsx)"));
        if (!path.isEmpty()) report(slice_->exportTo(path), path);
    });
    connect(findings_, &FindingsPage::exportPressed, this,
            [this] { actions_.run(QStringLiteral("findings-export")); });
}

}  // namespace erdwerk::app
