#pragma once
// A surface in plan: shading, contours, triangles, bands and the map of its fit check.

#include "app/plan/plan_canvas.h"
#include "core/terrain/bands.h"

namespace erdwerk::app {

/// Hillshade and height colours.
void paintShading(PlanCanvas& canvas, ObjectId surface);
void paintContours(PlanCanvas& canvas, ObjectId surface);
/// In line, where no other text stands: to be painted after all of them.
void paintContourHeights(PlanCanvas& canvas, ObjectId surface);
void paintTriangles(PlanCanvas& canvas, const terrain::TinLocator& surface);
/// Triangles coloured by slope or direction, or strips of height, with a legend.
void paintBands(PlanCanvas& canvas, ObjectId surface);
/// The fit check: blue where the source lies above the surface, red below, grey within the tolerance.
void paintDeviation(PlanCanvas& canvas, ObjectId surface);

QColor bandColour(terrain::BandKind kind, std::size_t band, std::size_t count);
/// "2 to 5 %", "N", "320 to 325".
QString bandText(const derive::BandTable& table, std::size_t band, const DisplaySettings& display);
QColor deviationColour(double deviation, double tolerance);

}  // namespace erdwerk::app
