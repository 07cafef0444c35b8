// Tables of the record: they are shown on the bench and on sheets.

#include <algorithm>

#include "app/kinds/all_kinds.h"
#include "core/operations/record_rows.h"
#include "core/operations/sheets.h"
#include "core/operations/tables.h"

namespace erdwerk::app {

using document::Document;
using objects::Table;

QString tableWord(objects::TableSort sort) {
    return QCoreApplication::translate("TableWords",
                                       objects::tableWords[static_cast<std::size_t>(sort)].title);
}

namespace {

class TableKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("table"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Tables"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const Table& table = *form.document().get<Table>(id);
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        QStringList sorts;
        for (const auto s : objects::allTableSorts()) sorts << tableWord(s);
        form.choice(QObject::tr("Lists"), sorts, static_cast<int>(table.sort),
                    [id](const Document& d, int i) {
                        // Another sort has other columns, of other things.
                        return document::changed<Table>(d, id, [i](Table& t) {
                            t = Table{};
                            t.sort = static_cast<objects::TableSort>(i);
                        });
                    });
        if (const auto rows = operations::recordRows(form.derived(), table))
            form.fact(QObject::tr("Rows"), QString::number(rows->rows.size()));
        QStringList columns;
        for (const auto& c : table.columns) columns << text(c);
        form.typedEntry(QObject::tr("Columns"), columns.join(QStringLiteral(", ")),
                        [id](std::string typed) { return operations::setTableColumns(id, typed); });
        const LengthUnit unit = table.unit.value_or(form.display().unit);
        QStringList all;
        for (const auto& c : operations::columnsOf(table.sort, unit)) all << text(c);
        form.fact(QObject::tr("There are"), all.join(QStringLiteral(", ")));
        int sorted = 0;
        for (int i = 0; i < all.size(); ++i)
            if (all[i] == text(table.by)) sorted = i + 1;
        form.choice(QObject::tr("Sorted by"), QStringList{QObject::tr("as they come")} + all, sorted,
                    [id, all](const Document& d, int i) {
                        return document::changed<Table>(d, id, [&](Table& t) {
                            t.by = i == 0 ? std::string() : all[i - 1].toStdString();
                        });
                    });
        form.check(QObject::tr("Largest first"), table.falling, [id](const Document& d, bool on) {
            return document::changed<Table>(d, id, [on](Table& t) { t.falling = on; });
        });
        const QStringList units{QObject::tr("the project's"), QStringLiteral("m"), QStringLiteral("ft"),
                                QStringLiteral("ftUS")};
        form.choice(QObject::tr("Unit"), units, table.unit ? 1 + static_cast<int>(*table.unit) : 0,
                    [id](const Document& d, int i) {
                        return document::changed<Table>(d, id, [i](Table& t) {
                            t.unit = i == 0 ? std::nullopt : std::optional(static_cast<LengthUnit>(i - 1));
                        });
                    });
        if (!table.of.empty()) {
            QStringList names;
            for (const ObjectId of : table.of) names << form.nameOf(of);
            form.fact(QObject::tr("Of"), names.join(QStringLiteral(", ")));
            form.button(QObject::tr("Of all there are"), QObject::tr("Lists everything of its sort"),
                        QObject::tr("%1 of all there are").arg(form.nameOf(id)),
                        operations::setTableObjects(id, {}));
        }
        for (const ObjectId sheet : form.document().all<objects::Sheet>()) onSheet(form, id, sheet);
    }

private:
    static void onSheet(FactsForm& form, ObjectId id, ObjectId sheet) {
        const bool there = operations::isOnSheet(*form.document().get<objects::Sheet>(sheet), id);
        form.editCheck(QObject::tr("On %1").arg(form.nameOf(sheet)), there,
                       [id, sheet](bool on) { return operations::setTableOnSheet(id, sheet, on); });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Table>() {
    static const TableKind kind;
    return kind;
}

}  // namespace erdwerk::app
