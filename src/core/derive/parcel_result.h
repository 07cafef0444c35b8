#pragma once
// What is worked out of parcels and of descriptions that are read back.

#include <string>
#include <vector>

#include "core/derive/derived.h"
#include "core/parcel/compare_calls.h"
#include "core/parcel/description.h"
#include "core/parcel/parcel.h"

namespace erdwerk::derive {

/// A part of a description as it stands in the text.
struct ParcelPassage {
    parcel::DescriptionPart part;
    std::string instead;  ///< what writes itself there, where it is changed by hand; else empty
    bool stale = false;   ///< that is not what was changed
};

struct ParcelResult {
    parcel::ParcelGeometry geometry;
    std::string description;  ///< with what was changed by hand
    std::vector<ParcelPassage> passages;
    parcel::Closure rounded;     ///< of the courses as the text calls them
    std::string wordingProblem;  ///< why its wording could not be taken; empty when it could
    std::vector<parcel::CourseRow> table;
};

/// A description that is read back, as it is now.
struct ReadingResult {
    parcel::ReadDescription read;
    std::vector<parcel::DrawnCourse> drawn;
    parcel::CalledShape shape;
    geometry::Path path;  ///< in the plan
    std::vector<parcel::TextDifference> differences;
    bool compared = false;  ///< with a parcel; else only the text with itself
    std::string problem;    ///< why nothing could be read; empty when something could
};

}  // namespace erdwerk::derive
