// Sections that are kept: a line in plan, a curtain under the ground in 3D, cut on the page Section.

#include "core/objects/section.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/derive/route_result.h"

namespace erdwerk::app {

namespace {

const derive::SectionResult* sectionOf(const derive::Derived& derived, ObjectId id) {
    const auto* result = derive::Derived::in(derived.sections, id);
    return result == nullptr || result->axis.empty() ? nullptr : result;
}

class SectionKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("section"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Sections"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* result = sectionOf(derived, id)) box.add(boundsOf(result->axis));
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Routes}; }
    /// Its axis, dash and dot, with its name at both ends.
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* result = sectionOf(canvas.derived, id);
        if (result == nullptr) return;
        const QPolygonF axis = polyline(result->axis, canvas.view);
        canvas.painter.setPen(canvas.pen(theme::ink, 1.1, Qt::DashDotLine));
        canvas.painter.drawPolyline(axis);
        const TextLook look{text(canvas.document.nameOf(id)), 11, theme::ink, true};
        std::uint64_t key = 0;
        for (const QPointF& end : {axis.first(), axis.last()})
            canvas.texts.ask(
                annotate::placesBeside({end.x(), end.y()}, 4 * canvas.unit,
                                       {canvas.texts.line(look, annotate::Stand::Above, 1)}, false),
                {TextRank::Section, ++key, id, {look}, {}, {}});
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        if (const auto* result = sectionOf(search.derived(), id))
            search.addPath(id, result->axis, QObject::tr("section %1").arg(search.nameOf(id)));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* result = sectionOf(painter.derived(), ref.object)) painter.path(result->axis);
    }
    /// Each surface as it is cut, and uprights down to the lowest place at the ends.
    void show(SceneContent& content, ObjectId id) const override {
        const auto* result = sectionOf(content.derived(), id);
        if (result == nullptr) return;
        const QColor colour = content.selected(id) ? theme::clay : theme::ink;
        std::optional<double> low;
        for (const auto& row : result->rows)
            for (const auto& h : row.heights)
                if (h) low = std::min(low.value_or(*h), *h);
        if (!low) return;
        for (std::size_t s = 0; s < result->surfaces.size(); ++s) {
            SceneStroke run{{}, colour, 2.5F};
            for (const auto& row : result->rows) {
                if (row.heights[s]) {
                    run.places.push_back({row.place.x, row.place.y, *row.heights[s]});
                    continue;
                }
                if (run.places.size() > 1) content.addStroke(run);
                run.places.clear();
            }
            if (run.places.size() > 1) content.addStroke(std::move(run));
        }
        SceneStroke foot{{}, colour, 1.5F};
        for (const auto& row : result->rows) foot.places.push_back({row.place.x, row.place.y, *low});
        for (const auto* end : {&result->rows.front(), &result->rows.back()})
            for (const auto& h : end->heights)
                if (h)
                    content.addStroke({{{end->place.x, end->place.y, *low}, {end->place.x, end->place.y, *h}},
                                       colour,
                                       1.5F});
        content.addStroke(std::move(foot));
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto* section = form.document().get<objects::Section>(id);
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        form.shownCheck(id);
        form.fact(QObject::tr("Along"), section->along ? form.nameOf(section->along)
                                                       : QObject::tr("%1 places").arg(section->axis.size()));
        form.length(QObject::tr("Rows every"), section->interval, 0.001, QObject::tr("edges"),
                    [id](const document::Document& d, double v) {
                        return document::changed<objects::Section>(
                            d, id, [v](objects::Section& s) { s.interval = v; });
                    });
        const auto* result = derive::Derived::in(form.derived().sections, id);
        if (result == nullptr) return;
        if (!result->problem.empty()) return form.fact(QObject::tr("Trouble"), text(result->problem));
        QStringList through;
        for (const ObjectId surface : result->surfaces) through << form.nameOf(surface);
        form.fact(QObject::tr("Through"),
                  through.isEmpty() ? QObject::tr("no surface") : through.join(QStringLiteral(", ")));
        if (!result->rows.empty())
            form.fact(QObject::tr("Length"), text(formatLength(result->rows.back().station, form.display())));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Section>() {
    static const SectionKind kind;
    return kind;
}

}  // namespace erdwerk::app
