#pragma once
// From an earthwork to its faces and figures. Used by Model, and by tools that show one before it is made.

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/derive/earthwork_result.h"
#include "core/earthwork/pad.h"

namespace erdwerk::derive {

/// What an earthwork is made on.
struct EarthworkBasis {
    std::shared_ptr<const linework::ResolvedLine> edge;
    std::shared_ptr<const terrain::TinLocator> ground;  ///< null: none
    std::vector<std::shared_ptr<const linework::ResolvedLine>> inside;
};

/// The basis as results have it, on the ground alone.
EarthworkBasis basisOf(const Derived& seen, const Earthwork& object);
/// The edge, or the stretch of it that is meant.
Result<earthwork::Edge> edgeOf(const Earthwork& object, const EarthworkBasis& on);
/// A pad's or pond's shape.
Result<earthwork::PadShape> padShapeOf(const Earthwork& object, const EarthworkBasis& on);
Result<EarthworkResult> buildEarthwork(const Earthwork& object, const EarthworkBasis& on,
                                       const Context& context = {});

}  // namespace erdwerk::derive
