// The commands of the Route stage.

#include "app/base/file_dialog.h"
#include "app/window/main_window.h"
#include "core/format/import.h"
#include "core/format/route_files.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"

namespace erdwerk::app {

void MainWindow::readPointsByStation() {
    const auto all = session_.document().all<objects::Alignment>();
    const auto along = session_.selected<objects::Alignment>();
    if (!along && all.size() != 1) return say(tr("Select the alignment that the stations are of"), true);
    const QString path = fileToOpen(this, tr("Points by station"), tr("Tables (*.csv *.txt)"));
    if (path.isEmpty()) return;
    auto rows = format::readStationRows(path.toStdString());
    if (!rows) return say(QString::fromStdString(rows.error().message()), true);
    session_.edit(tr("Points by station"),
                  operations::pointsByStation(session_.results(), along.value_or(all.front()),
                                              format::stemOf(path.toStdString()), std::move(*rows)));
}

void MainWindow::routeCommands() {
    const QString route = stageName(Stage::Route);
    command(
        "alignment-reverse", tr("Reverse the alignment"), tr("Stationing runs the other way"),
        theme::icon(QStringLiteral("turn-round")), route, QKeySequence(QStringLiteral("R")),
        [this] {
            session_.edit(tr("Reverse an alignment"),
                          operations::reverseAlignment(*session_.selected<objects::Alignment>()));
        },
        [this] {
            return session_.selected<objects::Alignment>() ? QString() : tr("select an alignment first");
        });
    const auto needAlignment = [this] {
        return session_.document().all<objects::Alignment>().empty() ? tr("make an alignment first")
                                                                     : QString();
    };
    command(
        "points-by-station", tr("Points by station…"),
        tr("Reads name, station, offset, height, code for the selected alignment, or the only one"),
        theme::icon(QStringLiteral("import-points")), route, {}, [this] { readPointsByStation(); },
        needAlignment);
    command(
        "profile", tr("New profile"), tr("The ground along an alignment, with a design over it"),
        theme::icon(QStringLiteral("profile")), route, QKeySequence(QStringLiteral("P")),
        [this] {
            const auto alignments = session_.document().all<objects::Alignment>();
            const auto on = session_.selected<objects::Alignment>().value_or(alignments.back());
            const ObjectId ground = operations::surfaceUnder(session_.derived(), on);
            editAndSelectNew(tr("New profile of %1").arg(nameOf(on)), operations::newProfile(on, ground));
            bench_->open(Bench::Page::Profile);
            if (!ground)
                say(tr("No surface lies under %1; choose one on the page when there is").arg(nameOf(on)),
                    true);
        },
        needAlignment);
    criteriaCommands();
}

void MainWindow::criteriaCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString route = stageName(Stage::Route);
    const auto withCriteria = [this](const QString& what, const route::Criteria& criteria) {
        session_.edit(what,
                      operations::saveCriteria(criteria.name.empty() ? "Criteria" : criteria.name, criteria,
                                               session_.selected<objects::Alignment>().value_or(ObjectId{})));
    };
    command(
        "criteria-lanes", tr("Criteria for lanes"),
        tr("Limits from formulas of motion, kept in the project; the selected alignment is checked against "
           "them"),
        theme::icon(QStringLiteral("criteria")), route, {},
        [withCriteria] { withCriteria(tr("Take criteria for lanes"), route::laneCriteria()); }, needProject);
    command(
        "criteria-read", tr("Read criteria…"), tr("Reads limits that are kept in a JSON file"),
        theme::icon(QStringLiteral("criteria")), route, {},
        [this, withCriteria] {
            const QString path = fileToOpen(this, tr("Criteria"), tr("Criteria (*.json)"));
            if (path.isEmpty()) return;
            auto read = format::readCriteria(path.toStdString());
            if (!read) return say(QString::fromStdString(read.error().message()), true);
            if (read->name.empty()) read->name = format::stemOf(path.toStdString());
            withCriteria(tr("Read criteria"), *read);
        },
        needProject);
}

}  // namespace erdwerk::app
