#include "app/window/commands/ground_commands.h"

#include "app/base/await_work.h"
#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/bench/findings_page.h"
#include "app/bench/fit_page.h"
#include "app/bench/slice_page.h"
#include "app/bench/volumes_page.h"
#include "app/kinds/current.h"
#include "app/plan/plan_view.h"
#include "app/tools/all_tools.h"
#include "app/window/extract_dialog.h"
#include "app/window/workbench.h"
#include "core/derive/dense_source.h"
#include "core/format/export.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/dense.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app {

GroundCommands::GroundCommands(Workbench& work) : CommandSet(work) {
    add();
    connectPages();
}

void GroundCommands::add() {
    const auto needSurface = [this] { return tools::aSurface(session_); };
    const QString menu = stageName(Stage::Ground);
    command(
        "new-surface", tr("New surface"),
        tr("Makes a surface from the selected points and lines, or from everything"),
        theme::icon(QStringLiteral("new-surface")), menu, QKeySequence(QStringLiteral("N")),
        [this] { newSurface(); },
        [this] {
            return session_.document().all<objects::Points>().empty() ? tools::aLine(session_) : QString();
        });
    command(
        "thin-surface", tr("Surface from a cloud"),
        tr("Thins a cloud or raster to the fewest triangles within a tolerance, and proves it"),
        theme::icon(QStringLiteral("thin")), menu, QKeySequence(QStringLiteral("S")),
        [this] { surfaceFromDense(); },
        [this] {
            return session_.document().all<objects::HeightRaster>().empty() ? tools::aCloud(session_)
                                                                            : QString();
        });
    command(
        "extract", tr("Parts as objects…"),
        tr("Contours, triangles, edge, points or slope arrows as objects of their own"),
        theme::icon(QStringLiteral("extract")), menu, QKeySequence(QStringLiteral("J")),
        [this] { (new ExtractDialog(session_, work_.window))->show(); }, needSurface);
    command(
        "volumes", tr("Volumes"), tr("Cut and fill between two surfaces"),
        theme::icon(QStringLiteral("volumes")), menu, QKeySequence(QStringLiteral("V")),
        [this] {
            const auto all = session_.document().all<objects::Surface>();
            work_.volumes->choose(all[all.size() - 2], all.back());
            work_.bench->open(Bench::Page::Volumes);
        },
        [this] {
            return session_.document().all<objects::Surface>().size() < 2 ? tr("volumes need two surfaces")
                                                                          : QString();
        });
    command(
        "section", tr("Section"), tr("Cuts through all surfaces and clouds along the selected line"),
        theme::icon(QStringLiteral("profile")), menu, QKeySequence(QStringLiteral("H")),
        [this] { work_.bench->open(Bench::Page::Section); }, needSurface);
    command(
        "export-surface", tr("Export a surface…"),
        tr("Writes LandXML, PLY, OBJ, binary glTF or a GeoTIFF raster"),
        theme::icon(QStringLiteral("export")), menu, QKeySequence(QStringLiteral("X")),
        [this] { exportSurface(); }, needSurface);
    command(
        "findings-export", tr("Export the findings…"), tr("Writes the list of findings as CSV"),
        theme::icon(QStringLiteral("export")), menu, {},
        [this] {
            const QString path = fileToWrite(work_.window, tr("Export the findings"), {}, tr("CSV (*.csv)"));
            if (!path.isEmpty()) work_.report(work_.findings->exportTo(path), path);
        },
        [this] { return session_.snapshot()->findings.empty() ? tr("there are no findings") : QString(); });
    using namespace objects;
    offer({"new-surface"}, isOneOf<Points, Line>);
    offer({"thin-surface"}, isOneOf<Cloud, HeightRaster>);
    offer({"extract", "volumes", "export-surface"}, isOneOf<Surface>);
    offer({"section"}, isOneOf<Line, Alignment>);
}

void GroundCommands::connectPages() {
    // The crease is followed on the source, which may lie where the surface does not.
    const auto trace = [this](ObjectId surface) {
        session_.selection().set({{derive::fitSource(session_.document(), surface), std::nullopt}});
        actions_.run(QStringLiteral("trace-crease"));
    };
    connect(work_.fit, &FitPage::tracePressed, this, trace);
    connect(work_.findings, &FindingsPage::tracePressed, this, trace);
    connect(work_.findings, &FindingsPage::typePressed, this, [this](const Ref& point) {
        session_.selection().set({point});
        actions_.run(QStringLiteral("heights-at-hand"));
    });
    connect(work_.volumes, &VolumesPage::mapChanged, work_.plan, &PlanView::setCutFill);
    connect(work_.volumes, &VolumesPage::exportPressed, this, [this] {
        const QString path = fileToWrite(work_.window, tr("Volumes"), {},
                                         tr("Report (*.html);;Table (*.csv);;Table (*.xlsx)"));
        if (!path.isEmpty()) work_.report(work_.volumes->exportTo(path), path);
    });
    connect(work_.slice, &SlicePage::exportPressed, this, [this] {
        const QString path = fileToWrite(work_.window, tr("Section"), {}, tr("CSV (*.csv);;XLSX (*.xlsx)"));
        if (!path.isEmpty()) work_.report(work_.slice->exportTo(path), path);
    });
    connect(work_.findings, &FindingsPage::exportPressed, this,
            [this] { actions_.run(QStringLiteral("findings-export")); });
}

void GroundCommands::newSurface() {
    std::vector<ObjectId> chosen;
    for (const Ref& r : session_.selection()) chosen.push_back(r.object);
    work_.editAndSelectNew(tr("New surface"), operations::newSurface(std::move(chosen)));
}

void GroundCommands::surfaceFromDense() {
    const auto& d = session_.document();
    ObjectId dense = currentDense(session_);
    if (d.get<objects::Surface>(dense) != nullptr) dense = {};
    if (!dense) return work_.say(tr("Import a cloud or a raster first"), true);
    std::vector<ObjectId> edges;
    for (const Ref& r : session_.selection()) {
        const auto* line = d.get<objects::Line>(r.object);
        if (line != nullptr && line->line.closed) edges.push_back(r.object);
    }
    if (!work_.editAndSelectNew(tr("Surface from a cloud"), operations::surfaceFromDense(dense, edges))
             .empty())
        work_.bench->open(Bench::Page::Fit);
}

void GroundCommands::exportSurface() {
    const ObjectId surface = currentSurface(session_);
    const QString path = fileToWrite(
        work_.window, tr("Export %1").arg(QString::fromStdString(session_.document().nameOf(surface))), {},
        filterToWriteSurface());
    if (path.isEmpty()) return;
    session_.waitForResults();
    work_.report(awaitWork([&, snapshot = session_.snapshot()] {
                     return format::exportSurface(path.toStdString(), snapshot->derived, surface);
                 }),
                 path);
}

}  // namespace erdwerk::app

#include "moc_ground_commands.cpp"
