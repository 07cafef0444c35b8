#include "core/objects/plan_part.h"

#include <algorithm>

namespace erdwerk::objects {

std::string_view planPartName(PlanPart part) {
    switch (part) {
        case PlanPart::PointMarks:
            return "point-marks";
        case PlanPart::PointNumbers:
            return "point-numbers";
        case PlanPart::PointHeights:
            return "point-heights";
        case PlanPart::Linework:
            return "linework";
        case PlanPart::Contours:
            return "contours";
        case PlanPart::ContourHeights:
            return "contour-heights";
        case PlanPart::Triangles:
            return "triangles";
        case PlanPart::GroundColours:
            return "ground-colours";
        case PlanPart::Clouds:
            return "clouds";
        case PlanPart::Backdrops:
            return "backdrops";
        case PlanPart::Labels:
            return "labels";
        case PlanPart::GridCrosses:
            break;
    }
    return "grid-crosses";
}

std::optional<PlanPart> planPartFrom(std::string_view name) {
    const auto it = std::find_if(allPlanParts.begin(), allPlanParts.end(),
                                 [name](PlanPart p) { return planPartName(p) == name; });
    return it == allPlanParts.end() ? std::nullopt : std::optional(*it);
}

}  // namespace erdwerk::objects
