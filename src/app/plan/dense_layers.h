#pragma once
// What lies under the lines in plan: backdrops, clouds, bands and the map of the fit check.

#include <QPainter>
#include <atomic>

#include "app/base/session.h"
#include "app/plan/view_transform.h"
#include "core/terrain/earthworks.h"

namespace erdwerk::app {

/// What the colours of a layer mean. Painted over everything else.
struct Legend {
    QString title;
    std::vector<std::pair<QColor, QString>> rows;
};

/// What a layer needs: where to paint, what, and when to stop.
struct LayerCanvas {
    QPainter& painter;
    const Snapshot& snapshot;
    const ViewTransform& view;
    double unit = 1;  ///< picture units per screen pixel
    const std::atomic<bool>* cancel = nullptr;
    std::vector<Legend>* legends = nullptr;  ///< layers add theirs
    [[nodiscard]] bool stopped() const { return cancel != nullptr && cancel->load(); }
};

/// At the lower right, above the scale bar, one over the other.
void paintLegends(const LayerCanvas& canvas, const std::vector<Legend>& legends);

/// Whether any is shown.
bool paintBackdrops(const LayerCanvas& canvas);
/// As many points as the picture can show, spread evenly.
void paintClouds(const LayerCanvas& canvas);
/// Triangles coloured by slope or direction, or strips of height, with a legend at the corner.
void paintBands(const LayerCanvas& canvas, ObjectId surface);
/// The fit check: blue where the source lies above the surface, red below, grey within the tolerance.
void paintDeviation(const LayerCanvas& canvas, ObjectId surface);

/// Cut and fill between two surfaces.
struct CutFillLayer {
    terrain::CutFillMap map;
    QString title;
};
void paintCutFill(const LayerCanvas& canvas, const CutFillLayer& layer);
/// Cut is madder, fill spruce, deeper for more; `share` of the largest, from -1 (cut) to 1 (fill).
QColor cutFillColour(double share);

/// Colour of a cloud's point.
QRgb cloudColour(const objects::Cloud& cloud, std::size_t point);
QColor bandColour(terrain::BandKind kind, std::size_t band, std::size_t count);
QColor deviationColour(double deviation, double tolerance);
/// "2 to 5 %", "N", "320 to 325".
QString bandText(const derive::BandTable& table, std::size_t band, const DisplaySettings& display);

}  // namespace erdwerk::app
