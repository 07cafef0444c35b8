#include "core/linework/measure.h"

#include <cmath>

namespace erdwerk::linework {

Measured measure(const std::vector<MeasuredPlace>& places) {
    Measured out;
    double twice = 0;
    for (std::size_t i = 0; i + 1 < places.size(); ++i) {
        const auto& a = places[i];
        const auto& b = places[i + 1];
        MeasuredLeg leg{geometry::distance(a.plan, b.plan), geometry::azimuth(a.plan, b.plan), {}, {}};
        if (a.height && b.height) {
            leg.rise = *b.height - *a.height;
            leg.slope = std::hypot(leg.run, *leg.rise);
        }
        out.run += leg.run;
        // Relative to the first place, so that large coordinates cost no digits.
        twice += geometry::cross(a.plan - places.front().plan, b.plan - places.front().plan);
        out.legs.push_back(leg);
    }
    out.area = std::abs(twice) / 2;
    if (places.size() > 1 && places.front().height && places.back().height)
        out.rise = *places.back().height - *places.front().height;
    return out;
}

}  // namespace erdwerk::linework
