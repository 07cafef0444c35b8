// The commands of the stages: what stands on the rack and is not a tool.

#include <QMenuBar>

#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
#include "app/kinds/current.h"
#include "app/sheet/sheet_painter.h"
#include "app/window/extract_dialog.h"
#include "app/window/main_window.h"
#include "core/format/offset_set_file.h"
#include "core/operations/dense.h"
#include "core/operations/derived_lines.h"
#include "core/operations/records.h"
#include "core/operations/rules.h"

namespace erdwerk::app {

void MainWindow::buildActions() {
    fileCommands();
    editCommands();
    viewCommands();
    pageCommands();
    objectCommands();
    fieldCommands();
    denseCommands();
    groundCommands();
    shapeCommands();
    routeCommands();
    recordCommands();
    parcelCommands();
    sheetCommands();
    frameCommands();
    offerCommands();
    for (const auto& entry : tools::rack()) {
        QString id;
        if (const auto* tool = std::get_if<tools::ToolDeclaration>(&entry.entry)) {
            id = tool->id;
            const QString menu = entry.stage ? stageName(*entry.stage) : tr("Edit");
            actions_.add({id, tool->text, tool->help, theme::icon(tool->icon), menu, QKeySequence(tool->key),
                          [this, make = tool->make, id] { setTool(make(session_), id); },
                          [this, why = tool->whyNot] { return why(session_); }});
            if (tool->suits != nullptr) actions_.offerFor(id, tool->suits);
        } else {
            id = std::get<QString>(entry.entry);
        }
        if (entry.stage)
            actions_.placeOnRack(id, *entry.stage, entry.section);
        else
            actions_.placeOnEveryRack(id, entry.section);
    }
}

void MainWindow::offerCommands() {
    using namespace objects;
    for (const char* id : {"connect-number", "connect-code"})
        actions_.offerFor(QString::fromLatin1(id), isOneOf<Points>);
    actions_.offerFor(QStringLiteral("new-surface"), isOneOf<Points, Line>);
    actions_.offerFor(QStringLiteral("thin-surface"), isOneOf<Cloud, HeightRaster>);
    for (const char* id : {"extract", "volumes", "export-surface"})
        actions_.offerFor(QString::fromLatin1(id), isOneOf<Surface>);
    for (const char* id : {"freeze", "free-heights"})
        actions_.offerFor(QString::fromLatin1(id), isOneOf<Line>);
    for (const char* id : {"alignment-reverse", "profile"})
        actions_.offerFor(QString::fromLatin1(id), isOneOf<Alignment>);
    actions_.offerFor(QStringLiteral("section"), isOneOf<Line, Alignment>);
}

void MainWindow::fieldCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString menu = stageName(Stage::Field);
    command(
        "import-points", tr("Import survey points…"), tr("Reads points from a CSV file, through a preview"),
        theme::icon(QStringLiteral("import-points")), menu, QKeySequence(QStringLiteral("I")),
        [this] {
            const QString path = fileToOpen(this, tr("Survey file"),
                                            filterToOpen(tr("Survey points"), format::FileSort::Points));
            if (!path.isEmpty()) importSurvey(path);
        },
        needProject);
    command(
        "import-lines", tr("Import 3D lines…"),
        tr("Reads lines with their heights from any vector file, or LandXML"),
        theme::icon(QStringLiteral("import-lines")), menu, QKeySequence(QStringLiteral("L")),
        [this] {
            const QString path = fileToOpen(this, tr("File of lines or surfaces"),
                                            filterToOpen(tr("Lines and surfaces"), format::FileSort::Lines));
            if (!path.isEmpty()) importLines(path);
        },
        needProject);
    const auto needPoints = [this] {
        ObjectId set;
        return selectedPoints(set).size() > 1 ? QString()
                                              : tr("select at least two survey points, or a whole set");
    };
    const QIcon connectIcon = theme::icon(QStringLiteral("connect"));
    command(
        "connect-number", tr("Connect by number"),
        tr("Joins the selected points into a line in the order of their numbers"), connectIcon, menu,
        QKeySequence(QStringLiteral("N")), [this] { connectPoints(false); }, needPoints);
    command(
        "connect-code", tr("Connect by code"), tr("Makes one line for each code among the selected points"),
        connectIcon, menu, QKeySequence(QStringLiteral("C")), [this] { connectPoints(true); }, needPoints);
}

void MainWindow::denseCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString menu = stageName(Stage::Field);
    command(
        "import-cloud", tr("Import a cloud…"),
        tr("Reads a point cloud: LAS, PLY or text x y z; it stays in its file"),
        theme::icon(QStringLiteral("cloud")), menu, QKeySequence(QStringLiteral("U")),
        [this] {
            const QString path = fileToOpen(this, tr("Point cloud"),
                                            filterToOpen(tr("Point clouds"), format::FileSort::Cloud));
            if (!path.isEmpty()) importDense(path, true);
        },
        needProject);
    command(
        "import-raster", tr("Import a raster…"),
        tr("Reads a raster of heights, or a picture with a place as backdrop"),
        theme::icon(QStringLiteral("raster")), menu, QKeySequence(QStringLiteral("R")),
        [this] {
            const QString path =
                fileToOpen(this, tr("Raster or picture"),
                           filterToOpen(tr("Rasters and pictures"), format::FileSort::Raster));
            if (!path.isEmpty()) importDense(path, false);
        },
        needProject);
}

void MainWindow::groundCommands() {
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
        [this] { (new ExtractDialog(session_, this))->show(); }, needSurface);
    command(
        "volumes", tr("Volumes"), tr("Cut and fill between two surfaces"),
        theme::icon(QStringLiteral("volumes")), menu, QKeySequence(QStringLiteral("V")),
        [this] {
            const auto all = session_.document().all<objects::Surface>();
            volumes_->choose(all[all.size() - 2], all.back());
            bench_->open(Bench::Page::Volumes);
        },
        [this] {
            return session_.document().all<objects::Surface>().size() < 2 ? tr("volumes need two surfaces")
                                                                          : QString();
        });
    command(
        "section", tr("Section"), tr("Cuts through all surfaces and clouds along the selected line"),
        theme::icon(QStringLiteral("profile")), menu, QKeySequence(QStringLiteral("H")),
        [this] { bench_->open(Bench::Page::Section); }, needSurface);
    command(
        "export-surface", tr("Export a surface…"),
        tr("Writes LandXML, PLY, OBJ, binary glTF or a GeoTIFF raster"),
        theme::icon(QStringLiteral("export")), menu, QKeySequence(QStringLiteral("X")),
        [this] { exportSurface(); }, needSurface);
    command(
        "findings-export", tr("Export the findings…"), tr("Writes the list of findings as CSV"),
        theme::icon(QStringLiteral("export")), menu, {},
        [this] {
            const QString path = fileToWrite(this, tr("Export the findings"), {}, tr("CSV (*.csv)"));
            if (!path.isEmpty()) report(findings_->exportTo(path), path);
        },
        [this] { return session_.snapshot()->findings.empty() ? tr("there are no findings") : QString(); });
}

void MainWindow::shapeCommands() {
    const QString shape = stageName(Stage::Shape);
    const auto parts = [this] {
        std::vector<operations::LinePart> out;
        for (const Ref& ref : session_.selection())
            if (session_.document().get<objects::Line>(ref.object) != nullptr)
                out.emplace_back(ref.object, ref.part);
        return out;
    };
    const auto needLines = [parts] { return parts().empty() ? tr("select a 3D line first") : QString(); };
    command(
        "freeze", tr("Freeze"), tr("Rules of the selected points or lines become the heights they give now"),
        theme::icon(QStringLiteral("freeze")), shape, QKeySequence(QStringLiteral("Z")),
        [this, parts] { session_.edit(tr("Freeze"), operations::freeze(session_.results(), parts())); },
        needLines);
    command(
        "free-heights", tr("Free"), tr("Takes the heights of the selected points or lines away"),
        theme::icon(QStringLiteral("free-heights")), shape, QKeySequence(QStringLiteral("F")),
        [this, parts] { session_.edit(tr("Free"), operations::freeHeights(parts())); }, needLines);
    command(
        "loosen", tr("Loosen"), tr("Selected rows and meetings keep their shape and follow nothing any more"),
        theme::icon(QStringLiteral("free-heights")), shape, {},
        [this, parts] {
            std::vector<ObjectId> lines;
            for (const auto& [id, vertex] : parts()) lines.push_back(id);
            session_.edit(tr("Loosen"), operations::loosen(session_.results(), lines));
        },
        needLines);
    command(
        "offset-set-read", tr("Read an offset set…"), tr("Reads rows that were kept in a JSON file"),
        theme::icon(QStringLiteral("import-lines")), shape, {},
        [this] {
            const QString path = fileToOpen(this, tr("Offset set"), tr("Offset sets (*.json)"));
            if (!path.isEmpty()) readOffsetSet(path);
        },
        [this] { return tools::anOpenProject(session_); });
}

void MainWindow::readOffsetSet(const QString& path) {
    auto read = format::readOffsetSet(path.toStdString());
    if (!read) return say(QString::fromStdString(read.error().message()), true);
    session_.edit(tr("Read an offset set"), operations::saveOffsetSet(read->first, read->second));
}

void MainWindow::buildMenus() {
    QHash<QString, QMenu*> menus;
    // In the order of the job, whichever has its first action earlier.
    QStringList order{tr("File"), tr("Edit"), tr("View")};
    for (const Stage stage : {Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record})
        order << stageName(stage);
    order << tr("Sheet") << tr("Help");
    // Each with a letter of its own for Alt.
    QString taken;
    const auto withLetter = [&taken](const QString& name) {
        for (qsizetype i = 0; i < name.size(); ++i) {
            if (taken.contains(name[i], Qt::CaseInsensitive)) continue;
            taken += name[i];
            return name.left(i) + QLatin1Char('&') + name.mid(i);
        }
        return name;
    };
    for (const QString& name : order) menus[name] = menuBar()->addMenu(withLetter(name));
    for (const Action& a : actions_.all()) {
        if (!menus.contains(a.menu)) menus[a.menu] = menuBar()->addMenu(withLetter(a.menu));
        auto* item = menus[a.menu]->addAction(a.text);
        item->setData(a.id);
        item->setStatusTip(a.help);
        // Single letters act in the plan only; they are shown, not bound.
        const bool letter = a.key.count() == 1 && a.key[0].keyboardModifiers() == Qt::NoModifier;
        if (letter)
            item->setText(a.text + QStringLiteral("\t") + a.key.toString());
        else
            item->setShortcut(a.key);
        connect(item, &QAction::triggered, this, [this, id = a.id] { actions_.run(id); });
    }
    // What cannot run now is grey in the menu as well; a key that is pressed says why.
    for (QMenu* menu : menus) {
        connect(menu, &QMenu::aboutToShow, this, [this, menu] {
            for (QAction* item : menu->actions()) {
                const Action* a = actions_.find(item->data().toString());
                item->setEnabled(a == nullptr || !a->whyNot || a->whyNot().isEmpty());
            }
        });
        connect(menu, &QMenu::aboutToHide, this, [menu] {
            for (QAction* item : menu->actions()) item->setEnabled(true);
        });
    }
}

}  // namespace erdwerk::app
