#pragma once
// Offset sets as JSON files, to take from project to project: {"name": "Kerb", "rows": ["0.3,-2%",
// "0,+0.12"], "side": "right", "measured": "from the row before", "corners": "mitre"}.

#include <string>
#include <utility>

#include "core/base/result.h"
#include "core/objects/offset_set.h"

namespace erdwerk::format {

/// Name and set. BadInput with file and reason (a JSON error with its line).
Result<std::pair<std::string, objects::OffsetSet>> readOffsetSet(const std::string& path);
Result<void> writeOffsetSet(const std::string& path, const std::string& name, const objects::OffsetSet& set);

}  // namespace erdwerk::format
