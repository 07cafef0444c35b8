#include "app/bench/point_model.h"

#include <algorithm>

#include "app/base/theme.h"
#include "core/base/notation.h"
#include "core/objects/points.h"
#include "core/operations/points.h"

namespace erdwerk::app {

namespace {
enum Columns { Number, Easting, Northing, Height, Code, Note, ColumnCount };
}

PointModel::PointModel(Session& session, QObject* parent) : QAbstractTableModel(parent), session_(session) {
    connect(&session_, &Session::documentChanged, this, &PointModel::follow);
}

void PointModel::setSet(ObjectId set) {
    beginResetModel();
    set_ = set;
    shown_ = points() == nullptr ? survey::PointSet() : *points();
    rows_ = shown_.size();
    endResetModel();
}

namespace {

/// So many points at the beginning are the same; blocks that both share are not looked into.
std::size_t sameAtHead(const survey::PointSet& a, const survey::PointSet& b) {
    const std::size_t most = std::min(a.size(), b.size());
    std::size_t head = 0;
    for (std::size_t k = 0; k < std::min(a.blocks().size(), b.blocks().size()); ++k) {
        if (a.blocks()[k] != b.blocks()[k]) break;
        head += a.blocks()[k]->size();
    }
    while (head < most && a[head] == b[head]) ++head;
    return head;
}

}  // namespace

void PointModel::follow() {
    const survey::PointSet now = points() == nullptr ? survey::PointSet() : *points();
    const std::size_t before = shown_.size();
    const std::size_t after = now.size();
    const std::size_t most = std::min(before, after);
    // What is the same at the beginning and at the end stays; what lies between goes and comes.
    const std::size_t head = before == after ? most : sameAtHead(shown_, now);
    std::size_t tail = 0;
    while (tail < most - head && shown_[before - 1 - tail] == now[after - 1 - tail]) ++tail;
    following_ = true;
    if (before - tail > head) {
        beginRemoveRows({}, static_cast<int>(head), static_cast<int>(before - tail) - 1);
        rows_ = head + tail;
        endRemoveRows();
    }
    if (after - tail > head) {
        beginInsertRows({}, static_cast<int>(head), static_cast<int>(after - tail) - 1);
        rows_ = after;
        endInsertRows();
    }
    following_ = false;
    shown_ = now;
    if (after > 0) Q_EMIT dataChanged(index(0, 0), index(static_cast<int>(after) - 1, ColumnCount - 1));
}

const survey::PointSet* PointModel::points() const {
    const auto* p = session_.document().get<objects::Points>(set_);
    return p == nullptr ? nullptr : &p->set;
}

int PointModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(rows_);
}
int PointModel::columnCount(const QModelIndex&) const {
    return ColumnCount;
}

QVariant PointModel::data(const QModelIndex& index, int role) const {
    const auto* set = points();
    if (set == nullptr || static_cast<std::size_t>(index.row()) >= set->size()) return {};
    const auto& p = (*set)[static_cast<std::size_t>(index.row())];
    const auto& display = session_.document().settings().display;
    if (role == Qt::TextAlignmentRole && index.column() >= Easting && index.column() <= Height)
        return QVariant(Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::ForegroundRole && index.column() == Height && !p.height) return theme::ochre.darker(130);
    if (role != Qt::DisplayRole && role != Qt::EditRole) return {};
    const bool exact = role == Qt::EditRole;
    switch (index.column()) {
        case Number:
            return QString::fromStdString(p.number);
        case Easting:
            return QString::fromStdString(exact ? formatExact(p.plan.x) : formatFixed(p.plan.x, 3));
        case Northing:
            return QString::fromStdString(exact ? formatExact(p.plan.y) : formatFixed(p.plan.y, 3));
        case Height:
            return exact ? (p.height ? QString::fromStdString(formatExact(*p.height)) : QString())
                         : QString::fromStdString(formatHeight(p.height, display));
        case Code:
            return QString::fromStdString(p.code);
        case Note:
            return QString::fromStdString(p.note);
        default:
            return {};
    }
}

QVariant PointModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (role != Qt::DisplayRole) return {};
    if (orientation == Qt::Vertical) return section + 1;
    static const QStringList names{tr("Number"), tr("Easting"), tr("Northing"),
                                   tr("Height"), tr("Code"),    tr("Note")};
    return names.value(section);
}

Qt::ItemFlags PointModel::flags(const QModelIndex& index) const {
    return QAbstractTableModel::flags(index) | Qt::ItemIsEditable;
}

std::optional<document::Edit> PointModel::cellEdit(const QModelIndex& index, const QString& typed) const {
    const auto* set = points();
    if (set == nullptr || static_cast<std::size_t>(index.row()) >= set->size()) return std::nullopt;
    return [ref = objects::PointRef{set_, static_cast<std::size_t>(index.row())}, column = index.column(),
            text = typed.trimmed().toStdString()](const document::Document& d) -> Result<document::Edited> {
        const auto* points = d.get<objects::Points>(ref.set);
        if (points == nullptr || ref.index >= points->set.size()) return badInput("the point is gone");
        auto p = points->set[ref.index];
        const auto number = parseNumber(text);
        const bool figure = column >= Easting && column <= Height;
        if (figure && !number && !(column == Height && text.empty()))
            return badInput("'" + text + "' is not a number");
        if (column == Number) p.number = text;
        if (column == Easting) p.plan.x = *number;
        if (column == Northing) p.plan.y = *number;
        if (column == Height) p.height = number;
        if (column == Code) p.code = text;
        if (column == Note) p.note = text;
        return operations::setPoint(ref, std::move(p))(d);
    };
}

bool PointModel::setData(const QModelIndex& index, const QVariant& value, int role) {
    const auto edit = role == Qt::EditRole ? cellEdit(index, value.toString()) : std::nullopt;
    if (!edit) return false;
    const QString number = QString::fromStdString((*points())[static_cast<std::size_t>(index.row())].number);
    return session_
        .edit(
            tr("Point %1: %2 %3")
                .arg(number, headerData(index.column(), Qt::Horizontal, Qt::DisplayRole).toString().toLower(),
                     value.toString()),
            *edit)
        .done;
}

}  // namespace erdwerk::app

#include "moc_point_model.cpp"
