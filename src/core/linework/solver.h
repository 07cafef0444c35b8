#pragma once
// Heights of a line from its rules, one control at a time. A point's height is worked out when somebody asks
// for it, so lines and surfaces can use each other as long as no height depends on itself.

#include <memory>
#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// What is being worked out now, from the outside in: lines with the vertex, surfaces without. Shared by all
/// solvers of one evaluation; it names what is in a circle.
struct AskedPart {
    ObjectId object;
    std::optional<std::size_t> vertex;
    friend bool operator==(const AskedPart&, const AskedPart&) = default;
};
using AskedParts = std::vector<AskedPart>;

/// The objects in the circle that asking for `part` again would close, each once.
std::vector<ObjectId> circleOf(const AskedParts& asked, const AskedPart& part);

class LineSolver {
public:
    /// `line` must outlive the solver. `id` is its own, for naming circles; none for a line alone.
    LineSolver(const Line3D& line, ObjectId id, SurfaceHeight surfaceHeight, AskedParts& asked);
    LineSolver(LineSolver&&) noexcept;
    LineSolver& operator=(LineSolver&&) noexcept;
    ~LineSolver();

    /// One vertex, with what its rule asks.
    const ResolvedVertex& vertex(std::size_t i);
    /// All of them.
    ResolvedLine finish();

private:
    struct State;
    std::unique_ptr<State> state_;
};

}  // namespace erdwerk::linework
