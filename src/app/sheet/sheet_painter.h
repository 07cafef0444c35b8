#pragma once
// A plan sheet: plan at a true scale, grid, north arrow, scale bar, title block, course table, description.

#include <QPainter>
#include <QString>

#include "app/base/session.h"
#include "app/plan/view_transform.h"

class QPrinter;

namespace erdwerk::app {

/// Paints a sheet in a coordinate system of `perMillimetre` units a millimetre, from the top left corner of
/// the paper.
void paintSheet(QPainter& painter, const Snapshot& snapshot, ObjectId sheet, double perMillimetre);

/// Writes a sheet as PDF (vector) or SVG by the ending; the file appears only when it is whole.
Result<void> writeSheet(const QString& path, const Snapshot& snapshot, ObjectId sheet);

/// On the sheet's own paper, true to scale. Io when the printer takes nothing.
Result<void> printSheet(QPrinter& printer, const Snapshot& snapshot, ObjectId sheet);
/// What a plan shows, as large as it fits the page.
Result<void> printPlan(QPrinter& printer, const Snapshot& snapshot, const ViewTransform& view);

}  // namespace erdwerk::app
