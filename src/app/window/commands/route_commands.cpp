#include "app/window/commands/route_commands.h"

#include <QPushButton>

#include "app/base/file_dialog.h"
#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/bench/profile_page.h"
#include "app/bench/slice_page.h"
#include "app/bench/tables_page.h"
#include "app/sheet/section_frames.h"
#include "app/sheet/sheet_painter.h"
#include "app/window/station_import.h"
#include "app/window/workbench.h"
#include "core/derive/route_result.h"
#include "core/format/import.h"
#include "core/format/marking_file.h"
#include "core/format/output.h"
#include "core/format/route_files.h"
#include "core/format/route_tables.h"
#include "core/objects/alignment.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/markings.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/stationed_points.h"

namespace erdwerk::app {

RouteCommands::RouteCommands(Workbench& work) : CommandSet(work) {
    add();
}

void RouteCommands::add() {
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
            work_.editAndSelectNew(tr("New profile of %1").arg(work_.nameOf(on)),
                                   operations::newProfile(on, ground));
            work_.bench->open(Bench::Page::Profile);
            if (!ground)
                work_.say(tr("No surface lies under %1; choose one on the page when there is")
                              .arg(work_.nameOf(on)),
                          true);
        },
        needAlignment);
    criteriaCommands();
    stationCommands();
    connect(work_.profile, &ProfilePage::drawingPressed, this, &RouteCommands::writeProfileDrawing);
    connect(work_.profile, &ProfilePage::tablePressed, this, &RouteCommands::writeProfileTable);
    connect(work_.tables, &TablesPage::exportPressed, this, [this] {
        const QString path = fileToWrite(work_.window, tr("Table"), {}, tr("CSV (*.csv);;XLSX (*.xlsx)"));
        if (!path.isEmpty()) work_.report(work_.tables->exportTo(path), path);
    });
    offer({"alignment-reverse", "profile"}, isOneOf<objects::Alignment>);
}

void RouteCommands::criteriaCommands() {
    const auto needProject = anOpenProject();
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
            const QString path = fileToOpen(work_.window, tr("Criteria"), tr("Criteria (*.json)"));
            if (path.isEmpty()) return;
            auto read = format::readCriteria(path.toStdString());
            if (!read) return work_.say(QString::fromStdString(read.error().message()), true);
            if (read->name.empty()) read->name = format::stemOf(path.toStdString());
            withCriteria(tr("Read criteria"), *read);
        },
        needProject);
}

void RouteCommands::stationCommands() {
    const QString route = stageName(Stage::Route);
    const auto needOne = [this] { return oneAlignment() ? QString() : tr("select an alignment first"); };
    command(
        "stations", tr("Stations of things"),
        tr("Station, offset and height of what is selected, or of all survey points"),
        theme::icon(QStringLiteral("stations")), route, {},
        [this] {
            work_.bench->open(Bench::Page::Tables);
            work_.tables->showStations(*oneAlignment());
        },
        needOne);
    command(
        "cross-sections", tr("Cross-sections"),
        tr("Across the selected alignment or the only one, one after the other, with areas"),
        theme::icon(QStringLiteral("cross-sections")), route, {},
        [this] {
            session_.selection().set({{*oneAlignment(), std::nullopt}});
            work_.bench->open(Bench::Page::Section);
            work_.slice->acrossButton()->setChecked(true);
        },
        needOne);
    tiedPointCommands();
    command(
        "marking-read", tr("Read a marking…"), tr("Ticks and labels of alignments, kept in a JSON file"),
        theme::icon(QStringLiteral("marking")), route, {},
        [this] {
            const QString path = fileToOpen(work_.window, tr("Marking"), tr("Markings (*.json)"));
            if (path.isEmpty()) return;
            const auto read = format::readMarking(path.toStdString());
            if (!read) return work_.say(QString::fromStdString(read.error().message()), true);
            session_.edit(tr("Read a marking"), operations::saveMarking(read->first, read->second,
                                                                        oneAlignment().value_or(ObjectId{})));
        },
        anOpenProject());
    command(
        "profile-through-points", tr("Profile through points"),
        tr("Two or more survey points, in the order in which they were picked, become its axis"),
        theme::icon(QStringLiteral("profile")), route, {}, [this] { profileThroughPoints(); },
        [this] {
            return pickedPoints().size() > 1 ? QString() : tr("select two survey points or more first");
        });
}

void RouteCommands::tiedPointCommands() {
    const QString route = stageName(Stage::Route);
    const auto needPoints = [this] {
        const QString one = oneAlignment() ? QString() : tr("select an alignment first");
        return !one.isEmpty() || session_.selected<objects::Points>() ? one
                                                                      : tr("select survey points as well");
    };
    const auto members = [this] {
        std::vector<std::size_t> out;
        const auto set = session_.selected<objects::Points>();
        for (const Ref& ref : session_.selection())
            if (set && ref.object == *set && ref.part) out.push_back(*ref.part);
        return out;
    };
    command(
        "points-tie", tr("Tie points"),
        tr("Survey points keep their station and offset when the alignment moves"),
        theme::icon(QStringLiteral("tie")), route, {},
        [this, members] {
            session_.edit(
                tr("Tie points to an alignment"),
                operations::tieToAlignment(session_.results(), *session_.selected<objects::Points>(),
                                           *oneAlignment(), members()));
        },
        needPoints);
    command(
        "points-by-offset", tr("Connect by offset"),
        tr("A line for each offset from the alignment, in the order of stations"),
        theme::icon(QStringLiteral("by-offset")), route, {},
        [this, members] {
            session_.edit(
                tr("Connect points by offset"),
                operations::connectByOffset(session_.results(), *session_.selected<objects::Points>(),
                                            *oneAlignment(), members()));
        },
        needPoints);
}

/// The alignment that is selected, or the only one.
std::optional<ObjectId> RouteCommands::oneAlignment() const {
    if (const auto selected = session_.selected<objects::Alignment>()) return selected;
    const auto all = session_.document().all<objects::Alignment>();
    return all.size() == 1 ? std::optional(all.front()) : std::nullopt;
}

std::vector<geometry::Vec2> RouteCommands::pickedPoints() const {
    std::vector<geometry::Vec2> out;
    for (const Ref& ref : session_.selection())
        if (const auto* set = session_.document().get<objects::Points>(ref.object);
            set != nullptr && ref.part && *ref.part < set->set.size())
            out.push_back(set->set[*ref.part].plan);
    return out;
}

void RouteCommands::profileThroughPoints() {
    objects::Alignment axis;
    axis.serves = "baseline";
    for (const auto& place : pickedPoints()) axis.pis.push_back({place});
    const auto before = session_.document();
    if (!session_.edit(tr("Profile through points"), operations::profileThrough(session_.results(), axis)))
        return;
    for (const ObjectId id : session_.document().all<objects::Profile>())
        if (!before.find(id)) session_.selection().set({{id, std::nullopt}});
    work_.bench->open(Bench::Page::Profile);
}

void RouteCommands::writeProfileDrawing() {
    const auto id = work_.profile->shown();
    if (!id) return;
    const QString path = fileToWrite(work_.window, tr("Profile as drawing"), work_.nameOf(*id),
                                     tr("PDF (*.pdf);;SVG (*.svg)"));
    if (!path.isEmpty()) work_.report(writeProfile(path, *session_.snapshot(), *id), path);
}

void RouteCommands::writeProfileTable() {
    const auto id = work_.profile->shown();
    const auto* p = id ? session_.derived().document.get<objects::Profile>(*id) : nullptr;
    const auto* result = id ? derive::Derived::in(session_.derived().profiles, *id) : nullptr;
    const auto* a = p == nullptr ? nullptr : derive::Derived::in(session_.derived().alignments, p->alignment);
    if (a == nullptr || result == nullptr) return;
    const QString path = fileToWrite(work_.window, tr("Table of the profile"), work_.nameOf(*id),
                                     tr("CSV (*.csv);;XLSX (*.xlsx)"));
    if (path.isEmpty()) return;
    const auto marking = operations::markingOf(
        session_.derived().document, *session_.derived().document.get<objects::Alignment>(p->alignment));
    const auto places = route::profilePlaces(*a, result->ground, derive::designOf(*p, result),
                                             marking.small > 0 ? marking.small : 20);
    work_.report(format::writeTable(path.toStdString(),
                                    format::profileTable(work_.nameOf(*id).toStdString(), places,
                                                         session_.document().settings().display.unit)),
                 path);
}

void RouteCommands::readPointsByStation() {
    const QString path = fileToOpen(work_.window, tr("Points by station"), tr("Tables (*.csv *.txt)"));
    if (path.isEmpty()) return;
    auto rows = format::readStationRows(path.toStdString());
    if (!rows) return work_.say(QString::fromStdString(rows.error().message()), true);
    const auto all = session_.document().all<objects::Alignment>();
    const ObjectId proposed = oneAlignment().value_or(all.empty() ? ObjectId{} : all.front());
    (new StationImport(session_, path, std::move(*rows), proposed, work_.window))->open();
}

}  // namespace erdwerk::app

#include "moc_route_commands.cpp"
