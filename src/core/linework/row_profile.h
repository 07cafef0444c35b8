#pragma once
// Rows beside a line seen along the line: how far out each is, and how much higher.

#include "core/linework/offset.h"

namespace erdwerk::linework {

struct RowPlace {
    double run = 0;   ///< from the line
    double rise = 0;  ///< above the line
    bool known =
        true;  ///< false: on a surface or at a fixed height, drawn level with what it is measured from
};
std::vector<RowPlace> rowProfile(const std::vector<OffsetRow>& rows, bool chained);

/// A row that lies at another place: run to centimetres, not below 0; a rise to centimetres, a grade to
/// tenths of a per cent, a ratio to tenths, as it was typed. What is not known here only changes its run.
OffsetRow rowThrough(const std::vector<OffsetRow>& rows, bool chained, std::size_t row, RowPlace place);

}  // namespace erdwerk::linework
