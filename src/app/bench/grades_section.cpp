// What is dragged in the section of the Grades page.

#include <cmath>

#include "app/bench/grades_page.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

namespace {

document::Edit both(document::Edit first, document::Edit second) {
    return [first = std::move(first),
            second = std::move(second)](const document::Document& d) -> Result<document::Edited> {
        auto done = first(d);
        return done ? second(done->document) : done;
    };
}

}  // namespace

void GradesPage::moveHandle(std::size_t handle, double distance, double height, bool preview) {
    const auto* r = resolved();
    if (r == nullptr || handle >= handles_.size()) return;
    const std::size_t vertex = handles_[handle];
    const linework::FixedHeight fixed{std::round(height * 1000) / 1000};
    auto edit = operations::setRule(*line_, vertex, fixed);
    const bool along = !session_.derived().definition(*line_)->vertices[vertex].isCorner &&
                       std::abs(distance - r->vertices[vertex].distance) > r->length * 1e-4;
    if (along) edit = both(operations::moveGradePointTo(*line_, vertex, distance), edit);
    if (preview) {
        session_.preview(edit);
        return;
    }
    session_.edit(tr("%1, point %2: height %3")
                      .arg(QString::fromStdString(session_.document().nameOf(*line_)))
                      .arg(vertex + 1)
                      .arg(QString::fromStdString(formatExact(fixed.height))),
                  edit);
}

void GradesPage::moveStretch(std::size_t handle, double rise, bool preview) {
    if (!line_ || handle + 1 >= handles_.size()) return;
    if (!dragBase_) dragBase_ = session_.results();
    const double by = std::round(rise * 1000) / 1000;
    const auto edit =
        operations::lift(dragBase_, {{*line_, handles_[handle]}, {*line_, handles_[handle + 1]}}, by);
    if (preview) {
        session_.preview(edit);
        return;
    }
    dragBase_.reset();
    session_.edit(tr("%1: a stretch lifted by %2")
                      .arg(QString::fromStdString(session_.document().nameOf(*line_)))
                      .arg(QString::fromStdString(formatExact(by))),
                  edit);
}

void GradesPage::pullCurve(std::size_t handle, double length, bool preview) {
    if (!line_ || handle >= handles_.size()) return;
    const double by = std::round(length * 10) / 10;
    const auto edit = operations::setCurve(
        *line_, handles_[handle],
        by > 0 ? std::optional(linework::VerticalCurve{linework::VerticalCurve::By::Length, by})
               : std::nullopt);
    if (preview) {
        session_.preview(edit);
        return;
    }
    session_.edit(tr("%1, point %2: curve %3")
                      .arg(QString::fromStdString(session_.document().nameOf(*line_)))
                      .arg(handles_[handle] + 1)
                      .arg(QString::fromStdString(formatExact(by))),
                  edit);
}

}  // namespace erdwerk::app
