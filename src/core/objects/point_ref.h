#pragma once
// One point of a set of survey points, for those who name it without looking into it.

#include <cstddef>

#include "core/base/id.h"

namespace erdwerk::objects {

/// A point of a set, by position.
struct PointRef {
    ObjectId set;
    std::size_t index = 0;
};

}  // namespace erdwerk::objects
