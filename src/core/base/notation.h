#pragma once
// The trade's notation as typed in the prompt line, tables and facts: one grammar everywhere.
//
//   101.25            a height          +0.15, -0.15      a rise from the previous point
//   2%, -2%           a grade           3:1, -3:1, 1 in 3 a ratio, run to rise (kept as a grade)
//   =Ground           the height of a surface             =Ground+0.10, =Ground-0.10
//   N 45°30'20" E 35.20      a bearing and a distance     az 45.5056 35.20   an azimuth and a distance
//   due East 35.20
//   48010.5, 91020.25        a position (easting, northing), a third number is its height
//
// Degree, minute and second marks may be left out where spaces stand instead; letters may be small.

#include <optional>
#include <string>
#include <string_view>
#include <variant>

#include "core/base/display.h"
#include "core/base/quantity.h"
#include "core/base/result.h"

namespace erdwerk {

struct TypedHeight {
    double height = 0;
};
struct TypedRise {
    double rise = 0;
};
struct TypedGrade {
    Grade grade;
};
struct TypedSurface {
    std::string surface;  ///< name as typed; the caller looks it up
    double amount = 0;
};
using HeightEntry = std::variant<TypedHeight, TypedRise, TypedGrade, TypedSurface>;

struct TypedPosition {
    double easting = 0;
    double northing = 0;
    std::optional<double> height;
};
struct TypedCourse {
    Angle azimuth;
    double distance = 0;
};
using PlaceEntry = std::variant<TypedPosition, TypedCourse>;

/// A whole number or decimal, the entire text; `decimalComma` reads 1,5 as one and a half. No grouping, no
/// inf or nan.
std::optional<double> parseNumber(std::string_view text, bool decimalComma = false);

Result<HeightEntry> parseHeightEntry(std::string_view text);
/// Positions are read in the project's coordinate order.
Result<PlaceEntry> parsePlaceEntry(std::string_view text, const DisplaySettings& settings);
/// 1+234.5 (thousands), 12+34.5 (hundreds) or a plain number: with two or three digits behind the plus they
/// say it themselves, else the settings do.
Result<double> parseStation(std::string_view text, const DisplaySettings& settings);
/// Degrees, minutes, seconds in any of the forms above, or decimal degrees.
std::optional<Angle> parseAngle(std::string_view text);

std::string_view trimmed(std::string_view text);

}  // namespace erdwerk
