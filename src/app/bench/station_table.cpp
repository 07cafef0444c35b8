#include "app/bench/station_table.h"

#include <QHeaderView>

#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "core/format/route_tables.h"

namespace erdwerk::app {

namespace {

constexpr std::size_t mostShown = 5000;

}  // namespace

StationTable::StationTable(Session& session, QWidget* parent) : QTableWidget(parent), session_(session) {
    setObjectName(QStringLiteral("stationTable"));
    setAccessibleName(tr("Stations and offsets"));
    setColumnCount(6);
    setHorizontalHeaderLabels(
        {tr("Name"), tr("Station"), tr("Offset"), tr("Height"), tr("Over design"), tr("Over ground")});
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setAlternatingRowColors(true);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(22);
    horizontalHeader()->setStretchLastSection(true);
    new TableClipboard(*this, session_);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (hasFocus() && row >= 0 && static_cast<std::size_t>(row) < rows_.size())
            session_.selection().setHover(
                Hover{rows_[static_cast<std::size_t>(row)].place, Ref{alignment_, std::nullopt}, {}});
    });
}

void StationTable::list(ObjectId alignment) {
    alignment_ = alignment;
    if (isVisible()) fill();  // else when somebody looks
}

void StationTable::showEvent(QShowEvent* event) {
    QTableWidget::showEvent(event);
    fill();
}

void StationTable::fill() {
    const ObjectId alignment = alignment_;
    const auto& derived = session_.derived();
    std::vector<objects::Part> parts;
    std::vector<ObjectId> whole;
    for (const Ref& ref : session_.selection()) {
        if (ref.object == alignment) continue;
        if (ref.part)
            parts.push_back({ref.object, *ref.part});
        else
            whole.push_back(ref.object);
    }
    rows_ = operations::stationsOf(derived, alignment, parts, whole);
    if (rows_.empty())
        rows_ = operations::stationsOf(derived, alignment, {}, derived.document.all<objects::Points>());
    const auto& display = session_.document().settings().display;
    const std::size_t shown = std::min(rows_.size(), mostShown);
    setRowCount(static_cast<int>(shown));
    const auto rise = [&](const std::optional<double>& v) {
        return v ? QString::fromStdString(formatRise(*v, display)) : QString();
    };
    for (std::size_t i = 0; i < shown; ++i) {
        const auto& r = rows_[i];
        const std::array<QString, 6> cells{
            QString::fromStdString(r.name),
            r.beyond ? tr("beyond") : QString::fromStdString(formatStation(r.station, display)),
            r.beyond ? QString() : QString::fromStdString(formatFixed(r.offset, display.lengthDecimals)),
            r.height ? QString::fromStdString(formatHeight(r.height, display)) : QString(),
            r.beyond ? QString() : rise(r.overDesign),
            rise(r.overSurface)};
        for (int c = 0; c < 6; ++c) {
            auto* item = new QTableWidgetItem(cells[static_cast<std::size_t>(c)]);
            if (c > 0) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (r.beyond) item->setForeground(theme::inkQuiet);
            setItem(static_cast<int>(i), c, item);
        }
    }
    resizeColumnsToContents();
}

format::Table StationTable::asTable() const {
    return format::stationTable("Stations along " + session_.derived().document.nameOf(alignment_), rows_,
                                session_.document().settings().display.unit);
}

}  // namespace erdwerk::app

#include "moc_station_table.cpp"
