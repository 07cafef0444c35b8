#pragma once
// Profiles and cross-sections on paper.

#include <QPainter>

#include "app/base/session.h"
#include "core/objects/sheet.h"

namespace erdwerk::app {

/// Paints a stretch of a profile in a room of the paper, 1 : scale along and with its exaggeration up (all of
/// the height when that is to fit). `mm`: picture units a millimetre.
void paintProfile(QPainter& painter, const Snapshot& snapshot, const objects::ProfileFrame& frame,
                  const QRectF& room, double mm);
/// Paints cross-sections at a true scale in columns from below upwards, column after column, as plan sets
/// have them; gives how many found room, and of how many.
struct SectionsPlaced {
    std::size_t drawn = 0;
    std::size_t all = 0;
};
SectionsPlaced paintCrossSections(QPainter& painter, const Snapshot& snapshot,
                                  const objects::SectionsFrame& sections, const QRectF& room, double mm);

/// A profile by itself as PDF (vector) or SVG, by the ending; at its scale along, or the next round one at
/// which it is at most 380 mm long.
Result<void> writeProfile(const QString& path, const Snapshot& snapshot, ObjectId profile);

}  // namespace erdwerk::app
