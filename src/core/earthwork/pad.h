#pragma once
// Pads: an area within an edge, with batters round it to the ground.

#include "core/earthwork/batter.h"
#include "core/terrain/build.h"
#include "core/terrain/volume.h"

namespace erdwerk::earthwork {

struct PadShape {
    /// Slopes, berms and corners; it goes to the ground, and its side is worked out.
    BatterShape batter;
    /// Inside the edge; none: straight between the heights of the edge.
    std::vector<terrain::Breakline> inside = {};
};

struct Pad {
    terrain::Tin surface;  ///< the pad with its batters
    Batter batter;
    terrain::Volumes volumes;  ///< from the ground to it, in place
    double height = 0;         ///< of the edge's first corner
};

/// A pad on the ground. BadInput for an open edge, one that crosses itself, breaklines that leave it, and
/// what `batter` refuses. Costs the triangles of the ground under it.
Result<Pad> pad(const Edge& edge, const PadShape& shape, const terrain::TinLocator& ground,
                const Context& context = {});

/// What earth becomes when it is moved: a cut swells in the heap, a fill is shaken down from more than it.
struct Earth {
    double swell = 1;   ///< loose volume of 1 in place; > 0
    double shrink = 1;  ///< fill in place from 1 loose; > 0
    /// Fill to be brought less cut to be had, both loose: > 0 is earth that is missing.
    [[nodiscard]] double net(const terrain::Volumes& v) const { return v.fill / shrink - v.cut * swell; }
};

/// One place on the curve of volumes against height.
struct BalancePoint {
    double lift = 0;  ///< of the whole edge
    double cut = 0;
    double fill = 0;
    double net = 0;
};

struct Balanced {
    Pad pad;
    double lift = 0;
    double error = 0;                 ///< -net - surplus
    std::vector<BalancePoint> curve;  ///< what was worked out on the way, by lift
};

/// Lifts the edge until `surplus` of loose earth is left over (below 0: is missing). NotFound, with the
/// heights that were tried, where no lift does that with batters that reach the ground all round.
Result<Balanced> balanced(const Edge& edge, const PadShape& shape, const terrain::TinLocator& ground,
                          const Earth& earth, double surplus, const Context& context = {});

/// `count` places (at least two) evenly from one lift to another; places where the pad cannot be made are
/// left out.
Result<std::vector<BalancePoint>> balanceCurve(const Edge& edge, const PadShape& shape,
                                               const terrain::TinLocator& ground, const Earth& earth,
                                               double fromLift, double toLift, int count,
                                               const Context& context = {});

/// The ground with a pad (or any surface that meets it along its rim) in it.
terrain::Tin finished(const terrain::Tin& ground, const terrain::Tin& pad);

}  // namespace erdwerk::earthwork
