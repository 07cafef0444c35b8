// What is marked along alignments.

#include <QPushButton>

#include "app/base/file_dialog.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/marking_facts.h"
#include "core/format/marking_file.h"
#include "core/objects/alignment.h"
#include "core/objects/marking.h"

namespace erdwerk::app {

namespace {

class MarkingKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("marking"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Markings"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        markingFacts(form, form.document().get<objects::Marking>(id)->marking,
                     [id](MarkingChange change) { return operations::changeOwnMarking(id, change); });
        QStringList marked;
        for (const ObjectId a : form.document().all<objects::Alignment>())
            if (form.document().get<objects::Alignment>(a)->marking == id) marked << form.nameOf(a);
        form.fact(QObject::tr("On"),
                  marked.isEmpty() ? QObject::tr("no alignment") : marked.join(QStringLiteral(", ")));
        auto* write = new QPushButton(QObject::tr("Write to a file…"));
        QObject::connect(write, &QPushButton::clicked, write, [form, id, write] {
            const auto* now = form.document().get<objects::Marking>(id);
            const QString path = now == nullptr
                                     ? QString()
                                     : fileToWrite(write->window(), QObject::tr("Write the marking"),
                                                   form.nameOf(id) + QStringLiteral(".json"),
                                                   QObject::tr("Markings (*.json)"));
            if (path.isEmpty()) return;
            const auto done =
                format::writeMarking(path.toStdString(), form.document().nameOf(id), now->marking);
            Q_EMIT form.session().message(
                done ? QObject::tr("Written to %1").arg(path) : text(done.error().message()), !done);
        });
        form.row(write);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Marking>() {
    static const MarkingKind kind;
    return kind;
}

}  // namespace erdwerk::app
