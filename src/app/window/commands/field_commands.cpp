#include "app/window/commands/field_commands.h"

#include "app/base/file_dialog.h"
#include "app/base/format_filters.h"
#include "app/base/theme.h"
#include "app/window/imports.h"
#include "app/window/workbench.h"
#include "core/objects/points.h"
#include "core/operations/points.h"

namespace erdwerk::app {

FieldCommands::FieldCommands(Workbench& work, Imports& imports) : CommandSet(work), imports_(imports) {
    add();
    denseCommands();
}

void FieldCommands::add() {
    const auto needProject = anOpenProject();
    const QString menu = stageName(Stage::Field);
    command(
        "import-points", tr("Import survey points…"), tr("Reads points from a CSV file, through a preview"),
        theme::icon(QStringLiteral("import-points")), menu, QKeySequence(QStringLiteral("I")),
        [this] {
            const QString path = fileToOpen(work_.window, tr("Survey file"),
                                            filterToOpen(tr("Survey points"), format::FileSort::Points));
            if (!path.isEmpty()) imports_.survey(path);
        },
        needProject);
    command(
        "import-lines", tr("Import 3D lines…"),
        tr("Reads lines with their heights from any vector file, or LandXML"),
        theme::icon(QStringLiteral("import-lines")), menu, QKeySequence(QStringLiteral("L")),
        [this] {
            const QString path = fileToOpen(work_.window, tr("File of lines or surfaces"),
                                            filterToOpen(tr("Lines and surfaces"), format::FileSort::Lines));
            if (!path.isEmpty()) imports_.lines(path);
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
    offer({"connect-number", "connect-code"}, isOneOf<objects::Points>);
}

void FieldCommands::denseCommands() {
    const auto needProject = anOpenProject();
    const QString menu = stageName(Stage::Field);
    command(
        "import-cloud", tr("Import a cloud…"),
        tr("Reads a point cloud: LAS, PLY or text x y z; it stays in its file"),
        theme::icon(QStringLiteral("cloud")), menu, QKeySequence(QStringLiteral("U")),
        [this] {
            const QString path = fileToOpen(work_.window, tr("Point cloud"),
                                            filterToOpen(tr("Point clouds"), format::FileSort::Cloud));
            if (!path.isEmpty()) imports_.dense(path, true);
        },
        needProject);
    command(
        "import-raster", tr("Import a raster…"),
        tr("Reads a raster of heights, or a picture with a place as backdrop"),
        theme::icon(QStringLiteral("raster")), menu, QKeySequence(QStringLiteral("R")),
        [this] {
            const QString path =
                fileToOpen(work_.window, tr("Raster or picture"),
                           filterToOpen(tr("Rasters and pictures"), format::FileSort::Raster));
            if (!path.isEmpty()) imports_.dense(path, false);
        },
        needProject);
}

std::vector<std::size_t> FieldCommands::selectedPoints(ObjectId& set) const {
    std::vector<std::size_t> out;
    for (const Ref& r : session_.selection()) {
        if (session_.document().get<objects::Points>(r.object) == nullptr || (set && set != r.object))
            continue;
        set = r.object;
        if (r.part) {
            out.push_back(*r.part);
        } else {
            for (std::size_t i = 0; i < session_.document().get<objects::Points>(set)->set.size(); ++i)
                out.push_back(i);
        }
    }
    return out;
}

void FieldCommands::connectPoints(bool byCode) {
    ObjectId set;
    auto members = selectedPoints(set);
    work_.editAndSelectNew(tr("Connect points"), operations::connectPoints(set, std::move(members), byCode));
}

}  // namespace erdwerk::app

#include "moc_field_commands.cpp"
