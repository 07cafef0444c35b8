// Alignments.

#include <QPushButton>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/marking_facts.h"
#include "app/kinds/plan_signs.h"
#include "core/annotate/label.h"
#include "core/base/notation.h"
#include "core/derive/route_result.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/operations/routes.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

/// That of its group, else by what it serves.
QColor colourOf(const Document& document, ObjectId id) {
    if (const auto* group = document.get<objects::Group>(document.find(id)->group))
        return QColor(QString::fromStdString(group->colour));
    static const std::map<std::string, QColor> colours{
        {"path", QColor(0x8A, 0x5A, 0x34)},  {"rail", QColor(0x3D, 0x3D, 0x46)},
        {"water", QColor(0x2B, 0x6C, 0x92)}, {"cable", QColor(0x8C, 0x70, 0x10)},
        {"wall", QColor(0x5F, 0x5B, 0x55)},  {"baseline", theme::ink}};
    const auto at = colours.find(document.get<objects::Alignment>(id)->serves);
    return at == colours.end() ? theme::alignment : at->second;
}

/// Paints what is marked along an alignment. Texts are as high as the marking says on paper; a picture unit
/// of a sheet is 0.24 mm.
class MarkPainter {
public:
    MarkPainter(PlanCanvas& canvas, ObjectId of, const route::MarkingSettings& marking)
        : canvas_(canvas),
          of_(of),
          marking_(marking),
          size_(std::max(6.0, marking.height / millimetresPerPixel)) {}

    void paint(const route::Mark& mark) {
        at_ = canvas_.view.toPicture(mark.place);
        left_ = canvas_.view.wayOf(geometry::leftOf(geometry::directionOf(mark.direction)));
        degrees_ = annotate::upright(mark.direction - canvas_.view.up()).degrees() - 90;
        const double u = canvas_.unit;
        switch (mark.kind) {
            case route::MarkKind::SmallTick:
            case route::MarkKind::LargeTick:
                return tick(mark);
            case route::MarkKind::Point:
                return point(mark);
            case route::MarkKind::Curve:
                if (canvas_.view.scale >= 1.2 * u) curve(mark);
                return;
            case route::MarkKind::Speed:
                return sign(mark.text, theme::spruce);
            case route::MarkKind::Equation:
                return sign(mark.text, theme::alignment);
        }
    }

private:
    void tick(const route::Mark& mark) {
        const double u = canvas_.unit;
        const double reach = (mark.kind == route::MarkKind::LargeTick ? 6 : 3.5) * u;
        canvas_.painter.setPen(canvas_.pen(theme::alignment, 1.2));
        canvas_.painter.drawLine(at_ - left_ * reach, at_ + left_ * reach);
        if (mark.text.empty()) return;
        // Beside the tick, on the other side, or a little along the line.
        const TextLook look{text(mark.text), size_, theme::alignment, true};
        const double away = reach + 2 * u + canvas_.texts.line(look).height / 2;
        const double along = canvas_.texts.line(look).width * 0.6;
        const QPointF ahead(-left_.y(), left_.x());
        const double side = marking_.right ? -1 : 1;
        annotate::PlacedText places;
        for (const double s : {side, -side})
            for (const double a : {0.0, 1.0, -1.0})
                offer(places, look, at_ + left_ * (s * away) + ahead * (a * along), degrees_);
        ask(std::move(places), {look});
    }
    void curve(const route::Mark& mark) {
        const TextLook look{text(mark.text), size_ - 1, theme::alignment};
        const double away = canvas_.texts.line(look).height / 2 + 3 * canvas_.unit;
        annotate::PlacedText places;
        for (const double side : {1.0, -1.0})
            offer(places, look, at_ + left_ * (left_.y() < 0 ? side : -side) * away, degrees_);
        ask(std::move(places), {look});
    }
    void offer(annotate::PlacedText& places, const TextLook& look, QPointF middle, double degrees) const {
        annotate::Candidate c;
        c.boxes = {canvas_.texts.box(look, middle, degrees)};
        places.candidates.push_back(std::move(c));
    }
    void ask(annotate::PlacedText places, std::vector<TextLook> looks,
             std::function<void(QPainter&)> besides = {}) {
        canvas_.texts.ask(std::move(places), {TextRank::Alignment,
                                              ++key_,
                                              of_,
                                              std::move(looks),
                                              {},
                                              theme::alignment,
                                              false,
                                              std::move(besides)});
    }
    void point(const route::Mark& mark) {
        const double u = canvas_.unit;
        const QPointF end = at_ + left_ * (left_.y() > 0 ? 26 : -26) * u;
        canvas_.painter.setPen(canvas_.pen(theme::alignment, 0.9));
        canvas_.painter.drawLine(at_, end);
        canvas_.painter.setBrush(theme::paper);
        canvas_.painter.drawEllipse(at_, 3 * u, 3 * u);
        canvas_.painter.setBrush(Qt::NoBrush);
        canvas_.texts.keepOff(at_, QSizeF(6, 6) * u);
        // Points close together are told apart by zooming in.
        if (canvas_.view.scale < 1.2 * u) return;
        const TextLook look{text(mark.text), size_ - 1, theme::alignment};
        const double away = canvas_.texts.line(look).height / 2 + 3 * u;
        const QPointF across = left_ * (left_.y() > 0 ? 1 : -1);
        annotate::PlacedText places;
        for (const double along : {0.0, 0.7, -0.7}) {
            const QPointF aside = QPointF(-left_.y(), left_.x()) * (along * canvas_.texts.line(look).width);
            offer(places, look, end + across * away + aside, degrees_);
        }
        ask(std::move(places), {look});
    }
    /// A small flag beside the line, or on its other side.
    void sign(const std::string& words, const QColor& colour) {
        const double u = canvas_.unit;
        const TextLook look{text(words), size_, colour, true, TextBacking::Frame};
        annotate::PlacedText places;
        for (const double side : {1.0, -1.0}) {
            const QPointF foot = at_ + left_ * (marking_.right ? side : -side) * (22 * u);
            offer(places, look, foot, 0);
            places.candidates.back().leader = annotate::Leader{{at_.x(), at_.y()}, {foot.x(), foot.y()}};
        }
        ask(std::move(places), {look});
    }

    PlanCanvas& canvas_;
    ObjectId of_;
    const route::MarkingSettings& marking_;
    double size_;
    std::uint64_t key_ = 0;
    QPointF at_;
    QPointF left_;
    double degrees_ = 0;
};

void paintMarks(PlanCanvas& canvas, ObjectId id, const route::AlignmentGeometry& on) {
    const auto& alignment = *canvas.document.get<objects::Alignment>(id);
    auto marking = operations::markingOf(canvas.document, alignment);
    // Ticks that would run together are thinned.
    const double least = roundStep(14 * canvas.unit / canvas.view.scale);
    if (marking.small > 0 && marking.small < least) marking.small = least;
    if (marking.large > 0) marking.large = std::max({marking.large, marking.small, 5 * least});
    MarkPainter painter(canvas, id, marking);
    for (const auto& mark :
         route::marksOf(on, marking, objects::speedMarks(alignment, on), canvas.document.settings().display))
        if (canvas.textWindow.contains(mark.place)) painter.paint(mark);
}

/// Where it does not keep to its criteria.
void paintFaults(PlanCanvas& canvas, ObjectId id, const route::AlignmentGeometry& on) {
    const auto* check = derive::Derived::in(canvas.derived.designs, id);
    if (check == nullptr) return;
    for (const auto& f : check->findings) {
        QPolygonF line;
        const double from = std::clamp(f.from, 0.0, on.length);
        const double to = std::clamp(f.to, from, on.length);
        const int pieces = std::clamp(static_cast<int>((to - from) / 2), 1, 400);
        for (int k = 0; k <= pieces; ++k)
            line << canvas.view.toPicture(
                geometry::positionAt(on.path, from + (to - from) * k / pieces).place);
        QColor shade = theme::ochre;
        shade.setAlpha(110);
        canvas.painter.setPen(QPen(shade, 8 * canvas.unit, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        if (to - from < 1e-6)
            canvas.painter.drawPoint(line.first());
        else
            canvas.painter.drawPolyline(line);
    }
}

class AlignmentKind final : public ObjectKind {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("alignment"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Alignments"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* a = derive::Derived::in(derived.alignments, id)) box.add(boundsOf(a->path));
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Routes}; }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived& derived, ObjectId id) const override {
        auto sign = lineSign(QObject::tr("Alignment with stations"), colourOf(derived.document, id), 1.8);
        sign.draw = [line = sign.draw](QPainter& p, const QRectF& room, double unit) {
            line(p, room, unit);
            for (const double at : {0.25, 0.75}) {
                const double x = room.left() + room.width() * at;
                p.drawLine(QPointF(x, room.center().y() - 4 * unit),
                           QPointF(x, room.center().y() + 4 * unit));
            }
        };
        return {sign};
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* alignment = derive::Derived::in(canvas.derived.alignments, id);
        if (alignment == nullptr || alignment->path.empty()) return;
        paintFaults(canvas, id, *alignment);
        canvas.painter.setPen(canvas.pen(colourOf(canvas.document, id), 1.8));
        canvas.painter.drawPolyline(polyline(alignment->path, canvas.view));
        paintMarks(canvas, id, *alignment);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        if (const auto* a = derive::Derived::in(search.derived().alignments, id))
            search.addPath(id, a->path, QObject::tr("alignment %1").arg(search.nameOf(id)));
        const auto* pis = operations::pisOf(search.document(), id);
        for (std::size_t i = 0; pis != nullptr && i < pis->size(); ++i) {
            Snap snap;
            snap.kind = SnapKind::Corner;
            snap.place = (*pis)[i].place;
            snap.ref = {id, i};
            snap.name = QObject::tr("PI %1 of %2").arg(i + 1).arg(search.nameOf(id));
            search.add(snap);
            const auto middle = route::curveMiddle(*pis, i);
            if (!middle) continue;
            snap.place = *middle;
            snap.ref = {id, pis->size() + i};
            snap.name = QObject::tr("middle of curve %1 of %2").arg(i + 1).arg(search.nameOf(id));
            search.add(snap);
        }
    }
    /// The tangents between its PIs, each of which can be taken.
    void handles(HandlePainter& painter, const Ref& ref) const override {
        const auto* a = derive::Derived::in(painter.derived().alignments, ref.object);
        if (a == nullptr) return;
        painter.path(a->path);
        const auto* pis = operations::pisOf(painter.document(), ref.object);
        if (pis == nullptr) return;
        for (std::size_t i = 0; i < pis->size(); ++i) {
            painter.square((*pis)[i].place, ref.part == i);
            if (const auto middle = route::curveMiddle(*pis, i))
                painter.square(*middle, ref.part == pis->size() + i);
            if ((*pis)[i].radius > 0)
                painter.figure((*pis)[i].place, {0, 14},
                               QObject::tr("R %1").arg(text(
                                   formatLength((*pis)[i].radius, painter.document().settings().display))),
                               ref.part == i);
        }
    }
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        if (!ref.part) return std::nullopt;
        // Behind the PIs come the middles of their curves.
        return [ref, place](const Document& d) -> Result<document::Edited> {
            const auto* pis = operations::pisOf(d, ref.object);
            if (pis == nullptr || *ref.part < pis->size())
                return operations::movePi(ref.object, *ref.part, place)(d);
            return operations::bendCurve(ref.object, *ref.part - pis->size(), place)(d);
        };
    }
    void show(SceneContent& content, ObjectId id) const override {
        if (const auto* a = derive::Derived::in(content.derived().alignments, id))
            content.addOnGround(a->path, content.selected(id) ? theme::clay : theme::alignment, 2.5F);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto& display = document.settings().display;
        const auto* payload = document.get<objects::Alignment>(id);
        form.heading(text(document.nameOf(id)));
        form.nameEntry(id);
        form.typedEntry(QObject::tr("Start station"), text(formatStation(payload->startStation, display)),
                        [id](std::string typed) { return operations::typeStart(id, typed); });
        form.typedEntry(QObject::tr("Equations"), text(operations::equationsText(*payload, display)),
                        [id](std::string typed) { return operations::typeEquations(id, typed); });
        form.entry(QObject::tr("Serves"), text(payload->serves),
                   [id](const Document& d, const QString& t) -> Result<document::Edited> {
                       return document::changed<objects::Alignment>(
                           d, id, [&](objects::Alignment& a) { a.serves = t.trimmed().toStdString(); });
                   });
        form.entry(QObject::tr("Description"), text(payload->description),
                   [id](const Document& d, const QString& t) -> Result<document::Edited> {
                       return document::changed<objects::Alignment>(
                           d, id, [&](objects::Alignment& a) { a.description = t.trimmed().toStdString(); });
                   });
        design(form, id, *payload);
        source(form, id, *payload);
        form.check(payload->line ? QObject::tr("Against the line's direction") : QObject::tr("Turned round"),
                   payload->reversed, [id](const Document& d, bool on) {
                       return document::changed<objects::Alignment>(
                           d, id, [on](objects::Alignment& a) { a.reversed = on; });
                   });
        const auto* a = derive::Derived::in(form.derived().alignments, id);
        if (a == nullptr) return;
        form.fact(QObject::tr("Length"), text(formatLength(a->length, display)));
        form.fact(QObject::tr("End station"), text(formatStation(a->endStation(), display)));
        form.fact(QObject::tr("Not tangent"), a->breaks.empty()
                                                  ? QObject::tr("none")
                                                  : QObject::tr("%1 of the joints").arg(a->breaks.size()));
        for (const auto& joint : a->breaks)
            if (!payload->line)
                form.typedEntry(QObject::tr("Curve at %1").arg(text(formatStation(joint.station, display))),
                                QString(), [id, at = joint.segment](std::string typed) {
                                    return operations::typeCurveAt(id, at, typed);
                                });
        marking(form, id, *payload);
        form.heading(QObject::tr("Points"));
        for (const auto& key : a->keyPoints)
            form.fact(QString::fromUtf8(route::shortName(key.kind).data()),
                      text(formatStation(key.station, display)));
    }

private:
    /// What is marked along it, by name.
    static void marking(FactsForm& form, ObjectId id, const objects::Alignment& alignment) {
        form.heading(QObject::tr("Marked along it"));
        form.objectChoice<objects::Marking>(
            QObject::tr("Marking"), alignment.marking,
            [id](const Document& d, ObjectId m) {
                return document::changed<objects::Alignment>(d, id,
                                                             [m](objects::Alignment& a) { a.marking = m; });
            },
            QObject::tr("plain"));
        markingFacts(form, operations::markingOf(form.document(), alignment),
                     [id](MarkingChange change) { return operations::changeMarking(id, change); });
    }
    /// What its design is checked against.
    static void design(FactsForm& form, ObjectId id, const objects::Alignment& alignment) {
        form.objectChoice<objects::DesignCriteria>(
            QObject::tr("Criteria"), alignment.criteria,
            [id](const Document& d, ObjectId c) {
                return document::changed<objects::Alignment>(d, id,
                                                             [c](objects::Alignment& a) { a.criteria = c; });
            },
            QObject::tr("none"));
        if (!alignment.criteria) return;
        form.typedEntry(QObject::tr("Speeds"), text(operations::speedsText(alignment, form.display())),
                        [id](std::string typed) { return operations::typeSpeeds(id, typed); });
        form.check(QObject::tr("Checked all the time"), alignment.checked, [id](const Document& d, bool on) {
            return document::changed<objects::Alignment>(d, id,
                                                         [on](objects::Alignment& a) { a.checked = on; });
        });
        const auto* check = derive::Derived::in(form.derived().designs, id);
        if (check == nullptr) return;
        form.fact(QObject::tr("Not kept"),
                  check->problem.empty() ? QString::number(check->findings.size()) : text(check->problem));
    }
    /// What it is made of, and the buttons that change that.
    static void source(FactsForm& form, ObjectId id, const objects::Alignment& alignment) {
        const auto button = [&](const QString& label, const QString& help, const QString& what, auto edit) {
            auto* b = new QPushButton(label);
            b->setToolTip(help);
            QObject::connect(b, &QPushButton::clicked, b, [form, what, edit, id] {
                form.later(what, edit(form.session().results(), id));
            });
            form.row(b);
        };
        if (alignment.line) {
            form.fact(QObject::tr("Follows"), form.nameOf(alignment.line));
            button(QObject::tr("Own elements"),
                   QObject::tr("It follows the line no more and is changed by its PIs"),
                   QObject::tr("Give %1 elements of its own").arg(form.nameOf(id)), &operations::ownElements);
            return;
        }
        form.fact(QObject::tr("Made of"), alignment.pis.empty()
                                              ? QObject::tr("%1 elements").arg(alignment.elements.size())
                                              : QObject::tr("%1 PIs").arg(alignment.pis.size()));
        if (!alignment.pis.empty())
            form.typedEntry(QObject::tr("Round bare corners"), QString(),
                            [id](std::string typed) { return operations::typeBareRadius(id, typed); });
        button(QObject::tr("Line of it"), QObject::tr("A line along it, arcs kept"),
               QObject::tr("Line of %1").arg(form.nameOf(id)), &operations::lineOfAlignment);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Alignment>() {
    static const AlignmentKind kind;
    return kind;
}

}  // namespace erdwerk::app
