#pragma once
// What lies between one control of a line and the next: how far it is, how much it rises, at which grade.

#include <optional>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct ToNext {
    std::size_t next = 0;  ///< position of the control it leads to
    double run = 0;        ///< along the line in plan, in project units; > 0
    double rise = 0;       ///< height of the next less height of this one
    [[nodiscard]] Grade grade() const { return Grade::riseOverRun(rise / run); }
};

/// The control after (or before) a vertex along the line, round a closed one, where all places are solved.
std::optional<std::size_t> nextControl(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex,
                                       bool ahead = true);

/// From a control in the direction of the line, round a closed one. Nothing for a point that is no control,
/// after the last control, where a height is missing, and where the controls lie in one place.
std::optional<ToNext> toNext(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex);

}  // namespace erdwerk::linework
