#pragma once
// Tags: what stands for a label whose side is too short for its text.

#include <map>
#include <string>

#include "core/derive/model.h"

namespace erdwerk::derive {

/// L1, L2 … of straight sides and C1, C2 … of curves, for every label of a side; the same on every sheet and
/// at every scale. The sides of the first parcel have the names that its courses have in their table; all
/// others count on from there, in the order of the labels. Costs about as many steps as there are labels.
std::map<ObjectId, std::string> tagsOf(const Derived& derived);

}  // namespace erdwerk::derive
