#pragma once
// How dimensions are drawn, in the plan and as a ghost.

#include "app/plan/plan_canvas.h"
#include "core/annotate/dimension.h"

namespace erdwerk::app {

/// "distance", "angle between two sides" …
QString dimensionWord(annotate::DimensionKind kind);
/// Lines and ends are painted at once, the text is asked for.
void paintSpan(PlanCanvas& canvas, ObjectId id, std::size_t number, const annotate::DimensionSpan& span,
               const annotate::DimensionStyle& style);
/// Lines and ends, in a colour.
void paintDimensionLines(QPainter& painter, const ViewTransform& view, double unit,
                         const annotate::DimensionDrawing& drawing, const annotate::DimensionStyle& style,
                         const QColor& colour);

}  // namespace erdwerk::app
