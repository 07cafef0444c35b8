// Profiles: drawn in the bench; in plan they lie where their alignment does.

#include "core/objects/profile.h"
#include "app/kinds/all_kinds.h"
#include "core/derive/dense_source.h"
#include "core/operations/edit.h"
#include "core/route/alignment.h"

namespace erdwerk::app {

using document::Document;

namespace {

const route::AlignmentGeometry* along(const derive::Derived& derived, ObjectId id) {
    const auto* profile = derived.document.get<objects::Profile>(id);
    return profile == nullptr ? nullptr : derive::Derived::in(derived.alignments, profile->alignment);
}

class ProfileKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("profile"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Profiles"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* a = along(derived, id)) box.add(boundsOf(a->path));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* a = along(painter.derived(), ref.object)) painter.path(a->path);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto* payload = document.get<objects::Profile>(id);
        form.heading(text(document.nameOf(id)));
        form.nameEntry(id);
        form.fact(QObject::tr("Alignment"), text(document.nameOf(payload->alignment)));
        form.fact(QObject::tr("PVIs"), QString::number(payload->design.size()));
        form.objectChoice<objects::Surface>(
            QObject::tr("Ground"), payload->ground,
            [id](const Document& d, ObjectId g) {
                return document::changed<objects::Profile>(d, id, [g](objects::Profile& p) { p.ground = g; });
            },
            QObject::tr("none"));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Profile>() {
    static const ProfileKind kind;
    return kind;
}

}  // namespace erdwerk::app
