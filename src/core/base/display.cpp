#include "core/base/display.h"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <cstdint>

namespace erdwerk {

std::string_view unitSymbol(LengthUnit unit) {
    switch (unit) {
        case LengthUnit::InternationalFoot:
            return "ft";
        case LengthUnit::UsSurveyFoot:
            return "ftUS";
        case LengthUnit::Metre:
            break;
    }
    return "m";
}

std::optional<LengthUnit> unitFromSymbol(std::string_view symbol) {
    if (symbol == "m") return LengthUnit::Metre;
    if (symbol == "ft") return LengthUnit::InternationalFoot;
    if (symbol == "ftUS") return LengthUnit::UsSurveyFoot;
    return std::nullopt;
}

std::string formatFixed(double value, int decimals) {
    // printf rounds the binary value; a half that is stored a hair below (2.675) is nudged up as people
    // expect.
    const double scale = std::pow(10.0, decimals);
    const double scaled = value * scale;
    if (std::abs(scaled) < 1e15) {
        const double rounded = std::round(scaled + std::copysign(std::abs(scaled) * 4e-16, scaled));
        if (rounded == 0) return fmt::format("{:.{}f}", 0.0, decimals);
        value = rounded / scale;
    }
    return fmt::format("{:.{}f}", value, decimals);
}

std::string formatExact(double value) {
    std::array<char, 64> buffer{};
    const auto end =
        std::to_chars(buffer.data(), buffer.data() + buffer.size(), value == 0 ? 0.0 : value).ptr;
    return {buffer.data(), end};
}

std::string formatLength(double value, const DisplaySettings& settings) {
    return formatFixed(value, settings.lengthDecimals) + " " + std::string(unitSymbol(settings.unit));
}

std::string formatHeight(const std::optional<double>& height, const DisplaySettings& settings) {
    return height ? formatFixed(*height, settings.heightDecimals) : std::string("–");
}

std::string formatRise(double rise, const DisplaySettings& settings) {
    const std::string text = formatFixed(rise, settings.heightDecimals);
    return (text.front() == '-' ? "" : "+") + text;
}

std::string formatGrade(Grade grade, const DisplaySettings& settings) {
    return formatFixed(grade.percent(), settings.gradeDecimals) + "%";
}

std::string formatRatio(Grade grade) {
    const double slope = grade.riseOverRun();
    const double run = 1 / std::abs(slope);
    if (!(run < 99999.5)) return "level";
    std::string text = formatFixed(run, run < 10 ? 2 : (run < 100 ? 1 : 0));
    if (text.find('.') != std::string::npos) {
        text.erase(text.find_last_not_of('0') + 1);
        if (text.back() == '.') text.pop_back();
    }
    return (slope < 0 ? "-" : "") + text + ":1";
}

std::string formatStation(double station, const DisplaySettings& settings) {
    const int digits = settings.station == StationStyle::Thousands ? 3 : 2;
    const auto block = static_cast<std::int64_t>(std::pow(10, digits));
    const int decimals = settings.lengthDecimals;
    const auto unitsPerOne = static_cast<std::int64_t>(std::pow(10, decimals));
    const auto total =
        static_cast<std::int64_t>(std::llround(std::abs(station) * static_cast<double>(unitsPerOne)));
    const std::int64_t whole = total / unitsPerOne;
    const std::int64_t part = total % unitsPerOne;
    std::string out = station < 0 && total != 0 ? "-" : "";
    out += fmt::format("{}+{:0{}}", whole / block, whole % block, digits);
    if (decimals > 0) out += fmt::format(".{:0{}}", part, decimals);
    return out;
}

namespace {

/// How many of the last part there are in a degree.
std::int64_t perDegree(const AngleFormat& format) {
    const std::int64_t parts = format.parts == AngleParts::Seconds   ? 3600
                               : format.parts == AngleParts::Minutes ? 60
                                                                     : 1;
    return parts * static_cast<std::int64_t>(std::pow(10, format.decimals));
}

/// A whole number of the last part, with its decimals.
std::string lastPart(std::int64_t value, int decimals, int digits) {
    const auto unit = static_cast<std::int64_t>(std::pow(10, decimals));
    std::string out = fmt::format("{:0{}}", value / unit, digits);
    if (decimals > 0) out += fmt::format(".{:0{}}", value % unit, decimals);
    return out;
}

std::string inDegrees(double degrees, const AngleFormat& format, int digits) {
    const std::int64_t scale = perDegree(format);
    const std::int64_t total = std::llround(std::abs(degrees) * static_cast<double>(scale));
    const auto unit = static_cast<std::int64_t>(std::pow(10, format.decimals));
    const int width = format.leadingZeros ? digits : 1;
    std::string out;
    if (format.parts == AngleParts::Degrees) {
        out = lastPart(total, format.decimals, width) + "°";
    } else {
        out = fmt::format("{:0{}}°", total / scale, width);
        const std::int64_t rest = total % scale;
        if (format.parts == AngleParts::Minutes)
            out += lastPart(rest, format.decimals, 2) + "'";
        else
            out += fmt::format("{:02}'", rest / (60 * unit)) +
                   lastPart(rest % (60 * unit), format.decimals, 2) + "\"";
    }
    return (degrees < 0 && total != 0 ? "-" : "") + out;
}

}  // namespace

std::string formatAngle(Angle angle, AngleUnit unit, const AngleFormat& format, int digits) {
    switch (unit) {
        case AngleUnit::DecimalDegrees:
            return formatFixed(angle.degrees(), 4 + format.decimals) + "°";
        case AngleUnit::Gon:
            return formatFixed(angle.gon(), 4 + format.decimals) + " gon";
        case AngleUnit::DegreesMinutesSeconds:
            break;
    }
    return inDegrees(angle.degrees(), format, digits);
}

std::string formatAngle(Angle angle, AngleUnit unit, int secondDecimals) {
    return formatAngle(angle, unit, AngleFormat{secondDecimals});
}

std::string formatBearing(Angle azimuth, const AngleFormat& format) {
    const auto scale = static_cast<double>(perDegree(format));
    double degrees = std::round(azimuth.normalized().degrees() * scale) / scale;
    if (degrees >= 360.0) degrees -= 360.0;
    // The four winds have no quadrant.
    static constexpr std::array<const char*, 4> winds{"due North", "due East", "due South", "due West"};
    for (std::size_t quarter = 0; quarter < winds.size(); ++quarter)
        if (degrees == 90.0 * static_cast<double>(quarter)) return winds[quarter];
    if (degrees <= 90) return "N " + inDegrees(degrees, format, 2) + " E";
    if (degrees <= 180) return "S " + inDegrees(180 - degrees, format, 2) + " E";
    if (degrees < 270) return "S " + inDegrees(degrees - 180, format, 2) + " W";
    return "N " + inDegrees(360 - degrees, format, 2) + " W";
}

std::string formatBearing(Angle azimuth, int secondDecimals) {
    return formatBearing(azimuth, AngleFormat{secondDecimals});
}

std::string formatDirection(Angle azimuth, const DisplaySettings& settings, const AngleFormat& format) {
    const AngleUnit unit = settings.angleUnit;
    if (settings.direction == DirectionStyle::Azimuth) {
        // What rounds up to a whole turn is north.
        const std::string text = formatAngle(azimuth.normalized(), unit, format, 3);
        const bool whole = text == formatAngle(Angle::degrees(360), unit, format, 3);
        return whole ? formatAngle(Angle::degrees(0), unit, format, 3) : text;
    }
    if (unit == AngleUnit::DegreesMinutesSeconds) return formatBearing(azimuth, format);
    const double degrees = azimuth.normalized().degrees();
    const bool south = degrees > 90 && degrees < 270;
    const bool west = degrees > 180;
    const double acute = south ? std::abs(180 - degrees) : (west ? 360 - degrees : degrees);
    return fmt::format("{} {} {}", south ? "S" : "N", formatAngle(Angle::degrees(acute), unit, format),
                       west ? "W" : "E");
}

std::string formatDirection(Angle azimuth, const DisplaySettings& settings) {
    return formatDirection(azimuth, settings, AngleFormat{});
}

std::string formatPosition(double easting, double northing, const DisplaySettings& settings) {
    const std::string e = "E " + formatFixed(easting, settings.lengthDecimals);
    const std::string n = "N " + formatFixed(northing, settings.lengthDecimals);
    return settings.order == CoordinateOrder::EastingNorthing ? e + "  " + n : n + "  " + e;
}

std::string formatArea(double area, const DisplaySettings& settings) {
    if (settings.unit == LengthUnit::Metre) return formatFixed(area, 2) + " m²";
    return fmt::format("{} sq {} ({} acres)", formatFixed(area, 1), unitSymbol(settings.unit),
                       formatFixed(area / areaPerLargeUnit(settings.unit), 4));
}

double areaPerLargeUnit(LengthUnit unit) {
    return unit == LengthUnit::Metre ? 10'000.0 : 43'560.0;
}

double roundStep(double least) {
    const double power = std::pow(10, std::floor(std::log10(std::max(least, 1e-9))));
    for (const double f : {1.0, 2.0, 5.0})
        if (f * power >= least) return f * power;
    return 10 * power;
}

}  // namespace erdwerk
