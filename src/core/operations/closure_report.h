#pragma once
// The closure of a parcel, course by course, as a report.

#include <string>

#include "core/base/result.h"
#include "core/derive/model.h"

namespace erdwerk::operations {

/// Plain text in columns: each course with its latitude and departure, exact and of the figures as they are
/// written; their sums, which are the misclosure; direction and ratio of it; the area in every unit that the
/// parcel's description has. Lengths in the project's unit. NotFound for a parcel without a figure.
Result<std::string> closureReport(const derive::Derived& derived, ObjectId parcel);

}  // namespace erdwerk::operations
