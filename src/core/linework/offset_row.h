#pragma once
// Rows as they are typed.

#include "core/linework/offset.h"

namespace erdwerk::linework {

/// "RUN" or "RUN,HEIGHT". RUN is a figure, or changes along the line: "2.5@0 3.5@40 2.5@80". HEIGHT is
/// "+0.15", "2%", "3:1", "=101.25", "=" (on a surface). BadInput for others, for a run below 0 and for
/// distances that do not grow.
Result<OffsetRow> parseOffsetRow(const std::string& text);

/// As it was typed: "0.5,-2%".
std::string rowText(const OffsetRow& row);

}  // namespace erdwerk::linework
