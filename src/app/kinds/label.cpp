// Labels.

#include <algorithm>
#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/label_layout.h"
#include "core/derive/tags.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/operations/labels.h"

namespace erdwerk::app {

using annotate::LabelKind;
using annotate::LabelText;
using document::Document;
using geometry::Vec2;

namespace {

TextRank rankOf(const LabelText& label) {
    if (label.byHand) return TextRank::ByHand;
    switch (label.kind) {
        case LabelKind::Segment:
        case LabelKind::Curve:
            return TextRank::Course;
        case LabelKind::Area:
            return TextRank::ParcelName;
        case LabelKind::Spot:
        case LabelKind::Slope:
            return TextRank::Spot;
        case LabelKind::Contour:
            return TextRank::ContourHeight;
        default:
            return TextRank::Label;
    }
}

QString standWord(annotate::Stand stand) {
    switch (stand) {
        case annotate::Stand::Above:
            return QObject::tr("Above");
        case annotate::Stand::InLine:
            return QObject::tr("In line");
        case annotate::Stand::Below:
            break;
    }
    return QObject::tr("Below");
}

/// An arrow down the slope, under its text; or a small cross where a height was taken.
void paintMark(PlanCanvas& canvas, const LabelText& label, const LabelLayout& layout) {
    const QPointF at = canvas.view.toPicture(label.place);
    const double u = canvas.unit;
    canvas.painter.setPen(canvas.pen(theme::ink, 1));
    if (label.kind == LabelKind::Spot) {
        canvas.painter.drawLine(at - QPointF(2.5, 2.5) * u, at + QPointF(2.5, 2.5) * u);
        canvas.painter.drawLine(at - QPointF(2.5, -2.5) * u, at + QPointF(2.5, -2.5) * u);
        canvas.texts.keepOff(at, QSizeF(5, 5) * u);
    }
    if (label.kind == LabelKind::Station) {
        canvas.painter.setPen(canvas.pen(theme::alignment, 1));
        canvas.painter.drawEllipse(at, 2 * u, 2 * u);
        canvas.texts.keepOff(at, QSizeF(4, 4) * u);
    }
    if (!label.fall || layout.line.size() < 2) return;
    const Vec2 down = geometry::directionOf(*label.fall);
    const QPointF way(down.x, -down.y);
    const double half = geometry::distance(layout.line.front(), layout.line.back()) / 2;
    const QPointF tip = at + way * half;
    const QPointF aside(-way.y(), way.x());
    canvas.painter.drawLine(at - way * half, tip);
    canvas.painter.drawLine(tip, tip - way * (5 * u) + aside * (2.5 * u));
    canvas.painter.drawLine(tip, tip - way * (5 * u) - aside * (2.5 * u));
}

class LabelLayer final : public NotInScene<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("label"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Labels"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        if (const auto* label = derive::Derived::in(derived.labels, id)) box.add(label->place);
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override { return objects::PlanPart::Labels; }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Texts}; }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* label = derive::Derived::in(canvas.derived.labels, id);
        if (label == nullptr || !label->problem.empty()) return;
        const bool inside = canvas.textWindow.contains(label->byHand.value_or(label->place));
        if (!inside || canvas.view.scale < 0.4 * canvas.unit) return;
        const auto layout = layoutOf(*label, canvas.texts, canvas.view, canvas.unit);
        paintMark(canvas, *label, layout);
        PlanTexts::Ask ask{rankOf(*label), 0, id, layout.looks, {}, {}, true};
        std::optional<annotate::TextLine> tag;
        if (label->tags) {
            const auto& tags = canvas.tags();
            if (const auto name = tags.find(id); name != tags.end()) {
                ask.tag = TextLook{QString::fromStdString(name->second), pixelsOfCapitals(label->height),
                                   theme::ink, true};
                tag = canvas.texts.line(*ask.tag);
            }
        }
        canvas.texts.ask(placesOf(*label, layout, canvas.view, tag), std::move(ask));
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* label = derive::Derived::in(search.derived().labels, id);
        if (label == nullptr) return;
        Snap snap{SnapKind::Object, label->place, std::nullopt, {id, std::nullopt}};
        snap.name = QObject::tr("label %1").arg(search.nameOf(id));
        search.addText(std::move(snap));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        if (painter.texts(ref.object)) return;
        if (const auto* label = derive::Derived::in(painter.derived().labels, ref.object))
            painter.ring(label->place, 16, Qt::DotLine);
    }
    /// Its texts are put by hand.
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, Vec2 place) const override {
        return operations::dragLabel(ref.object, place);
    }
    void factsOfMany(FactsForm& form, const std::vector<Ref>& refs) const override;
    void facts(FactsForm& form, const Ref& ref) const override;
};

/// Styles that fit a label: those of its kind.
std::vector<ObjectId> stylesFor(const Document& document, LabelKind kind) {
    std::vector<ObjectId> out;
    for (const ObjectId id : document.all<objects::LabelStyle>())
        if (document.get<objects::LabelStyle>(id)->style.kind == kind) out.push_back(id);
    return out;
}

QString byHandText(const objects::Label& label) {
    QStringList what;
    if (label.moved) what << QObject::tr("moved");
    if (label.own) what << QObject::tr("its own style");
    if (!label.words.empty()) what << QObject::tr("its words");
    return what.join(QObject::tr(", "));
}

void LabelLayer::facts(FactsForm& form, const Ref& ref) const {
    const ObjectId id = ref.object;
    const auto& document = form.document();
    const auto* payload = document.get<objects::Label>(id);
    form.heading(text(document.nameOf(id)));
    form.fact(QObject::tr("Of"), text(document.nameOf(payload->target)));
    const auto* style = document.get<objects::LabelStyle>(payload->style);
    if (const auto* l = derive::Derived::in(form.derived().labels, id)) {
        for (const auto& line : l->lines) form.fact(standWord(line.stand), text(line.text));
        if (!l->problem.empty()) form.fact(QObject::tr("Says nothing"), text(l->problem));
    }
    const auto& shown = form.session().textsShown();
    if (shown.leftOut.count(id) != 0)
        form.fact(QObject::tr("In the plan"), QObject::tr("left out: no room at this scale"));
    else if (const auto at = shown.shown.find(id); at != shown.shown.end() && at->second.tag) {
        const auto tags = derive::tagsOf(form.derived());
        const auto tag = tags.find(id);
        form.fact(QObject::tr("In the plan"),
                  QObject::tr("as tag %1").arg(tag == tags.end() ? QString() : text(tag->second)));
    }
    if (const auto lacks = shown.missing.find(id); lacks != shown.missing.end())
        form.fact(QObject::tr("Not in the font"),
                  QObject::tr("%1: another font's sign stands there, or none").arg(lacks->second));
    if (style != nullptr)
        form.objectChoice(
            QObject::tr("Style"), stylesFor(document, style->style.kind), payload->style,
            [id](const Document& d, ObjectId s) {
                return s ? document::changed<objects::Label>(d, id, [s](objects::Label& l) { l.style = s; })
                         : d;
            },
            QObject::tr("–"));
    form.typedEntry(QObject::tr("Words"), text(payload->words).replace(QLatin1Char('\n'), QLatin1Char('|')),
                    [id](std::string words) {
                        std::replace(words.begin(), words.end(), '|', '\n');
                        return operations::typeLabelWords(id, std::move(words));
                    });
    if (!payload->byHand()) return;
    form.fact(QObject::tr("By hand"), byHandText(*payload));
    form.button(QObject::tr("As its style says"), QObject::tr("Takes back what was changed by hand"),
                QObject::tr("%1 as its style says").arg(form.nameOf(id)), operations::labelAsStyled(id));
}

void LabelLayer::factsOfMany(FactsForm& form, const std::vector<Ref>& refs) const {
    const auto& document = form.document();
    std::vector<ObjectId> ids;
    std::size_t byHand = 0;
    std::size_t out = 0;
    std::set<LabelKind> kinds;
    for (const Ref& r : refs) {
        const auto* label = document.get<objects::Label>(r.object);
        if (label == nullptr) continue;
        ids.push_back(r.object);
        byHand += label->byHand() ? 1 : 0;
        out += form.session().textsShown().leftOut.count(r.object);
        if (const auto* style = document.get<objects::LabelStyle>(label->style))
            kinds.insert(style->style.kind);
    }
    form.fact(QObject::tr("Changed by hand"), QString::number(byHand));
    form.fact(QObject::tr("No room in the plan"), QString::number(out));
    if (kinds.size() != 1) return;
    const auto styles = stylesFor(document, *kinds.begin());
    QStringList names;
    for (const ObjectId s : styles) names << form.nameOf(s);
    const auto common = commonOf(ids, [&](ObjectId id) { return document.get<objects::Label>(id)->style; });
    std::optional<int> current;
    for (std::size_t i = 0; common && i < styles.size(); ++i)
        if (styles[i] == *common) current = static_cast<int>(i);
    form.choiceOfMany(QObject::tr("Style"), names, current, [ids, styles](int i) {
        return operations::setLabelStyle(ids, styles[static_cast<std::size_t>(i)]);
    });
}

}  // namespace

template <>
const ObjectKind& kindOf<objects::Label>() {
    static const LabelLayer kind;
    return kind;
}

}  // namespace erdwerk::app
