#pragma once
// Draws a project in plan: pass by pass, each object by its layer. The same code paints the screen, sheets,
// PDF and SVG.

#include "app/plan/plan_layer.h"

namespace erdwerk::app {

/// Paints one snapshot. Only reads values, so it may run on any thread.
class PlanPainter {
public:
    PlanPainter(QPainter& painter, const Snapshot& snapshot, const ViewTransform& view,
                const PlanLayers& layers, PlanOptions options);
    void paint();
    /// Which texts were written, after paint().
    [[nodiscard]] const TextsShown& texts() const { return canvas_.texts.shown(); }

private:
    [[nodiscard]] bool takesPart(PlanPass pass) const;
    void grid();
    /// Coordinates at the rim: they choose their places before other texts.
    void rimTexts();
    void turnedRimTexts(double step,
                        const std::function<void(QPointF, bool, double, const QString&)>& add) const;
    void legends();

    PlanCanvas canvas_;
    /// What is painted in each pass, in the order of the objects.
    std::array<std::vector<std::pair<ObjectId, const PlanLayer*>>, allPasses.size()> turns_;
};

}  // namespace erdwerk::app
