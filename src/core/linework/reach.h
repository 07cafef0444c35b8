#pragma once
// Trimming a line to what crosses it, and taking it on to what lies ahead.

#include "core/linework/keep_heights.h"

namespace erdwerk::linework {

struct Reach {
    Reshaped reshaped;
    double by = 0;  ///< how much longer the line is; below 0: trimmed
};

/// Where the line crosses the target it is cut, and the part that holds `picked` (a distance along it) stays.
/// Else its end that is nearer to `picked` goes on, straight or along its arc, to the first place where it
/// meets the target; the old end stays as a point of the line and the last grade goes on. A closed line is
/// only trimmed. NotFound when the target lies neither across nor ahead.
Result<Reach> reachTo(const Line3D& line, const ResolvedLine& resolved, double picked, const Path& target,
                      const Surroundings& around);

}  // namespace erdwerk::linework
