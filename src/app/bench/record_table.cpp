#include "app/bench/record_table.h"

#include <QHeaderView>
#include <algorithm>

#include "app/base/snapshot.h"
#include "app/bench/table_clipboard.h"
#include "core/format/record_tables.h"

namespace erdwerk::app {

void RecordModel::setRows(operations::RecordRows rows) {
    beginResetModel();
    rows_ = std::move(rows);
    endResetModel();
}

int RecordModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.rows.size());
}

int RecordModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_.header.size());
}

QVariant RecordModel::data(const QModelIndex& index, int role) const {
    const auto& cell =
        rows_.rows[static_cast<std::size_t>(index.row())].cells[static_cast<std::size_t>(index.column())];
    if (role == Qt::DisplayRole) return QString::fromStdString(cell.text);
    if (role == Qt::TextAlignmentRole)
        return QVariant((cell.figure ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter);
    return {};
}

QVariant RecordModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || role != Qt::DisplayRole) return {};
    return QString::fromStdString(rows_.header[static_cast<std::size_t>(section)]);
}

RecordTable::RecordTable(Session& session, QWidget* parent)
    : QTableView(parent), session_(session), model_(new RecordModel(this)) {
    setObjectName(QStringLiteral("recordTable"));
    setAccessibleName(tr("Table of the record"));
    setModel(model_);
    setAlternatingRowColors(true);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(22);
    horizontalHeader()->setStretchLastSection(true);
    horizontalHeader()->setSectionsClickable(true);
    new TableClipboard(*this, session_);
    worker_ = std::make_unique<LatestWorker<Request, Result<operations::RecordRows>>>(
        this,
        [](const Request& r, const std::atomic<bool>&) {
            return std::optional(operations::recordRows(r.snapshot->derived, r.table));
        },
        [this](Result<operations::RecordRows> rows) {
            if (rows)
                show(std::move(*rows));
            else
                Q_EMIT session_.message(QString::fromStdString(rows.error().message()), true);
        });
    connect(horizontalHeader(), &QHeaderView::sectionClicked, this, &RecordTable::sortBy);
    connect(selectionModel(), &QItemSelectionModel::currentRowChanged, this, [this](const QModelIndex& row) {
        if (!row.isValid() || !hasFocus()) return;
        const auto& of = model_->rows().rows[static_cast<std::size_t>(row.row())];
        if (session_.document().find(of.of))
            session_.selection().setHover(Hover{{}, Ref{of.of, of.part}, {}});
    });
    connect(this, &QTableView::doubleClicked, this, [this](const QModelIndex& row) {
        const auto& of = model_->rows().rows[static_cast<std::size_t>(row.row())];
        if (session_.document().find(of.of)) session_.selection().set({{of.of, of.part}});
    });
}

/// The cursor stays at what it was at.
void RecordTable::show(operations::RecordRows rows) {
    const QModelIndex at = currentIndex();
    std::optional<operations::RecordRow> was;
    if (at.isValid()) was = model_->rows().rows[static_cast<std::size_t>(at.row())];
    model_->setRows(std::move(rows));
    if (!was) return;
    const auto& now = model_->rows().rows;
    // Rows of one object without parts of their own are known by their order.
    const auto isSame = [&](const auto& row) { return row.of == was->of && row.part == was->part; };
    const auto first = static_cast<std::size_t>(at.row());
    const auto same = first < now.size() && isSame(now[first]) ? now.begin() + at.row()
                                                               : std::find_if(now.begin(), now.end(), isSame);
    if (same != now.end())
        selectionModel()->setCurrentIndex(model_->index(static_cast<int>(same - now.begin()), at.column()),
                                          QItemSelectionModel::NoUpdate);
}

RecordTable::~RecordTable() {
    worker_.reset();
}

bool RecordTable::settled() const {
    return worker_->idle();
}

void RecordTable::list(ObjectId table) {
    table_ = table;
    if (isVisible()) ask();  // else when somebody looks
}

void RecordTable::showEvent(QShowEvent* event) {
    QTableView::showEvent(event);
    ask();
}

void RecordTable::ask() {
    if (const auto* table = session_.document().get<objects::Table>(table_))
        worker_->request({session_.snapshot(), *table}, false);
}

/// The same heading again turns the order round.
void RecordTable::sortBy(int column) {
    const std::string by = model_->rows().header[static_cast<std::size_t>(column)];
    session_.edit(tr("Sort a table"),
                  [id = table_, by](const document::Document& d) -> Result<document::Edited> {
                      return document::changed<objects::Table>(d, id, [&](objects::Table& t) {
                          t.falling = t.by == by && !t.falling;
                          t.by = by;
                      });
                  });
}

Result<void> RecordTable::exportTo(const QString& path) const {
    return format::writeRecord(path.toStdString(), model_->rows());
}

}  // namespace erdwerk::app

#include "moc_record_table.cpp"
