#pragma once
// A mouse button while it is down: a click, until the mouse has gone far enough for a drag.

#include <QPointF>
#include <utility>

namespace erdwerk::app {

/// In pixels of the view.
class Press {
public:
    void begin(QPointF at) {
        from_ = last_ = at;
        drag_ = false;
    }
    /// How far the mouse went since the last step, whether a button is down or not.
    QPointF step(QPointF at) {
        drag_ = isDrag(at);
        return at - std::exchange(last_, at);
    }
    /// A drag stays one when it comes back to where it began, if each move was a step.
    [[nodiscard]] bool isDrag(QPointF at) const { return drag_ || (at - from_).manhattanLength() >= 4; }
    [[nodiscard]] QPointF from() const { return from_; }
    [[nodiscard]] QPointF last() const { return last_; }

private:
    QPointF from_;
    QPointF last_;
    bool drag_ = false;
};

}  // namespace erdwerk::app
