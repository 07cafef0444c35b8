#pragma once
// Any object, and the project's settings, as edits. What is gone is BadInput.

#include "core/objects/point_ref.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

/// BadInput for an empty name.
Edit rename(ObjectId object, const std::string& name);
/// Into a group, or out of any (none).
Edit setGroup(ObjectId object, ObjectId group);
/// Removes points of sets, and whole objects with what cannot be without them. What is gone already is passed
/// over.
Edit remove(std::vector<ObjectId> objects, std::vector<PointRef> points);
/// Adds what a check found to be meant so.
Edit accept(Accepted accepted);
Edit takeBackAcceptance(Accepted accepted);
Edit changeSettings(std::function<void(Settings&)> change);

}  // namespace erdwerk::operations
