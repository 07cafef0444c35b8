#pragma once
// Marks over the plan's picture that say what is selected.

#include <QPainter>
#include <vector>

#include "app/base/session.h"
#include "app/base/texts_shown.h"
#include "app/plan/view_transform.h"
#include "core/geometry/path.h"

namespace erdwerk::app {

class HandlePainter {
public:
    HandlePainter(QPainter& painter, const derive::Derived& derived, const document::Document& document,
                  const ViewTransform& view, const TextsShown* texts = nullptr)
        : derived_(derived), document_(document), painter_(painter), view_(view), texts_(texts) {}

    /// Results may be of an older document: parts are looked up in both.
    [[nodiscard]] const derive::Derived& derived() const { return derived_; }
    [[nodiscard]] const document::Document& document() const { return document_; }
    void path(const geometry::Path& path);
    void ring(geometry::Vec2 place, double pixels = 7, Qt::PenStyle style = Qt::SolidLine);
    void square(geometry::Vec2 place, bool active);
    /// A stroke across a direction.
    void tick(geometry::Vec2 place, Angle direction, bool active);
    /// A figure beside a place, on a ground that keeps it readable; nothing where another one stands already.
    void figure(geometry::Vec2 place, QPointF beside, const QString& text, bool active = false);
    /// A figure with an arrow downhill, on the middle of a side.
    void grade(geometry::Vec2 place, Angle downhill, const QString& text);
    /// A small triangle over a high point, or under a low one.
    void turn(geometry::Vec2 place, bool high, const QString& text);
    [[nodiscard]] double scale() const { return view_.scale; }
    /// Outlines of what an object says in the plan; false when it says nothing there.
    bool texts(ObjectId id);
    /// A dotted frame round a part of the ground.
    void frame(const geometry::Box& box);
    void frame(const std::array<geometry::Vec2, 4>& corners);

private:
    const derive::Derived& derived_;
    const document::Document& document_;
    QPainter& painter_;
    const ViewTransform& view_;
    const TextsShown* texts_;
    std::vector<QRectF> taken_;  ///< by figures
};

}  // namespace erdwerk::app
