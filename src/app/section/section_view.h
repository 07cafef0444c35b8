#pragma once
// The long-section: distance across, height up. Shared by Grades and Profile.

#include <QWidget>
#include <functional>
#include <optional>
#include <vector>

namespace erdwerk::app {

struct SectionPoint {
    double distance = 0;
    std::optional<double> height;
};

struct SectionSeries {
    QString name;  ///< in the legend; empty: not there
    QColor colour;
    double width = 1.5;
    bool dashed = false;
    std::vector<SectionPoint> points;
    bool dots = false;  ///< points of a cloud: not joined
};

/// A vertex or PVI that can be dragged up and down (and along, when `along`).
struct SectionHandle {
    double distance = 0;
    double height = 0;
    QString text;
    bool square = true;  ///< corner or PVI; else a short bar (grade point)
    bool along = false;
};

/// A high or low point.
struct SectionMark {
    double distance = 0;
    double height = 0;
    QString text;
    bool high = true;
};

/// A stretch that is pointed out: its grade is beyond the limits.
struct SectionSpan {
    double from = 0;
    double to = 0;
    QString text;
};

struct SectionData {
    std::vector<SectionSeries> series;
    std::vector<SectionHandle> handles;
    std::vector<SectionMark> marks;
    std::vector<SectionSpan> spans;
    double exaggeration = 0;  ///< 0: fills the height
    /// Shade between the first two series: first above second is fill, below is cut.
    bool shadeDifference = false;
    /// Straights between handles can be dragged, and curves pulled out of handles.
    bool stretches = false;
    std::function<QString(double)> station;  ///< text of a distance
    QString empty;                           ///< shown when there is nothing to draw
};

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

private:
    struct Frame {
        QRectF area;
        double minX = 0, maxX = 1, minZ = 0, maxZ = 1;
        [[nodiscard]] QPointF map(double x, double z) const;
        [[nodiscard]] double distanceAt(double px) const;
        [[nodiscard]] double heightAt(double py) const;
    };
    [[nodiscard]] Frame frame() const;
    void paintSpans(QPainter& painter, const Frame& f);
    void paintGrid(QPainter& painter, const Frame& f);
    void paintDifference(QPainter& painter, const Frame& f);
    void paintSeries(QPainter& painter, const Frame& f);
    void paintHandles(QPainter& painter, const Frame& f);
    void paintMarks(QPainter& painter, const Frame& f);
    [[nodiscard]] std::optional<std::size_t> handleAt(QPointF at) const;
    [[nodiscard]] std::optional<std::size_t> stretchAt(QPointF at) const;
    [[nodiscard]] double riseTo(QPointF at) const;
    [[nodiscard]] double pulledTo(QPointF at) const;

    SectionData data_;
    std::optional<double> marked_;
    std::optional<std::size_t> active_;
    std::optional<std::size_t> dragging_;
    std::optional<Frame> frozen_;  ///< while dragging the frame stays
    bool moved_ = false;
    std::optional<std::size_t> stretch_;  ///< that is dragged
    bool pulling_ = false;
    QPointF pressedAt_;
    bool adding_ = false;
};

}  // namespace erdwerk::app
