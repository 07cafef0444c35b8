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

std::string degreesMinutesSeconds(double degrees, int secondDecimals) {
    const auto unit = static_cast<std::int64_t>(std::pow(10, secondDecimals));
    const auto total =
        static_cast<std::int64_t>(std::llround(std::abs(degrees) * 3600.0 * static_cast<double>(unit)));
    const std::int64_t seconds = total % (60 * unit);
    const std::int64_t minutes = (total / (60 * unit)) % 60;
    std::string out = fmt::format("{}°{:02}'", total / (3600 * unit), minutes);
    out += secondDecimals > 0 ? fmt::format("{:02}.{:0{}}\"", seconds / unit, seconds % unit, secondDecimals)
                              : fmt::format("{:02}\"", seconds);
    return (degrees < 0 && total != 0 ? "-" : "") + out;
}

}  // namespace

std::string formatAngle(Angle angle, AngleUnit unit, int secondDecimals) {
    switch (unit) {
        case AngleUnit::DecimalDegrees:
            return formatFixed(angle.degrees(), 4 + secondDecimals) + "°";
        case AngleUnit::Gon:
            return formatFixed(angle.gon(), 4 + secondDecimals) + " gon";
        case AngleUnit::DegreesMinutesSeconds:
            break;
    }
    return degreesMinutesSeconds(angle.degrees(), secondDecimals);
}

std::string formatBearing(Angle azimuth, int secondDecimals) {
    const double scale = 3600.0 * std::pow(10, secondDecimals);
    double degrees = std::round(azimuth.normalized().degrees() * scale) / scale;
    if (degrees >= 360.0) degrees -= 360.0;
    // The four winds have no quadrant.
    static constexpr std::array<const char*, 4> winds{"due North", "due East", "due South", "due West"};
    for (std::size_t quarter = 0; quarter < winds.size(); ++quarter)
        if (degrees == 90.0 * static_cast<double>(quarter)) return winds[quarter];
    if (degrees <= 90) return "N " + degreesMinutesSeconds(degrees, secondDecimals) + " E";
    if (degrees <= 180) return "S " + degreesMinutesSeconds(180 - degrees, secondDecimals) + " E";
    if (degrees < 270) return "S " + degreesMinutesSeconds(degrees - 180, secondDecimals) + " W";
    return "N " + degreesMinutesSeconds(360 - degrees, secondDecimals) + " W";
}

std::string formatDirection(Angle azimuth, const DisplaySettings& settings) {
    if (settings.direction == DirectionStyle::Azimuth)
        return formatAngle(azimuth.normalized(), settings.angleUnit);
    if (settings.angleUnit == AngleUnit::DegreesMinutesSeconds) return formatBearing(azimuth);
    const double degrees = azimuth.normalized().degrees();
    const bool south = degrees > 90 && degrees < 270;
    const bool west = degrees > 180;
    const double acute = south ? std::abs(180 - degrees) : (west ? 360 - degrees : degrees);
    return fmt::format("{} {} {}", south ? "S" : "N", formatAngle(Angle::degrees(acute), settings.angleUnit),
                       west ? "W" : "E");
}

std::string formatPosition(double easting, double northing, const DisplaySettings& settings) {
    const std::string e = "E " + formatFixed(easting, settings.lengthDecimals);
    const std::string n = "N " + formatFixed(northing, settings.lengthDecimals);
    return settings.order == CoordinateOrder::EastingNorthing ? e + "  " + n : n + "  " + e;
}

std::string formatArea(double area, const DisplaySettings& settings) {
    if (settings.unit == LengthUnit::Metre) return formatFixed(area, 2) + " m²";
    return fmt::format("{} sq {} ({} acres)", formatFixed(area, 1), unitSymbol(settings.unit),
                       formatFixed(area / 43560.0, 4));
}

double roundStep(double least) {
    const double power = std::pow(10, std::floor(std::log10(std::max(least, 1e-9))));
    for (const double f : {1.0, 2.0, 5.0})
        if (f * power >= least) return f * power;
    return 10 * power;
}

}  // namespace erdwerk
