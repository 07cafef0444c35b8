#pragma once
// Parcels: courses, closure, area, and the description in words.

#include <optional>
#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::parcel {

using geometry::Path;
using geometry::Vec2;

/// One side of a parcel as it is called out.
struct Course {
    bool isCurve = false;
    Vec2 start;
    Vec2 end;
    Angle azimuth;        ///< of the straight, or of the chord
    double distance = 0;  ///< of the straight, or of the chord
    // Of a curve:
    double radius = 0;
    Angle delta;  ///< central angle, > 0
    double arcLength = 0;
    bool right = false;
    bool tangent = false;  ///< it leaves in the direction in which the course before arrives
};

/// Misclosure: from where the last course ends to where the first begins.
struct Closure {
    double distance = 0;
    std::optional<Angle> azimuth;  ///< nothing when it closes exactly
    std::optional<double> ratio;   ///< perimeter per unit of misclosure; nothing when it closes exactly
    /// Within a millimetre in the unit's terms.
    [[nodiscard]] bool closes(LengthUnit unit) const { return distance * metresPer(unit) <= 0.001; }
};

struct ParcelGeometry {
    std::vector<Course> courses;
    double area = 0;  ///< enclosed, arcs included; an open figure is closed by a straight
    double perimeter = 0;
    Closure closure;
};

/// The courses of a path in its direction. `begin` counts the path's corners from 0 and becomes the point of
/// beginning (for a path that closes; an open one begins where it begins). Curves tangent within 20" are
/// called tangent.
ParcelGeometry survey(const Path& path, std::size_t begin = 0);

/// One row a course, for tables on screen and on sheets.
struct CourseRow {
    std::string name;  ///< L1, L2 … and C1, C2 …
    std::string direction;
    std::string distance;
    std::string radius;
    std::string delta;
    std::string arcLength;
};
std::vector<CourseRow> courseTable(const ParcelGeometry& parcel, const DisplaySettings& display);

}  // namespace erdwerk::parcel
