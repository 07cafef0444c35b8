#pragma once
// The figure that a read description draws.

#include "core/parcel/parcel.h"
#include "core/parcel/read_back.h"

namespace erdwerk::parcel {

/// A course as it lies: what is called, and what follows from that.
struct DrawnCourse {
    bool drawn = false;      ///< something that places it is missing: it is skipped
    Course course;           ///< called unit, called north, from the point of beginning at 0, 0
    Angle in;                ///< direction in which it leaves its start
    Angle out;               ///< and arrives at its end
    double uncertainty = 0;  ///< how far its end may lie off by the rounding of its figures
};

/// Each course from where the one before ends. A curve lies on its chord when that is called, else it leaves
/// in the called tangent, at right angles to the called radial, or tangent to the course before; of radius,
/// angle, arc and chord those that are missing follow from the others; a side that is not called follows
/// from the concave side, or from the chord and the direction before.
std::vector<DrawnCourse> drawnCourses(const ReadDescription& read);

/// Misclosure and area (square called units, 0 when nothing encloses it).
struct CalledShape {
    ParcelGeometry geometry;
    double roundingGap = 0;  ///< the misclosure that rounding can make: the sum over all courses
    [[nodiscard]] bool gapExplained() const { return geometry.closure.distance <= roundingGap; }
};
CalledShape shapeOf(const std::vector<DrawnCourse>& courses);

/// In the plan: from `begin`, called north at azimuth `north`, called units times `factor`.
Path figureOf(const std::vector<DrawnCourse>& courses, Vec2 begin, Angle north, double factor);

}  // namespace erdwerk::parcel
