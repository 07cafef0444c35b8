#pragma once
// What is worked out of batters, pads and ponds.

#include <memory>
#include <optional>
#include <string>

#include "core/derive/derived.h"
#include "core/earthwork/pad.h"
#include "core/earthwork/storage.h"
#include "core/terrain/locator.h"

namespace erdwerk::derive {

/// A batter, pad or pond as it is now.
struct EarthworkResult {
    std::string problem;                                 ///< why there is none; empty when there is
    std::shared_ptr<const terrain::TinLocator> surface;  ///< faces, and the inside of a pad; may be null
    std::shared_ptr<const terrain::TinLocator> faces;    ///< of its batter alone; may be null
    std::shared_ptr<const terrain::TinLocator> ground;   ///< what it was made on; may be null
    earthwork::Batter batter;
    terrain::Volumes volumes;      ///< of a pad or a pond, in place, against the ground it was made on
    double net = 0;                ///< see earthwork::Earth
    std::optional<double> height;  ///< of the edge's first corner
    std::optional<earthwork::Storage> storage;  ///< of a pond
};

}  // namespace erdwerk::derive
