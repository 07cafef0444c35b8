#pragma once
// What a kind of object is in plan: where it lies, how it is painted and found under the cursor, what shows
// that it is selected, and what dragging it does. The plan knows kinds by this only.

#include <array>
#include <variant>

#include "app/plan/handle_painter.h"
#include "app/plan/plan_canvas.h"
#include "app/plan/snap.h"
#include "core/document/transaction.h"

namespace erdwerk::app {

/// Objects are those of the document that the results are of.
class PlanLayer {
public:
    PlanLayer() = default;
    PlanLayer(const PlanLayer&) = delete;
    PlanLayer& operator=(const PlanLayer&) = delete;
    virtual ~PlanLayer() = default;

    /// Adds where the object lies; nothing when it lies nowhere in plan.
    virtual void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const = 0;
    /// The part of the plan that it is put on and off with; none for what is always there.
    [[nodiscard]] virtual std::optional<objects::PlanPart> part() const { return std::nullopt; }
    /// When it is painted, in the order of painting; none for what is not drawn in plan.
    [[nodiscard]] virtual std::vector<PlanPass> passes() const = 0;
    /// Paints a visible object. Only reads values: runs on any thread.
    virtual void paint(PlanCanvas& canvas, ObjectId id, PlanPass pass) const = 0;
    /// Adds what of a visible object lies near the cursor.
    virtual void hit(SnapSearch& search, ObjectId id) const = 0;
    /// Marks a selected object and the parts of it that can be taken; it is in the painter's document, too.
    virtual void handles(HandlePainter& painter, const Ref& ref) const = 0;
    /// What dragging a part to a place does; nothing when it cannot be dragged.
    [[nodiscard]] virtual std::optional<document::Edit> dragged(const Ref& ref,
                                                                geometry::Vec2 place) const = 0;
};

/// One for each kind, in the order of the kinds.
using PlanLayers = std::array<const PlanLayer*, objects::kindCount>;

inline bool shows(const objects::PlanPartsOff& off, const PlanLayer& layer) {
    return !layer.part() || off.count(*layer.part()) == 0;
}
inline const PlanLayer& layerOf(const PlanLayers& layers, const objects::Object& object) {
    return *layers[object.payload.index()];
}

/// Everything within `pixels` of the cursor, nearest kinds first.
std::vector<Snap> snapsAt(const Snapshot& snapshot, const ViewTransform& view, const PlanLayers& layers,
                          QPointF cursor, double pixels,
                          const std::optional<geometry::Vec2>& from = std::nullopt,
                          const TextsShown* texts = nullptr);

}  // namespace erdwerk::app
