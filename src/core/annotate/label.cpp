#include "core/annotate/label.h"

#include <cmath>
#include <numbers>

namespace erdwerk::annotate {

std::string_view kindName(LabelKind kind) {
    switch (kind) {
        case LabelKind::Curve:
            return "curve";
        case LabelKind::Point:
            return "point";
        case LabelKind::Segment:
            break;
    }
    return "segment";
}

std::string_view fieldName(Field field) {
    switch (field) {
        case Field::Direction:
            return "direction";
        case Field::Distance:
            return "distance";
        case Field::Radius:
            return "radius";
        case Field::Delta:
            return "delta";
        case Field::ArcLength:
            return "arc length";
        case Field::Chord:
            return "chord";
        case Field::ChordDirection:
            return "chord direction";
        case Field::Number:
            return "number";
        case Field::Northing:
            return "northing";
        case Field::Easting:
            return "easting";
        case Field::Height:
            return "height";
        case Field::Code:
            break;
    }
    return "code";
}

const std::vector<Field>& fieldsOf(LabelKind kind) {
    static const std::vector<Field> segment{Field::Direction, Field::Distance};
    static const std::vector<Field> curve{Field::Radius, Field::Delta, Field::ArcLength, Field::Chord,
                                          Field::ChordDirection};
    static const std::vector<Field> point{Field::Number, Field::Northing, Field::Easting, Field::Height,
                                          Field::Code};
    switch (kind) {
        case LabelKind::Curve:
            return curve;
        case LabelKind::Point:
            return point;
        case LabelKind::Segment:
            break;
    }
    return segment;
}

LabelStyle defaultStyle(LabelKind kind) {
    switch (kind) {
        case LabelKind::Curve:
            return {kind,
                    {{Field::Radius, "R ", 2, true},
                     {Field::Delta, "Δ ", 0, true},
                     {Field::ArcLength, "L ", 2, false},
                     {Field::Chord, "C ", 2, false}}};
        case LabelKind::Point:
            return {kind,
                    {{Field::Number, "", 0, true},
                     {Field::Northing, "N ", 3, false},
                     {Field::Easting, "E ", 3, false},
                     {Field::Height, "H ", 2, false}}};
        case LabelKind::Segment:
            break;
    }
    return {LabelKind::Segment, {{Field::Direction, "", 0, true}, {Field::Distance, "", 2, false}}};
}

Angle upright(Angle direction) {
    constexpr double pi = std::numbers::pi;
    const double a = direction.normalized().radians();
    return a > pi + 1e-9 || a < 1e-9 ? Angle::radians(a + pi).normalized() : Angle::radians(a);
}

namespace {

template <class Value>
void fill(LabelText& label, const LabelStyle& style, const Value& value) {
    for (const StyleField& f : style.fields) {
        const std::string text = value(f);
        if (text.empty()) continue;
        std::string& side = f.above ? label.above : label.below;
        if (!side.empty()) side += "  ";
        side += f.prefix + text;
    }
}

std::string direction(Angle azimuth, const StyleField& f, const DisplaySettings& display) {
    if (display.direction == DirectionStyle::Bearing && display.angleUnit == AngleUnit::DegreesMinutesSeconds)
        return formatBearing(azimuth, f.decimals);
    return formatDirection(azimuth, display);
}

}  // namespace

LabelText labelSegment(const geometry::Segment& segment, const LabelStyle& style,
                       const DisplaySettings& display) {
    LabelText out;
    out.place = pointAt(segment, 0.5);
    out.direction = upright(tangentAt(segment, 0.5));
    const auto arc = arcOf(segment);
    const Angle chord = geometry::azimuth(segment.start, segment.end);
    fill(out, style, [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Direction:
            case Field::ChordDirection:
                return direction(chord, f, display);
            case Field::Distance:
                return formatFixed(lengthOf(segment), f.decimals);
            case Field::Radius:
                return arc ? formatFixed(arc->radius, f.decimals) : "";
            case Field::Delta:
                return arc ? formatAngle(Angle::radians(std::abs(arc->sweep.radians())), display.angleUnit,
                                         f.decimals)
                           : "";
            case Field::ArcLength:
                return arc ? formatFixed(lengthOf(segment), f.decimals) : "";
            case Field::Chord:
                return formatFixed(geometry::distance(segment.start, segment.end), f.decimals);
            default:
                return "";
        }
    });
    return out;
}

LabelText labelPoint(const survey::SurveyPoint& point, const LabelStyle& style,
                     const DisplaySettings& display) {
    LabelText out;
    out.place = point.plan;
    out.direction = Angle::degrees(90);
    const bool swap = display.order == CoordinateOrder::EastingNorthing;
    LabelStyle ordered = style;
    if (swap) {
        // The project's coordinate order holds in labels too when both stand on one side.
        auto& fs = ordered.fields;
        for (std::size_t i = 0; i + 1 < fs.size(); ++i)
            if (fs[i].field == Field::Northing && fs[i + 1].field == Field::Easting)
                std::swap(fs[i], fs[i + 1]);
    }
    fill(out, ordered, [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Number:
                return point.number;
            case Field::Northing:
                return formatFixed(point.plan.y, f.decimals);
            case Field::Easting:
                return formatFixed(point.plan.x, f.decimals);
            case Field::Height:
                return point.height ? formatFixed(*point.height, f.decimals) : "no height";
            case Field::Code:
                return point.code;
            default:
                return "";
        }
    });
    return out;
}

}  // namespace erdwerk::annotate
