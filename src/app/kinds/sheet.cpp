// Plan sheets.

#include <algorithm>

#include "app/kinds/all_kinds.h"
#include "app/plan/plan_parts.h"
#include "core/operations/edit.h"
#include "core/operations/show.h"
#include "core/operations/tables.h"

namespace erdwerk::app {

using document::Document;

namespace {

class SheetKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("sheet"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Sheets"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        box.add(objects::groundOf(*derived.document.get<objects::Sheet>(id),
                                  derived.document.settings().display.unit));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        painter.frame(objects::groundOf(*painter.document().get<objects::Sheet>(ref.object),
                                        painter.document().settings().display.unit));
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto s = *document.get<objects::Sheet>(id);
        form.heading(text(document.nameOf(id)));
        const auto edit = [id](const Document& d, const std::function<void(objects::Sheet&)>& change) {
            return document::changed<objects::Sheet>(d, id, change);
        };
        form.choice(QObject::tr("Paper"), {QObject::tr("A4"), QObject::tr("A3"), QObject::tr("A1")},
                    static_cast<int>(s.paper), [edit](const Document& d, int i) {
                        return edit(d, [i](auto& x) { x.paper = static_cast<objects::Paper>(i); });
                    });
        form.number(QObject::tr("Scale 1 :"), s.scale, 1,
                    [edit](const Document& d, double v) { return edit(d, [v](auto& x) { x.scale = v; }); });
        form.number(QObject::tr("Centre E"), s.centre.x, -1e9, [edit](const Document& d, double v) {
            return edit(d, [v](auto& x) { x.centre.x = v; });
        });
        form.number(QObject::tr("Centre N"), s.centre.y, -1e9, [edit](const Document& d, double v) {
            return edit(d, [v](auto& x) { x.centre.y = v; });
        });
        form.objectChoice<objects::Parcel>(
            QObject::tr("Parcel"), s.parcel,
            [edit](const Document& d, ObjectId p) { return edit(d, [p](auto& x) { x.parcel = p; }); },
            QObject::tr("none"));
        frames(form, id, s);
        if (const auto tables = document.all<objects::Table>(); !tables.empty()) {
            form.heading(QObject::tr("Tables"));
            for (const ObjectId table : tables)
                form.editCheck(form.nameOf(table),
                               std::find(s.tables.begin(), s.tables.end(), table) != s.tables.end(),
                               [id, table](bool on) { return operations::setTableOnSheet(table, id, on); });
        }
        form.heading(QObject::tr("Shows"));
        using objects::PlanPart;
        // Paper shows no colours of the ground, clouds or pictures.
        for (const PlanPart part : objects::allPlanParts)
            if (part != PlanPart::GroundColours && part != PlanPart::Clouds && part != PlanPart::Backdrops)
                form.editCheck(planPartText(part), s.off.count(part) == 0,
                               [id, part](bool on) { return operations::setSheetPart(id, part, on); });
        form.heading(QObject::tr("Title block"));
        form.entry(QObject::tr("Project"), text(s.project),
                   [edit](const Document& d, const QString& t) -> Result<Document> {
                       return edit(d, [&](auto& x) { x.project = t.toStdString(); });
                   });
        form.entry(QObject::tr("Title"), text(s.title),
                   [edit](const Document& d, const QString& t) -> Result<Document> {
                       return edit(d, [&](auto& x) { x.title = t.toStdString(); });
                   });
        form.entry(QObject::tr("Drawn by"), text(s.drawnBy),
                   [edit](const Document& d, const QString& t) -> Result<Document> {
                       return edit(d, [&](auto& x) { x.drawnBy = t.toStdString(); });
                   });
        form.entry(QObject::tr("Date"), text(s.date),
                   [edit](const Document& d, const QString& t) -> Result<Document> {
                       return edit(d, [&](auto& x) { x.date = t.toStdString(); });
                   });
    }

private:
    /// What stands below the plan, or in its place.
    static void frames(FactsForm& form, ObjectId id, const objects::Sheet& s) {
        const auto edit = [id](const Document& d, const std::function<void(objects::Sheet&)>& change) {
            return document::changed<objects::Sheet>(d, id, change);
        };
        form.objectChoice<objects::Profile>(
            QObject::tr("Profile below"), s.profile,
            [edit](const Document& d, ObjectId p) { return edit(d, [p](auto& x) { x.profile = p; }); },
            QObject::tr("none"));
        form.objectChoice<objects::Alignment>(
            QObject::tr("Cross-sections of"), s.sections.alignment,
            [edit](const Document& d, ObjectId a) {
                return edit(d, [a](auto& x) { x.sections.alignment = a; });
            },
            QObject::tr("none, the plan"));
        if (s.sections.alignment) {
            form.length(QObject::tr("Every"), s.sections.interval, 0.1, {},
                        [edit](const Document& d, double v) {
                            return edit(d, [v](auto& x) { x.sections.interval = v; });
                        });
            form.length(QObject::tr("To each side"), s.sections.reach, 0.1, {},
                        [edit](const Document& d, double v) {
                            return edit(d, [v](auto& x) { x.sections.reach = v; });
                        });
        }
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Sheet>() {
    static const SheetKind kind;
    return kind;
}

}  // namespace erdwerk::app
