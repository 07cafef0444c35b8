#pragma once
// The elements of plan paths. Whoever works with a path asks these functions and never which sort of element
// it has; the list of sorts is Element, and each sort is a file beside this one.

#include <concepts>
#include <optional>
#include <variant>
#include <vector>

#include "core/geometry/arc.h"
#include "core/geometry/clothoid.h"
#include "core/geometry/straight.h"

namespace erdwerk::geometry {

/// What every sort of element answers. Fractions are of its length, from 0 at the start to 1 at the end.
template <class E>
concept PlanElement = requires(const E& e, double fraction, double sagitta, Vec2 place) {
    { e.start } -> std::convertible_to<Vec2>;
    { e.end } -> std::convertible_to<Vec2>;
    { e.length() } -> std::same_as<double>;
    { e.at(fraction) } -> std::same_as<Vec2>;
    { e.direction(fraction) } -> std::same_as<Angle>;           ///< of travel
    { e.curvature(fraction) } -> std::same_as<double>;          ///< 1 over the radius, positive to the right
    { e.nearest(place) } -> std::same_as<double>;               ///< fraction of the nearest place
    { e.touches(place) } -> std::same_as<std::vector<double>>;  ///< where straights from a place touch it
    { e.bounds() } -> std::same_as<Box>;
    { e.pieces(sagitta) } -> std::same_as<int>;  ///< equal chords so that none is farther off than `sagitta`
    { e.bulge() } -> std::same_as<double>;  ///< area between chord and element, positive to the left of it
};

/// The list of sorts.
using Element = std::variant<Straight, Arc, Clothoid>;
static_assert(PlanElement<Straight> && PlanElement<Arc> && PlanElement<Clothoid>);

/// One element as it is written down: a straight, or a circular arc through `through` (any point of the arc
/// strictly between the ends, as in the CIRCULARSTRING of ISO 19125 / SQL-MM). Three points on one line make
/// a straight. With `spiral` (and then without `through`) it is a clothoid of that shape, turned and scaled
/// so that it ends where the segment ends.
struct Segment {
    Vec2 start;
    Vec2 end;
    std::optional<Vec2> through;
    std::optional<Spiral> spiral = {};
    friend bool operator==(const Segment&, const Segment&) = default;
};

Element elementOf(const Segment& segment);
/// For what only an arc has (a radius to write). Nothing for a straight (also when the three points are on
/// one line, or the sagitta is below 1e-9 of the chord).
std::optional<Arc> arcOf(const Segment& segment);
/// For what only a clothoid has. Nothing for any other.
std::optional<Clothoid> clothoidOf(const Segment& segment);
/// The clothoid of a shape from `start`, leaving in direction `tangent`.
Segment clothoidFrom(Vec2 start, Angle tangent, const Spiral& shape);
/// The arc from `start`, leaving in direction `tangent`, to `end`; a straight when `end` lies ahead.
Segment tangentArc(Vec2 start, Angle tangent, Vec2 end);
/// Arc by ends, radius and side. Requires radius >= half the chord. The arc is the shorter one unless
/// `major`.
Segment arcByRadius(Vec2 start, Vec2 end, double radius, bool right, bool major = false);

bool isCurved(const Segment& segment);
double lengthOf(const Segment& segment);
/// Requires 0 <= fraction <= 1; exact at both ends.
Vec2 pointAt(const Segment& segment, double fraction);
/// Direction of travel at a fraction of the length.
Angle tangentAt(const Segment& segment, double fraction);
double nearestFraction(const Segment& segment, Vec2 place);
/// The part between two fractions, in the same direction.
Segment part(const Segment& segment, double from, double to);
Segment reversed(const Segment& segment);
/// The same shape between other ends, turned and scaled with the chord.
Segment between(const Segment& segment, Vec2 start, Vec2 end);
/// Area between the chord and the element, positive when it bulges to the left of the chord.
double bulgeArea(const Segment& segment);
Box boundsOf(const Segment& segment);
/// Straight pieces so that none leaves the element by more than `sagitta`; first and last point included.
std::vector<Vec2> flattened(const Segment& segment, double sagitta);

/// Where two elements cross or meet: at these fractions of each.
struct ElementCrossing {
    double first = 0;
    double second = 0;
    Vec2 place;
};
/// Between straights decided exactly, and only where their insides cross; else by Newton's method from where
/// their chords (within 1/1000 of the larger one's size) cross, to about 1e-12 of it. What overlaps has no
/// crossing.
std::vector<ElementCrossing> crossings(const Segment& first, const Segment& second);

}  // namespace erdwerk::geometry
