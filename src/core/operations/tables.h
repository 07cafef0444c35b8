#pragma once
// Tables of the record, as edits.

#include "core/objects/table.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

/// Of everything of a sort, or only of these objects.
Edit newTable(objects::TableSort sort, std::vector<ObjectId> of);
/// Typed, with commas between; empty: all. BadInput names a column that there is not.
Edit setTableColumns(ObjectId table, const std::string& typed);
Edit setTableObjects(ObjectId table, std::vector<ObjectId> of);

}  // namespace erdwerk::operations
