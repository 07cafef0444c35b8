// The wording of legal descriptions.

#include "core/objects/wording.h"
#include "app/kinds/all_kinds.h"
#include "core/objects/parcel.h"
#include "core/operations/descriptions.h"

namespace erdwerk::app {

namespace {

class WordingKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("wording"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Wordings"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& wording = form.document().get<objects::Wording>(id)->wording;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        std::size_t users = 0;
        for (const ObjectId parcel : form.document().all<objects::Parcel>())
            users += form.document().get<objects::Parcel>(parcel)->wording == id ? 1 : 0;
        form.fact(QObject::tr("Parcels"), QString::number(users));
        for (const auto& key : parcel::sentenceKeys())
            form.typedEntry(QString::fromUtf8(key.key.data(), static_cast<qsizetype>(key.key.size())),
                            text(wording.*(key.sentence)), [id, k = key.key](std::string sentence) {
                                return operations::changeSentence(id, k, sentence);
                            });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Wording>() {
    static const WordingKind kind;
    return kind;
}

}  // namespace erdwerk::app
