// Rasters of heights.

#include "core/objects/height_raster.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

/// Round its bounds; empty when it has no heights.
geometry::Path rimOf(const Document& document, ObjectId id) {
    const auto& raster = document.get<objects::HeightRaster>(id)->raster;
    if (!raster) return {};
    const geometry::Box b = raster->bounds();
    const std::array<Vec2, 5> corners{
        {{b.minX, b.minY}, {b.maxX, b.minY}, {b.maxX, b.maxY}, {b.minX, b.maxY}, {b.minX, b.minY}}};
    geometry::Path path;
    for (std::size_t i = 0; i + 1 < corners.size(); ++i)
        path.push_back({corners[i], corners[i + 1], std::nullopt});
    return path;
}

class HeightRasterKind final : public StaysPut<NotInScene<ObjectKind>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("raster of heights"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Rasters of heights"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto& raster = derived.document.get<objects::HeightRaster>(id)->raster)
            box.add(raster->bounds());
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override { return objects::PlanPart::Clouds; }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Dense}; }
    /// Its rim: the heights show in surfaces made from it.
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        if (!canvas.document.get<objects::HeightRaster>(id)->raster) return;
        canvas.painter.setPen(canvas.pen(theme::inkQuiet, 0.9, Qt::DashLine));
        canvas.painter.drawPolyline(polyline(rimOf(canvas.document, id), canvas.view));
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        search.addPath(id, rimOf(search.document(), id), QObject::tr("raster %1").arg(search.nameOf(id)));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto& raster = painter.document().get<objects::HeightRaster>(ref.object)->raster)
            painter.frame(raster->bounds());
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto& r = *document.get<objects::HeightRaster>(id);
        form.heading(text(document.nameOf(id)));
        form.fileFacts(r.file, r.problem);
        if (!r.raster) return;
        form.fact(QObject::tr("Cells"), QObject::tr("%1 × %2").arg(r.raster->columns).arg(r.raster->rows));
        form.fact(QObject::tr("Cell"), text(formatExact(r.raster->cell())));
        form.fact(QObject::tr("With height"),
                  QString::number(std::count(r.raster->present.begin(), r.raster->present.end(), true)));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::HeightRaster>() {
    static const HeightRasterKind kind;
    return kind;
}

}  // namespace erdwerk::app
