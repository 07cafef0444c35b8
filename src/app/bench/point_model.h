#pragma once
// One set of survey points as an editable table.

#include <QAbstractTableModel>

#include "app/base/session.h"
#include "core/survey/points.h"

namespace erdwerk::app {

class PointModel : public QAbstractTableModel {
    Q_OBJECT
public:
    PointModel(Session& session, QObject* parent);
    void setSet(ObjectId set);
    [[nodiscard]] ObjectId set() const { return set_; }
    /// Rows come and go just now: what the view's cursor does meanwhile is nobody's choice.
    [[nodiscard]] bool isFollowing() const { return following_; }

    [[nodiscard]] int rowCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] int columnCount(const QModelIndex& parent = {}) const override;
    [[nodiscard]] QVariant data(const QModelIndex& index, int role) const override;
    [[nodiscard]] QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    [[nodiscard]] Qt::ItemFlags flags(const QModelIndex& index) const override;
    /// What typing a text into a cell does.
    [[nodiscard]] std::optional<document::Edit> cellEdit(const QModelIndex& index,
                                                         const QString& typed) const;
    bool setData(const QModelIndex& index, const QVariant& value, int role) override;

private:
    [[nodiscard]] const survey::PointSet* points() const;
    /// Tells the views which rows came and went, and that the others may say something else.
    void follow();

    Session& session_;
    ObjectId set_;
    // What the views know; shares its points with the document.
    survey::PointSet shown_;
    std::size_t rows_ = 0;
    bool following_ = false;
};

}  // namespace erdwerk::app
