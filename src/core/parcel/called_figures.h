#pragma once
// The figures of a description: directions, angles, lengths, areas, each with its words and half of its last
// digit.

#include <optional>
#include <span>
#include <string>

#include "core/base/quantity.h"
#include "core/parcel/called_words.h"

namespace erdwerk::parcel {

/// Units of length that descriptions use.
enum class CalledUnit { Metre, Foot, SurveyFoot, Chain };
/// "m", "ft", "ftUS", "chain".
std::string_view unitName(CalledUnit unit);
std::optional<CalledUnit> calledUnitFrom(std::string_view name);
CalledUnit calledUnitOf(LengthUnit unit);
/// Exact: a chain is 66 international feet.
double metresPer(CalledUnit unit);

/// A figure as it is called: radians, a length, or an area; half of its last called digit in the same unit.
struct CalledFigure {
    double value = 0;
    double half = 0;
    TextRange words;
};

using Words = std::span<const CalledWord>;

/// What stands at a word, and past which word it ends.
struct FoundAngle {
    CalledFigure figure;
    std::size_t end = 0;
    bool marked = false;  ///< it is written as an angle: a sign, a word, dashes between its parts, gon
};
struct FoundLength {
    CalledFigure figure;             ///< in `unit`; where it has none, as it stands
    std::optional<CalledUnit> unit;  ///< that it is written with
    std::size_t end = 0;
};
struct FoundArea {
    CalledFigure figure;  ///< in squares of `unit`, or in hectares or acres
    std::string unit;     ///< "m2", "ha", "ft2", "acre"
    std::size_t end = 0;
};
/// A direction that is begun, and what stands in it if it can be read.
struct FoundDirection {
    std::optional<CalledFigure> figure;  ///< azimuth; nothing: half a bearing, or 61 minutes
    TextRange words;
    std::size_t end = 0;
    bool cardinal = false;  ///< "due North"
    bool bare = false;      ///< "bearing 45°30'20"": an azimuth only in a text without quadrants
};

/// 45°30'20", 45 degrees 30 minutes, 45-30-20, 45.5056°, 50.5617 gon; a bare number too.
std::optional<FoundAngle> angleAt(Words words, std::size_t at);
/// A quadrant bearing (N 45°30'20" E, South 5 degrees East), a cardinal direction ("due North"; "East" in
/// full), or an azimuth that is called so ("azimuth of 45°30'20"", "45°30' azimuth").
std::optional<FoundDirection> directionAt(Words words, std::size_t at);
/// 35.20 m, 35.20 feet, 35.20', 12 chains 35 links, 35.20 U.S. survey feet; a bare number too.
std::optional<FoundLength> lengthAt(Words words, std::size_t at);
/// 1,234.5 square metres, 0.5 acres, 1.2 ha, 1200 sq. ft., 850 m².
std::optional<FoundArea> areaAt(Words words, std::size_t at);

/// Azimuth of "north", "northeasterly", "southward", to an eighth of a turn.
std::optional<double> compassOf(std::string_view word);

/// Whether a word is one of a list divided by spaces.
bool oneOf(const CalledWord& word, std::string_view list);

}  // namespace erdwerk::parcel
