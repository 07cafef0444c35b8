#pragma once
// Tables of the record on paper.

#include <QPainter>

#include "core/operations/record_rows.h"

namespace erdwerk::app {

/// Paints a table with its title from the top of a room downwards, as wide as the room, with letters of a
/// size that lets the widest row fit (2.3 down to 1.2 mm); gives where it ends. Rows that find no room are
/// counted in its last line. `mm`: picture units a millimetre.
double paintTable(QPainter& painter, const operations::RecordRows& rows, const QString& title,
                  const QRectF& room, double mm);

}  // namespace erdwerk::app
