#pragma once
// The legend of a sheet: the signs that its plans show.

#include "app/base/snapshot.h"
#include "app/sheet/paper_ink.h"

namespace erdwerk::app {

void paintLegend(const PaperInk& ink, const paper::Room& room);

}  // namespace erdwerk::app
