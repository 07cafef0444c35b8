#pragma once
// Moving, copying, turning and mirroring in plan.

#include "core/linework/transform.h"
#include "core/operations/rules.h"

namespace erdwerk::operations {

/// Moves, turns or mirrors lines, sets of points and points of sets; with `copy` what is new, named "NAME
/// (2)". What stands on them goes along; a line that follows one of them follows, alone it cannot be moved.
/// BadInput when there is nothing that can be moved.
Edit movePlan(std::vector<LinePart> what, const linework::PlanMove& move, bool copy);

}  // namespace erdwerk::operations
