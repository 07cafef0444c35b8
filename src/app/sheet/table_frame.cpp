#include "app/sheet/table_frame.h"

#include <QFontMetricsF>
#include <algorithm>
#include <cmath>
#include <vector>

#include "app/base/theme.h"

namespace erdwerk::app {

namespace {

QFont sized(double millimetres, double mm, bool strong = false) {
    QFont font = theme::font(10, strong);
    font.setPixelSize(std::max(1, static_cast<int>(std::lround(millimetres * mm))));
    return font;
}

/// One table, laid out in a room.
class TablePainter {
public:
    TablePainter(QPainter& painter, const operations::RecordRows& rows, const QRectF& room, double mm)
        : p_(painter), rows_(rows), room_(room), mm_(mm) {
        for (size_ = 2.3; size_ > 1.2; size_ -= 0.1)
            if (measure() <= room.width()) break;
        const double all = measure();
        // What is left over is shared; what is still too wide is cut by each cell.
        const double share =
            all < room.width() ? (room.width() - all) / static_cast<double>(widths_.size()) : 0;
        for (double& w : widths_) w = share > 0 ? w + share : w * room.width() / all;
    }

    double paint(const QString& title) {
        double y = room_.top();
        const double line = (size_ + 2.1) * mm_;
        p_.setPen(theme::ink);
        p_.setFont(sized(3.4, mm_, true));
        p_.drawText(QRectF(room_.left(), y, room_.width(), 5 * mm_), Qt::AlignLeft | Qt::AlignVCenter, title);
        y += 6 * mm_;
        std::vector<QString> cells;
        for (const auto& h : rows_.header) cells.push_back(QString::fromStdString(h));
        row(cells, y, true);
        y += line;
        for (std::size_t i = 0; i < rows_.rows.size(); ++i) {
            // The last line of the room says what did not fit.
            const bool last = y + 2 * line > room_.bottom() && i + 1 < rows_.rows.size();
            if (last || y + line > room_.bottom()) {
                p_.setPen(theme::madder);
                p_.setFont(sized(size_, mm_));
                p_.drawText(QRectF(room_.left(), y, room_.width(), line), Qt::AlignLeft | Qt::AlignVCenter,
                            QObject::tr("%1 more rows have no room here").arg(rows_.rows.size() - i));
                return y + line;
            }
            cells.clear();
            for (const auto& c : rows_.rows[i].cells) cells.push_back(QString::fromStdString(c.text));
            row(cells, y, false);
            y += line;
        }
        return y;
    }

private:
    /// Widths of the columns at the present size; all of them together.
    double measure() {
        const QFontMetricsF strong(sized(size_, mm_, true));
        const QFontMetricsF plain(sized(size_, mm_));
        widths_.assign(rows_.header.size(), 0);
        for (std::size_t i = 0; i < widths_.size(); ++i)
            widths_[i] = strong.horizontalAdvance(QString::fromStdString(rows_.header[i]));
        // A table for a sheet has few rows; of a long one the first do.
        for (std::size_t r = 0; r < std::min<std::size_t>(rows_.rows.size(), 500); ++r)
            for (std::size_t i = 0; i < widths_.size(); ++i)
                widths_[i] = std::max(
                    widths_[i], plain.horizontalAdvance(QString::fromStdString(rows_.rows[r].cells[i].text)));
        double all = 0;
        for (double& w : widths_) all += w += 1.6 * mm_;
        return all;
    }
    void row(const std::vector<QString>& cells, double y, bool strong) {
        p_.setFont(sized(size_, mm_, strong));
        const QFontMetricsF metrics(p_.font());
        p_.setPen(theme::ink);
        double x = room_.left();
        const double height = (size_ + 1.7) * mm_;
        for (std::size_t i = 0; i < cells.size() && i < widths_.size(); ++i) {
            const double width = widths_[i] - 0.8 * mm_;
            p_.drawText(QRectF(x, y, width, height),
                        (figures(i) ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter,
                        metrics.elidedText(cells[i], Qt::ElideRight, width + 0.2 * mm_));
            x += widths_[i];
        }
        p_.setPen(QPen(theme::hairline, 0.15 * mm_));
        p_.drawLine(QPointF(room_.left(), y + height + 0.2 * mm_),
                    QPointF(room_.right(), y + height + 0.2 * mm_));
    }
    [[nodiscard]] bool figures(std::size_t column) const {
        return std::any_of(rows_.rows.begin(), rows_.rows.end(),
                           [&](const auto& r) { return r.cells[column].figure.has_value(); });
    }

    QPainter& p_;
    const operations::RecordRows& rows_;
    QRectF room_;
    double mm_;
    double size_ = 2.3;
    std::vector<double> widths_;
};

}  // namespace

double paintTable(QPainter& painter, const operations::RecordRows& rows, const QString& title,
                  const QRectF& room, double mm) {
    return TablePainter(painter, rows, room, mm).paint(title);
}

}  // namespace erdwerk::app
