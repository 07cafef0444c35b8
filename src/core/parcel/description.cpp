#include "core/parcel/description.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

#include "core/parcel/called_figure.h"
#include "core/parcel/sentence.h"

namespace erdwerk::parcel {

namespace {

bool has(const std::string& sentence, std::string_view field) {
    const auto pieces = validPieces(sentence);
    return std::any_of(pieces.begin(), pieces.end(),
                       [&](const SentencePiece& p) { return p.field && p.field->name == field; });
}

/// Spelled parts of a quadrant bearing or a turn.
std::string inFull(const std::string& figure) {
    std::string out;
    for (std::size_t i = 0; i < figure.size(); ++i) {
        if (figure.compare(i, 2, "°") == 0) {
            out += " degrees ";
            ++i;
        } else if (figure[i] == '\'') {
            out += " minutes ";
        } else if (figure[i] == '"') {
            out += " seconds";
        } else if (figure[i] == 'N' && out.empty()) {
            out += "North";
        } else if (figure[i] == 'S' && out.empty()) {
            out += "South";
        } else if (figure[i] == 'E' && i + 1 == figure.size()) {
            out += "East";
        } else if (figure[i] == 'W' && i + 1 == figure.size()) {
            out += "West";
        } else {
            out += figure[i];
        }
    }
    return out;
}

/// How fields without decimals are written.
struct Auto {
    int length = 2;
    int seconds = 0;
};

class Writer {
public:
    Writer(const DescriptionTemplate& wording, const DescriptionOrder& order, Auto decimals)
        : wording_(wording), order_(order), auto_(decimals) {}

    using Values = std::function<std::string(const SentenceField&)>;

    [[nodiscard]] std::string filled(const std::string& sentence, const Values& values) const {
        std::string out;
        for (const auto& piece : validPieces(sentence))
            out += piece.field ? values(*piece.field) : piece.text;
        return out;
    }

    [[nodiscard]] std::string lengthText(double value, const SentenceField& field) const {
        const LengthUnit unit = field.unit.value_or(order_.display.unit);
        return formatFixed(convertLength(value, order_.display.unit, unit),
                           field.decimals.value_or(auto_.length));
    }

    [[nodiscard]] AngleFormat angleFormat(const SentenceField& field) const {
        return {field.decimals.value_or(auto_.seconds), AngleParts::Seconds, field.zeros};
    }

    [[nodiscard]] std::string directionText(Angle azimuth, const SentenceField& field) const {
        DisplaySettings display = order_.display;
        if (field.name.ends_with("earing")) display.direction = DirectionStyle::Bearing;
        if (field.name.ends_with("zimuth")) display.direction = DirectionStyle::Azimuth;
        const std::string text = formatDirection(azimuth, display, angleFormat(field));
        return field.words ? inFull(text) : text;
    }

    /// Everything of a course but along and to.
    [[nodiscard]] std::string courseValue(const Course& c, const SentenceField& field) const {
        if (field.name == "side") return c.right ? "right" : "left";
        if (field.name == "radius") return lengthText(c.radius, field);
        if (field.name == "arcLength") return lengthText(c.arcLength, field);
        if (field.name == "distance" || field.name == "chord") return lengthText(c.distance, field);
        if (field.name == "delta") {
            const std::string text = formatAngle(c.delta, order_.display.angleUnit, angleFormat(field));
            return field.words ? inFull(text) : text;
        }
        return directionText(c.azimuth, field);
    }

    [[nodiscard]] const std::string& sentenceOf(const Course& c) const {
        return !c.isCurve ? wording_.line : c.tangent ? wording_.curveTangent : wording_.curveNonTangent;
    }

    /// `before`: what the course before runs along.
    [[nodiscard]] std::string course(const Course& c, const SideNames& names, const std::string& before,
                                     bool running) const {
        std::string along;
        if (!before.empty() && names.along != before)
            along += filled(wording_.leaving, [&](const SentenceField&) { return before; });
        if (!names.along.empty())
            along += filled(wording_.along, [&](const SentenceField&) { return names.along; });
        std::string to = names.to.empty()
                             ? std::string()
                             : filled(wording_.to, [&](const SentenceField&) { return names.to; });
        const std::string& sentence = sentenceOf(c);
        std::string out = filled(sentence, [&](const SentenceField& field) {
            if (field.name == "along") return along;
            if (field.name == "to") return to;
            return courseValue(c, field);
        });
        if (!has(sentence, "along")) out.insert(0, along);
        if (!has(sentence, "to")) out += to;
        return running ? "thence " + out : out;
    }

    [[nodiscard]] std::string placeValue(geometry::Vec2 at, const SentenceField& field) const {
        if (field.name == "position") {
            DisplaySettings display = order_.display;
            display.lengthDecimals = field.decimals.value_or(auto_.length);
            return formatPosition(at.x, at.y, display);
        }
        const std::string e = lengthText(at.x, field);
        return field.name == "easting" ? e : lengthText(at.y, field);
    }

    [[nodiscard]] std::string beginning(geometry::Vec2 at) const {
        std::string name = order_.beginning.empty() ? "a point" : order_.beginning;
        const auto values = [&](const SentenceField& field) -> std::string {
            if (field.name == "beginning") return name;
            if (field.name == "from") return order_.tie->from.empty() ? "a point" : order_.tie->from;
            if (field.name == "tie") return tie();
            return placeValue(at, field);
        };
        if (!order_.tie) return filled(wording_.beginning, values);
        std::string out = filled(wording_.commence, values);
        if (has(wording_.commence, "tie")) return out;
        return out + "; " + tie() + "; " + filled(wording_.beginning, values);
    }

    [[nodiscard]] std::string tie() const {
        std::string out;
        for (const Course& c : order_.tie->courses)
            out += (out.empty() ? "" : "; ") + course(c, {}, {}, true);
        return out;
    }

    [[nodiscard]] std::string area(double squareUnits) const {
        std::vector<std::string> units = order_.areaUnits;
        if (units.empty())
            units = order_.display.unit == LengthUnit::Metre ? std::vector<std::string>{"m2", "ha"}
                                                             : std::vector<std::string>{"ft2", "acre"};
        std::string out;
        for (std::size_t i = 0; i < units.size(); ++i) {
            const std::string one = areaWords(squareUnits, order_.display.unit, units[i]).value_or("");
            out += i == 0 ? one : (i == 1 ? " (" : ", ") + one;
        }
        return units.size() > 1 ? out + ")" : out;
    }

private:
    const DescriptionTemplate& wording_;
    const DescriptionOrder& order_;
    Auto auto_;
};

/// The figure of a field as a reader of the text has it.
CalledFigure rounded(double value, double perUnit, int decimals) {
    const double scale = std::pow(10.0, decimals) * perUnit;
    return {std::round(value * scale) / scale, 0.5 / scale, {}};
}

/// A course as its sentence calls it.
CalledCourse calledBy(const Course& c, const std::string& sentence, const DescriptionOrder& order,
                      Auto decimals) {
    CalledCourse out;
    out.isCurve = c.isCurve;
    out.right = c.right;
    out.tangent = c.tangent;
    for (const auto& piece : validPieces(sentence)) {
        if (!piece.field) continue;
        const SentenceField& f = *piece.field;
        const double perUnit = f.unit ? metresPer(order.display.unit) / metresPer(*f.unit) : 1.0;
        const auto length = [&](double v) {
            return rounded(v, perUnit, f.decimals.value_or(decimals.length));
        };
        const auto angle = [&](Angle a) {
            const bool parts = order.display.angleUnit == AngleUnit::DegreesMinutesSeconds;
            const double perRadian =
                order.display.angleUnit == AngleUnit::Gon ? 200 / std::numbers::pi : 180 / std::numbers::pi;
            const int digits = f.decimals.value_or(decimals.seconds);
            return parts ? rounded(a.radians(), perRadian * 3600, digits)
                         : rounded(a.radians(), perRadian, digits + 4);
        };
        // The first that is called counts: feet beside metres say the same.
        const auto give = [&](std::optional<CalledFigure>& to, const CalledFigure& figure) {
            if (!to) to = figure;
        };
        if (f.name == "radius")
            give(out.radius, length(c.radius));
        else if (f.name == "delta")
            give(out.delta, angle(c.delta));
        else if (f.name == "arcLength")
            give(out.arcLength, length(c.arcLength));
        else if (f.name == "distance" || f.name == "chord")
            give(out.distance, length(c.distance));
        else if (f.name != "side" && f.name != "along" && f.name != "to")
            give(out.azimuth, angle(c.azimuth.normalized()));
    }
    return out;
}

Closure roundedClosure(const ParcelGeometry& parcel, const Writer& writer, const DescriptionOrder& order,
                       Auto decimals) {
    ReadDescription read;
    read.unit = calledUnitOf(order.display.unit);
    for (const Course& c : parcel.courses)
        read.courses.push_back(calledBy(c, writer.sentenceOf(c), order, decimals));
    return shapeOf(drawnCourses(read)).geometry.closure;
}

std::vector<DescriptionPart> partsOf(const ParcelGeometry& parcel, const DescriptionTemplate& wording,
                                     const DescriptionOrder& order, const Writer& writer) {
    using Kind = DescriptionPart::Kind;
    std::vector<DescriptionPart> out;
    const auto& courses = parcel.courses;
    if (!order.name.empty() && !wording.opening.empty())
        out.push_back({Kind::Opening, 0,
                       writer.filled(wording.opening, [&](const SentenceField&) { return order.name; })});
    out.push_back({Kind::Beginning, 0, writer.beginning(courses.front().start)});
    const bool list = !wording.listOpening.empty() && courses.size() > 1;
    if (list)
        out.push_back({Kind::ListOpening, 0, writer.filled(wording.listOpening, [&](const SentenceField& f) {
                           return f.name == "count" ? std::to_string(courses.size())
                                                    : countWords(courses.size());
                       })});
    const bool closes = parcel.closure.closes(order.display.unit);
    std::string before;
    for (std::size_t i = 0; i < courses.size(); ++i) {
        const SideNames names = i < order.names.size() ? order.names[i] : SideNames{};
        std::string text = list ? "(" + std::to_string(i + 1) + ") " : "";
        text += writer.course(courses[i], names, before, !list);
        before = names.along;
        if (i + 1 == courses.size() && closes)
            text += writer.filled(wording.closing, [&](const SentenceField&) {
                return order.beginning.empty() ? std::string("the point of beginning") : order.beginning;
            });
        out.push_back({Kind::Course, i, std::move(text)});
    }
    if (!wording.area.empty())
        out.push_back({Kind::Area, 0, writer.filled(wording.area, [&](const SentenceField&) {
                           return writer.area(parcel.area);
                       })});
    if (!closes)
        out.push_back({Kind::Note, 0,
                       "The courses do not close: from the end of the last, the point of beginning lies " +
                           formatBearing(*parcel.closure.azimuth) + ", " +
                           formatFixed(parcel.closure.distance, 3) + " away."});
    return out;
}

}  // namespace

Result<Description> written(const ParcelGeometry& parcel, const DescriptionTemplate& wording,
                            const DescriptionOrder& order) {
    if (auto good = validate(wording); !good) return tl::unexpected(good.error());
    Description out;
    if (parcel.courses.empty()) return out;
    // As many decimals as it takes to close; the last try stands when none does.
    constexpr std::array<Auto, 4> tries{{{2, 0}, {3, 0}, {3, 1}, {4, 2}}};
    Auto decimals = tries.front();
    for (const Auto& next : tries) {
        const Closure closure = roundedClosure(parcel, Writer(wording, order, next), order, next);
        const bool better = &next == tries.data() || closure.distance < out.rounded.distance;
        if (better) {
            out.rounded = closure;
            decimals = next;
        }
        if (closure.distance <= order.closeWithin) break;
    }
    out.lengthDecimals = decimals.length;
    out.secondDecimals = decimals.seconds;
    out.parts = partsOf(parcel, wording, order, Writer(wording, order, decimals));
    out.text = wholeText(out.parts);
    return out;
}

std::string wholeText(const std::vector<DescriptionPart>& parts) {
    using Kind = DescriptionPart::Kind;
    std::string out;
    for (std::size_t i = 0; i < parts.size(); ++i) {
        const bool courseBefore =
            i > 0 && (parts[i - 1].kind == Kind::Course || parts[i - 1].kind == Kind::Beginning);
        if (i == 0 || parts[i].text.empty()) {
        } else if (parts[i].kind == Kind::Course && parts[i - 1].kind == Kind::ListOpening) {
            out += "\n";
        } else if (parts[i].kind == Kind::Course || parts[i].kind == Kind::ListOpening) {
            out += ";\n";
        } else {
            out += courseBefore ? ".\n\n" : "\n\n";
        }
        out += parts[i].text;
    }
    if (!parts.empty() && (parts.back().kind == Kind::Course || parts.back().kind == Kind::Beginning))
        out += ".";
    return out.empty() ? out : out + "\n";
}

}  // namespace erdwerk::parcel
