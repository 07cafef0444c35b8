#pragma once
// Batters: faces that run from an edge, up or down, to a target.

#include <optional>
#include <variant>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/linework/offset.h"
#include "core/terrain/locator.h"

namespace erdwerk::earthwork {

using geometry::Vec2;
using geometry::Vec3;

/// A level step in a face, `width` wide at right angles to the edge in plan.
struct Berm {
    double height = 0;  ///< of the berm; with `fromEdge` above the edge at the same place (below it: < 0)
    double width = 0;   ///< > 0
    bool fromEdge = false;
    friend bool operator==(const Berm&, const Berm&) = default;
};

/// Where faces end, going out from the edge. A rise is measured from the edge at the same place.
struct ToHeight {
    double height = 0;
    friend bool operator==(const ToHeight&, const ToHeight&) = default;
};
struct ToRise {
    double rise = 0;  ///< not 0; below 0 it falls
    friend bool operator==(const ToRise&, const ToRise&) = default;
};
struct ToDistance {
    double distance = 0;  ///< > 0; the batter has only one of cut and fill, which says the way
    friend bool operator==(const ToDistance&, const ToDistance&) = default;
};
/// To the surface that the batter is given.
struct ToSurface {
    friend bool operator==(const ToSurface&, const ToSurface&) = default;
};
using BatterTarget = std::variant<ToSurface, ToHeight, ToRise, ToDistance>;

/// Slopes from a place of the edge on, reached evenly from `from` to `to` (distances along the edge).
struct SlopeChange {
    double from = 0;
    double to = 0;
    double cut = 0;
    double fill = 0;
    friend bool operator==(const SlopeChange&, const SlopeChange&) = default;
};

/// Slopes are rise over run at right angles to the edge in plan, without sign. A face rises with `cut` where
/// the edge lies below the target, and falls with `fill` where it lies above.
struct BatterShape {
    std::optional<double> cut;
    std::optional<double> fill;
    std::vector<Berm> berms;
    BatterTarget target;
    bool right = false;  ///< of the direction of the edge
    linework::OutsideCorner corners = linework::OutsideCorner::Mitre;
    std::vector<SlopeChange> changes = {};
    friend bool operator==(const BatterShape&, const BatterShape&) = default;
};

/// Why no batter can have this shape, or nothing.
std::optional<std::string> validate(const BatterShape& shape);

/// An edge with heights, arcs cut to straights; a closed one does not repeat its first corner.
struct Edge {
    std::vector<Vec3> corners;
    bool closed = false;
};

/// A stretch of the edge.
struct EdgeStretch {
    double from = 0;  ///< distances along the edge, in plan
    double to = 0;
    Vec3 start;
    Vec3 end;
};

struct Batter {
    terrain::Tin faces;
    std::vector<std::vector<Vec3>> daylight;  ///< chains along which the faces meet the target
    bool closed = false;                      ///< the edge is
    std::vector<Vec3> edge;         ///< corners of the edge, and between them where cut passes into fill
    std::vector<EdgeStretch> open;  ///< from which the target is not reached: there are no faces
    double daylightLength = 0;      ///< in plan
    double planArea = 0;
    double reach = 0;  ///< of the faces in plan, from the edge
    double depth = 0;  ///< of the faces, up or down from the edge
    Vec2 farthest;     ///< where they reach so far
    [[nodiscard]] double openLength() const;
};

/// Where berms that are measured from a sloping edge do not meet in one line, a mitred corner is round.
/// Faces are planes through the sides, extended until they meet at outside corners (or joined by a cone about
/// the corner, cut to facets within 0.01). A face is all of its plane before the target that hangs together
/// with the edge, over all faces that go the same way: it goes round what stands out of it, and ends on the
/// target. Where faces cover one place the higher of two that fall stays, the lower of two that rise; of one
/// that falls and one that rises the one that is nearer to its edge, which may leave a step between them. No
/// face goes on over another part of the edge, nor where, at right angles to its side, the ground ends before
/// it is met. `surface` is what ToSurface means; sides that lie off it have no faces. BadInput for a shape or
/// an edge that cannot be (it crosses itself, it passes the height of a berm). Costs the ground under the
/// faces; parallel.
Result<Batter> batter(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface,
                      const Context& context = {});

}  // namespace erdwerk::earthwork
