#pragma once
// What a description calls against what its own figures, or a parcel, say.

#include "core/parcel/called_figure.h"

namespace erdwerk::parcel {

enum class Disagreement {
    Missing,
    Extra,
    Bearing,
    Distance,
    Radius,
    Delta,
    ArcLength,
    Chord,
    Side,
    Tangent,
    Area
};
/// "missing", "extra", "bearing", "distance", "radius", "delta", "arcLength", "chord", "side", "tangent",
/// "area".
std::string_view disagreementName(Disagreement what);

struct TextDifference {
    std::size_t course = 0;  ///< from 1, in the order of the text; of a missing one its number in the
                             ///< parcel; 0: of the area
    Disagreement what = Disagreement::Missing;
    /// Radians, called units, for an area squares of its unit; of a side 1 is right and 0 left, of
    /// tangency 1 is tangent.
    std::optional<double> called;
    std::optional<double> computed;
    std::string areaUnit;  ///< of an area
    TextRange words;       ///< of a missing course the place where it would stand
};

/// Contradictions within the text: arc against radius and angle, chord against both (the figure that all
/// others disagree with), tangent though the directions differ by more than 20" and their rounding (or not
/// tangent though they do not), the side against the directions, the area against the figure where that
/// closes. A figure agrees within half of its last digit and what the rounding of the others makes.
std::vector<TextDifference> contradictions(const ReadDescription& read,
                                           const std::vector<DrawnCourse>& drawn);

/// Against a parcel: its courses in the text's unit and called north. Beginning and direction are found by
/// themselves: those with the fewest differences. A figure agrees within half of its last called digit.
/// Contradictions of courses that agree with the parcel are among them. Cost: courses of the parcel squared
/// times those of the text.
std::vector<TextDifference> comparedWith(const ReadDescription& read, const std::vector<DrawnCourse>& drawn,
                                         const ParcelGeometry& parcel);

}  // namespace erdwerk::parcel
