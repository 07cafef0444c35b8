#pragma once

#include "core/parcel/parcel.h"

namespace erdwerk::parcel {

/// Courses and area of a parcel as a text would call them: `calledPerUnit` called units for one of the plan,
/// directions from the north that is called, whose azimuth in the plan is `north`. The places of the courses
/// stay those of the plan.
ParcelGeometry asCalled(ParcelGeometry geometry, double calledPerUnit, Angle north);

}  // namespace erdwerk::parcel
