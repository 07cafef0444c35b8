#pragma once
// How figures are written for people: the project's display settings, and the functions that apply them.

#include <optional>
#include <string>
#include <string_view>

#include "core/base/quantity.h"

namespace erdwerk {

enum class DirectionStyle { Bearing, Azimuth };
enum class AngleUnit { DegreesMinutesSeconds, DecimalDegrees, Gon };
enum class StationStyle { Thousands, Hundreds };  ///< 1+234.50 or 12+34.50
enum class CoordinateOrder { EastingNorthing, NorthingEasting };

/// Part of the document, so that a change of display is an edit like any other.
struct DisplaySettings {
    LengthUnit unit = LengthUnit::Metre;
    DirectionStyle direction = DirectionStyle::Bearing;
    AngleUnit angleUnit = AngleUnit::DegreesMinutesSeconds;
    StationStyle station = StationStyle::Thousands;
    CoordinateOrder order = CoordinateOrder::EastingNorthing;
    int lengthDecimals = 2;
    int heightDecimals = 2;
    int gradeDecimals = 2;
    friend bool operator==(const DisplaySettings&, const DisplaySettings&) = default;
};

/// "m", "ft" or "ftUS".
std::string_view unitSymbol(LengthUnit unit);
std::optional<LengthUnit> unitFromSymbol(std::string_view symbol);

/// Fixed decimals, rounded half away from zero, and never "-0.00".
std::string formatFixed(double value, int decimals);
/// The shortest text that reads back as the same double.
std::string formatExact(double value);
std::string formatLength(double value, const DisplaySettings& settings);
std::string formatHeight(const std::optional<double>& height, const DisplaySettings& settings);
/// With its sign, in the decimals of heights: "+0.15".
std::string formatRise(double rise, const DisplaySettings& settings);
std::string formatGrade(Grade grade, const DisplaySettings& settings);
/// Run to rise, falling with a minus: "3:1", "-12.5:1"; two decimals below 10, one below 100, no zeros
/// behind; "level" where the run would be above 99 999.
std::string formatRatio(Grade grade);
/// Station along an alignment, e.g. 0+125.00; a negative station has a leading minus.
std::string formatStation(double station, const DisplaySettings& settings);
/// A turn (delta) in the project's angle unit: 45°30'20", 45.5056° or 50.5617 gon.
std::string formatAngle(Angle angle, AngleUnit unit, int secondDecimals = 0);
/// How far an angle in degrees is written out, and whether its degrees have two digits.
enum class AngleParts { Seconds, Minutes, Degrees };
struct AngleFormat {
    int decimals = 0;  ///< of the last part; decimal degrees and gon have four more
    AngleParts parts = AngleParts::Seconds;
    bool leadingZeros = false;  ///< 05°03'09", and 005° of an azimuth; else 5°03'09"
};
/// Quadrant bearing with seconds, e.g. N 45°30'20" E, or "due East" where there is no quadrant. Rounding
/// carries over, so 59.6" never shows as 60".
std::string formatBearing(Angle azimuth, const AngleFormat& format);
std::string formatBearing(Angle azimuth, int secondDecimals = 0);
/// The same of a turn or an azimuth: `digits` of its degrees with leading zeros.
std::string formatAngle(Angle angle, AngleUnit unit, const AngleFormat& format, int digits = 2);
/// A direction in the project's style: bearing, or azimuth in the project's angle unit.
std::string formatDirection(Angle azimuth, const DisplaySettings& settings, const AngleFormat& format);
std::string formatDirection(Angle azimuth, const DisplaySettings& settings);
/// Both coordinates in the project's order, with E and N written before them.
std::string formatPosition(double easting, double northing, const DisplaySettings& settings);
/// "1 234.56 m²", with acres added for feet.
std::string formatArea(double area, const DisplaySettings& settings);
/// Square units in a hectare, or in an acre where the unit is a foot.
double areaPerLargeUnit(LengthUnit unit);
/// A round number for grids, bars and cells that is at least `least`: 1, 2 or 5 times a power of ten.
double roundStep(double least);

}  // namespace erdwerk
