// Rows that are kept by name.

#include <QPushButton>

#include "app/base/file_dialog.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/row_section.h"
#include "core/format/offset_set_file.h"
#include "core/linework/offset_row.h"
#include "core/operations/derived_lines.h"

namespace erdwerk::app {

using document::Document;

namespace {

Document changed(const Document& d, ObjectId id, const std::function<void(objects::OffsetSet&)>& change) {
    return document::changed<objects::OffsetSet>(d, id, change);
}

class OffsetSetKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("offset set"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Offset sets"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& set = *form.document().get<objects::OffsetSet>(id);
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        auto* section = new RowSection(set.rows, set.options.chained);
        QObject::connect(section, &RowSection::changed, section, [form, id](const QString& rows) {
            form.later(form.said(QObject::tr("Rows"), rows),
                       operations::setTypedRows(id, rows.toStdString()));
        });
        form.row(section);
        QStringList rows;
        for (const auto& row : set.rows) rows << text(linework::rowText(row));
        form.typedEntry(QObject::tr("Rows"), rows.join(QStringLiteral("; ")),
                        [id](std::string typed) { return operations::setTypedRows(id, typed); });
        form.choice(QObject::tr("Side"), {QObject::tr("left"), QObject::tr("right")},
                    set.options.right ? 1 : 0, [id](const Document& d, int i) {
                        return changed(d, id, [i](objects::OffsetSet& s) { s.options.right = i == 1; });
                    });
        form.choice(QObject::tr("Measured"),
                    {QObject::tr("from the line"), QObject::tr("from the row before")},
                    set.options.chained ? 1 : 0, [id](const Document& d, int i) {
                        return changed(d, id, [i](objects::OffsetSet& s) { s.options.chained = i == 1; });
                    });
        form.choice(QObject::tr("Outside corners"), {QObject::tr("mitre"), QObject::tr("round")},
                    set.options.corners == linework::OutsideCorner::Round ? 1 : 0,
                    [id](const Document& d, int i) {
                        return changed(d, id, [i](objects::OffsetSet& s) {
                            s.options.corners = static_cast<linework::OutsideCorner>(i);
                        });
                    });
        auto* write = new QPushButton(QObject::tr("Write to a file…"));
        QObject::connect(write, &QPushButton::clicked, write, [form, id, write] {
            const auto* now = form.document().get<objects::OffsetSet>(id);
            const QString path = now == nullptr ? QString()
                                                : fileToWrite(write->window(), QObject::tr("Write the set"),
                                                              form.nameOf(id) + QStringLiteral(".json"),
                                                              QObject::tr("Offset sets (*.json)"));
            if (path.isEmpty()) return;
            const auto done = format::writeOffsetSet(path.toStdString(), form.document().nameOf(id), *now);
            Q_EMIT form.session().message(
                done ? QObject::tr("Written to %1").arg(path) : text(done.error().message()), !done);
        });
        form.row(write);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::OffsetSet>() {
    static const OffsetSetKind kind;
    return kind;
}

}  // namespace erdwerk::app
