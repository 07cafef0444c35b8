#pragma once
// Markings of alignments as JSON files, to take from project to project: {"name": "Lane", "small": 20,
// "large": 100, "points": true, "curves": false, "speeds": true, "equations": true, "side": "left",
// "height": 2.6}. What is left out is as in a new marking.

#include <string>
#include <utility>

#include "core/base/result.h"
#include "core/route/marking.h"

namespace erdwerk::format {

/// Name and marking. BadInput with file and reason (a JSON error with its line).
Result<std::pair<std::string, route::MarkingSettings>> readMarking(const std::string& path);
Result<void> writeMarking(const std::string& path, const std::string& name,
                          const route::MarkingSettings& marking);

}  // namespace erdwerk::format
