#pragma once
// Plans on paper: true to scale, turned, with match lines; the key plan; north arrow and scale bar.

#include "app/base/snapshot.h"
#include "app/sheet/paper_ink.h"
#include "core/operations/sheet_layout.h"

namespace erdwerk::app {

/// Gives which of its texts found room.
TextsShown paintPlanFrame(const PaperInk& ink, const objects::PlanFrame& frame, const paper::Room& room);
/// Of what the frame shows: picture units from the upper left corner of its room.
ViewTransform viewOf(const PaperInk& ink, const operations::PlanOnPaper& plan, const paper::Room& room);
void paintScale(const PaperInk& ink, const paper::Room& room);
void paintKeyPlan(const PaperInk& ink, const paper::Room& room);

}  // namespace erdwerk::app
