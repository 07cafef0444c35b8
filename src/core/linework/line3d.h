#pragma once
// 3D lines: corners in plan, grade points between them, a height rule at each.

#include <functional>
#include <optional>
#include <string>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/result.h"
#include "core/geometry/path.h"
#include "core/linework/rules/height_rule.h"

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
    double fraction = 0;          ///< of a grade point: strictly between 0 and 1
    HeightRule rule;
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

/// The control that a vertex is measured from, ahead or behind (round a closed line, not the vertex itself);
/// nothing when there is none.
std::optional<std::size_t> controlOf(const Line3D& line, std::size_t vertex, bool ahead);

struct ResolvedVertex {
    Vec2 place;
    double distance = 0;  ///< along the line from its start
    std::optional<double> height;
    std::string problem;                ///< why there is no height; empty when there is one
    bool circular = false;              ///< its height depends on itself
    std::vector<ObjectId> circle = {};  ///< lines and surfaces in that circle, where it was met
    friend bool operator==(const ResolvedVertex&, const ResolvedVertex&) = default;
};

/// Places and heights worked out from the rules.
struct ResolvedLine {
    std::vector<ResolvedVertex> vertices;
    Path path;
    double length = 0;
    bool closed = false;
    [[nodiscard]] bool complete() const;
    /// Grade from vertex i to the next (wrapping in a closed line); nothing where a height is missing.
    [[nodiscard]] std::optional<Grade> gradeAhead(std::size_t i) const;
    friend bool operator==(const ResolvedLine&, const ResolvedLine&) = default;
};

/// Height of a surface at a place: nothing off the surface; an Error (Circular, NotFound) when there is no
/// such surface to ask.
using SurfaceHeight = std::function<Result<std::optional<double>>(ObjectId, Vec2)>;

/// A line alone; see solver.h for lines that use each other.
ResolvedLine resolve(const Line3D& line, const SurfaceHeight& surfaceHeight);
/// Places and distances along the line, no heights.
ResolvedLine placed(const Line3D& line);

/// Corners and arcs as 3D places: heights run straight between vertices; arcs are cut to `sagitta`. A run is
/// broken where a height is missing, so only known heights come out.
std::vector<std::vector<Vec3>> runsWithHeights(const ResolvedLine& line, double sagitta);

/// Height at a distance along the line; nothing where a neighbouring height is missing.
std::optional<double> heightAt(const ResolvedLine& line, double distance);

}  // namespace erdwerk::linework
