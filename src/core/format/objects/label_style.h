#pragma once
// Label styles as JSON, for the objects that hold one.

#include "core/annotate/label_style.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

json styleJson(const annotate::LabelStyle& style);
/// Also of projects before version 8, whose fields stood above or below. Throws std::exception with words for
/// people.
annotate::LabelStyle styleFromJson(const json& j);

}  // namespace erdwerk::format
