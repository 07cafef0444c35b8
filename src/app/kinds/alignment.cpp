// Alignments.

#include <QPushButton>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/base/notation.h"
#include "core/operations/edit.h"
#include "core/operations/routes.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

void paintTicks(PlanCanvas& canvas, const route::AlignmentGeometry& alignment, double tickInterval) {
    DisplaySettings whole = canvas.document.settings().display;
    whole.lengthDecimals = 0;
    const double u = canvas.unit;
    const double interval = std::max(tickInterval, roundStep(14 * u / canvas.view.scale));
    for (const auto& tick : route::ticks(alignment, interval)) {
        const QPointF p = canvas.view.toPicture(tick.place);
        const Vec2 left = geometry::leftOf(geometry::directionOf(tick.direction));
        const QPointF n(left.x, -left.y);
        canvas.painter.setPen(canvas.pen(theme::alignment, 1.2));
        canvas.painter.drawLine(p - n * (tick.major ? 6 : 3.5) * u, p + n * (tick.major ? 6 : 3.5) * u);
        if (!tick.major) continue;
        double degrees = annotate::upright(tick.direction).degrees() - 90;
        const QString text = QString::fromStdString(formatStation(tick.station, whole));
        QTransform turn;
        turn.rotate(degrees);
        const QSizeF size(QFontMetricsF(canvas.font(11, true)).horizontalAdvance(text), 14 * u);
        if (!canvas.claim(turnedBox(p + turn.map(QPointF(0, -15 * u)), size, degrees))) continue;
        canvas.painter.save();
        canvas.painter.translate(p);
        canvas.painter.rotate(degrees);
        canvas.painter.setFont(canvas.font(11, true));
        canvas.haloText(QRectF(-50 * u, -22 * u, 100 * u, 14 * u), Qt::AlignCenter, text, theme::alignment);
        canvas.painter.restore();
    }
}

/// Where its curves begin and end, and its own ends.
void paintKeyPoints(PlanCanvas& canvas, const route::AlignmentGeometry& alignment) {
    const DisplaySettings& display = canvas.document.settings().display;
    const double u = canvas.unit;
    for (const auto& key : alignment.keyPoints) {
        const QPointF p = canvas.view.toPicture(key.place);
        const Vec2 left = geometry::leftOf(geometry::directionOf(key.direction));
        const QPointF n(left.x, -left.y);
        const QPointF end = p + n * (n.y() > 0 ? 26 : -26) * u;
        canvas.painter.setPen(canvas.pen(theme::alignment, 0.9));
        canvas.painter.drawLine(p, end);
        canvas.painter.setBrush(theme::paper);
        canvas.painter.drawEllipse(p, 3 * u, 3 * u);
        canvas.painter.setBrush(Qt::NoBrush);
        // Points close together are told apart by zooming in.
        if (canvas.view.scale < 1.2 * u) continue;
        canvas.textAlong(end + QPointF(0, 4 * u), annotate::upright(key.direction).degrees() - 90, {},
                         QString::fromUtf8(route::shortName(key.kind).data()) + QStringLiteral(" ") +
                             QString::fromStdString(formatStation(key.station, display)),
                         theme::alignment, 10);
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
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* alignment = derive::Derived::in(canvas.derived.alignments, id);
        if (alignment == nullptr || alignment->path.empty()) return;
        canvas.painter.setPen(canvas.pen(theme::alignment, 1.8));
        canvas.painter.drawPolyline(polyline(alignment->path, canvas.view));
        paintTicks(canvas, *alignment, canvas.document.get<objects::Alignment>(id)->tickInterval);
        paintKeyPoints(canvas, *alignment);
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
            if ((*pis)[i].radius > 0)
                painter.figure((*pis)[i].place, {0, 14},
                               QObject::tr("R %1").arg(text(
                                   formatLength((*pis)[i].radius, painter.document().settings().display))),
                               ref.part == i);
        }
    }
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        if (!ref.part) return std::nullopt;
        return operations::movePi(ref.object, *ref.part, place);
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
        form.length(QObject::tr("Tick interval"), payload->tickInterval, 0.01, {},
                    [id](const Document& d, double v) {
                        return document::changed<objects::Alignment>(
                            d, id, [v](objects::Alignment& a) { a.tickInterval = v; });
                    });
        form.typedEntry(QObject::tr("Equations"), text(operations::equationsText(*payload, display)),
                        [id](std::string typed) { return operations::typeEquations(id, typed); });
        form.entry(QObject::tr("Serves"), text(payload->serves),
                   [id](const Document& d, const QString& t) -> Result<Document> {
                       return document::changed<objects::Alignment>(
                           d, id, [&](objects::Alignment& a) { a.serves = t.trimmed().toStdString(); });
                   });
        form.entry(QObject::tr("Description"), text(payload->description),
                   [id](const Document& d, const QString& t) -> Result<Document> {
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
        form.heading(QObject::tr("Points"));
        for (const auto& key : a->keyPoints)
            form.fact(QString::fromUtf8(route::shortName(key.kind).data()),
                      text(formatStation(key.station, display)));
    }

private:
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
