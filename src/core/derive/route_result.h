#pragma once
// What is worked out of profiles, sections, and of alignments against their criteria.

#include <memory>
#include <string>
#include <vector>

#include "core/derive/derived.h"
#include "core/objects/profile.h"
#include "core/route/criteria.h"
#include "core/route/profile.h"
#include "core/terrain/section.h"

namespace erdwerk::derive {

struct ProfileResult {
    std::vector<route::ProfilePoint> ground;
    std::shared_ptr<const route::GroundPieces> pieces;  ///< of the ground, for the next one; may be null
    /// Another state of the same ground.
    struct Other {
        ObjectId surface;
        std::vector<route::ProfilePoint> points;
    };
    std::vector<Other> others;  ///< the finished surface of the ground; of a finished one what it begins with
    std::string problem;        ///< why there is no ground
    /// The design with those stretches laid on the ground that follow it; empty where none does, and the
    /// design is as the profile has it (see designOf).
    std::vector<route::Pvi> laid;
};
/// The design of a profile, on the ground where it follows that.
inline const std::vector<route::Pvi>& designOf(const Profile& profile, const ProfileResult* result) {
    return result != nullptr && !result->laid.empty() ? result->laid : profile.design;
}

/// A section that is kept, cut.
struct SectionResult {
    geometry::Path axis;
    std::vector<ObjectId> surfaces;
    std::vector<terrain::SectionRow> rows;  ///< a height for each of the surfaces
    std::string problem;                    ///< why there is none; empty when there is
};

/// An alignment and the designs over it, against its criteria.
struct DesignCheck {
    std::vector<route::DesignFinding> findings;
    std::string problem;  ///< why nothing could be checked; empty when it could
};

}  // namespace erdwerk::derive
