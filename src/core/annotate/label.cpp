#include "core/annotate/label.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

namespace erdwerk::annotate {

using geometry::Vec2;

std::string LabelText::above() const {
    std::string out;
    for (const auto& line : lines)
        if (line.stand == Stand::Above) out += (out.empty() ? "" : "  ") + line.text;
    return out;
}

std::string LabelText::below() const {
    std::string out;
    for (const auto& line : lines)
        if (line.stand != Stand::Above) out += (out.empty() ? "" : "  ") + line.text;
    return out;
}

Angle upright(Angle direction) {
    // What stands nearly upright is read from the right, as a plan is turned.
    constexpr double lean = Angle::degrees(10).radians();
    constexpr double pi = std::numbers::pi;
    const double a = direction.normalized().radians();
    const bool turned = a > pi - lean + 1e-9 && a <= 2 * pi - lean + 1e-9;
    return turned ? Angle::radians(a + pi).normalized() : Angle::radians(a);
}

namespace {

/// Words with fields in braces, piece by piece: text, or the name of a field.
struct Piece {
    std::string text;
    bool isField = false;
};

Result<std::vector<Piece>> piecesOf(const std::string& words) {
    std::vector<Piece> out;
    std::size_t at = 0;
    while (at < words.size()) {
        const std::size_t open = words.find('{', at);
        if (open != at) out.push_back({words.substr(at, open - at), false});
        if (open == std::string::npos) break;
        const std::size_t close = words.find('}', open);
        if (close == std::string::npos) return badInput("a brace is not closed in '" + words + "'");
        out.push_back({words.substr(open + 1, close - open - 1), true});
        at = close + 1;
    }
    return out;
}

std::optional<Field> fieldNamed(const std::string& name, LabelKind kind) {
    for (const Field f : fieldsOf(kind))
        if (fieldName(f) == name) return f;
    return std::nullopt;
}

/// What a field says; empty where the thing does not have it.
using Values = std::function<std::string(const StyleField&)>;

/// Texts of a label from its style or from words typed by hand.
class Writer {
public:
    Writer(const LabelWriting& how, const Values& values) : how_(how), values_(values) {}

    void write(LabelText& label) const {
        label.kind = how_.style.kind;
        label.height = how_.style.height;
        label.tags = how_.style.tags;
        if (!how_.words.empty()) return words(label);
        for (std::size_t i = 0; i < how_.style.lines.size(); ++i) {
            std::string text;
            for (const StyleField& f : fieldsIn(how_.style.lines[i])) {
                const std::string value = values_(f);
                if (value.empty()) continue;
                text += (text.empty() ? "" : "  ") + f.prefix + value + f.suffix;
            }
            add(label, std::move(text), i);
        }
    }

private:
    /// The project's order of coordinates holds in labels, too.
    [[nodiscard]] std::vector<StyleField> fieldsIn(const StyleLine& line) const {
        auto fields = line.fields;
        if (how_.display.order == CoordinateOrder::NorthingEasting) return fields;
        for (std::size_t i = 0; i + 1 < fields.size(); ++i)
            if (fields[i].field == Field::Northing && fields[i + 1].field == Field::Easting)
                std::swap(fields[i], fields[i + 1]);
        return fields;
    }
    void words(LabelText& label) const {
        std::size_t line = 0;
        std::size_t at = 0;
        while (at <= how_.words.size()) {
            const std::size_t end = std::min(how_.words.find('\n', at), how_.words.size());
            std::string text;
            if (const auto pieces = piecesOf(how_.words.substr(at, end - at)))
                for (const Piece& piece : *pieces) text += piece.isField ? field(piece.text) : piece.text;
            add(label, std::move(text), line++);
            at = end + 1;
        }
    }
    [[nodiscard]] std::string field(const std::string& name) const {
        const auto known = fieldNamed(name, how_.style.kind);
        if (!known) return "{" + name + "}";
        // Written as the style writes it, where it has that field.
        for (const auto& line : how_.style.lines)
            for (const auto& f : line.fields)
                if (f.field == *known) return values_(f);
        StyleField plain;
        plain.field = *known;
        return values_(plain);
    }
    void add(LabelText& label, std::string text, std::size_t i) const {
        if (text.empty()) return;
        const auto& lines = how_.style.lines;
        const StyleLine at = i < lines.size() ? lines[i] : (lines.empty() ? StyleLine{} : lines.back());
        label.lines.push_back({std::move(text), at.stand, at.along, at.gap, std::min(i, lines.size())});
    }

    const LabelWriting& how_;
    const Values& values_;
};

/// Without the 0 before the point where that is wished.
std::string figure(double value, const StyleField& f) {
    std::string text = formatFixed(value, f.decimals);
    if (f.leadingZeros) return text;
    const std::size_t digit = text.front() == '-' ? 1 : 0;
    if (text.size() > digit + 2 && text[digit] == '0' && text[digit + 1] == '.') text.erase(digit, 1);
    return text;
}

AngleFormat angleFormat(const StyleField& f) {
    return {f.decimals, static_cast<AngleParts>(f.seconds), f.leadingZeros};
}

std::string gradeText(std::optional<Grade> grade, const StyleField& f) {
    if (!grade) return {};
    if (f.field == Field::Ratio) return formatRatio(*grade);
    return figure(grade->percent(), f) + "%";
}

LabelText written(const LabelWriting& how, Vec2 place, const Values& values) {
    LabelText out;
    out.place = place;
    out.direction = Angle::degrees(90);
    Writer(how, values).write(out);
    return out;
}

}  // namespace

Result<void> checkWords(const std::string& words, LabelKind kind) {
    const auto pieces = piecesOf(words);
    if (!pieces) return tl::unexpected(pieces.error());
    for (const Piece& piece : *pieces) {
        if (!piece.isField || fieldNamed(piece.text, kind)) continue;
        std::string known;
        for (const Field f : fieldsOf(kind)) known += (known.empty() ? "" : ", ") + std::string(fieldName(f));
        return badInput("there is no field '" + piece.text + "' here; there are " + known);
    }
    return {};
}

LabelText labelSegment(const geometry::Segment& segment, const LabelWriting& how,
                       std::optional<double> startHeight, std::optional<double> endHeight) {
    const auto arc = arcOf(segment);
    const Angle chord = geometry::azimuth(segment.start, segment.end);
    const double length = lengthOf(segment);
    const bool known = startHeight && endHeight && length > 0;
    const auto grade =
        known ? std::optional(Grade::riseOverRun((*endHeight - *startHeight) / length)) : std::nullopt;
    const auto ofArc = [&](double value, const StyleField& f) { return arc ? figure(value, f) : ""; };
    LabelText out = written(how, pointAt(segment, 0.5), [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Direction:
            case Field::ChordDirection:
                return formatDirection(chord, how.display, angleFormat(f));
            case Field::Distance:
                return figure(length, f);
            case Field::Grade:
            case Field::Ratio:
                return gradeText(grade, f);
            case Field::Rise:
                return known ? (*endHeight >= *startHeight ? "+" : "") + figure(*endHeight - *startHeight, f)
                             : "";
            case Field::Radius:
                return ofArc(arc ? arc->radius : 0, f);
            case Field::Delta:
                return arc ? formatAngle(Angle::radians(std::abs(arc->sweep.radians())),
                                         how.display.angleUnit, angleFormat(f))
                           : "";
            case Field::ArcLength:
                return isCurved(segment) ? figure(length, f) : "";
            case Field::Chord:
                return figure(geometry::distance(segment.start, segment.end), f);
            case Field::Tangent: {
                // Beyond half a turn the tangents never meet.
                const double half = arc ? std::abs(arc->sweep.radians()) / 2 : 0;
                return half < std::numbers::pi / 2 - 1e-9 ? ofArc((arc ? arc->radius : 0) * std::tan(half), f)
                                                          : "";
            }
            default:
                return "";
        }
    });
    const Angle travel = tangentAt(segment, 0.5);
    out.direction = upright(travel);
    out.against = std::cos(out.direction.radians() - travel.radians()) < 0;
    out.stretch = {segment};
    return out;
}

LabelText labelPoint(const survey::SurveyPoint& point, const LabelWriting& how) {
    return written(how, point.plan, [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Number:
                return point.number;
            case Field::Northing:
                return figure(point.plan.y, f);
            case Field::Easting:
                return figure(point.plan.x, f);
            case Field::Height:
                return point.height ? figure(*point.height, f) : "no height";
            case Field::Code:
                return point.code;
            case Field::Note:
                return point.note;
            default:
                return "";
        }
    });
}

LabelText labelStation(Vec2 place, const StationFigures& figures, const LabelWriting& how) {
    return written(how, place, [&](const StyleField& f) -> std::string {
        DisplaySettings display = how.display;
        display.lengthDecimals = f.decimals;
        switch (f.field) {
            case Field::Station:
                return formatStation(figures.station, display);
            case Field::Offset:
                if (std::abs(figures.offset) < 0.5 * std::pow(10.0, -f.decimals)) return "";
                return figure(std::abs(figures.offset), f) + (figures.offset > 0 ? " right" : " left");
            case Field::Direction:
                return formatDirection(figures.direction, how.display, angleFormat(f));
            case Field::Northing:
                return figure(place.y, f);
            case Field::Easting:
                return figure(place.x, f);
            default:
                return "";
        }
    });
}

LabelText labelPlace(Vec2 place, double height, Vec2 gradient, const LabelWriting& how) {
    const Grade steepest = Grade::riseOverRun(geometry::length(gradient));
    const bool level = geometry::length(gradient) < 1e-9;
    const Angle down = level ? Angle::degrees(90) : geometry::azimuth({0, 0}, gradient * -1.0);
    LabelText out = written(how, place, [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Height:
                return figure(height, f);
            case Field::Northing:
                return figure(place.y, f);
            case Field::Easting:
                return figure(place.x, f);
            case Field::Grade:
                return level ? "level" : gradeText(steepest, f);
            case Field::Ratio:
                return level ? "level" : gradeText(steepest, f);
            case Field::Direction:
                return level ? "" : formatDirection(down, how.display, angleFormat(f));
            default:
                return "";
        }
    });
    if (level) return out;
    if (how.style.kind == LabelKind::Slope) {
        out.fall = down;
        out.direction = upright(down);
    }
    // The contour through a place runs across its fall.
    if (how.style.kind == LabelKind::Contour)
        out.direction = upright(Angle::radians(down.radians() + std::numbers::pi / 2));
    return out;
}

LabelText labelArea(Vec2 place, const AreaFigures& figures, const LabelWriting& how) {
    const bool metric = how.display.unit == LengthUnit::Metre;
    return written(how, place, [&](const StyleField& f) -> std::string {
        switch (f.field) {
            case Field::Name:
                return figures.name;
            case Field::Area:
                return figure(figures.area, f) +
                       (metric ? " m²" : " sq " + std::string(unitSymbol(how.display.unit)));
            case Field::OtherArea:
                return figure(figures.area / areaPerLargeUnit(how.display.unit), f) +
                       (metric ? " ha" : " acres");
            case Field::Perimeter:
                return figure(figures.perimeter, f);
            default:
                return "";
        }
    });
}

LabelText labelControl(Vec2 place, const ControlFigures& figures, const LabelWriting& how) {
    return written(how, place, [&](const StyleField& f) -> std::string {
        DisplaySettings display = how.display;
        display.lengthDecimals = f.decimals;
        switch (f.field) {
            case Field::Height:
                return figures.height ? figure(*figures.height, f) : "no height";
            case Field::Grade:
            case Field::Ratio:
                return gradeText(figures.next, f);
            case Field::Station:
                return formatStation(figures.distance, display);
            case Field::Name:
                return figures.line;
            default:
                return "";
        }
    });
}

}  // namespace erdwerk::annotate
