#pragma once
// Arcs that a file brought as runs of short chords.

#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// A run of at least eight straight sides of one length that turn by one angle (at most 15 degrees each, 5 in
/// all), its corners on one circle.
struct ChordedArc {
    std::size_t first = 0;  ///< vertex where it begins, a corner
    std::size_t last = 0;   ///< and ends
    std::size_t sides = 0;
    double radius = 0;
    double off = 0;  ///< greatest distance between the arc and the sides, in plan
    Vec2 middle;     ///< a place of it
};

/// In the order of the line. Lengths and angles are one as far as corners that are off by `rounding` allow;
/// corners lie within twice that of the circle. A ring of nothing but such sides is two halves.
std::vector<ChordedArc> chordedArcs(const Line3D& line, double rounding);

/// The line with arcs in their place. Corners between become grade points with the rules that they had;
/// those that were only interpolated, or all without height, go. Requires arcs of this line.
Line3D withArcs(const Line3D& line, const std::vector<ChordedArc>& arcs);

}  // namespace erdwerk::linework
