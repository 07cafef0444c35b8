// Sheets.

#include "app/kinds/all_kinds.h"
#include "app/kinds/sheet_facts.h"
#include "core/operations/sheet_layout.h"

namespace erdwerk::app {

namespace {

/// The plan frames of a sheet, or the one that is meant.
template <class Each>
void forPlans(const derive::Derived& derived, const document::Document& document, const Ref& ref,
              const Each& each) {
    const auto& frames = document.get<objects::Sheet>(ref.object)->frames;
    for (std::size_t i = 0; i < frames.size(); ++i)
        if (const auto* plan = std::get_if<objects::PlanFrame>(&frames[i].content);
            plan != nullptr && (!ref.part || *ref.part == i))
            each(operations::planOnPaper(derived, *plan, frames[i].room));
}

class SheetKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("sheet"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Sheets"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        forPlans(derived, derived.document, {id, {}}, [&](const operations::PlanOnPaper& plan) {
            for (const auto corner : plan.corners) box.add(corner);
        });
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        forPlans(painter.derived(), painter.document(), ref,
                 [&](const operations::PlanOnPaper& plan) { painter.frame(plan.corners); });
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const auto& frames = form.document().get<objects::Sheet>(ref.object)->frames;
        if (ref.part && *ref.part < frames.size())
            frameFacts(form, ref.object, *ref.part);
        else
            sheetFacts(form, ref.object);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Sheet>() {
    static const SheetKind kind;
    return kind;
}

}  // namespace erdwerk::app
