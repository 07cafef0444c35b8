#pragma once
// A sheet on paper: its border and its frames, one after the other.

#include <QPainter>
#include <QStringList>

#include "app/base/snapshot.h"
#include "app/sheet/paper_ink.h"

namespace erdwerk::app {

/// What became of its texts.
struct SheetShown {
    TextsShown texts;     ///< of its plans
    QStringList noFonts;  ///< that its title block asks for and that are not there
};

/// Paints a sheet in a coordinate system of `perMillimetre` units a millimetre, from the top left corner of
/// the paper. `layer` is told what is painted next.
SheetShown paintSheet(QPainter& painter, const Snapshot& snapshot, ObjectId sheet, double perMillimetre,
                      const std::function<void(const QString&)>& layer = {},
                      const std::atomic<bool>* cancel = nullptr);
/// One frame of it by itself.
void paintFrame(const PaperInk& ink, std::size_t frame, SheetShown& shown);

/// As it is painted: pairs of texts that lie on each other, texts of the plan that found no room, and fonts
/// that are missing.
struct SheetTexts {
    std::size_t overlaps = 0;
    std::size_t leftOut = 0;
    QStringList noFonts;
};
SheetTexts textsOn(const Snapshot& snapshot, ObjectId sheet);

}  // namespace erdwerk::app
