// Parcels.

#include <algorithm>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/plan_signs.h"
#include "core/annotate/label.h"
#include "core/geometry/inside.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/operations/derived_lines.h"
#include "core/operations/descriptions.h"
#include "core/operations/parcel_sides.h"

namespace erdwerk::app {

using document::Document;

namespace {

/// The path of its line.
const geometry::Path* pathOf(const derive::Derived& derived, ObjectId id) {
    const auto* parcel = derived.document.get<objects::Parcel>(id);
    const auto* line = parcel == nullptr ? nullptr : derive::Derived::in(derived.lines, parcel->line);
    return line == nullptr ? nullptr : &line->path;
}

/// It has a label of its own that says so.
bool hasAreaLabel(const derive::Derived& derived, ObjectId parcel) {
    return std::any_of(derived.labels.begin(), derived.labels.end(), [&](const auto& entry) {
        const auto* label = derived.document.get<objects::Label>(entry.first);
        return label != nullptr && label->target == parcel && entry.second->problem.empty();
    });
}

/// Its name and area, inside.
void name(PlanCanvas& canvas, ObjectId id, const geometry::Path& path, double area) {
    if (!boundsOf(path).meets(canvas.textWindow) || hasAreaLabel(canvas.derived, id)) return;
    const QPointF at =
        canvas.view.toPicture(geometry::placeInside(geometry::flattened(path, 1 / canvas.view.scale)));
    PlanTexts::Ask ask{
        TextRank::ParcelName,
        0,
        id,
        {{QString::fromStdString(canvas.document.nameOf(id)), 13, theme::parcel, true},
         {QString::fromStdString(formatArea(area, canvas.document.settings().display)), 11, theme::parcel}},
        {},
        theme::parcel};
    const std::vector lines{canvas.texts.line(ask.looks[0], annotate::Stand::Above, 0.5, 0),
                            canvas.texts.line(ask.looks[1], annotate::Stand::Below, 0.5, 0)};
    canvas.texts.ask(annotate::placesBeside({at.x(), at.y()}, 0, lines, true), std::move(ask));
}

/// Plain, the project's wordings, and those that ship and are not in the project yet.
void wordingChoice(FactsForm& form, ObjectId id, const objects::Parcel& parcel) {
    QStringList words{QObject::tr("Plain")};
    const auto own = form.document().all<objects::Wording>();
    int current = 0;
    for (std::size_t i = 0; i < own.size(); ++i) {
        words << form.nameOf(own[i]);
        if (own[i] == parcel.wording) current = static_cast<int>(i) + 1;
    }
    std::vector<parcel::DescriptionTemplate> more;
    for (const auto& shipped : parcel::shippedTemplates()) {
        if (words.contains(text(shipped.name))) continue;
        more.push_back(shipped);
        words << text(shipped.name);
    }
    form.choice(QObject::tr("Wording"), words, current,
                [id, own, more](const Document& d, int i) -> Document {
                    const auto at = static_cast<std::size_t>(i);
                    if (at > own.size()) {
                        const auto added = operations::ownWording(id, more[at - own.size() - 1])(d);
                        return added ? added->document : d;
                    }
                    return document::changed<objects::Parcel>(
                        d, id, [&](objects::Parcel& p) { p.wording = at == 0 ? ObjectId{} : own[at - 1]; });
                });
}

void areaChoice(FactsForm& form, ObjectId id, const objects::Parcel& parcel) {
    static const std::vector<std::vector<std::string>> sets{
        {}, {"m2"}, {"ha"}, {"m2", "ha"}, {"ft2"}, {"acre"}, {"ft2", "acre"}, {"m2", "ha", "ft2", "acre"}};
    QStringList words{QObject::tr("as usual")};
    int current = 0;
    for (std::size_t i = 1; i < sets.size(); ++i) {
        QStringList units;
        for (const auto& unit : sets[i]) units << text(unit);
        words << units.join(QStringLiteral(", "));
        if (sets[i] == parcel.areas) current = static_cast<int>(i);
    }
    form.choice(QObject::tr("Area in"), words, current, [id](const Document& d, int i) {
        return document::changed<objects::Parcel>(
            d, id, [i](objects::Parcel& p) { p.areas = sets[static_cast<std::size_t>(i)]; });
    });
}

/// The lines that its boundary follows.
void followed(FactsForm& form, const objects::Parcel& parcel) {
    const auto* line = form.document().get<objects::Line>(parcel.line);
    const auto* figure = line == nullptr ? nullptr : objects::figureOf(*line);
    if (figure == nullptr) return;
    QStringList names;
    for (const ObjectId of : figure->lines) names << form.nameOf(of);
    form.fact(QObject::tr("Follows"), names.join(QStringLiteral(", ")));
    form.button(QObject::tr("Loosen from them"),
                QObject::tr("The boundary stays as it is and follows the lines no more"),
                QObject::tr("Loosen %1").arg(form.nameOf(parcel.line)),
                operations::loosen(form.session().results(), {parcel.line}));
}

void neighbours(FactsForm& form, ObjectId id) {
    const auto shared = operations::sidesShared(form.document(), id);
    if (shared.empty()) return;
    QStringList names;
    for (const auto& [side, with] : shared)
        if (const QString name = form.nameOf(with.parcel); !names.contains(name)) names << name;
    form.fact(QObject::tr("Neighbours"),
              QObject::tr("%1, on %2 sides").arg(names.join(QStringLiteral(", "))).arg(shared.size()));
    form.button(QObject::tr("Name them on the sides"),
                QObject::tr("As adjoiners of the sides in common; sides that have a name keep it"),
                QObject::tr("Name the neighbours"), operations::nameNeighbours(id));
}

class ParcelKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("parcel"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Parcels"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* path = pathOf(derived, id)) box.add(boundsOf(*path));
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Records}; }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived&, ObjectId) const override {
        return {lineSign(QObject::tr("Parcel boundary"), theme::parcel, 2, Qt::SolidLine,
                         {11, 3, 1.5, 3, 1.5, 3}),
                {QObject::tr("Point of beginning"), [](QPainter& p, const QRectF& room, double unit) {
                     p.setPen(QPen(theme::parcel, 1.4 * unit));
                     p.setBrush(Qt::white);
                     p.drawEllipse(room.center(), 4 * unit, 4 * unit);
                     p.setBrush(theme::parcel);
                     p.drawEllipse(room.center(), 1.5 * unit, 1.5 * unit);
                     p.setBrush(Qt::NoBrush);
                 }}};
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* parcel = derive::Derived::in(canvas.derived.parcels, id);
        const auto* path = pathOf(canvas.derived, id);
        if (parcel == nullptr || path == nullptr || parcel->geometry.courses.empty()) return;
        QPen p = canvas.pen(theme::parcel, 2);
        p.setCapStyle(Qt::FlatCap);
        p.setDashPattern({11, 3, 1.5, 3, 1.5, 3});
        canvas.painter.setPen(p);
        canvas.painter.drawPolyline(polyline(*path, canvas.view));
        const QPointF begin = canvas.view.toPicture(parcel->geometry.courses.front().start);
        canvas.texts.keepOff(begin, QSizeF(8, 8) * canvas.unit);
        canvas.painter.setPen(canvas.pen(theme::parcel, 1.4));
        canvas.painter.setBrush(theme::paper);
        canvas.painter.drawEllipse(begin, 4 * canvas.unit, 4 * canvas.unit);
        canvas.painter.setBrush(theme::parcel);
        canvas.painter.drawEllipse(begin, 1.5 * canvas.unit, 1.5 * canvas.unit);
        canvas.painter.setBrush(Qt::NoBrush);
        name(canvas, id, *path, parcel->geometry.area);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        if (const auto* path = pathOf(search.derived(), id))
            search.addPath(id, *path, QObject::tr("parcel %1").arg(search.nameOf(id)));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (const auto* path = pathOf(painter.derived(), ref.object)) painter.path(*path);
    }
    void show(SceneContent& content, ObjectId id) const override {
        if (const auto* path = pathOf(content.derived(), id))
            content.addOnGround(*path, content.selected(id) ? theme::clay : theme::parcel, 2.5F);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto& display = document.settings().display;
        const auto* payload = document.get<objects::Parcel>(id);
        form.heading(text(document.nameOf(id)));
        form.nameEntry(id);
        if (const auto* p = derive::Derived::in(form.derived().parcels, id)) {
            form.fact(QObject::tr("Area"), text(formatArea(p->geometry.area, display)));
            form.fact(QObject::tr("Perimeter"), text(formatLength(p->geometry.perimeter, display)));
            form.fact(QObject::tr("Closure"),
                      p->geometry.closure.closes(display.unit)
                          ? QObject::tr("closes")
                          : text(formatLength(p->geometry.closure.distance, display)) + QObject::tr(" open"));
            form.fact(QObject::tr("Courses"), QString::number(p->geometry.courses.size()));
        }
        form.entry(QObject::tr("Beginning"), text(payload->beginning),
                   [id](const Document& d, const QString& t) -> Result<document::Edited> {
                       return document::changed<objects::Parcel>(
                           d, id, [&](objects::Parcel& p) { p.beginning = t.trimmed().toStdString(); });
                   });
        form.number(QObject::tr("Begins at corner"), static_cast<double>(payload->begin + 1), 1,
                    [id](const Document& d, double v) {
                        return document::changed<objects::Parcel>(
                            d, id, [v](objects::Parcel& p) { p.begin = static_cast<std::size_t>(v) - 1; });
                    });
        wordingChoice(form, id, *payload);
        form.objectChoice<objects::Line>(
            QObject::tr("Tie line"), payload->tie,
            [id](const Document& d, ObjectId line) {
                return document::changed<objects::Parcel>(d, id, [&](objects::Parcel& p) { p.tie = line; });
            },
            QObject::tr("none"));
        if (payload->tie)
            form.entry(QObject::tr("Commencing at"), text(payload->commencement),
                       [id](const Document& d, const QString& t) -> Result<document::Edited> {
                           return document::changed<objects::Parcel>(d, id, [&](objects::Parcel& p) {
                               p.commencement = t.trimmed().toStdString();
                           });
                       });
        areaChoice(form, id, *payload);
        followed(form, *form.document().get<objects::Parcel>(id));
        neighbours(form, id);
        form.check(QObject::tr("Against the line's direction"), payload->reversed,
                   [id](const Document& d, bool on) {
                       return document::changed<objects::Parcel>(
                           d, id, [on](objects::Parcel& p) { p.reversed = on; });
                   });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Parcel>() {
    static const ParcelKind kind;
    return kind;
}

}  // namespace erdwerk::app
