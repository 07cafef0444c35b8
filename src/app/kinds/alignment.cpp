// Alignments.

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/base/notation.h"
#include "core/operations/edit.h"

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

class AlignmentKind final : public StaysPut<ObjectKind> {
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
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* a = derive::Derived::in(painter.derived().alignments, ref.object))
            painter.path(a->path);
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
        form.entry(QObject::tr("Start station"), text(formatStation(payload->startStation, display)),
                   [id](const Document& d, const QString& t) -> Result<Document> {
                       const auto station = parseStation(t.toStdString(), d.settings().display);
                       if (!station) return tl::unexpected(station.error());
                       return document::changed<objects::Alignment>(
                           d, id, [&](objects::Alignment& a) { a.startStation = *station; });
                   });
        form.length(QObject::tr("Tick interval"), payload->tickInterval, 0.01, {},
                    [id](const Document& d, double v) {
                        return document::changed<objects::Alignment>(
                            d, id, [v](objects::Alignment& a) { a.tickInterval = v; });
                    });
        form.check(QObject::tr("Against the line's direction"), payload->reversed,
                   [id](const Document& d, bool on) {
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
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Alignment>() {
    static const AlignmentKind kind;
    return kind;
}

}  // namespace erdwerk::app
