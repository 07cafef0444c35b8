#pragma once
// Crests and toes in dense terrain: finding all of them, and following one.

#include <optional>
#include <string>
#include <vector>

#include "core/terrain/height_grid.h"

namespace erdwerk::terrain {

/// Crest: the ground falls away more steeply (convex). Toe: it falls away less steeply, or rises (concave).
enum class CreaseKind { Crest, Toe };

/// How sharply the ground bends at every node of a grid. The second derivatives are those of the heights
/// smoothed by a Gaussian of `sigma` (Lindeberg, "Edge detection and ridge detection with automatic scale
/// selection", 1998; Steger, "An unbiased detector of curvilinear structures", 1998): across a fold between
/// two planes whose grades differ by d, the second derivative peaks exactly on the fold with d / (sigma
/// sqrt(2 pi)). So the bend is stated as the angle, in radians, between the two planes in the section across
/// the fold.
class CreaseField {
public:
    /// `sigma` in grid cells, at least 1.
    CreaseField(HeightGrid grid, double sigma = 1.5);
    [[nodiscard]] const HeightGrid& grid() const { return grid_; }
    /// Bend at a place, between nodes; 0 outside, where heights are missing, and where the other kind is
    /// stronger.
    [[nodiscard]] double bend(CreaseKind kind, Vec2 place) const;
    [[nodiscard]] double bendAt(CreaseKind kind, std::size_t node) const {
        const float b = bend_[node];
        return kind == CreaseKind::Crest ? std::max(0.0F, -b) : std::max(0.0F, b);
    }
    /// Unit vector across the fold at a node.
    [[nodiscard]] Vec2 across(std::size_t node) const { return {acrossX_[node], acrossY_[node]}; }
    [[nodiscard]] double height(Vec2 place) const;

private:
    HeightGrid grid_;
    std::vector<float> bend_;  ///< crest negative, toe positive
    std::vector<float> acrossX_;
    std::vector<float> acrossY_;
};

struct Crease {
    CreaseKind kind = CreaseKind::Crest;
    bool closed = false;  ///< the first place is not repeated
    std::vector<Vec3> places;
    double bend = 0;  ///< mean, radians
};

struct CreaseOptions {
    double minAngle = 0.35;  ///< radians between the planes on both sides
    double minLength = 5;    ///< project units, in plan
    double deviation =
        0.1;  ///< greatest distance, in plan and in height, between a line and its simplified form
};

/// All creases of a field, the longest first. A crease is followed on while its bend stays above 60 per cent
/// of the least angle.
std::vector<Crease> findCreases(const CreaseField& field, const CreaseOptions& options,
                                const Context& context = {});

enum class TraceStop { EvidenceEnds, Forks, Closed, EdgeOfData };
std::string_view textOf(TraceStop stop);

struct TracedCrease {
    Crease crease;  ///< not simplified, from the first place on
    TraceStop stop = TraceStop::EvidenceEnds;
};

/// Follows the crease along which `first` to `second` was drawn, on from `second`; the kind is the one that
/// is stronger along the stretch. BadInput when there is no bend along the stretch.
Result<TracedCrease> traceCrease(const CreaseField& field, Vec2 first, Vec2 second,
                                 const CreaseOptions& options);

/// Leaves out places that lie within `deviation`, in plan and in height, of the line without them (Douglas
/// and Peucker, 1973).
std::vector<Vec3> simplified(const std::vector<Vec3>& places, double deviation);

}  // namespace erdwerk::terrain
