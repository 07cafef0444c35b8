// Surfaces.

#include "core/objects/surface.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/plan_signs.h"
#include "app/kinds/surface_facts.h"
#include "app/kinds/surface_paint.h"
#include "core/derive/surface_result.h"
#include "core/terrain/locator.h"

namespace erdwerk::app {

namespace {

class SurfaceKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("surface"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Surfaces"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* locator = derived.surface(id)) box.add(locator->tin().bounds());
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override {
        return {PlanPass::Colours, PlanPass::Ground, PlanPass::ContourHeights};
    }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived& derived, ObjectId id) const override {
        const auto& style = derived.document.get<objects::Surface>(id)->style;
        if (!style.contours) return {};
        const QString every = text(formatExact(style.interval));
        std::vector<PlanSign> out{lineSign(QObject::tr("Contour, every %1").arg(every), theme::contour, 0.8),
                                  lineSign(QObject::tr("Index contour"), theme::contourIndex, 1.3)};
        if (derive::Derived::in(derived.contoursBefore, id) != nullptr)
            out.push_back(
                lineSign(QObject::tr("Contour before earthworks"), theme::contour, 0.64, Qt::DashLine));
        return out;
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass pass) const override {
        const auto* locator = canvas.derived.surface(id);
        if (locator == nullptr) return;
        const auto& style = canvas.document.get<objects::Surface>(id)->style;
        if (pass == PlanPass::Colours) {
            if (style.bands != objects::Bands::None)
                paintBands(canvas, id);
            else if (style.hillshade || style.heightColours)
                paintShading(canvas, id);
            return;
        }
        using objects::PlanPart;
        const bool contours = style.contours && canvas.options.shows(PlanPart::Contours);
        if (pass == PlanPass::ContourHeights) {
            if (contours && canvas.options.shows(PlanPart::ContourHeights)) paintContourHeights(canvas, id);
            return;
        }
        if (style.deviation && canvas.options.shows(PlanPart::GroundColours)) paintDeviation(canvas, id);
        if (style.triangles && canvas.options.shows(PlanPart::Triangles)) paintTriangles(canvas, *locator);
        if (contours) paintContours(canvas, id);
    }
    /// It lies under everything: its height is told where nothing else is.
    void hit(SnapSearch&, ObjectId) const override {}
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* locator = painter.derived().surface(ref.object))
            painter.frame(locator->tin().bounds());
    }
    void show(SceneContent& content, ObjectId id) const override {
        const auto found = content.derived().surfaces.find(id);
        if (found == content.derived().surfaces.end() || !found->second->locator) return;
        const auto& result = *found->second;
        content.addMesh({id, found->second, &result.locator->tin(),
                         content.derived().document.get<objects::Surface>(id)->style.heightColours},
                        result.figures.min.z, result.figures.max.z);
    }
    void facts(FactsForm& form, const Ref& ref) const override { surfaceFacts(form, ref.object); }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Surface>() {
    static const SurfaceKind kind;
    return kind;
}

}  // namespace erdwerk::app
