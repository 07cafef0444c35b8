#pragma once
// What is worked out of a line that follows others.

#include <string>

#include "core/derive/derived.h"
#include "core/linework/line3d.h"

namespace erdwerk::derive {

/// A line that follows others, as it is now.
struct FollowedLine {
    linework::Line3D line;  ///< what `lines` has resolved
    std::string problem;    ///< why it cannot follow; empty when it does
    friend bool operator==(const FollowedLine&, const FollowedLine&) = default;
};

}  // namespace erdwerk::derive
