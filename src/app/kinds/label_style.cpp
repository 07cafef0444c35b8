// Styles of labels: they lie where their labels do.

#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

class LabelStyleKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("label style"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Label styles"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        for (const ObjectId label : labels(derived.document, id))
            if (const auto* text = derive::Derived::in(derived.labels, label)) box.add(text->place);
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        for (const ObjectId label : labels(painter.document(), ref.object))
            if (const auto* text = derive::Derived::in(painter.derived().labels, label))
                painter.ring(text->place, 16, Qt::DotLine);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        form.heading(form.nameOf(ref.object));
        form.nameEntry(ref.object);
        form.fact(QObject::tr("Labels"), QString::number(labels(form.document(), ref.object).size()));
    }

private:
    static std::vector<ObjectId> labels(const Document& document, ObjectId style) {
        std::vector<ObjectId> out;
        for (const ObjectId id : document.all<objects::Label>())
            if (document.get<objects::Label>(id)->style == style) out.push_back(id);
        return out;
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::LabelStyle>() {
    static const LabelStyleKind kind;
    return kind;
}

}  // namespace erdwerk::app
