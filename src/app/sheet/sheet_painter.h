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
/// Gives which texts of its plan found room.
TextsShown paintSheet(QPainter& painter, const Snapshot& snapshot, ObjectId sheet, double perMillimetre);
/// As it is painted: pairs of texts that lie on each other, and texts of the plan that found no room.
struct SheetTexts {
    std::size_t overlaps = 0;
    std::size_t leftOut = 0;
};
SheetTexts textsOn(const Snapshot& snapshot, ObjectId sheet);

/// Writes sheets as the pages of a PDF (vector), or as SVG by the ending, numbered when there are several; a
/// file appears only when it is whole. Gives the file of each.
Result<QStringList> writeSheets(const QString& path, const Snapshot& snapshot,
                                const std::vector<ObjectId>& sheets);

/// On the sheet's own paper, true to scale. Io when the printer takes nothing.
Result<void> printSheet(QPrinter& printer, const Snapshot& snapshot, ObjectId sheet);
/// What a plan shows, as large as it fits the page.
Result<void> printPlan(QPrinter& printer, const Snapshot& snapshot, const ViewTransform& view);

}  // namespace erdwerk::app
