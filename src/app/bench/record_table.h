#pragma once
// A table of the record on the bench: its rows are worked out on a worker, a click on a heading sorts it.

#include <QAbstractTableModel>
#include <QTableView>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "core/base/id.h"
#include "core/operations/record_rows.h"

namespace erdwerk::app {

class RecordModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void setRows(operations::RecordRows rows);
    [[nodiscard]] const operations::RecordRows& rows() const { return rows_; }
    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    operations::RecordRows rows_;
};

class RecordTable : public QTableView {
    Q_OBJECT
public:
    explicit RecordTable(Session& session, QWidget* parent = nullptr);
    ~RecordTable() override;
    void list(ObjectId table);
    /// Everything shown belongs to the newest results.
    [[nodiscard]] bool settled() const;
    /// As CSV or XLSX.
    Result<void> exportTo(const QString& path) const;
    [[nodiscard]] const operations::RecordRows& rows() const { return model_->rows(); }

protected:
    void showEvent(QShowEvent* event) override;

private:
    struct Request {
        SnapshotPointer snapshot;
        objects::Table table;
    };
    void ask();
    void show(operations::RecordRows rows);
    void sortBy(int column);

    Session& session_;
    ObjectId table_;
    RecordModel* model_;
    std::unique_ptr<LatestWorker<Request, Result<operations::RecordRows>>> worker_;
};

}  // namespace erdwerk::app
