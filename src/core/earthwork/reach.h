#pragma once
// How far faces reach to their target.

#include "core/earthwork/gathering.h"

namespace erdwerk::earthwork {

/// What a face would meet without the others.
Envelope reachOf(const Facet& facet, const BatterTarget& target, const terrain::TinLocator* surface);

/// How far a face goes at s = 0, about; nothing when it does not get there.
std::optional<double> reachAtStart(const Facet& facet, const BatterTarget& target,
                                   const terrain::TinLocator* surface);

}  // namespace erdwerk::earthwork
