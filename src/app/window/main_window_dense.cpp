// What the commands of dense data and surfaces do.

#include <QFileInfo>
#include <QMessageBox>
#include <QProgressDialog>

#include "app/base/aside.h"
#include "app/base/file_dialog.h"
#include "app/kinds/current.h"
#include "app/window/extract_dialog.h"
#include "app/window/main_window.h"
#include "core/derive/dense_source.h"
#include "core/format/export.h"
#include "core/format/import.h"
#include "core/objects/line.h"
#include "core/operations/dense.h"
#include "core/operations/edit.h"
#include "core/operations/ground.h"

namespace erdwerk::app {

using document::Document;

namespace {

/// Work with a bar and a way to stop it; the window goes on painting. What it throws is an Error.
template <class Work>
auto watched(QWidget* parent, const QString& what, const Work& work) -> decltype(work(Context{})) {
    std::atomic<bool> cancel{false};
    std::atomic<int> done{0};
    Context context;
    context.cancelFlag = &cancel;
    context.progress = [&done](double share) { done = static_cast<int>(share * 100); };
    auto answer = std::async(std::launch::async, [&] { return work(context); });
    QProgressDialog dialog(what, QObject::tr("Stop"), 0, 100, parent);
    dialog.setWindowModality(Qt::WindowModal);
    dialog.setMinimumDuration(400);
    dialog.setAutoReset(false);
    while (answer.wait_for(std::chrono::milliseconds(20)) != std::future_status::ready) {
        dialog.setValue(std::min(99, done.load()));
        // Before the dialog is there, nothing else may be started.
        QCoreApplication::processEvents(dialog.isVisible() ? QEventLoop::AllEvents
                                                           : QEventLoop::ExcludeUserInputEvents);
        if (dialog.wasCanceled()) cancel = true;
    }
    try {
        return answer.get();
    } catch (const std::exception& e) {
        return badInput(e.what());
    }
}

}  // namespace

bool MainWindow::importDense(const QString& path, bool cloud) {
    const Document before = session_.history().fresh();
    const auto imported =
        watched(this, tr("Reading %1").arg(QFileInfo(path).fileName()), [&](const Context& context) {
            return cloud ? format::addCloud(before, path.toStdString(), context)
                         : format::addRaster(before, path.toStdString(), context);
        });
    if (!imported) {
        if (imported.error().code == ErrorCode::Cancelled) {
            say(tr("Stopped; nothing was changed"), false);
            return false;
        }
        QMessageBox::warning(
            this, tr("Not imported"),
            QString::fromStdString(imported.error().message()) + tr("\n\nNothing was changed."));
        return false;
    }
    const bool first = before.objects().empty();
    editAndSelectNew(tr("Import %1").arg(QFileInfo(path).fileName()),
                     document::addedSince(before, imported->document));
    say(imported->points > 0 ? tr("%1 points read").arg(imported->points)
                             : tr("%1 read").arg(QFileInfo(path).fileName()),
        false);
    if (first) fitPending_ = true;
    return true;
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
    const QString path = fileToWrite(
        this, tr("Export %1").arg(QString::fromStdString(session_.document().nameOf(surface))), {},
        tr("LandXML 1.2 (*.xml);;PLY (*.ply);;OBJ (*.obj);;Binary glTF (*.glb);;GeoTIFF raster (*.tif)"));
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
