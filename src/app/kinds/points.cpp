// Survey points.

#include <QPushButton>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/plan_signs.h"
#include "core/objects/points.h"
#include "core/operations/points.h"
#include "core/operations/stationed_points.h"
#include "core/survey/texts.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

void pointFacts(FactsForm& form, ObjectId set, std::size_t index) {
    const objects::PointRef ref{set, index};
    const auto p = form.document().get<objects::Points>(set)->set[index];
    form.heading(QObject::tr("Point %1").arg(text(p.number)));
    const auto change =
        [ref](const Document& d,
              const std::function<void(survey::SurveyPoint&)>& edit) -> Result<document::Edited> {
        const auto* points = d.get<objects::Points>(ref.set);
        if (points == nullptr || ref.index >= points->set.size()) return badInput("the point is gone");
        auto next = points->set[ref.index];
        edit(next);
        return operations::setPoint(ref, next)(d);
    };
    form.entry(QObject::tr("Number"), text(p.number),
               [change](const Document& d, const QString& t) -> Result<document::Edited> {
                   return change(d, [&](auto& q) { q.number = t.trimmed().toStdString(); });
               });
    form.number(QObject::tr("Easting"), p.plan.x, -1e9,
                [change](const Document& d, double v) { return change(d, [&](auto& q) { q.plan.x = v; }); });
    form.number(QObject::tr("Northing"), p.plan.y, -1e9,
                [change](const Document& d, double v) { return change(d, [&](auto& q) { q.plan.y = v; }); });
    form.typedEntry(QObject::tr("Height"), p.height ? text(formatExact(*p.height)) : QString(),
                    [session = &form.session(), ref](std::string typed) {
                        return operations::setTypedHeight(session->results(), ref, std::move(typed));
                    });
    form.entry(QObject::tr("Code"), text(p.code),
               [change](const Document& d, const QString& t) -> Result<document::Edited> {
                   return change(d, [&](auto& q) { q.code = t.trimmed().toStdString(); });
               });
    form.entry(QObject::tr("Note"), text(p.note),
               [change](const Document& d, const QString& t) -> Result<document::Edited> {
                   return change(d, [&](auto& q) { q.note = t.trimmed().toStdString(); });
               });
    if (const auto h = form.derived().topHeight(p.plan))
        form.fact(QObject::tr("Surface here"), text(formatHeight(h, form.display())));
}

void setFacts(FactsForm& form, ObjectId id) {
    const auto& set = form.document().get<objects::Points>(id)->set;
    form.heading(text(form.document().nameOf(id)));
    form.fact(QObject::tr("Points"), QString::number(set.size()));
    std::size_t without = 0;
    for (std::size_t i = 0; i < set.size(); ++i) without += set[i].height || survey::isText(set[i]) ? 0 : 1;
    form.fact(QObject::tr("Without height"), QString::number(without));
    form.groupChoice(id);
    const auto& tie = form.document().get<objects::Points>(id)->tie;
    if (!tie) return;
    form.fact(QObject::tr("Tied to"),
              QObject::tr("%1, %2 of them").arg(form.nameOf(tie->alignment)).arg(tie->points.size()));
    auto* loosen = new QPushButton(QObject::tr("Loosen"));
    loosen->setToolTip(QObject::tr("The points stay where they are and follow the alignment no more"));
    QObject::connect(loosen, &QPushButton::clicked, loosen, [form, id] {
        form.later(QObject::tr("Loosen %1").arg(form.nameOf(id)), operations::loosenPoints(id));
    });
    form.row(loosen);
}

/// Its number above and its height below, or wherever both find room beside it.
void pointTexts(PlanCanvas& canvas, objects::PointRef ref, const survey::SurveyPoint& p, double arm) {
    const DisplaySettings& display = canvas.document.settings().display;
    const double u = canvas.unit;
    const QString number =
        canvas.options.shows(objects::PlanPart::PointNumbers) ? QString::fromStdString(p.number) : QString();
    const QString height = !canvas.options.shows(objects::PlanPart::PointHeights) ? QString()
                           : survey::isText(p) ? QString::fromStdString(p.note)
                           : p.height          ? QString::fromStdString(formatHeight(p.height, display))
                                               : QObject::tr("no height");
    PlanTexts::Ask ask{TextRank::PointFigures, ref.index, ref.set, {}, {}, {}};
    std::vector<annotate::TextLine> lines;
    const auto add = [&](const QString& text, const QColor& colour, annotate::Stand stand) {
        if (text.isEmpty()) return;
        ask.looks.push_back({text, 10, colour});
        lines.push_back(canvas.texts.line(ask.looks.back(), stand, 0.5, 1));
    };
    add(number, theme::inkQuiet, annotate::Stand::Above);
    add(height, p.height || survey::isText(p) ? theme::ink : theme::ochre.darker(130),
        annotate::Stand::Below);
    if (lines.empty()) return;
    const QPointF q = canvas.view.toPicture(p.plan);
    canvas.texts.ask(annotate::placesBeside({q.x(), q.y()}, arm + u, lines, false), std::move(ask));
}

/// Of points that lie closer than the eye can part only one is drawn; zooming in brings them all. Counted in
/// cells that lie on the ground, so that moving the view leaves them.
class Thinned {
public:
    Thinned(const geometry::Box& window, double cell) : window_(window), cell_(cell) {
        columns_ = static_cast<std::int64_t>((window.maxX - window.minX) / cell) + 2;
        const auto rows = static_cast<std::int64_t>((window.maxY - window.minY) / cell) + 2;
        taken_.resize(static_cast<std::size_t>(columns_ * rows));
        first_ = {std::floor(window.minX / cell), std::floor(window.minY / cell)};
    }
    /// False when the place lies outside, or another point is in its cell.
    bool take(Vec2 place) {
        if (!window_.contains(place)) return false;
        const auto x = static_cast<std::int64_t>(std::floor(place.x / cell_) - first_.x);
        const auto y = static_cast<std::int64_t>(std::floor(place.y / cell_) - first_.y);
        const auto at = static_cast<std::size_t>(y * columns_ + x);
        if (at >= taken_.size() || taken_[at]) return false;
        taken_[at] = true;
        return true;
    }

private:
    geometry::Box window_;
    double cell_;
    std::int64_t columns_ = 0;
    Vec2 first_;
    std::vector<bool> taken_;
};

class PointsKind final : public NotInScene<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("survey points"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Survey points"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        for (const auto& block : derived.document.get<objects::Points>(id)->set.blocks())
            for (const auto& p : *block) box.add(p.plan);
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override {
        return objects::PlanPart::PointMarks;
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Points}; }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived&, ObjectId) const override {
        return {{QObject::tr("Survey point"), [](QPainter& p, const QRectF& room, double unit) {
                     p.setPen(QPen(theme::ink, unit));
                     const QPointF c = room.center();
                     p.drawLine(c - QPointF(3, 0) * unit, c + QPointF(3, 0) * unit);
                     p.drawLine(c - QPointF(0, 3) * unit, c + QPointF(0, 3) * unit);
                 }}};
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const double u = canvas.unit;
        const double arm = std::clamp(canvas.view.scale, 1.6 * u, 3 * u);

        const auto& set = canvas.document.get<objects::Points>(id)->set;
        const double cell = (set.size() > 5000 ? 12 : 5) * u / canvas.view.scale;
        const bool written = canvas.view.scale >= 3.2 * u;
        Thinned thinned(written ? canvas.textWindow : canvas.window, cell);
        const QColor ink = theme::ink;
        std::size_t i = 0;
        for (const auto& block : set.blocks())
            for (const auto& p : *block) {
                const std::size_t at = i++;
                if ((at & 1023U) == 0 && canvas.stopped()) return;
                if (!thinned.take(p.plan)) continue;
                const QPointF q = canvas.view.toPicture(p.plan);
                canvas.painter.setPen(canvas.pen(p.height || survey::isText(p) ? ink : theme::ochre, 1));
                canvas.painter.drawLine(q - QPointF(arm, 0), q + QPointF(arm, 0));
                canvas.painter.drawLine(q - QPointF(0, arm), q + QPointF(0, arm));
                canvas.texts.keepOff(q, {2 * arm, 2 * arm});
                if (written) pointTexts(canvas, {id, at}, p, arm);
            }
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto& set = search.document().get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) {
            if (!search.window().contains(set[i].plan)) continue;
            Snap snap{SnapKind::Point, set[i].plan, set[i].height, {id, i}};
            snap.name = QObject::tr("point %1").arg(text(set[i].number));
            search.add(std::move(snap));
        }
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        const auto& set = painter.document().get<objects::Points>(ref.object)->set;
        if (ref.part && *ref.part < set.size()) painter.ring(set[*ref.part].plan);
    }
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        if (!ref.part) return std::nullopt;
        return operations::movePoint(objects::PointRef{ref.object, *ref.part}, place);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        if (ref.part && *ref.part < form.document().get<objects::Points>(ref.object)->set.size())
            pointFacts(form, ref.object, *ref.part);
        else
            setFacts(form, ref.object);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Points>() {
    static const PointsKind kind;
    return kind;
}

}  // namespace erdwerk::app
