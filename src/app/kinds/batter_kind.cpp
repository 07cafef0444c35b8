// Kinds of batter that are kept by name.

#include "app/kinds/all_kinds.h"
#include "core/operations/earthworks.h"

namespace erdwerk::app {

namespace {

using Form = earthwork::BatterForm;

/// A change of the form, refused when it cannot be.
document::Edit changed(ObjectId id, std::function<Result<void>(Form&)> change) {
    return [id, change = std::move(change)](const document::Document& d) -> Result<document::Edited> {
        const auto* now = d.get<objects::BatterKind>(id);
        if (now == nullptr) return badInput("it is gone");
        Form form = now->form;
        if (auto done = change(form); !done) return tl::unexpected(done.error());
        return operations::saveBatterKind(d.nameOf(id), form)(d);
    };
}

class BatterKindKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("kind of batter"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Kinds of batter"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const Form& kept = form.document().get<objects::BatterKind>(id)->form;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        form.typedEntry(QObject::tr("Cut slope"), text(kept.cut), [id](std::string typed) {
            return changed(id, [typed](Form& f) -> Result<void> {
                f.cut = typed;
                return {};
            });
        });
        form.typedEntry(QObject::tr("Fill slope"), text(kept.fill), [id](std::string typed) {
            return changed(id, [typed](Form& f) -> Result<void> {
                f.fill = typed;
                return {};
            });
        });
        form.typedEntry(QObject::tr("Berms"), text(earthwork::bermsText(kept.berms)),
                        [id](std::string typed) {
                            return changed(id, [typed](Form& f) -> Result<void> {
                                auto berms = earthwork::parseBerms(typed);
                                if (!berms) return tl::unexpected(berms.error());
                                f.berms = std::move(*berms);
                                return {};
                            });
                        });
        form.typedEntry(QObject::tr("Runs"), text(earthwork::targetText(kept.target)),
                        [id](std::string typed) {
                            return changed(id, [typed](Form& f) -> Result<void> {
                                const auto target = earthwork::parseTarget(typed);
                                if (!target) return tl::unexpected(target.error());
                                f.target = *target;
                                return {};
                            });
                        });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::BatterKind>() {
    static const BatterKindKind kind;
    return kind;
}

}  // namespace erdwerk::app
