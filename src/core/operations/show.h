#pragma once
// What is shown and what is not, as edits.

#include "core/document/transaction.h"

namespace erdwerk::operations {

/// Shows or hides objects; a group stands for its members.
document::Edit setShown(std::vector<ObjectId> objects, bool shown);
/// A part of the project's plan.
document::Edit setPlanPart(objects::PlanPart part, bool shown);

}  // namespace erdwerk::operations
