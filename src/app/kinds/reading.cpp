// Descriptions that are read back.

#include "core/objects/reading.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/descriptions.h"

namespace erdwerk::app {

using document::Document;
using objects::Reading;

namespace {

const derive::ReadingResult* readingOf(const derive::Derived& derived, ObjectId id) {
    const auto* result = derive::Derived::in(derived.readings, id);
    return result == nullptr || result->path.empty() ? nullptr : result;
}

/// Whether a course has a difference.
bool differs(const derive::ReadingResult& result, std::size_t course) {
    for (const auto& d : result.differences)
        if (d.course == course + 1 && d.what != parcel::Disagreement::Missing) return true;
    return false;
}

class ReadingKind final : public NotInScene<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("read description"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Descriptions read back"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* result = readingOf(derived, id)) box.add(boundsOf(result->path));
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Records}; }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* result = readingOf(canvas.derived, id);
        if (result == nullptr) return;
        canvas.painter.setBrush(Qt::NoBrush);
        std::size_t segment = 0;
        for (std::size_t i = 0; i < result->drawn.size(); ++i) {
            if (!result->drawn[i].drawn) continue;
            QPen pen = canvas.pen(differs(*result, i) ? theme::ochre : theme::spruce, 1.8);
            pen.setDashPattern({5, 3});
            canvas.painter.setPen(pen);
            canvas.painter.drawPolyline(polyline({result->path[segment]}, canvas.view));
            number(canvas, id, *result, i, result->path[segment]);
            ++segment;
        }
        // A gap is there to be seen.
        canvas.painter.setPen(canvas.pen(theme::madder, 1.4));
        const QPointF from = canvas.view.toPicture(result->path.back().end);
        const QPointF to = canvas.view.toPicture(result->path.front().start);
        if (!result->shape.gapExplained()) canvas.painter.drawLine(from, to);
        canvas.painter.drawEllipse(to, 3 * canvas.unit, 3 * canvas.unit);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        if (const auto* result = readingOf(search.derived(), id))
            search.addPath(id, result->path, QObject::tr("as called in %1").arg(search.nameOf(id)));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* result = readingOf(painter.derived(), ref.object)) painter.path(result->path);
    }
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref&, geometry::Vec2) const override {
        return std::nullopt;
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& of = *form.document().get<Reading>(id);
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        if (const auto* result = derive::Derived::in(form.derived().readings, id)) {
            if (!result->problem.empty()) form.fact(QObject::tr("Not read"), text(result->problem));
            form.fact(QObject::tr("Courses"), QString::number(result->read.courses.size()));
            form.fact(QObject::tr("Unit of the text"),
                      text(std::string(parcel::unitName(result->read.unit))));
            form.fact(QObject::tr("Open by"), text(formatFixed(result->shape.geometry.closure.distance, 3)));
            form.fact(QObject::tr("Differences"), QString::number(result->differences.size()));
            form.fact(QObject::tr("Places not read"), QString::number(result->read.unread.size()));
        }
        form.objectChoice<objects::Parcel>(
            QObject::tr("Compared with"), of.parcel,
            [id](const Document& d, ObjectId parcel) {
                return document::changed<Reading>(d, id, [&](Reading& r) { r.parcel = parcel; });
            },
            QObject::tr("nothing"));
        form.typedEntry(QObject::tr("Begins at E, N"),
                        text(formatFixed(of.at.x, 3) + ", " + formatFixed(of.at.y, 3)),
                        [id](std::string typed) { return operations::placeReading(id, typed); });
        form.typedEntry(QObject::tr("Azimuth of its north"),
                        text(formatAngle(of.north, form.display().angleUnit)),
                        [id](std::string typed) { return operations::turnReading(id, typed); });
    }

private:
    static void number(PlanCanvas& canvas, ObjectId id, const derive::ReadingResult& result,
                       std::size_t course, const geometry::Segment& side) {
        if (!boundsOf(side).meets(canvas.textWindow)) return;
        const QColor colour = differs(result, course) ? theme::ochre : theme::spruce;
        PlanTexts::Ask ask{TextRank::Label, course, id, {{QString::number(course + 1), 11, colour, true}}, {},
                           colour};
        const std::vector lines{canvas.texts.line(ask.looks[0], annotate::Stand::Above, 0.5, 0)};
        const QPointF at = canvas.view.toPicture(pointAt(side, 0.5));
        canvas.texts.ask(annotate::placesBeside({at.x(), at.y()}, 4 * canvas.unit, lines, false),
                         std::move(ask));
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Reading>() {
    static const ReadingKind kind;
    return kind;
}

}  // namespace erdwerk::app
