#include "app/kinds/label_layout.h"

#include <algorithm>

#include "app/base/theme.h"

namespace erdwerk::app {

using annotate::LabelKind;
using annotate::Vec2;

LabelLayout layoutOf(const annotate::LabelText& label, const PlanTexts& texts, const ViewTransform& view,
                     double unit) {
    LabelLayout out;
    const auto picture = [&](Vec2 ground) {
        const QPointF p = view.toPicture(ground);
        return Vec2{p.x(), p.y()};
    };
    out.at = picture(label.place);
    out.radius = label.kind == LabelKind::Area ? 0 : 3.5 * unit;
    if (!label.stretch.empty()) {
        for (const Vec2 p : geometry::flattened(label.stretch, 0.2 / view.scale))
            out.line.push_back(picture(p));
        // In a turned picture, as it is read there.
        if (view.isTurned() ? out.line.front().x > out.line.back().x : label.against)
            std::reverse(out.line.begin(), out.line.end());
    } else if (label.kind == LabelKind::Slope || label.kind == LabelKind::Contour) {
        // Along its arrow, or the contour, as long as its texts are.
        double length = 0;
        for (const auto& line : label.lines)
            length = std::max(
                length,
                texts.line({QString::fromStdString(line.text), pixelsOfCapitals(label.height), {}}).width);
        const QPointF along = view.wayOf(geometry::directionOf(label.direction));
        const double way = view.isTurned() && along.x() < 0 ? -1 : 1;
        const Vec2 half = Vec2{along.x(), along.y()} * (way * (length / 2 + 6 * unit));
        out.line = {out.at - half, out.at + half};
    }
    for (const auto& line : label.lines) {
        TextLook look{QString::fromStdString(line.text), pixelsOfCapitals(label.height), theme::ink};
        if (label.kind == LabelKind::Contour) {
            look.backing = TextBacking::Plate;
            look.strong = true;
            look.colour = theme::contourIndex.darker(125);
        }
        if (label.kind == LabelKind::Area) look.colour = theme::parcel;
        if (label.kind == LabelKind::Station) look.colour = theme::alignment;
        out.looks.push_back(look);
        out.texts.push_back(texts.line(look, line.stand, line.along, line.gap / millimetresPerPixel));
    }
    return out;
}

annotate::PlacedText placesOf(const annotate::LabelText& label, const LabelLayout& layout,
                              const ViewTransform& view, const std::optional<annotate::TextLine>& tag) {
    if (label.byHand) {
        const QPointF middle = view.toPicture(*label.byHand);
        return annotate::placeByHand(layout.at, {middle.x(), middle.y()}, layout.texts);
    }
    if (!layout.line.empty()) return annotate::placesAlong(layout.line, layout.texts, tag);
    return annotate::placesBeside(layout.at, layout.radius, layout.texts, true);
}

}  // namespace erdwerk::app
