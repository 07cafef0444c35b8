#pragma once
// The map of cut and fill between two surfaces, as a layer of the plan.

#include "app/plan/plan_canvas.h"
#include "core/terrain/earthworks.h"

namespace erdwerk::app {

struct CutFillLayer {
    terrain::CutFillMap map;
    QString title;
};
void paintCutFill(PlanCanvas& canvas, const CutFillLayer& layer);
/// Cut is madder, fill spruce, deeper for more; `share` of the largest, from -1 (cut) to 1 (fill).
QColor cutFillColour(double share);

}  // namespace erdwerk::app
