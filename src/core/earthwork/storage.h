#pragma once
// How much lies below a height: the stage table of a basin.

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::earthwork {

struct Stage {
    double height = 0;
    double area = 0;    ///< in plan, of what lies below
    double volume = 0;  ///< between the surface and the height
};

struct Storage {
    double lowest = 0;
    double spill = 0;  ///< the height of the lowest place of the rim
    std::vector<Stage> stages;
};

/// Of all that lies below a height: each triangle's part exactly (a plane cut by a level one).
Stage stageAt(const terrain::Tin& surface, double height);

/// Stages every `step` from the lowest place up, and at the spill height. BadInput for a step that is not
/// above 0 or would make more than a million stages; NotFound for a surface that holds nothing.
Result<Storage> storage(const terrain::Tin& surface, double step, const Context& context = {});

}  // namespace erdwerk::earthwork
