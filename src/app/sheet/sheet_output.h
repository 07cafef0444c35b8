#pragma once
// Sheets as files and on a printer.

#include "app/base/snapshot.h"
#include "app/plan/view_transform.h"
#include "app/sheet/drawing_file.h"
#include "app/sheet/sheet_painter.h"

class QPrinter;

namespace erdwerk::app {

/// Writes sheets as the pages of a PDF, or as SVG by the ending, numbered when there are several; a file
/// appears only when it is whole. Gives the file of each. May run on any thread.
Result<QStringList> writeSheets(const QString& path, const Snapshot& snapshot,
                                const std::vector<ObjectId>& sheets, const DrawingProgress& progress = {});

/// Each on its own paper, true to scale. Io when the printer takes nothing.
Result<void> printSheets(QPrinter& printer, const Snapshot& snapshot, const std::vector<ObjectId>& sheets);
/// What a plan shows, as large as it fits the page.
Result<void> printPlan(QPrinter& printer, const Snapshot& snapshot, const ViewTransform& view);

}  // namespace erdwerk::app
