// Labels.

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

/// Of the side or curve that a label is about; without end when it is not known.
double sideLength(const derive::Derived& derived, const objects::Label& label) {
    const auto* line = derive::Derived::in(derived.lines, label.target);
    const auto* alignment = derive::Derived::in(derived.alignments, label.target);
    const geometry::Path* path =
        line != nullptr ? &line->path : (alignment != nullptr ? &alignment->path : nullptr);
    return path == nullptr || label.part >= path->size() ? INFINITY : lengthOf((*path)[label.part]);
}

class LabelKind final : public StaysPut<NotInScene<ObjectKind>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("label"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Labels"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* label = derive::Derived::in(derived.labels, id)) box.add(label->place);
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override { return objects::PlanPart::Labels; }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Texts}; }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* label = derive::Derived::in(canvas.derived.labels, id);
        if (label == nullptr || !canvas.window.contains(label->place) || canvas.view.scale < 2 * canvas.unit)
            return;
        const auto* payload = canvas.document.get<objects::Label>(id);
        const auto above = QString::fromStdString(label->above);
        const auto below = QString::fromStdString(label->below);
        const bool point = canvas.document.get<objects::Points>(payload->target) != nullptr;
        const QPointF at = canvas.view.toPicture(label->place);
        if (!point) {
            canvas.textAlong(at, label->direction.degrees() - 90, above, below, theme::ink, 11,
                             sideLength(canvas.derived, *payload) * canvas.view.scale);
            return;
        }
        // Beside the point, with a leader.
        const double u = canvas.unit;
        const QFontMetricsF metrics(canvas.font(11));
        const double width = std::max(metrics.horizontalAdvance(above), metrics.horizontalAdvance(below));
        if (!canvas.claim(QRectF(at + QPointF(18 * u, -28 * u), QSizeF(width, 28 * u)))) return;
        const QPointF corner = at + QPointF(16 * u, -14 * u);
        canvas.painter.setPen(canvas.pen(theme::inkQuiet, 0.8));
        canvas.painter.drawLine(at + QPointF(3 * u, -3 * u), corner);
        canvas.painter.setPen(theme::ink);
        canvas.painter.setFont(canvas.font(11));
        canvas.painter.drawText(QRectF(corner + QPointF(2 * u, -14 * u), QSizeF(400 * u, 14 * u)),
                                Qt::AlignLeft | Qt::AlignBottom, above);
        canvas.painter.drawText(QRectF(corner + QPointF(2 * u, 0), QSizeF(400 * u, 14 * u)),
                                Qt::AlignLeft | Qt::AlignTop, below);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* label = derive::Derived::in(search.derived().labels, id);
        if (label == nullptr) return;
        Snap snap{SnapKind::Object, label->place, std::nullopt, {id, std::nullopt}};
        snap.name = QObject::tr("label %1").arg(search.nameOf(id));
        search.add(std::move(snap));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* label = derive::Derived::in(painter.derived().labels, ref.object))
            painter.ring(label->place, 16, Qt::DotLine);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto* payload = document.get<objects::Label>(id);
        form.heading(text(document.nameOf(id)));
        form.fact(QObject::tr("Of"), text(document.nameOf(payload->target)));
        if (const auto* l = derive::Derived::in(form.derived().labels, id)) {
            form.fact(QObject::tr("Above"), text(l->above));
            form.fact(QObject::tr("Below"), text(l->below));
        }
        form.objectChoice<objects::LabelStyle>(
            QObject::tr("Style"), payload->style,
            [id](const Document& d, ObjectId s) {
                return s ? document::changed<objects::Label>(d, id, [s](objects::Label& l) { l.style = s; })
                         : d;
            },
            QObject::tr("–"));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Label>() {
    static const LabelKind kind;
    return kind;
}

}  // namespace erdwerk::app
