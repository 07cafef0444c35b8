#pragma once
// The long-section: distance across, height up. Shared by Grades and Profile.

#include <QScrollBar>
#include <QWidget>

#include "app/base/press.h"
#include "app/section/section_painter.h"

namespace erdwerk::app {

class SectionView : public QWidget {
    Q_OBJECT
public:
    explicit SectionView(QWidget* parent = nullptr);
    void setData(SectionData data);
    void setMarked(std::optional<double> distance);
    /// The next click that is not on a handle is a place; Esc ends it.
    void setAdding(bool adding);
    [[nodiscard]] bool isAdding() const { return adding_; }
    /// Where a place is drawn, for tests.
    [[nodiscard]] QPointF positionOf(double distance, double height) const;
    void setActive(std::optional<std::size_t> handle);
    [[nodiscard]] double shownExaggeration() const;
    /// So many pixels per unit of distance, scrolled where that does not fit; 0: all of it fits.
    void setScale(double perUnit);
    [[nodiscard]] QScrollBar& scroll() { return *scroll_; }
    [[nodiscard]] const SectionData& data() const { return data_; }
    /// Where a handle is drawn, for tests.
    [[nodiscard]] QPointF handlePosition(std::size_t i) const;

Q_SIGNALS:
    void hovered(std::optional<double> distance);
    void handleDragged(std::size_t handle, double distance, double height);
    void handleReleased(std::size_t handle, double distance, double height);
    void handleClicked(std::size_t handle);
    /// The straight from a handle to the next, dragged up or down; `done` when the button is let go.
    void stretchDragged(std::size_t handle, double rise, bool done);
    /// A vertical curve pulled out of a handle with Shift held: its length.
    void curvePulled(std::size_t handle, double length, bool done);
    void placeClicked(double distance, double height);  ///< while adding
    void addingChanged(bool adding);
    void handleDeleted(std::size_t handle);  ///< the active one, by the Delete key
    void resized();

protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;

private:
    using Frame = SectionFrame;
    [[nodiscard]] Frame frame() const;
    [[nodiscard]] SectionLook look() const;
    void fitScroll();
    [[nodiscard]] std::optional<std::size_t> handleAt(QPointF at) const;
    [[nodiscard]] std::optional<std::size_t> stretchAt(QPointF at) const;
    [[nodiscard]] double riseTo(QPointF at) const;
    [[nodiscard]] double pulledTo(QPointF at) const;

    SectionData data_;
    double perUnit_ = 0;
    QScrollBar* scroll_;
    std::optional<double> marked_;
    std::optional<std::size_t> active_;
    std::optional<std::size_t> dragging_;
    std::optional<Frame> frozen_;         ///< while dragging the frame stays
    std::optional<std::size_t> stretch_;  ///< that is dragged
    bool pulling_ = false;
    Press press_;
    bool adding_ = false;
};

}  // namespace erdwerk::app
