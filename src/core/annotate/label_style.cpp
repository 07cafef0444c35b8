#include "core/annotate/label_style.h"

#include <algorithm>
#include <array>

namespace erdwerk::annotate {

namespace {

constexpr std::array<std::string_view, labelKinds> kindNames{
    "segment", "curve", "point", "station", "contour", "spot", "slope", "area", "control"};
constexpr std::array<std::string_view, 23> fieldNames{"direction", "distance",
                                                      "grade",     "ratio",
                                                      "rise",      "radius",
                                                      "delta",     "arc length",
                                                      "chord",     "chord direction",
                                                      "tangent",   "number",
                                                      "northing",  "easting",
                                                      "height",    "code",
                                                      "note",      "station",
                                                      "offset",    "name",
                                                      "area",      "hectares or acres",
                                                      "perimeter"};
static_assert(fieldNames.size() == static_cast<std::size_t>(Field::Perimeter) + 1);

StyleLine line(Stand stand, std::vector<StyleField> fields, double along = 0.5) {
    return {std::move(fields), stand, along, 1};
}

}  // namespace

std::string_view kindName(LabelKind kind) {
    return kindNames[static_cast<std::size_t>(kind)];
}

const std::vector<LabelKind>& allLabelKinds() {
    static const std::vector<LabelKind> all{LabelKind::Segment, LabelKind::Curve,   LabelKind::Point,
                                            LabelKind::Station, LabelKind::Contour, LabelKind::Spot,
                                            LabelKind::Slope,   LabelKind::Area,    LabelKind::Control};
    return all;
}

std::string_view fieldName(Field field) {
    return fieldNames[static_cast<std::size_t>(field)];
}

std::string_view standName(Stand stand) {
    return stand == Stand::Above ? "above" : stand == Stand::InLine ? "in line" : "below";
}

const std::vector<Field>& fieldsOf(LabelKind kind) {
    using enum Field;
    static const std::array<std::vector<Field>, labelKinds> fields{{
        {Direction, Distance, Grade, Ratio, Rise},
        {Radius, Delta, ArcLength, Chord, ChordDirection, Tangent, Grade},
        {Number, Northing, Easting, Height, Code, Note},
        {Station, Offset, Direction, Northing, Easting},
        {Height},
        {Height, Northing, Easting},
        {Grade, Ratio, Direction},
        {Name, Area, OtherArea, Perimeter},
        {Height, Grade, Ratio, Station, Name},
    }};
    return fields[static_cast<std::size_t>(kind)];
}

LabelStyle defaultStyle(LabelKind kind) {
    using enum Field;
    LabelStyle out{kind, {}};
    switch (kind) {
        case LabelKind::Segment:
            out.lines = {line(Stand::Above, {{Direction, "", "", 0}}), line(Stand::Below, {{Distance, ""}})};
            break;
        case LabelKind::Curve:
            out.lines = {line(Stand::Above, {{Radius, "R "}, {Delta, "Δ ", "", 0}}),
                         line(Stand::Below, {{ArcLength, "L "}, {Chord, "C "}})};
            break;
        case LabelKind::Point:
            out.lines = {
                line(Stand::Above, {{Number, "", "", 0}}, 1),
                line(Stand::Below, {{Northing, "N ", "", 3}, {Easting, "E ", "", 3}, {Height, "H "}}, 1)};
            break;
        case LabelKind::Station:
            out.lines = {line(Stand::Above, {{Station, ""}}, 1), line(Stand::Below, {{Offset, ""}}, 1)};
            break;
        case LabelKind::Contour:
            out.lines = {line(Stand::InLine, {{Height, "", "", 1}})};
            break;
        case LabelKind::Spot:
            out.lines = {line(Stand::InLine, {{Height, ""}}, 1)};
            break;
        case LabelKind::Slope:
            out.lines = {line(Stand::Above, {{Grade, "", "", 1}})};
            break;
        case LabelKind::Area:
            out.lines = {line(Stand::Above, {{Name, "", "", 0}}), line(Stand::Below, {{Area, ""}})};
            out.height = 2.4;
            break;
        case LabelKind::Control:
            out.lines = {line(Stand::Above, {{Height, ""}}, 1)};
            break;
    }
    return out;
}

Result<void> validate(const LabelStyle& style) {
    const auto& known = fieldsOf(style.kind);
    const std::string of = "a style for a " + std::string(kindName(style.kind));
    if (!(style.height >= 0.5 && style.height <= 50)) return badInput("texts are 0.5 to 50 mm high on paper");
    bool any = false;
    for (const auto& line : style.lines) {
        if (!(line.gap >= 0 && line.gap <= 100)) return badInput("a text stands 0 to 100 mm off on paper");
        if (!(line.along >= 0 && line.along <= 1)) return badInput("a place along is 0 to 1");
        for (const auto& f : line.fields) {
            any = true;
            if (std::find(known.begin(), known.end(), f.field) == known.end())
                return badInput(of + " has no '" + std::string(fieldName(f.field)) + "'");
            if (f.decimals < 0 || f.decimals > 9) return badInput("decimals are 0 to 9");
        }
    }
    if (!any) return badInput(of + " needs a field, or its labels would say nothing");
    return {};
}

}  // namespace erdwerk::annotate
