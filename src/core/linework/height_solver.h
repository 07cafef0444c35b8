#pragma once
// Heights of lines from their rules, one control at a time. A point's height is worked out when somebody asks
// for it, so lines and surfaces can use each other as long as no height depends on itself.

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// What is being worked out now, from the outside in. Shared by all that ask in one evaluation; it names what
/// is in a circle.
using AskedParts = std::vector<AskedPart>;

/// Height of a surface at a place: nothing off the surface; an Error (Circular, NotFound) when there is no
/// such surface to ask.
using SurfaceHeight = std::function<Result<std::optional<double>>(ObjectId, Vec2)>;

/// What stands around the lines that ask each other.
struct Surroundings {
    SurfaceHeight surface;
    /// A line among them, or another one; null when there is none. What it points to outlives the solver.
    std::function<const Line3D*(ObjectId)> line = {};
    /// A line that was worked out already, in whole; null for one that is solved here, by control.
    std::function<std::shared_ptr<const ResolvedLine>(ObjectId)> finished = {};
    std::function<std::string(ObjectId)> nameOf = {};  ///< for what is said
    /// The plan path of a line where it is known already; null for one that is made from the line.
    std::function<const Path*(ObjectId)> path = {};
};

class HeightSolver {
public:
    HeightSolver(Surroundings around, AskedParts& asked);
    HeightSolver(const HeightSolver&) = delete;
    HeightSolver& operator=(const HeightSolver&) = delete;
    ~HeightSolver();

    /// All of a line, with what its rules ask of others. Requires one that `line` knows. Each control is
    /// worked out once, in whatever order it is asked for.
    ResolvedLine finish(ObjectId line);
    /// What is asked for again while it is being worked out: marks every vertex in the circle that this
    /// closes.
    void closeCircle(const AskedPart& again);

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// A line by itself, which goes by no id; what it names is looked for around it.
ResolvedLine resolve(const Line3D& line, Surroundings around);
ResolvedLine resolve(const Line3D& line, const SurfaceHeight& surfaceHeight);

}  // namespace erdwerk::linework
