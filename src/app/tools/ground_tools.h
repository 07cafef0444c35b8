#pragma once
// The pick tools of the ground stage that change or use a finished surface or a cloud, as data.

#include "app/tools/pick_tool.h"

namespace erdwerk::app {

/// By action id: "opening", "flip-side", "drop" …; an empty spec for an unknown one.
PickSpec groundSpec(const QString& id);

}  // namespace erdwerk::app
