#include "app/bench/pi_table.h"

#include <QHeaderView>
#include <QKeyEvent>

#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "core/operations/routes.h"

namespace erdwerk::app {

namespace {

enum Columns {
    Number,
    Station,
    Bearing,
    Distance,
    Radius,
    SpiralIn,
    SpiralOut,
    Turn,
    Easting,
    Northing,
    ColumnCount
};

std::optional<operations::PiFigure> figureOf(int column) {
    using operations::PiFigure;
    switch (column) {
        case Bearing:
            return PiFigure::Bearing;
        case Distance:
            return PiFigure::Distance;
        case Radius:
            return PiFigure::Radius;
        case SpiralIn:
            return PiFigure::SpiralIn;
        case SpiralOut:
            return PiFigure::SpiralOut;
        case Easting:
            return PiFigure::Easting;
        case Northing:
            return PiFigure::Northing;
        default:
            return std::nullopt;
    }
}

/// Its own, or those that the path has.
std::optional<std::vector<route::Pi>> pisFor(const derive::Derived& derived, ObjectId alignment) {
    if (const auto* own = operations::pisOf(derived.document, alignment)) return *own;
    const auto* geometry = derive::Derived::in(derived.alignments, alignment);
    return geometry == nullptr ? std::nullopt : route::pisOf(geometry->path);
}

}  // namespace

PiTable::PiTable(Session& session, QWidget* parent)
    : QTableWidget(0, ColumnCount, parent), session_(session) {
    setObjectName(QStringLiteral("piTable"));
    setAccessibleName(tr("PIs of the alignment"));
    setHorizontalHeaderLabels({tr("PI"), tr("Station"), tr("Direction in"), tr("Distance in"), tr("Radius"),
                               tr("Spiral in"), tr("Spiral out"), tr("Turn"), tr("Easting"), tr("Northing")});
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(24);
    horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    horizontalHeader()->setStretchLastSection(true);
    setAlternatingRowColors(true);
    auto* clipboard =
        new TableClipboard(*this, session_, [this](const QModelIndex& cell, const QString& text) {
            return cellEdit(cell.row(), cell.column(), text);
        });
    connect(clipboard, &TableClipboard::menuAsked, this, [this](QMenu* menu) {
        if (!own_ || currentRow() < 0) return;
        menu->addAction(tr("Insert a PI after this one"), this, &PiTable::insertAfter);
        menu->addAction(tr("Remove this PI"), this, &PiTable::removeCurrent);
    });
    connect(this, &QTableWidget::cellChanged, this, &PiTable::edited);
    connect(this, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0 && hasFocus() && !filling_)
            session_.selection().set(
                {{alignment_, own_ ? std::optional(static_cast<std::size_t>(row)) : std::nullopt}});
    });
}

bool PiTable::has(const derive::Derived& derived, ObjectId alignment) {
    return pisFor(derived, alignment).has_value();
}

void PiTable::list(ObjectId alignment) {
    filling_ = true;
    const auto& derived = session_.derived();
    const auto* line = derive::Derived::in(derived.alignments, alignment);
    const auto pis = line == nullptr ? std::nullopt : pisFor(derived, alignment);
    const bool same = alignment == alignment_;
    alignment_ = alignment;
    own_ = operations::pisOf(derived.document, alignment) != nullptr;
    const int kept = same ? currentRow() : -1;
    setRowCount(pis ? static_cast<int>(pis->size()) : 0);
    if (pis) {
        const auto figures = route::piFigures(*pis, *line);
        for (std::size_t i = 0; i < pis->size(); ++i)
            fillRow((*pis)[i], figures[i], static_cast<int>(i), *line);
    }
    if (kept >= 0 && kept < rowCount() && currentRow() != kept)
        setCurrentCell(kept, std::max(0, currentColumn()));
    filling_ = false;
}

void PiTable::fillRow(const route::Pi& pi, const route::PiFigures& figures, int row,
                      const route::AlignmentGeometry& line) {
    const auto& display = session_.document().settings().display;
    const bool first = !figures.azimuthIn;
    const bool end = !figures.turn;
    const auto text = [](const std::string& s) { return QString::fromStdString(s); };
    const auto length = [&](double v) { return text(formatFixed(v, display.lengthDecimals)); };
    const auto put = [&](int column, const QString& words, bool editable) {
        auto* cell = new QTableWidgetItem(words);
        if (!editable || !own_) {
            cell->setFlags(cell->flags() & ~Qt::ItemIsEditable);
            cell->setForeground(theme::inkQuiet);
        }
        cell->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        setItem(row, column, cell);
    };
    put(Number, QString::number(row + 1), false);
    put(Station,
        figures.distance ? text(formatStation(line.stationing.stationAt(*figures.distance), display))
                         : QString(),
        false);
    put(Bearing, first ? QString() : text(formatDirection(*figures.azimuthIn, display)), !first);
    put(Distance, first ? QString() : length(figures.distanceIn), !first);
    put(Radius, pi.radius > 0 ? length(pi.radius) : QString(), !end);
    put(SpiralIn, pi.spiralIn > 0 ? length(pi.spiralIn) : QString(), !end);
    put(SpiralOut, pi.spiralOut > 0 ? length(pi.spiralOut) : QString(), !end);
    QString turn;
    if (!end)
        turn = text(formatAngle(Angle::radians(std::abs(figures.turn->radians())), display.angleUnit)) +
               (figures.turn->radians() > 0 ? tr(" right") : tr(" left"));
    put(Turn, turn, false);
    put(Easting, length(pi.place.x), true);
    put(Northing, length(pi.place.y), true);
}

std::optional<document::Edit> PiTable::cellEdit(int row, int column, const QString& text) const {
    const auto figure = figureOf(column);
    if (!figure || !own_ || row < 0 || row >= rowCount() ||
        (item(row, column)->flags() & Qt::ItemIsEditable) == 0)
        return std::nullopt;
    return operations::typePi(alignment_, static_cast<std::size_t>(row), *figure, text.toStdString());
}

void PiTable::edited(int row, int column) {
    if (filling_) return;
    const auto edit = cellEdit(row, column, item(row, column)->text());
    if (!edit ||
        !session_.edit(tr("PI %1: %2 %3")
                           .arg(row + 1)
                           .arg(horizontalHeaderItem(column)->text().toLower(), item(row, column)->text()),
                       *edit))
        list(alignment_);
}

void PiTable::insertAfter() {
    session_.edit(tr("Insert a PI"),
                  operations::insertPi(alignment_, static_cast<std::size_t>(currentRow())));
}

void PiTable::removeCurrent() {
    session_.edit(tr("Remove PI %1").arg(currentRow() + 1),
                  operations::removePi(alignment_, static_cast<std::size_t>(currentRow())));
}

void PiTable::keyPressEvent(QKeyEvent* event) {
    const bool free = own_ && currentRow() >= 0 && state() != QAbstractItemView::EditingState;
    if (free && event->key() == Qt::Key_Delete) return removeCurrent();
    if (free && event->key() == Qt::Key_Insert) return insertAfter();
    QTableWidget::keyPressEvent(event);
}

}  // namespace erdwerk::app

#include "moc_pi_table.cpp"
