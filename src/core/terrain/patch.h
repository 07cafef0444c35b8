#pragma once
// Putting other triangles in the place of some of a surface, without working out the rest again.

#include <memory>
#include <unordered_map>
#include <vector>

#include "core/terrain/locator.h"
#include "core/terrain/ring_cut.h"

namespace erdwerk::terrain {

struct Patched {
    std::shared_ptr<const TinLocator> locator;
    std::vector<std::uint32_t> gone;   ///< triangles of the surface before that are in it no more, rising
    std::vector<std::uint32_t> fresh;  ///< its triangles that the surface before does not have, rising
};

/// A copy of a surface that is changed in place. Triangles and vertices that nothing touches keep their
/// numbers, but for the last ones, which fill the gaps. Costs a copy of the arrays and what is exchanged.
class Patch {
public:
    explicit Patch(std::shared_ptr<const TinLocator> base);

    /// The other surface within its rim, this one outside it and in its openings. Sides of both that touch
    /// are linked where their ends are nearer than 1e-6 in plan and height, and stay constrained; where there
    /// is a step they stay apart. Rings of the rim that `validate` refuses are not cut along.
    void takeOver(const Tin& other);

    [[nodiscard]] Patched finish() &&;

private:
    using Side = std::pair<std::uint32_t, std::uint32_t>;  ///< from vertex to vertex, in the triangle's sense
    struct SideHash {
        std::size_t operator()(const Side& s) const {
            return std::hash<std::uint64_t>{}((std::uint64_t{s.first} << 32) | s.second);
        }
    };
    using Links = std::unordered_map<Side, std::uint32_t, SideHash>;

    static std::shared_ptr<Tin> copyOf(const Tin& tin);
    void exchange(std::vector<std::uint32_t> removed, const std::vector<Triangle>& added,
                  const std::vector<VertexPair>& constrained);
    [[nodiscard]] Links takeOut(const std::vector<std::uint32_t>& removed);
    void link(const std::vector<std::uint32_t>& slots, const Links& outer,
              const std::vector<VertexPair>& constrained);
    void close(std::vector<std::uint32_t> gaps);
    void relink(std::uint32_t triangle, Side side, std::uint32_t to);
    void cutOut(const std::vector<Vec2>& ring, const std::vector<std::vector<Vec2>>& openings);
    [[nodiscard]] std::vector<std::uint32_t> enclosedBy(const std::vector<VertexPair>& chain) const;
    void sew(const Tin& other);
    [[nodiscard]] std::vector<std::uint32_t> sharedVertices(const Tin& other, const Links& open,
                                                            const Links& there) const;
    void dropVertices();
    [[nodiscard]] Side sideOf(std::uint32_t t, int i) const {
        return {tin_->corner(t, (i + 1) % 3), tin_->corner(t, (i + 2) % 3)};
    }

    std::shared_ptr<const TinLocator> base_;
    std::shared_ptr<Tin> tin_;
    TinLocator locator_;
    std::unordered_map<std::uint32_t, std::uint32_t>
        origin_;  ///< of triangles that were written: in the base, or none
    std::vector<std::uint32_t> gone_;
    std::vector<std::uint32_t> loose_;  ///< vertices that may have lost their last triangle
};

/// The rings of a surface's rim along which another one is cut for it. Cracks are none: openings without
/// width, where a vertex lies on a side of another triangle.
std::vector<std::vector<Vec2>> ringsToCut(const Tin& tin);

/// The other surface inside its edge, this one outside it.
Tin takenOver(const Tin& tin, const Tin& other);

}  // namespace erdwerk::terrain
