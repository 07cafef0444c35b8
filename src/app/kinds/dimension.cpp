// Dimensions.

#include <algorithm>
#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/dimension_drawing.h"
#include "core/base/notation.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/operations/dimensions.h"

namespace erdwerk::app {

using annotate::DimensionKind;
using document::Document;
using geometry::Vec2;

QString dimensionWord(DimensionKind kind) {
    switch (kind) {
        case DimensionKind::Aligned:
            return QObject::tr("distance");
        case DimensionKind::Linear:
            return QObject::tr("distance in a direction");
        case DimensionKind::Chain:
            return QObject::tr("chain of distances");
        case DimensionKind::Angle:
            return QObject::tr("angle between two sides");
        case DimensionKind::Delta:
            return QObject::tr("turn of an arc");
        case DimensionKind::Radius:
            return QObject::tr("radius");
        case DimensionKind::Slope:
            return QObject::tr("grade between two places");
        case DimensionKind::Height:
            return QObject::tr("difference in height");
    }
    return {};
}

namespace {

const annotate::DimensionStyle& styleOf(const Document& document, const objects::Dimension& dimension) {
    static const annotate::DimensionStyle plain;
    const auto* style = document.get<objects::DimensionStyle>(dimension.style);
    return style == nullptr ? plain : style->style;
}

class DimensionLayer final : public NotInScene<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("dimension"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Dimensions"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* d = derive::Derived::in(derived.dimensions, id))
            for (const auto& span : d->spans) {
                box.add(span.from);
                box.add(span.to);
            }
        for (const auto& anchor : derived.document.get<objects::Dimension>(id)->anchors)
            if (const auto at = operations::anchorPlace(derived, anchor)) box.add(*at);
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override { return objects::PlanPart::Labels; }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Texts}; }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* result = derive::Derived::in(canvas.derived.dimensions, id);
        const auto* dimension = canvas.document.get<objects::Dimension>(id);
        if (result == nullptr) return;
        if (!result->problem.empty()) return lost(canvas, *dimension);
        const auto& style = styleOf(canvas.document, *dimension);
        for (std::size_t i = 0; i < result->spans.size(); ++i)
            paintSpan(canvas, id, i, result->spans[i], style);
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* result = derive::Derived::in(search.derived().dimensions, id);
        if (result == nullptr) return;
        const QString name = QObject::tr("dimension %1").arg(search.nameOf(id));
        for (const auto& span : result->spans) {
            const auto line = annotate::drawn(span, {}, 0, 0).line;
            const auto near = geometry::nearestOn(line, search.cursor());
            if (!near) continue;
            Snap snap{SnapKind::Object, near->place, std::nullopt, {id, std::nullopt}};
            snap.name = name;
            search.addText(std::move(snap));
        }
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        painter.texts(ref.object);
        const auto* dimension = painter.document().get<objects::Dimension>(ref.object);
        for (const auto& anchor : dimension->anchors)
            if (const auto at = operations::anchorPlace(painter.derived(), anchor)) painter.ring(*at);
    }
    /// The dimension line goes along; what it measures stays.
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        return operations::dragDimension(ref.object, place);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& document = form.document();
        const auto* dimension = document.get<objects::Dimension>(id);
        form.heading(text(document.nameOf(id)));
        form.nameEntry(id);
        form.fact(QObject::tr("Measures"), dimensionWord(dimension->kind));
        if (const auto* result = derive::Derived::in(form.derived().dimensions, id)) {
            if (!result->problem.empty()) form.fact(QObject::tr("Measures nothing"), text(result->problem));
            for (const auto& span : result->spans) form.fact(QObject::tr("Says"), text(span.text));
        }
        for (const auto& anchor : dimension->anchors)
            form.fact(QObject::tr("Tied to"), anchorText(document, anchor));
        if (form.session().textsShown().leftOut.count(id) != 0)
            form.fact(QObject::tr("In the plan"), QObject::tr("its text has no room at this scale"));
        form.objectChoice<objects::DimensionStyle>(
            QObject::tr("Style"), dimension->style,
            [id](const Document& d, ObjectId s) {
                return document::changed<objects::Dimension>(d, id,
                                                             [s](objects::Dimension& x) { x.style = s; });
            },
            QObject::tr("plain"));
        const bool gone = std::any_of(dimension->anchors.begin(), dimension->anchors.end(),
                                      [](const auto& a) { return a.on == objects::Anchor::On::Gone; });
        if (gone)
            form.button(QObject::tr("Measure where it was"),
                        QObject::tr("Ends that lost what they were tied to stay where they were"),
                        QObject::tr("%1 measures where it was").arg(form.nameOf(id)),
                        operations::keepDimensionInPlace(id));
        form.groupChoice(id);
    }

private:
    static QString anchorText(const Document& document, const objects::Anchor& anchor) {
        const QString name = text(document.nameOf(anchor.object));
        switch (anchor.on) {
            case objects::Anchor::On::Gone:
                return QObject::tr("nothing any more");
            case objects::Anchor::On::Side:
                return QObject::tr("%1, side %2").arg(name).arg(anchor.index + 1);
            case objects::Anchor::On::Vertex:
                return QObject::tr("%1, point %2").arg(name).arg(anchor.index + 1);
            case objects::Anchor::On::Place:
                break;
        }
        return QObject::tr("a place in plan");
    }
    /// What measures nothing is shown where it was, in dashes.
    static void lost(PlanCanvas& canvas, const objects::Dimension& dimension) {
        QPolygonF places;
        for (const auto& a : dimension.anchors)
            places << canvas.view.toPicture(operations::anchorPlace(canvas.derived, a).value_or(a.place));
        canvas.painter.setPen(canvas.pen(theme::madder, 1, Qt::DashLine));
        canvas.painter.drawPolyline(places);
    }
};

class DimensionStyleKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("dimension style"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Dimension styles"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        using annotate::DimensionStyle;
        const ObjectId id = ref.object;
        const auto& style = form.document().get<objects::DimensionStyle>(id)->style;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        const auto choice = [&](const QString& name, const QStringList& texts, int current,
                                std::function<void(DimensionStyle&, int)> set) {
            form.choice(name, texts, current, [id, set = std::move(set)](const Document& d, int i) {
                return document::changed<objects::DimensionStyle>(
                    d, id, [&](objects::DimensionStyle& s) { set(s.style, i); });
            });
        };
        choice(QObject::tr("Ends"),
               {QObject::tr("filled arrows"), QObject::tr("open arrows"), QObject::tr("strokes"),
                QObject::tr("dots"), QObject::tr("none")},
               static_cast<int>(style.arrows),
               [](DimensionStyle& s, int i) { s.arrows = static_cast<annotate::ArrowKind>(i); });
        figure(form, id, QObject::tr("Size of ends, mm"), style.arrowSize, &DimensionStyle::arrowSize);
        choice(QObject::tr("Text"),
               {QObject::tr("between the ends where it fits"), QObject::tr("always between the ends"),
                QObject::tr("always outside")},
               static_cast<int>(style.text),
               [](DimensionStyle& s, int i) { s.text = static_cast<annotate::DimensionText>(i); });
        figure(form, id, QObject::tr("Height of text, mm"), style.height, &DimensionStyle::height);
        figure(form, id, QObject::tr("Text off the line, mm"), style.textGap, &DimensionStyle::textGap);
        choice(QObject::tr("Decimals"),
               {QStringLiteral("0"), QStringLiteral("1"), QStringLiteral("2"), QStringLiteral("3"),
                QStringLiteral("4")},
               std::min(style.decimals, 4), [](DimensionStyle& s, int i) { s.decimals = i; });
        form.editCheck(QObject::tr("Extension lines"), style.extensions, [id](bool on) {
            return operations::changeDimensionStyle(id, [on](DimensionStyle& s) { s.extensions = on; });
        });
        figure(form, id, QObject::tr("… off the thing, mm"), style.extensionGap,
               &DimensionStyle::extensionGap);
        figure(form, id, QObject::tr("… beyond the line, mm"), style.overshoot, &DimensionStyle::overshoot);
    }

private:
    static void figure(FactsForm& form, ObjectId id, const QString& name, double value,
                       double annotate::DimensionStyle::*field) {
        form.typedEntry(name, text(formatExact(value)), [id, field](std::string typed) {
            const auto figure = parseNumber(typed, typed.find(',') != std::string::npos);
            return document::Edit([=](const Document& d) -> Result<document::Edited> {
                if (!figure) return badInput("'" + typed + "' is no figure");
                return operations::changeDimensionStyle(
                    id, [=](annotate::DimensionStyle& s) { s.*field = *figure; })(d);
            });
        });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Dimension>() {
    static const DimensionLayer kind;
    return kind;
}

template <>
const ObjectKind& kindOf<objects::DimensionStyle>() {
    static const DimensionStyleKind kind;
    return kind;
}

}  // namespace erdwerk::app
