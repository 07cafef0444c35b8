#pragma once
// What a plan shows, in parts that are put on and off as a whole: for the project's plan, and by each sheet
// for itself.

#include <array>
#include <optional>
#include <set>
#include <string_view>

namespace erdwerk::objects {

enum class PlanPart {
    PointMarks,
    PointNumbers,
    PointHeights,
    Linework,
    Contours,
    ContourHeights,
    Triangles,
    GroundColours,  ///< height colours, hillshade, deviation, bands
    Clouds,
    Backdrops,
    Labels,
    GridCrosses
};
inline constexpr std::array allPlanParts{
    PlanPart::PointMarks, PlanPart::PointNumbers,   PlanPart::PointHeights, PlanPart::Linework,
    PlanPart::Contours,   PlanPart::ContourHeights, PlanPart::Triangles,    PlanPart::GroundColours,
    PlanPart::Clouds,     PlanPart::Backdrops,      PlanPart::Labels,       PlanPart::GridCrosses};

/// "point-marks", "contour-heights" …: as stored in files.
std::string_view planPartName(PlanPart part);
/// Nothing for a word that names none.
std::optional<PlanPart> planPartFrom(std::string_view name);

/// The parts that are not shown.
using PlanPartsOff = std::set<PlanPart>;

}  // namespace erdwerk::objects
