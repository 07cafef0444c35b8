#pragma once
// 3D lines: corners in plan, grade points between them, a height rule at each.

#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/result.h"
#include "core/geometry/path.h"
#include "core/linework/rules/height_rule.h"
#include "core/linework/vertical_curve.h"

namespace erdwerk::linework {

using geometry::Path;
using geometry::Vec2;
using geometry::Vec3;

/// A corner bends the line in plan; a grade point controls the height at a fraction of the way between the
/// corners on both sides of it.
struct LineVertex {
    bool isCorner = true;
    Vec2 place;                   ///< of a corner
    std::optional<Vec2> through;  ///< of a corner: the side to the next corner is an arc through here
    /// Of a grade point: strictly between 0 and 1. When its rule finds the place (see Standing) only about.
    double fraction = 0;
    HeightRule rule;
    std::optional<VerticalCurve> curve = {};  ///< of a control
    /// Of a corner: where the two arcs of a smooth side meet. It is placed by the corners around it and moves
    /// with them (see smooth_side.h).
    bool joint = false;
    friend bool operator==(const LineVertex&, const LineVertex&) = default;
};

/// The first vertex is a corner; in an open line the last is one too. Grade points between two corners come
/// in order.
struct Line3D {
    std::vector<LineVertex> vertices;
    bool closed = false;
    friend bool operator==(const Line3D&, const Line3D&) = default;
};

/// Why a line breaks the law above, or nothing.
std::optional<std::string> validate(const Line3D& line);

/// An open line of corners with known heights; corners without one have NoHeight.
Line3D lineThrough(const std::vector<Vec2>& corners, const std::vector<std::optional<double>>& heights,
                   bool closed = false);

/// One segment for each pair of neighbouring corners (closing one included).
Path planPath(const Line3D& line);
/// Positions of the corners among the vertices.
std::vector<std::size_t> cornersOf(const Line3D& line);
/// Position of the segment (of planPath) that follows or holds a vertex.
std::size_t segmentOf(const Line3D& line, std::size_t vertex);

/// The control before or after a vertex in the list (round a closed line, not the vertex itself); nothing
/// when there is none. Where places are solved see ResolvedLine::order.
std::optional<std::size_t> controlOf(const Line3D& line, std::size_t vertex, bool ahead);

/// A height that is asked for: of a vertex of a line, or of a surface (no vertex).
struct AskedPart {
    ObjectId object;
    std::optional<std::size_t> vertex;
    friend bool operator==(const AskedPart&, const AskedPart&) = default;
};

struct ResolvedVertex {
    Vec2 place;
    double distance = 0;  ///< along the line from its start
    /// By its rule: with a vertical curve that of the tangents' point. See heightAt for the finished line.
    std::optional<double> height;
    std::string problem;                 ///< why there is no height; empty when there is one
    std::string curveProblem;            ///< why its vertical curve is left out
    bool circular = false;               ///< its height depends on itself
    std::vector<AskedPart> circle = {};  ///< then: all that is in the circle, in the order of asking
    /// Without a height: the one it had before what it was measured from went, as far as that is known.
    std::optional<double> lastHeight = {};
    friend bool operator==(const ResolvedVertex&, const ResolvedVertex&) = default;
};

/// Places and heights worked out from the rules.
struct ResolvedLine {
    std::vector<ResolvedVertex> vertices;  ///< one for each of the line, in its order
    /// Positions of the vertices by distance along the line. Empty when they stand in their order; places
    /// that are solved may come to lie beyond a corner.
    std::vector<std::size_t> order;
    std::vector<ResolvedCurve> curves;  ///< by their start; none overlaps another
    Path path;
    double length = 0;
    bool closed = false;
    [[nodiscard]] bool complete() const;
    /// The vertex at a position along the line: 0 the first.
    [[nodiscard]] std::size_t ordered(std::size_t position) const {
        return order.empty() ? position : order[position];
    }
    /// Position of a vertex along the line.
    [[nodiscard]] std::size_t positionOf(std::size_t vertex) const;
    /// Grade from vertex i to the next along the line (wrapping in a closed one), of the tangents; nothing
    /// where a height is missing.
    [[nodiscard]] std::optional<Grade> gradeAhead(std::size_t i) const;
    friend bool operator==(const ResolvedLine&, const ResolvedLine&) = default;
};

/// Places and distances along the line, no heights. Points whose rule finds their place stand where they were
/// put.
ResolvedLine placed(const Line3D& line);

/// Corners, arcs and vertical curves as 3D places: heights run straight between vertices or along the curves;
/// arcs, and vertical curves without `step`, are cut to `sagitta`, else vertical curves every `step` from
/// their start. A run is broken where a height is missing, so only known heights come out.
std::vector<std::vector<Vec3>> runsWithHeights(const ResolvedLine& line, double sagitta,
                                               std::optional<double> step = {});

/// Height of the finished line at a distance along it, vertical curves included; nothing where a neighbouring
/// height is missing.
std::optional<double> heightAt(const ResolvedLine& line, double distance);

}  // namespace erdwerk::linework
