// Styles of labels: they lie where their labels do.

#include <algorithm>

#include "app/kinds/all_kinds.h"
#include "core/annotate/label.h"
#include "core/annotate/style_text.h"
#include "core/base/notation.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/operations/labels.h"

namespace erdwerk::app {

using annotate::Stand;
using document::Document;

namespace {

QString kindWord(annotate::LabelKind kind) {
    using annotate::LabelKind;
    switch (kind) {
        case LabelKind::Segment:
            return QObject::tr("straight sides");
        case LabelKind::Curve:
            return QObject::tr("curves");
        case LabelKind::Point:
            return QObject::tr("survey points");
        case LabelKind::Station:
            return QObject::tr("stations");
        case LabelKind::Contour:
            return QObject::tr("contours");
        case LabelKind::Spot:
            return QObject::tr("heights of the ground");
        case LabelKind::Slope:
            return QObject::tr("slopes of the ground");
        case LabelKind::Area:
            return QObject::tr("parcels");
        case LabelKind::Control:
            return QObject::tr("controls of 3D lines");
    }
    return {};
}

class LabelStyleKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("label style"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Label styles"); }
    [[nodiscard]] bool startsFolded() const override { return true; }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        for (const ObjectId label : labels(derived.document, id))
            if (const auto* text = derive::Derived::in(derived.labels, label)) box.add(text->place);
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        for (const ObjectId label : labels(painter.document(), ref.object))
            if (!painter.texts(label))
                if (const auto* text = derive::Derived::in(painter.derived().labels, label))
                    painter.ring(text->place, 16, Qt::DotLine);
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& style = form.document().get<objects::LabelStyle>(id)->style;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        form.fact(QObject::tr("For"), kindWord(style.kind));
        const auto all = labels(form.document(), id);
        std::size_t out = 0;
        for (const ObjectId label : all) out += form.session().textsShown().leftOut.count(label);
        form.fact(QObject::tr("Labels"),
                  out == 0 ? QString::number(all.size())
                           : QObject::tr("%1, %2 of them without room in the plan").arg(all.size()).arg(out));
        form.typedEntry(QObject::tr("Height, mm"), text(formatExact(style.height)), [id](std::string typed) {
            return ofFigure(id, typed, [](annotate::LabelStyle& s, double v) { s.height = v; });
        });
        if (style.kind == annotate::LabelKind::Segment || style.kind == annotate::LabelKind::Curve)
            form.editCheck(QObject::tr("Tags for short sides"), style.tags, [id](bool on) {
                return operations::changeLabelStyle(id, [on](annotate::LabelStyle& s) { s.tags = on; });
            });
        for (std::size_t i = 0; i < style.lines.size(); ++i) line(form, id, i, style.lines[i]);
        form.heading(QObject::tr("Another line"));
        form.typedEntry(QObject::tr("Text"), {}, [id](std::string typed) { return ofLine(id, {}, typed); });
        QStringList fields;
        for (const auto f : annotate::fieldsOf(style.kind))
            fields << QStringLiteral("{") + text(std::string(annotate::fieldName(f))) + QStringLiteral("}");
        form.fact(QObject::tr("Fields"), fields.join(QStringLiteral(" ")));
    }

private:
    static std::vector<ObjectId> labels(const Document& document, ObjectId style) {
        std::vector<ObjectId> out;
        for (const ObjectId id : document.all<objects::Label>())
            if (document.get<objects::Label>(id)->style == style) out.push_back(id);
        return out;
    }
    static document::Edit ofFigure(ObjectId id, const std::string& typed,
                                   std::function<void(annotate::LabelStyle&, double)> set) {
        const auto value = parseNumber(typed, typed.find(',') != std::string::npos);
        return [=](const Document& d) -> Result<document::Edited> {
            if (!value) return badInput("'" + typed + "' is no figure");
            return operations::changeLabelStyle(id, [=](annotate::LabelStyle& s) { set(s, *value); })(d);
        };
    }
    /// A line as it was typed, in place of another one or at the end; what is emptied goes.
    static document::Edit ofLine(ObjectId id, std::optional<std::size_t> at, const std::string& typed) {
        return [=](const Document& d) -> Result<document::Edited> {
            const auto* style = d.get<objects::LabelStyle>(id);
            if (style == nullptr) return badInput("the style is gone");
            const auto& lines = style->style.lines;
            annotate::StyleLine before;
            if (at && *at < lines.size()) before = lines[*at];
            if (!at) before.stand = Stand::Below;
            auto line = annotate::parseStyleLine(typed, style->style.kind, before);
            if (!line) return tl::unexpected(line.error());
            return operations::changeLabelStyle(id, [&](annotate::LabelStyle& s) {
                if (!at)
                    s.lines.push_back(*line);
                else if (line->fields.empty())
                    s.lines.erase(s.lines.begin() + static_cast<std::ptrdiff_t>(*at));
                else
                    s.lines[*at] = *line;
            })(d);
        };
    }
    static void line(FactsForm& form, ObjectId id, std::size_t i, const annotate::StyleLine& line) {
        form.heading(QObject::tr("Line %1").arg(i + 1));
        form.typedEntry(QObject::tr("Text"), text(annotate::styleLineText(line)),
                        [=](std::string typed) { return ofLine(id, i, typed); });
        form.choice(QObject::tr("Stands"),
                    {QObject::tr("above"), QObject::tr("in line"), QObject::tr("below")},
                    static_cast<int>(line.stand), [=](const Document& d, int k) {
                        return operations::changeLabelStyle(id, [=](annotate::LabelStyle& s) {
                            if (i < s.lines.size()) s.lines[i].stand = static_cast<Stand>(k);
                        })(d);
                    });
        form.typedEntry(QObject::tr("Off, mm"), text(formatExact(line.gap)), [=](std::string typed) {
            return ofFigure(id, typed, [i](annotate::LabelStyle& s, double v) {
                if (i < s.lines.size()) s.lines[i].gap = v;
            });
        });
        form.typedEntry(QObject::tr("Along, 0 to 1"), text(formatExact(line.along)), [=](std::string typed) {
            return ofFigure(id, typed, [i](annotate::LabelStyle& s, double v) {
                if (i < s.lines.size()) s.lines[i].along = v;
            });
        });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::LabelStyle>() {
    static const LabelStyleKind kind;
    return kind;
}

}  // namespace erdwerk::app
