#include "app/kinds/row_section.h"

#include <QMouseEvent>
#include <QPainter>

#include "app/base/theme.h"
#include "core/linework/offset_row.h"
#include "core/linework/row_profile.h"

namespace erdwerk::app {

RowSection::RowSection(std::vector<linework::OffsetRow> rows, bool chained, QWidget* parent)
    : QWidget(parent), rows_(std::move(rows)), chained_(chained) {
    setMinimumHeight(96);
    setAccessibleName(tr("Cross-section of the rows"));
    setToolTip(tr("Drag a row to another run and height"));
}

QRectF RowSection::area() const {
    return QRectF(rect()).adjusted(14, 14, -14, -22);
}

QPointF RowSection::positionOf(std::size_t row) const {
    const auto places = linework::rowProfile(rows_, chained_);
    double right = 0.001;
    double low = 0;
    double high = 0.001;
    for (const auto& p : places) {
        right = std::max(right, p.run);
        low = std::min(low, p.rise);
        high = std::max(high, p.rise);
    }
    const QRectF room = area();
    const double scale = dragged_ ? scale_ : std::min(room.width() / right, room.height() / (high - low));
    const QPointF origin = dragged_ ? origin_ : QPointF(room.left(), room.top() + high * scale);
    const auto& at = row == 0 ? linework::RowPlace{} : places[row - 1];
    return origin + QPointF(at.run * scale, -at.rise * scale);
}

void RowSection::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme::paper);
    const auto places = linework::rowProfile(rows_, chained_);
    painter.setFont(theme::font(10));
    for (std::size_t i = 1; i <= rows_.size(); ++i) {
        const QPointF from = positionOf(chained_ ? i - 1 : 0);
        const QPointF to = positionOf(i);
        // Where it lies is not known here: on a surface, at a fixed height.
        painter.setPen(QPen(theme::breakline, 1.6, places[i - 1].known ? Qt::SolidLine : Qt::DashLine));
        painter.drawLine(chained_ ? from : positionOf(i - 1), to);
        painter.setPen(QPen(theme::clay, 1.4));
        painter.setBrush(dragged_ == i ? theme::clay : theme::paper);
        painter.drawRect(QRectF(to - QPointF(3.5, 3.5), QSizeF(7, 7)));
        painter.setPen(theme::ink);
        const QString text = QString::fromStdString(linework::rowText(rows_[i - 1]));
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(text) + 4;
        const double left = std::clamp(to.x() - wide / 2, 2.0, std::max(2.0, width() - wide - 2));
        // Beside the next place up or down the text stands on its other side.
        const bool under = i == rows_.size() || positionOf(i + 1).y() <= to.y() + 1;
        painter.drawText(QRectF(left, under ? to.y() + 5 : to.y() - 19, wide, 14), Qt::AlignCenter, text);
    }
    painter.setPen(QPen(theme::ink, 1.4));
    painter.setBrush(theme::ink);
    painter.drawEllipse(positionOf(0), 3.5, 3.5);
}

void RowSection::mousePressEvent(QMouseEvent* event) {
    for (std::size_t i = rows_.size(); i >= 1; --i) {
        if (QLineF(positionOf(i), event->position()).length() > 8) continue;
        const QPointF origin = positionOf(0);
        const auto places = linework::rowProfile(rows_, chained_);
        const double run = places[i - 1].run;
        scale_ = run > 0 ? (positionOf(i).x() - origin.x()) / run : 20;
        origin_ = origin;
        dragged_ = i;
        update();
        return;
    }
}

void RowSection::mouseMoveEvent(QMouseEvent* event) {
    if (!dragged_) return;
    const QPointF at = event->position() - origin_;
    rows_[*dragged_ - 1] =
        linework::rowThrough(rows_, chained_, *dragged_ - 1, {at.x() / scale_, -at.y() / scale_, true});
    update();
}

void RowSection::mouseReleaseEvent(QMouseEvent*) {
    if (!dragged_) return;
    dragged_.reset();
    QStringList typed;
    for (const auto& row : rows_) typed << QString::fromStdString(linework::rowText(row));
    Q_EMIT changed(typed.join(QStringLiteral("; ")));
}

}  // namespace erdwerk::app

#include "moc_row_section.cpp"
