#pragma once
// What is read at the PIs of an alignment.

#include <optional>

#include "core/route/alignment.h"
#include "core/route/pis.h"

namespace erdwerk::route {

struct PiFigures {
    std::optional<double> distance;  ///< along the line: where the curve begins plus its tangent
    std::optional<Angle> azimuthIn;  ///< from the PI before; none at the first
    double distanceIn = 0;           ///< from the PI before
    std::optional<Angle> turn;       ///< signed, clockwise positive; none at the ends
};

/// One for each PI; the line is what they give, in either direction.
std::vector<PiFigures> piFigures(const std::vector<Pi>& pis, const AlignmentGeometry& line);

}  // namespace erdwerk::route
