#include "app/plan/cut_fill.h"

#include <cmath>

namespace erdwerk::app {

QColor cutFillColour(double share) {
    const double size = std::clamp(std::abs(share), 0.0, 1.0);
    const QColor full = share < 0 ? QColor(0x8C, 0x2A, 0x34) : QColor(0x1C, 0x55, 0x50);
    const auto mix = [&](int a, int b) { return static_cast<int>(a + (b - a) * std::sqrt(size)); };
    return {mix(0xF0, full.red()), mix(0xEA, full.green()), mix(0xDC, full.blue())};
}

void paintCutFill(PlanCanvas& canvas, const CutFillLayer& layer) {
    const auto& map = layer.map;
    if (map.columns == 0) return;
    const double largest = std::max({map.largestCut, map.largestFill, 1e-6});
    canvas.cells({map.origin, map.cell, map.columns, map.rows, map.difference},
                 [&](double d) { return cutFillColour(d / largest); });
    const auto& display = canvas.document.settings().display;
    const auto text = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
    canvas.legends.push_back({layer.title,
                              {{cutFillColour(1), QObject::tr("fill %1").arg(text(largest))},
                               {cutFillColour(0.4), QObject::tr("fill %1").arg(text(0.4 * largest))},
                               {cutFillColour(0), QObject::tr("level")},
                               {cutFillColour(-0.4), QObject::tr("cut %1").arg(text(0.4 * largest))},
                               {cutFillColour(-1), QObject::tr("cut %1").arg(text(largest))}}});
}

}  // namespace erdwerk::app
