#include "app/bench/tables_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "app/bench/parcel_pane.h"
#include "app/bench/pi_table.h"
#include "app/bench/point_model.h"
#include "app/bench/reading_pane.h"
#include "app/bench/record_table.h"
#include "app/bench/station_table.h"
#include "app/bench/table_clipboard.h"
#include "app/kinds/surface_paint.h"
#include "core/derive/surface_result.h"

namespace erdwerk::app {

namespace {

/// Marks the table of stations of an alignment, which has a table of PIs too.
constexpr std::uint64_t ofStations = std::uint64_t{1} << 63;

}  // namespace

TablesPage::TablesPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(8, 4, 0, 0);
    layout->setSpacing(4);
    auto* bar = new QHBoxLayout;
    choice_ = new QComboBox;
    choice_->setAccessibleName(tr("Table"));
    choice_->setMinimumWidth(200);
    choice_->setSizeAdjustPolicy(QComboBox::AdjustToContents);
    export_ = new QPushButton(tr("Export…"));
    export_->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    export_->setToolTip(tr("This table as CSV or XLSX"));
    connect(export_, &QPushButton::clicked, this, &TablesPage::exportPressed);
    bar->addWidget(choice_);
    bar->addStretch(1);
    bar->addWidget(export_);
    layout->addLayout(bar);
    stack_ = new QStackedWidget;
    stack_->addWidget(buildPoints());
    stack_->addWidget(parcel_ = new ParcelPane(session_));
    stack_->addWidget(reading_ = new ReadingPane(session_));
    stack_->addWidget(buildBands());
    stack_->addWidget(buildTool());
    stack_->addWidget(pis_ = new PiTable(session_));
    stack_->addWidget(stations_ = new StationTable(session_));
    stack_->addWidget(record_ = new RecordTable(session_));
    layout->addWidget(stack_, 1);
    connect(&session_, &Session::resultsChanged, this, &TablesPage::refresh);
    connect(&session_.selection(), &Selection::changed, this, &TablesPage::follow);
    connect(choice_, &QComboBox::activated, this, [this] {
        chosen_ = true;
        refresh();
    });
    refresh();
}

QWidget* TablesPage::buildPoints() {
    points_ = new QTableView;
    points_->setObjectName(QStringLiteral("pointTable"));
    points_->setAccessibleName(tr("Survey points"));
    model_ = new PointModel(session_, this);
    points_->setModel(model_);
    new TableClipboard(*points_, session_, [this](const QModelIndex& cell, const QString& text) {
        return model_->cellEdit(cell, text);
    });
    points_->setAlternatingRowColors(true);
    points_->verticalHeader()->setDefaultSectionSize(22);
    points_->verticalHeader()->hide();
    points_->horizontalHeader()->setStretchLastSection(true);
    connect(points_->selectionModel(), &QItemSelectionModel::currentRowChanged, this,
            [this](const QModelIndex& row) {
                if (row.isValid() && points_->hasFocus() && !model_->isFollowing())
                    session_.selection().set({{model_->set(), static_cast<std::size_t>(row.row())}});
            });
    return points_;
}

QPlainTextEdit* TablesPage::description() {
    return parcel_->description();
}

QWidget* TablesPage::buildBands() {
    bands_ = new QTableWidget(0, 3);
    bands_->setObjectName(QStringLiteral("bandTable"));
    bands_->setAccessibleName(tr("Bands"));
    new TableClipboard(*bands_, session_);
    bands_->setHorizontalHeaderLabels({tr("Band"), tr("Plan area"), tr("Surface area")});
    bands_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    bands_->verticalHeader()->hide();
    bands_->verticalHeader()->setDefaultSectionSize(22);
    bands_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    return bands_;
}

QWidget* TablesPage::buildTool() {
    tool_ = new QTableWidget;
    tool_->setObjectName(QStringLiteral("toolTable"));
    tool_->setAccessibleName(tr("What the tool is about to do"));
    new TableClipboard(*tool_, session_);
    tool_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    tool_->setSelectionBehavior(QAbstractItemView::SelectRows);
    tool_->verticalHeader()->hide();
    tool_->verticalHeader()->setDefaultSectionSize(22);
    tool_->horizontalHeader()->setStretchLastSection(true);
    connect(tool_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (!offered_ || row < 0 || row >= static_cast<int>(offered_->rows.size()) || !tool_->hasFocus())
            return;
        if (const auto at = offered_->rows[static_cast<std::size_t>(row)].at)
            Q_EMIT session_.selection().goToPlace(*at);
    });
    return tool_;
}

void TablesPage::setToolTable(std::optional<ToolTable> table) {
    offered_ = std::move(table);
    tool_->clear();
    tool_->setRowCount(0);
    if (offered_) {
        tool_->setColumnCount(static_cast<int>(offered_->columns.size()));
        tool_->setHorizontalHeaderLabels(offered_->columns);
        tool_->setRowCount(static_cast<int>(offered_->rows.size()));
        for (std::size_t i = 0; i < offered_->rows.size(); ++i) {
            const auto& row = offered_->rows[i];
            for (int c = 0; c < static_cast<int>(row.cells.size()); ++c) {
                auto* item = new QTableWidgetItem(row.cells[c]);
                if (row.trouble) item->setForeground(theme::madder);
                tool_->setItem(static_cast<int>(i), c, item);
            }
        }
        tool_->resizeColumnsToContents();
    }
    refresh();
}

void TablesPage::follow() {
    chosen_ = false;
    if (offered_) return;
    for (const Ref& r : session_.selection()) {
        const int i = choice_->findData(QVariant::fromValue<qulonglong>(r.object.value));
        if (i < 0) continue;
        choice_->setCurrentIndex(i);
        refresh();
        if (r.part && model_->set() == r.object && points_->currentIndex().row() != static_cast<int>(*r.part))
            points_->selectRow(static_cast<int>(*r.part));
    }
}

void TablesPage::refresh() {
    const auto& document = session_.derived().document;
    const auto before = choice_->currentData();
    export_->hide();
    choice_->clear();
    if (offered_) {
        choice_->addItem(offered_->title);
        setNothing({});
        return stack_->setCurrentWidget(tool_);
    }
    fillChoice(before);
    if (choice_->count() == 0) return;
    const ObjectId id{choice_->currentData().toULongLong()};
    if ((id.value & ofStations) != 0) {
        stations_->list({id.value & ~ofStations});
        export_->show();
        return stack_->setCurrentWidget(stations_);
    }
    if (document.get<objects::Table>(id) != nullptr) {
        record_->list(id);
        export_->show();
        return stack_->setCurrentWidget(record_);
    }
    if (document.get<objects::Points>(id) != nullptr) {
        if (model_->set() != id) model_->setSet(id);
        return stack_->setCurrentIndex(0);
    }
    if (document.get<objects::Alignment>(id) != nullptr) {
        pis_->list(id);
        return stack_->setCurrentWidget(pis_);
    }
    if (const auto* bands = derive::Derived::in(session_.derived().bands, id)) return showBands(*bands);
    if (document.get<objects::Reading>(id) != nullptr) {
        reading_->list(id);
        return stack_->setCurrentWidget(reading_);
    }
    parcel_->list(id);
    stack_->setCurrentWidget(parcel_);
}

/// Everything that has a table; the one before stays, or what is selected.
void TablesPage::fillChoice(const QVariant& before) {
    const auto& document = session_.derived().document;
    for (const ObjectId id : document.all<objects::Points>())
        choice_->addItem(tr("Points: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value));
    for (const ObjectId id : document.all<objects::Parcel>())
        choice_->addItem(tr("Courses: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value));
    for (const ObjectId id : document.all<objects::Reading>())
        choice_->addItem(tr("Read back: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value));
    for (const ObjectId id : document.all<objects::Alignment>())
        if (PiTable::has(session_.derived(), id))
            choice_->addItem(tr("PIs: %1").arg(QString::fromStdString(document.nameOf(id))),
                             QVariant::fromValue<qulonglong>(id.value));
    for (const ObjectId id : document.all<objects::Alignment>())
        choice_->addItem(tr("Stations: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value | ofStations));
    for (const ObjectId id : document.all<objects::Table>())
        choice_->addItem(tr("Table: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value));
    for (const auto& [id, bands] : session_.derived().bands)
        choice_->addItem(tr("Bands: %1").arg(QString::fromStdString(document.nameOf(id))),
                         QVariant::fromValue<qulonglong>(id.value));
    choice_->setCurrentIndex(std::max(0, choice_->findData(before)));
    // What was selected before its results were there.
    for (const Ref& r : session_.selection())
        if (const int i = choice_->findData(QVariant::fromValue<qulonglong>(r.object.value));
            i >= 0 && !chosen_)
            choice_->setCurrentIndex(i);
    setNothing(choice_->count() > 0 ? QString()
                                    : tr("Tables: survey points, courses of parcels, PIs of alignments and "
                                         "bands of surfaces are listed here."));
}

void TablesPage::showStations(ObjectId alignment) {
    const int at = choice_->findData(QVariant::fromValue<qulonglong>(alignment.value | ofStations));
    if (at < 0) return;
    choice_->setCurrentIndex(at);
    chosen_ = true;
    refresh();
}

Result<void> TablesPage::exportTo(const QString& path) const {
    if (stack_->currentWidget() == record_) return record_->exportTo(path);
    return format::writeTable(path.toStdString(), stations_->asTable());
}

void TablesPage::showBands(const derive::BandTable& table) {
    const auto& display = session_.document().settings().display;
    bands_->setRowCount(static_cast<int>(table.bands.size()));
    for (std::size_t i = 0; i < table.bands.size(); ++i) {
        auto* name = new QTableWidgetItem(bandText(table, i, display));
        name->setData(Qt::DecorationRole, bandColour(table.kind, i, table.bands.size()));
        bands_->setItem(static_cast<int>(i), 0, name);
        int column = 1;
        for (const double area : {table.bands[i].planArea, table.bands[i].surfaceArea}) {
            auto* item = new QTableWidgetItem(QString::fromStdString(formatArea(area, display)));
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            bands_->setItem(static_cast<int>(i), column++, item);
        }
    }
    stack_->setCurrentWidget(bands_);
}

}  // namespace erdwerk::app

#include "moc_tables_page.cpp"
