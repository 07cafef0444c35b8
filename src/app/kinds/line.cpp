// 3D lines.

#include <QPushButton>
#include <numbers>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/plan_signs.h"
#include "app/kinds/surface_facts.h"
#include "core/derive/line_result.h"
#include "core/linework/grade_limits.h"
#include "core/linework/offset_row.h"
#include "core/linework/to_next.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/derived_lines.h"
#include "core/operations/lines.h"
#include "core/terrain/locator.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;

namespace {

/// The colour of its group.
QColor lineColour(const document::Document& document, ObjectId id) {
    const auto* group = document.get<objects::Group>(document.find(id)->group);
    return group != nullptr ? QColor(text(group->colour)) : theme::breakline;
}

/// Short strokes on the downhill side of a crest, long and short in turn.
void hachures(PlanCanvas& canvas, const linework::ResolvedLine& resolved) {
    const double spacing = 7 * canvas.unit / canvas.view.scale;
    const double reach = 3.0;  // ground units to either side where the fall is looked up
    if (resolved.length / spacing > 20000) return;
    const auto* surface =
        resolved.vertices.empty() ? nullptr : canvas.derived.topSurface(resolved.vertices.front().place);
    if (surface == nullptr) return;
    int n = 0;
    for (double d = spacing / 2; d < resolved.length; d += spacing, ++n) {
        const auto at = geometry::positionAt(resolved.path, d);
        if (!canvas.window.contains(at.place)) continue;
        const Vec2 left = geometry::leftOf(geometry::directionOf(at.direction));
        const auto hl = surface->heightAt(at.place + left * reach);
        const auto hr = surface->heightAt(at.place - left * reach);
        if (!hl || !hr) continue;
        const Vec2 down = *hl < *hr ? left : left * -1.0;
        const double size = (n % 2 == 0 ? 8 : 4.5) * canvas.unit / canvas.view.scale;
        canvas.painter.drawLine(canvas.view.toPicture(at.place),
                                canvas.view.toPicture(at.place + down * size));
    }
}

void hitVertices(SnapSearch& search, ObjectId id, const linework::ResolvedLine& line) {
    const auto& vertices = search.derived().definition(id)->vertices;
    for (std::size_t i = 0; i < line.vertices.size() && i < vertices.size(); ++i) {
        if (vertices[i].joint) continue;  // it is placed by the corners around it
        const auto& v = line.vertices[i];
        const bool end = !line.closed && (i == 0 || i + 1 == line.vertices.size());
        const SnapKind kind =
            !vertices[i].isCorner ? SnapKind::GradePoint : (end ? SnapKind::End : SnapKind::Corner);
        const QString name = kind == SnapKind::GradePoint
                                 ? QObject::tr("grade point of %1")
                                 : (end ? QObject::tr("end of %1") : QObject::tr("corner of %1"));
        Snap snap{kind, v.place, v.height, {id, i}};
        snap.name = name.arg(search.nameOf(id));
        search.add(std::move(snap));
    }
}

/// `base`: how far along the line the segment begins.
void hitSegment(SnapSearch& search, ObjectId id, const linework::ResolvedLine& line, std::size_t s,
                double base) {
    const geometry::Segment& segment = line.path[s];
    const double size = lengthOf(segment);
    const auto add = [&](SnapKind kind, Vec2 place, double fraction, const QString& name) {
        Snap snap{kind, place, linework::heightAt(line, base + fraction * size), {id, std::nullopt}};
        snap.segment = s;
        snap.fraction = fraction;
        snap.name = name.arg(search.nameOf(id));
        search.add(std::move(snap));
    };
    add(SnapKind::Middle, pointAt(segment, 0.5), 0.5, QObject::tr("middle of %1"));
    if (boundsOf(segment).meets(search.window())) {
        if (const auto near = geometry::nearestOn({segment}, search.cursor())) {
            add(SnapKind::Line, near->place, near->fraction, QStringLiteral("%1"));
            if (std::abs(near->distance) <= search.reach()) search.addCrossable(id, segment);
        }
    }
    if (!search.from()) return;
    for (const auto& touch : geometry::tangentPlaces(segment, *search.from()))
        add(SnapKind::Tangent, touch.place, touch.fraction, QObject::tr("tangent to %1"));
    const auto near = geometry::nearestOn({segment}, *search.from());
    if (near && near->fraction > 0 && near->fraction < 1)
        add(SnapKind::Perpendicular, near->place, near->fraction, QObject::tr("perpendicular to %1"));
}

/// Style and rules of several lines: of the corners that are selected, or of all points of the lines.
void manyLines(FactsForm& form, const std::vector<Ref>& refs) {
    const auto& document = form.document();
    form.heading(QObject::tr("3D lines"));
    std::vector<ObjectId> lines;
    std::vector<std::pair<ObjectId, std::size_t>> points;
    for (const Ref& r : refs) {
        if (std::find(lines.begin(), lines.end(), r.object) == lines.end()) lines.push_back(r.object);
        const std::size_t count = document.get<objects::Line>(r.object)->line.vertices.size();
        if (document.get<objects::Line>(r.object)->follows) continue;
        for (std::size_t i = r.part.value_or(0); i < (r.part ? std::min(*r.part + 1, count) : count); ++i)
            points.emplace_back(r.object, i);
    }
    const auto style = commonOf(lines, [&](ObjectId id) { return document.get<objects::Line>(id)->style; });
    form.choiceOfMany(
        QObject::tr("Drawn as"), {QObject::tr("plain line"), QObject::tr("crest"), QObject::tr("toe")},
        style ? std::optional(static_cast<int>(*style)) : std::nullopt, [lines](int i) -> document::Edit {
            return [lines, i](const Document& given) -> Result<document::Edited> {
                Document d = given;
                for (const ObjectId id : lines)
                    d = document::changed<objects::Line>(
                        d, id, [i](objects::Line& l) { l.style = static_cast<objects::LineStyle>(i); });
                return d;
            };
        });
    if (!points.empty()) {
        const auto rule = commonOf(points, [&](const auto& p) {
            return operations::controlText(document,
                                           document.get<objects::Line>(p.first)->line.vertices[p.second]);
        });
        form.entryOfMany(
            QObject::tr("Rules"), rule ? std::optional(text(*rule)) : std::nullopt,
            [points](std::string typed) { return operations::setTypedRules(points, std::move(typed)); });
    }
    surfaceRole(form, lines);
}

class LineKind final : public ObjectKind {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("3D line"); }
    [[nodiscard]] QString title() const override { return QObject::tr("3D lines"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* line = derive::Derived::in(derived.lines, id)) box.add(boundsOf(line->path));
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override {
        return objects::PlanPart::Linework;
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Linework}; }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived& derived, ObjectId id) const override {
        const auto& document = derived.document;
        const QColor colour = lineColour(document, id);
        const auto style = document.get<objects::Line>(id)->style;
        if (style == objects::LineStyle::Toe)
            return {lineSign(QObject::tr("Toe"), colour, 1.4, Qt::DashLine)};
        if (style == objects::LineStyle::Crest) {
            auto sign = lineSign(QObject::tr("Crest, strokes downhill"), colour, 1.7);
            sign.draw = [line = sign.draw](QPainter& p, const QRectF& room, double unit) {
                line(p, room, unit);
                int n = 0;
                for (double x = room.left() + 2 * unit; x < room.right(); x += 6 * unit, ++n)
                    p.drawLine(QPointF(x, room.center().y()),
                               QPointF(x, room.center().y() + (n % 2 == 0 ? 7 : 4) * unit));
            };
            return {sign};
        }
        // The colour is its group's, so the group says what it means.
        const ObjectId group = document.find(id)->group;
        return {lineSign(group ? text(document.nameOf(group)) : QObject::tr("3D line"), colour, 1.4)};
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* resolved = derive::Derived::in(canvas.derived.lines, id);
        if (resolved == nullptr || !boundsOf(resolved->path).meets(canvas.window)) return;
        const auto style = canvas.document.get<objects::Line>(id)->style;
        canvas.painter.setBrush(Qt::NoBrush);
        canvas.painter.setPen(canvas.pen(lineColour(canvas.document, id),
                                         style == objects::LineStyle::Crest ? 1.7 : 1.4,
                                         style == objects::LineStyle::Toe ? Qt::DashLine : Qt::SolidLine));
        canvas.painter.drawPolyline(polyline(resolved->path, canvas.view));
        if (style == objects::LineStyle::Crest) hachures(canvas, *resolved);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* line = derive::Derived::in(search.derived().lines, id);
        if (line == nullptr || !boundsOf(line->path).meets(search.window())) return;
        hitVertices(search, id, *line);
        double base = 0;
        for (std::size_t s = 0; s < line->path.size(); ++s) {
            hitSegment(search, id, *line, s, base);
            base += lengthOf(line->path[s]);
        }
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        const auto* line = derive::Derived::in(painter.derived().lines, ref.object);
        if (line == nullptr) return;
        painter.path(line->path);
        const auto& vertices = painter.derived().definition(ref.object)->vertices;
        for (std::size_t i = 0; i < line->vertices.size() && i < vertices.size(); ++i) {
            const auto& v = line->vertices[i];
            if (vertices[i].joint) continue;
            if (vertices[i].isCorner)
                painter.square(v.place, ref.part == i);
            else
                painter.tick(v.place, geometry::positionAt(line->path, v.distance).direction, ref.part == i);
        }
        figures(painter, ref, *line, *painter.derived().definition(ref.object));
    }
    /// Heights at the controls, grades with an arrow downhill between them, high and low points of curves.
    static void figures(HandlePainter& painter, const Ref& ref, const linework::ResolvedLine& line,
                        const linework::Line3D& definition) {
        const auto& display = painter.document().settings().display;
        if (line.vertices.size() != definition.vertices.size() || line.path.empty()) return;
        for (std::size_t i = 0; i < line.vertices.size(); ++i)
            if (ref.part == i && line.vertices[i].height)
                painter.figure(line.vertices[i].place, {0, 14},
                               text(formatHeight(line.vertices[i].height, display)), true);
        for (std::size_t i = 0; i < line.vertices.size(); ++i) {
            const auto& v = line.vertices[i];
            if (!isControl(definition.vertices[i].rule) || !v.height) continue;
            if (ref.part != i) painter.figure(v.place, {0, 14}, text(formatHeight(v.height, display)));
            const auto way = linework::toNext(definition, line, i);
            if (!way || way->run * painter.scale() < 70) continue;
            double middle = v.distance + way->run / 2;
            if (middle > line.length) middle -= line.length;
            const auto at = geometry::positionAt(line.path, middle);
            const double turn = way->rise > 0 ? std::numbers::pi : 0;
            painter.grade(at.place, Angle::radians(at.direction.radians() + turn),
                          text(formatGrade(way->grade(), display)));
        }
        for (const auto& curve : line.curves) {
            const auto turn = curve.turn();
            if (!turn) continue;
            const auto at = geometry::positionAt(line.path, curve.start + *turn);
            painter.turn(at.place, curve.in.riseOverRun() > 0,
                         text(formatHeight(curve.height(*turn), display)));
        }
    }
    static void figuresOf(FactsForm& form, const linework::ResolvedLine& line) {
        const auto& display = form.display();
        form.fact(QObject::tr("Length"), text(formatLength(line.length, display)));
        if (line.closed)
            form.fact(QObject::tr("Area"),
                      text(formatArea(std::abs(geometry::signedArea(line.path)), display)));
        std::optional<double> low;
        std::optional<double> high;
        for (const auto& v : line.vertices) {
            if (!v.height) continue;
            low = std::min(low.value_or(*v.height), *v.height);
            high = std::max(high.value_or(*v.height), *v.height);
        }
        form.fact(QObject::tr("Heights"),
                  low ? text(formatHeight(low, display) + " to " + formatHeight(high, display))
                      : QObject::tr("none"));
    }
    static void rowFacts(FactsForm& form, ObjectId id, const linework::OffsetRow& row,
                         const linework::OffsetOptions& options) {
        form.typedEntry(QObject::tr("Run, height"), text(linework::rowText(row)),
                        [id](std::string typed) { return operations::setTypedRow(id, typed); });
        form.choice(QObject::tr("Side"), {QObject::tr("left"), QObject::tr("right")}, options.right ? 1 : 0,
                    [id](const Document& d, int i) {
                        return operations::changeRow(
                            id, [i](auto&, linework::OffsetOptions& of) { of.right = i == 1; })(d);
                    });
        form.choice(QObject::tr("Outside corners"), {QObject::tr("mitre"), QObject::tr("round")},
                    options.corners == linework::OutsideCorner::Round ? 1 : 0,
                    [id](const Document& d, int i) {
                        return operations::changeRow(id, [i](auto&, linework::OffsetOptions& of) {
                            of.corners = static_cast<linework::OutsideCorner>(i);
                        })(d);
                    });
    }
    /// What a line that follows others is made of, and the button that loosens it.
    static void follows(FactsForm& form, ObjectId id, const objects::Line& line) {
        if (!line.follows) return;
        const auto& document = form.document();
        if (const auto* row = std::get_if<objects::RowOf>(line.follows.get())) {
            form.fact(QObject::tr("Follows"), form.nameOf(row->line));
            rowFacts(form, id, row->row, row->options);
        } else if (const auto* design = std::get_if<objects::DesignOf>(line.follows.get())) {
            form.fact(QObject::tr("Follows"),
                      QObject::tr("the design of %1").arg(form.nameOf(design->profile)));
            rowFacts(form, id, design->row, design->options);
        } else if (const auto* figure = objects::figureOf(line)) {
            QStringList names;
            for (const ObjectId of : figure->lines) names << form.nameOf(of);
            form.fact(QObject::tr("Follows"), QObject::tr("the figure of %1").arg(names.join(", ")));
        } else {
            const auto& meeting = std::get<objects::MeetingOf>(*line.follows);
            form.fact(QObject::tr("Follows"),
                      QObject::tr("%1 and %2").arg(form.nameOf(meeting.first), form.nameOf(meeting.second)));
            form.fact(QObject::tr("Slopes"),
                      text(formatGrade(meeting.options.a, document.settings().display) + ", " +
                           formatGrade(meeting.options.b, document.settings().display)));
        }
        if (const auto* now = derive::Derived::in(form.derived().followed, id); now && !now->problem.empty())
            form.fact(QObject::tr("Trouble"), text(now->problem));
        auto* loosen = new QPushButton(QObject::tr("Loosen"));
        loosen->setToolTip(QObject::tr("The line keeps its shape and heights and follows nothing any more"));
        QObject::connect(loosen, &QPushButton::clicked, loosen, [form, id] {
            form.later(QObject::tr("Loosen %1").arg(form.nameOf(id)),
                       operations::loosen(form.session().results(), {id}));
        });
        form.row(loosen);
    }
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        if (!ref.part) return std::nullopt;
        return operations::moveVertex(ref.object, *ref.part, place);
    }
    void show(SceneContent& content, ObjectId id) const override {
        const auto* line = derive::Derived::in(content.derived().lines, id);
        if (line == nullptr) return;
        const bool selected = content.selected(id);
        const QColor colour = selected ? theme::clay : lineColour(content.derived().document, id);
        const auto runs = runsWithHeights(*line, 0.05);
        for (const auto& run : runs) content.addStroke({run, colour, selected ? 3.5F : 2.0F});
        if (runs.empty() && selected) content.addOnGround(line->path, colour, 3.0F);
    }
    void factsOfMany(FactsForm& form, const std::vector<Ref>& refs) const override { manyLines(form, refs); }
    void facts(FactsForm& form, const Ref& ref) const override {
        const auto [id, vertex] = ref;
        const auto& document = form.document();
        const auto& display = document.settings().display;
        const auto* payload = document.get<objects::Line>(id);
        // Results may be older than the line.
        const auto* known = form.derived().definition(id);
        const linework::Line3D& definition = known != nullptr ? *known : payload->line;
        form.heading(text(document.nameOf(id)));
        const auto* r = derive::Derived::in(form.derived().lines, id);
        if (r != nullptr && vertex && *vertex < r->vertices.size() && *vertex < definition.vertices.size()) {
            const auto& v = r->vertices[*vertex];
            const std::size_t i = *vertex;
            form.heading(definition.vertices[i].joint      ? QObject::tr("Joint of a smooth side")
                         : definition.vertices[i].isCorner ? QObject::tr("Corner %1").arg(i + 1)
                                                           : QObject::tr("Grade point"));
            form.fact(QObject::tr("Place"), text(formatPosition(v.place.x, v.place.y, display)));
            form.fact(QObject::tr("Station"), text(formatStation(v.distance, display)));
            form.fact(QObject::tr("Height"),
                      v.height ? text(formatHeight(v.height, display)) : text(v.problem));
            if (!v.curveProblem.empty()) form.fact(QObject::tr("Curve"), text(v.curveProblem));
            for (const auto& curve : r->curves)
                if (curve.vertex == i)
                    form.fact(
                        QObject::tr("Curve"),
                        QObject::tr("%1 long, K %2, here at %3")
                            .arg(text(formatLength(curve.length, display)), text(formatFixed(curve.k(), 2)),
                                 text(formatHeight(heightAt(*r, v.distance), display))));
            form.typedEntry(
                QObject::tr("Rule"),
                QString::fromStdString(operations::controlText(document, definition.vertices[i])),
                [id, i](std::string typed) { return operations::setTypedRule(id, i, std::move(typed)); });
            form.heading(QObject::tr("Line"));
        }
        if (r != nullptr) figuresOf(form, *r);
        follows(form, id, *payload);
        form.fact(QObject::tr("Corners"), QString::number(cornersOf(definition).size()));
        form.fact(QObject::tr("Grade points"),
                  QString::number(definition.vertices.size() - cornersOf(definition).size()));
        form.typedEntry(QObject::tr("Grades meant"), text(linework::gradeLimitsText(payload->limits)),
                        [id](std::string typed) { return operations::setTypedLimits(id, typed); });
        form.choice(QObject::tr("Drawn as"),
                    {QObject::tr("plain line"), QObject::tr("crest"), QObject::tr("toe")},
                    static_cast<int>(payload->style), [id](const Document& d, int i) {
                        return document::changed<objects::Line>(
                            d, id, [i](objects::Line& l) { l.style = static_cast<objects::LineStyle>(i); });
                    });
        form.groupChoice(id);
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Line>() {
    static const LineKind kind;
    return kind;
}

}  // namespace erdwerk::app
