// Pictures under the plan.

#include "core/objects/backdrop.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

/// Its corners round from the upper left, on the ground.
std::array<Vec2, 4> cornersOf(const objects::Picture& p) {
    const auto& t = p.transform;
    const auto at = [&](double c, double r) {
        return Vec2{t[0] + t[1] * c + t[2] * r, t[3] + t[4] * c + t[5] * r};
    };
    const auto columns = static_cast<double>(p.columns);
    const auto rows = static_cast<double>(p.rows);
    return {at(0, 0), at(columns, 0), at(columns, rows), at(0, rows)};
}

class BackdropKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("backdrop"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Backdrops"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto& picture = derived.document.get<objects::Backdrop>(id)->picture)
            for (const Vec2 p : cornersOf(*picture)) box.add(p);
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override {
        return objects::PlanPart::Backdrops;
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Backdrops}; }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* backdrop = canvas.document.get<objects::Backdrop>(id);
        if (!backdrop->picture) return;
        canvas.overBackdrop = true;
        const objects::Picture& p = *backdrop->picture;
        const QImage image(p.rgb.data(), static_cast<int>(p.columns), static_cast<int>(p.rows),
                           static_cast<qsizetype>(3 * p.columns), QImage::Format_RGB888);
        const auto& t = p.transform;
        const QPointF origin = canvas.view.toPicture({t[0], t[3]});
        const QPointF right = canvas.view.toPicture({t[0] + t[1], t[3] + t[4]}) - origin;
        const QPointF down = canvas.view.toPicture({t[0] + t[2], t[3] + t[5]}) - origin;
        canvas.painter.save();
        canvas.painter.setTransform(
            QTransform(right.x(), right.y(), down.x(), down.y(), origin.x(), origin.y()), true);
        canvas.painter.setRenderHint(QPainter::SmoothPixmapTransform);
        canvas.painter.drawImage(QPointF(0, 0), image);
        canvas.painter.restore();
    }
    void hit(SnapSearch&, ObjectId) const override {}  // it lies under everything
    void handles(HandlePainter& painter, const Ref& ref) const override {
        geometry::Box box;
        bounds(painter.derived(), ref.object, box);
        if (!box.empty()) painter.frame(box);
    }
    void show(SceneContent& content, ObjectId id) const override {
        const auto* backdrop = content.derived().document.get<objects::Backdrop>(id);
        if (backdrop->picture) content.drape(backdrop->picture);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto& b = *document.get<objects::Backdrop>(id);
        form.heading(text(document.nameOf(id)));
        form.fileFacts(b.file, b.problem);
        if (b.picture)
            form.fact(QObject::tr("Shown with"),
                      QObject::tr("%1 × %2 pixels").arg(b.picture->columns).arg(b.picture->rows));
        form.shownCheck(id);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Backdrop>() {
    static const BackdropKind kind;
    return kind;
}

}  // namespace erdwerk::app
