// The actions of dense data and of the ground stage.

#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QProgressDialog>

#include "app/shell/aside.h"
#include "app/shell/main_window.h"
#include "app/tools/crease_tools.h"
#include "app/tools/extract_dialog.h"
#include "app/tools/pick_tool.h"
#include "app/tools/place_point_tool.h"
#include "app/tools/stage_tools.h"
#include "core/document/dense_source.h"
#include "core/document/edit.h"
#include "core/format/export.h"
#include "core/format/import.h"

namespace erdwerk::app {

using document::Document;

namespace {

/// Work with a bar and a way to stop it; the window goes on painting.
template <class Work>
auto watched(QWidget* parent, const QString& what, const Work& work) {
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
    return answer.get();
}

}  // namespace

bool MainWindow::importDense(const QString& path, bool cloud) {
    const Document before = session_.document();
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
    session_.apply(tr("Import %1").arg(QFileInfo(path).fileName()), imported->document);
    for (const auto& [id, object] : imported->document.objects())
        if (!before.find(id)) session_.select({{id, std::nullopt}});
    say(imported->points > 0 ? tr("%1 points read").arg(imported->points)
                             : tr("%1 read").arg(QFileInfo(path).fileName()),
        false);
    if (first) fitPending_ = true;
    return true;
}

void MainWindow::surfaceFromDense() {
    const auto& d = session_.document();
    ObjectId dense = currentDense(session_);
    if (d.get<document::Surface>(dense) != nullptr) dense = {};
    if (!dense) return say(tr("Import a cloud or a raster first"), true);
    std::vector<ObjectId> edges;
    for (const Ref& r : session_.selection()) {
        const auto* line = d.get<document::Line>(r.object);
        if (line != nullptr && line->line.closed) edges.push_back(r.object);
    }
    ObjectId id;
    const Document next = document::addThinnedSurface(d, dense, edges, &id);
    session_.apply(tr("Surface from %1").arg(QString::fromStdString(d.nameOf(dense))), next);
    session_.select({{id, std::nullopt}});
    bench_->setCurrentWidget(fit_);
}

void MainWindow::classifyGround() {
    const auto cloud =
        session_.selected<document::Cloud>().value_or(session_.document().all<document::Cloud>().front());
    const Document before = session_.document();
    const auto next =
        watched(this, tr("Telling the ground from what stands on it"),
                [&](const Context& context) { return document::classifyGround(before, cloud, context); });
    if (!next) {
        if (next.error().code != ErrorCode::Cancelled) say(QString::fromStdString(next.error().text), true);
        return;
    }
    const auto counts = next->get<document::Cloud>(cloud)->cloud->classCounts();
    // From now on the ground takes part, and only the ground is shown.
    session_.apply(tr("Find the ground"),
                   document::changed<document::Cloud>(*next, cloud, [](document::Cloud& c) {
                       c.filter.classes = {survey::cloud_class::ground};
                   }));
    session_.select({{cloud, std::nullopt}});
    say(tr("%1 points are ground and take part; the facts bring the others back")
            .arg(counts[survey::cloud_class::ground]),
        false);
}

void MainWindow::denseActions() {
    const auto projectOpen = [this] { return session_.isOpen() ? QString() : tr("open a project first"); };
    const auto cloudThere = [this] {
        return session_.document().all<document::Cloud>().empty() ? tr("import a cloud first") : QString();
    };
    const auto denseThere = [this] {
        return currentDense(session_) ? QString() : tr("import a cloud or a raster, or make a surface first");
    };
    const QString menu = stageName(Stage::Field);
    actions_.setSection(tr("Clouds and rasters"));
    actions_.add({QStringLiteral("import-cloud"), tr("Import a cloud…"),
                  tr("Reads a point cloud: LAS, PLY or text x y z; it stays in its file"),
                  QStringLiteral("cloud"), Stage::Field, menu, QKeySequence(QStringLiteral("U")),
                  [this] {
                      const QString path = QFileDialog::getOpenFileName(
                          this, tr("Point cloud"), {},
                          tr("Point clouds (*.las *.ply *.xyz *.txt *.pts);;All files (*)"));
                      if (!path.isEmpty()) importDense(path, true);
                  },
                  projectOpen});
    actions_.add({QStringLiteral("import-raster"), tr("Import a raster…"),
                  tr("Reads a raster of heights, or a picture with a place as backdrop"),
                  QStringLiteral("raster"), Stage::Field, menu, QKeySequence(QStringLiteral("R")),
                  [this] {
                      const QString path = QFileDialog::getOpenFileName(
                          this, tr("Raster or picture"), {},
                          tr("Rasters (*.tif *.tiff *.asc *.vrt *.img *.dem *.jpg *.png);;All files (*)"));
                      if (!path.isEmpty()) importDense(path, false);
                  },
                  projectOpen});
    actions_.add(
        {QStringLiteral("add-point"), tr("Add a survey point"),
         tr("Sets a point in the plan, its height from a cloud, raster or surface"),
         QStringLiteral("add-point"), Stage::Field, menu, QKeySequence(QStringLiteral("A")),
         [this] { setTool(std::make_unique<PlacePointTool>(session_), QStringLiteral("add-point")); },
         projectOpen});
    actions_.add({QStringLiteral("find-ground"), tr("Find the ground"),
                  tr("Tells the ground of a cloud from vegetation and buildings, as classes"),
                  QStringLiteral("find-ground"), Stage::Field, menu, QKeySequence(QStringLiteral("F")),
                  [this] { classifyGround(); }, cloudThere});
    pickAction("cloud-class", tr("Set a class by hand"),
               tr("Gives the points inside a closed line another class"), Stage::Field, QStringLiteral("S"),
               cloudThere);
    pickAction("cloud-crop", tr("Crop a cloud"), tr("Only the points inside a closed line take part"),
               Stage::Field, QStringLiteral("O"), cloudThere);
    pickAction("grid-sample", tr("Sample on a grid"),
               tr("Survey points at a spacing inside a closed line, heights from a cloud, raster or surface"),
               Stage::Field, QStringLiteral("G"), denseThere);
}

void MainWindow::groundActions() {
    actions_.setSection(tr("Surface"));
    const auto surfaceThere = [this] {
        return currentSurface(session_) ? QString() : tr("there is no surface yet");
    };
    const auto denseThere = [this] {
        return currentDense(session_) ? QString() : tr("import a cloud or a raster, or make a surface first");
    };
    const QString menu = stageName(Stage::Ground);
    actions_.add({QStringLiteral("new-surface"), tr("New surface"),
                  tr("Makes a surface from the selected points and lines, or from everything"),
                  QStringLiteral("new-surface"), Stage::Ground, menu, QKeySequence(QStringLiteral("N")),
                  [this] { newSurface(); },
                  [this] {
                      return session_.document().all<document::Points>().empty() &&
                                     session_.document().all<document::Line>().empty()
                                 ? tr("there are no points or lines yet")
                                 : QString();
                  }});
    actions_.add({QStringLiteral("thin-surface"), tr("Surface from a cloud"),
                  tr("Thins a cloud or raster to the fewest triangles within a tolerance, and proves it"),
                  QStringLiteral("thin"), Stage::Ground, menu, QKeySequence(QStringLiteral("S")),
                  [this] { surfaceFromDense(); },
                  [this] {
                      return session_.document().all<document::Cloud>().empty() &&
                                     session_.document().all<document::HeightRaster>().empty()
                                 ? tr("import a cloud or a raster first")
                                 : QString();
                  }});
    actions_.setSection(tr("Sources"));
    pickAction("breakline-add", tr("Add a breakline"), tr("Makes a line a breakline of the surface"),
               Stage::Ground, QStringLiteral("B"), surfaceThere);
    pickAction("contour-add", tr("Add a contour"), tr("Makes a line of one height a source of the surface"),
               Stage::Ground, QStringLiteral("A"), surfaceThere);
    pickAction("edge", tr("Set the edge"), tr("Ends the surface on a closed line"), Stage::Ground,
               QStringLiteral("E"), surfaceThere);
    pickAction("opening", tr("Add an opening"), tr("No surface inside a closed line"), Stage::Ground,
               QStringLiteral("O"), surfaceThere);
    pickAction("island", tr("Add an island"), tr("Surface again inside an opening"), Stage::Ground,
               QStringLiteral("I"), surfaceThere);
    pickAction("breakline-remove", tr("Take out a line"),
               tr("The line stays, the surface no longer follows it"), Stage::Ground, QStringLiteral("T"),
               surfaceThere);
    actions_.setSection(tr("Crests and toes"));
    actions_.add(
        {QStringLiteral("find-creases"), tr("Find creases"),
         tr("All crests and toes of a cloud, raster or surface, as a preview"),
         QStringLiteral("find-creases"), Stage::Ground, menu, QKeySequence(QStringLiteral("F")),
         [this] { setTool(std::make_unique<FindCreasesTool>(session_), QStringLiteral("find-creases")); },
         denseThere});
    actions_.add(
        {QStringLiteral("trace-crease"), tr("Trace crease"),
         tr("Follows a crest or toe from a stretch that is drawn along it"), QStringLiteral("trace-crease"),
         Stage::Ground, menu, QKeySequence(QStringLiteral("C")),
         [this] { setTool(std::make_unique<TraceCreaseTool>(session_), QStringLiteral("trace-crease")); },
         denseThere});
    actions_.setSection(tr("Own edits"));
    pickAction("flip-side", tr("Flip a side"), tr("Takes the other diagonal of two triangles"), Stage::Ground,
               QStringLiteral("L"), surfaceThere);
    pickAction("triangle-remove", tr("Remove a triangle"), tr("Takes one triangle out of the surface"),
               Stage::Ground, QStringLiteral("R"), surfaceThere);
    pickAction("surface-point-add", tr("Add a surface point"), tr("Puts a point into the surface itself"),
               Stage::Ground, QStringLiteral("D"), surfaceThere);
    pickAction("surface-point-move", tr("Move a surface point"), tr("Moves a point of the surface itself"),
               Stage::Ground, QStringLiteral("M"), surfaceThere);
    pickAction("surface-point-remove", tr("Leave out a surface point"),
               tr("Takes a point out of the surface; its source keeps it"), Stage::Ground,
               QStringLiteral("U"), surfaceThere);
    pickAction("surface-raise", tr("Raise or lower"), tr("Moves the whole surface up or down"), Stage::Ground,
               QStringLiteral("W"), surfaceThere);
    pickAction("surface-take-over", tr("Take over a surface"),
               tr("Another surface inside its edge, this one outside it"), Stage::Ground, QStringLiteral("K"),
               surfaceThere);
    actions_.setSection(tr("What it gives"));
    pickAction("drop", tr("Water drop"), tr("The way of a drop of water over the surface"), Stage::Ground,
               QStringLiteral("P"), surfaceThere);
    actions_.add({QStringLiteral("extract"), tr("Parts as objects…"),
                  tr("Contours, triangles, edge, points or slope arrows as objects of their own"),
                  QStringLiteral("extract"), Stage::Ground, menu, QKeySequence(QStringLiteral("J")),
                  [this] { (new ExtractDialog(session_, this))->show(); }, surfaceThere});
    pickAction("take-contour", tr("Contour as lines"), tr("The contours of one height as 3D lines"),
               Stage::Ground, {}, surfaceThere);
    pickAction("take-triangle", tr("Triangle as a line"), tr("A triangle as a closed 3D line"), Stage::Ground,
               {}, surfaceThere);
    actions_.add({QStringLiteral("volumes"), tr("Volumes"), tr("Cut and fill between two surfaces"),
                  QStringLiteral("volumes"), Stage::Ground, menu, QKeySequence(QStringLiteral("V")),
                  [this] {
                      const auto all = session_.document().all<document::Surface>();
                      volumes_->choose(all[all.size() - 2], all.back());
                      bench_->setCurrentWidget(volumes_);
                  },
                  [this] {
                      return session_.document().all<document::Surface>().size() < 2
                                 ? tr("volumes need two surfaces")
                                 : QString();
                  }});
    actions_.add({QStringLiteral("export-surface"), tr("Export a surface…"),
                  tr("Writes LandXML, PLY, OBJ, binary glTF or a GeoTIFF raster"), QStringLiteral("export"),
                  Stage::Ground, menu, QKeySequence(QStringLiteral("X")), [this] { exportSurface(); },
                  surfaceThere});
    actions_.add(
        {QStringLiteral("findings-export"),
         tr("Export the findings…"),
         tr("Writes the list of findings as CSV"),
         QStringLiteral("export"),
         std::nullopt,
         menu,
         {},
         [this] {
             const QString path =
                 QFileDialog::getSaveFileName(this, tr("Export the findings"), {}, tr("CSV (*.csv)"));
             if (!path.isEmpty()) report(findings_->exportTo(path), path);
         },
         [this] { return session_.snapshot()->findings.empty() ? tr("there are no findings") : QString(); }});
    actions_.setSection({});
}

void MainWindow::report(const Result<void>& done, const QString& path) {
    if (!done)
        QMessageBox::warning(this, tr("Not written"), QString::fromStdString(done.error().message()));
    else
        say(tr("Written to %1").arg(QFileInfo(path).fileName()), false);
}

void MainWindow::exportSurface() {
    const ObjectId surface = currentSurface(session_);
    const QString path = QFileDialog::getSaveFileName(
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
        session_.select({{document::fitSource(session_.document(), surface), std::nullopt}});
        actions_.run(QStringLiteral("trace-crease"));
    };
    connect(fit_, &FitPage::tracePressed, this, trace);
    connect(findings_, &FindingsPage::tracePressed, this, trace);
    connect(volumes_, &VolumesPage::mapChanged, plan_, &PlanView::setCutFill);
    connect(volumes_, &VolumesPage::exportPressed, this, [this] {
        const QString path = QFileDialog::getSaveFileName(
            this, tr("Volumes"), {}, tr("Report (*.html);;Table (*.csv);;Table (*.xlsx)"));
        if (!path.isEmpty()) report(volumes_->exportTo(path), path);
    });
    connect(slice_, &SlicePage::exportPressed, this, [this] {
        const QString path =
            QFileDialog::getSaveFileName(this, tr("Section"), {}, tr("CSV (*.csv);;XLSX (*.xlsx)"));
        if (!path.isEmpty()) report(slice_->exportTo(path), path);
    });
    connect(findings_, &FindingsPage::exportPressed, this,
            [this] { actions_.run(QStringLiteral("findings-export")); });
}

}  // namespace erdwerk::app
