#pragma once
// Rows beside a line as the little cross-section that they are; each is dragged to another run and height.

#include <QWidget>

#include "core/linework/offset.h"

namespace erdwerk::app {

class RowSection : public QWidget {
    Q_OBJECT
public:
    RowSection(std::vector<linework::OffsetRow> rows, bool chained, QWidget* parent = nullptr);
    [[nodiscard]] QSize sizeHint() const override { return {220, 110}; }
    /// Where a row is drawn, for tests.
    [[nodiscard]] QPointF positionOf(std::size_t row) const;

Q_SIGNALS:
    /// All rows as they would be typed, after a drag.
    void changed(const QString& rows);

protected:
    void paintEvent(QPaintEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;

private:
    [[nodiscard]] QRectF area() const;

    std::vector<linework::OffsetRow> rows_;
    bool chained_;
    std::optional<std::size_t> dragged_;
    // Kept while a row is dragged.
    double scale_ = 1;
    QPointF origin_;
};

}  // namespace erdwerk::app
