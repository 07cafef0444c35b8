// Groups: they lie where their members do.

#include "core/objects/group.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

class GroupKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("group"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Groups"); }
    [[nodiscard]] ContentsLook look(const objects::Object& object) const override {
        const auto& group = *object.payload.as<objects::Group>();
        return {QColor(text(group.colour))};
    }
    [[nodiscard]] bool canHide() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        for (const auto& [member, object] : derived.document.objects())
            if (object->group == id && member != id) kindOf(*object).bounds(derived, member, box);
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        geometry::Box box;
        bounds(painter.derived(), ref.object, box);
        if (!box.empty()) painter.frame(box);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto g = *form.document().get<objects::Group>(id);
        form.heading(text(form.document().nameOf(id)));
        form.nameEntry(id);
        form.shownCheck(id);
        form.entry(
            QObject::tr("Colour"), text(g.colour),
            [id](const Document& d, const QString& t) -> Result<document::Edited> {
                if (!QColor::isValidColor(t.trimmed()))
                    return badInput("'" + t.toStdString() + "' is not a colour; write it like #3F5C73");
                return document::changed<objects::Group>(
                    d, id, [&](objects::Group& x) { x.colour = QColor(t.trimmed()).name().toStdString(); });
            });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Group>() {
    static const GroupKind kind;
    return kind;
}

}  // namespace erdwerk::app
