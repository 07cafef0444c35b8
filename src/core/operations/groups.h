#pragma once
// Groups, as edits.

#include "core/document/transaction.h"

namespace erdwerk::operations {

/// Puts objects into a group, or into none. Groups themselves stay where they are. BadInput when the group is
/// gone.
document::Edit putInGroup(std::vector<ObjectId> objects, ObjectId group);
/// A group with these objects in it, "Group 1", "Group 2" …
document::Edit newGroup(std::vector<ObjectId> objects);

}  // namespace erdwerk::operations
