#include "app/window/commands/record_commands.h"

#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/window/workbench.h"
#include "core/objects/dimension.h"
#include "core/objects/label.h"
#include "core/objects/table.h"
#include "core/operations/dimensions.h"
#include "core/operations/labels.h"
#include "core/operations/tables.h"

namespace erdwerk::app {

RecordCommands::RecordCommands(Workbench& work) : CommandSet(work) {
    add();
}

void RecordCommands::add() {
    const auto needProject = anOpenProject();
    const QString record = stageName(Stage::Record);
    command(
        "relabel", tr("Label anew"),
        tr("Labels of what is selected as if they were made now; those changed by hand stay"),
        theme::icon(QStringLiteral("label-style")), record, QKeySequence(QStringLiteral("A")),
        [this] {
            std::vector<ObjectId> targets;
            for (const Ref& ref : session_.selection()) targets.push_back(ref.object);
            session_.edit(tr("Label anew"), operations::relabel(std::move(targets)));
        },
        [this] {
            return session_.selection().empty() ? tr("select what is to be labelled anew") : QString();
        });
    command(
        "label-style", tr("Label styles"), tr("Fields, decimals, prefixes and heights of what labels say"),
        theme::icon(QStringLiteral("label-style")), record, QKeySequence(QStringLiteral("S")),
        [this] { showLabelStyle(); }, needProject);
    command(
        "dimension-style", tr("Dimension styles"), tr("Ends, texts and extension lines of dimensions"),
        theme::icon(QStringLiteral("label-style")), record, {}, [this] { showDimensionStyle(); },
        needProject);
    command(
        "new-table", tr("New table"),
        tr("Courses, curves, points, stations, areas, volumes, controls, stages or tags, for bench and "
           "sheet"),
        theme::icon(QStringLiteral("sheet")), record, QKeySequence(QStringLiteral("B")),
        [this] { newTable(); }, needProject);
    using namespace objects;
    offer({"relabel"}, isOneOf<Line, Parcel, Points, Alignment, Group>);
    offer({"new-table"}, isOneOf<Line, Parcel, Points, Alignment, Earthwork>);
}

/// The style of the selected label, or the next one after the style that is selected.
void RecordCommands::showLabelStyle() {
    for (const Ref& ref : session_.selection())
        if (const auto* label = session_.document().get<objects::Label>(ref.object))
            return session_.selection().set({{label->style, std::nullopt}});
    if (session_.document().all<objects::LabelStyle>().size() < annotate::allLabelKinds().size())
        session_.edit(tr("Add label styles"), operations::addLabelStyles());
    selectNext(session_.document().all<objects::LabelStyle>());
}

void RecordCommands::showDimensionStyle() {
    for (const Ref& ref : session_.selection())
        if (const auto* dimension = session_.document().get<objects::Dimension>(ref.object);
            dimension != nullptr && dimension->style)
            return session_.selection().set({{dimension->style, std::nullopt}});
    if (session_.document().all<objects::DimensionStyle>().empty())
        session_.edit(tr("Add a dimension style"), operations::addDimensionStyle());
    selectNext(session_.document().all<objects::DimensionStyle>());
}

void RecordCommands::selectNext(const std::vector<ObjectId>& ids) {
    if (ids.empty()) return;
    auto at =
        std::find_if(ids.begin(), ids.end(), [this](ObjectId id) { return session_.selection().holds(id); });
    if (at != ids.end()) ++at;
    session_.selection().set({{at == ids.end() ? ids.front() : *at, std::nullopt}});
}

/// Of what is selected, in the sort that fits it; else of all courses.
void RecordCommands::newTable() {
    using objects::TableSort;
    const auto& d = session_.document();
    std::optional<TableSort> sort;
    std::vector<ObjectId> of;
    for (const Ref& ref : session_.selection()) {
        const auto fits =
            d.get<objects::Parcel>(ref.object) != nullptr      ? std::optional(TableSort::Courses)
            : d.get<objects::Alignment>(ref.object) != nullptr ? std::optional(TableSort::Stations)
            : d.get<objects::Points>(ref.object) != nullptr    ? std::optional(TableSort::Points)
            : d.get<objects::Line>(ref.object) != nullptr      ? std::optional(TableSort::Controls)
            : d.get<objects::Label>(ref.object) != nullptr     ? std::optional(TableSort::Tags)
            : d.get<objects::Earthwork>(ref.object) != nullptr ? std::optional(TableSort::Volumes)
                                                               : std::nullopt;
        if (!fits || (sort && *sort != *fits)) continue;
        sort = fits;
        if (std::find(of.begin(), of.end(), ref.object) == of.end()) of.push_back(ref.object);
    }
    const auto table =
        session_.edit(tr("New table"), operations::newTable(sort.value_or(TableSort::Courses), of));
    if (!table) return;
    session_.selection().set({{table.made.front(), std::nullopt}});
    work_.bench->open(Bench::Page::Tables);
}

}  // namespace erdwerk::app

#include "moc_record_commands.cpp"
