#pragma once
// What two faces have to do with each other.

#include "core/earthwork/edge_facets.h"
#include "core/earthwork/face_cells.h"
#include "core/geometry/box_index.h"

namespace erdwerk::earthwork {

struct Segment {
    Vec2 a;
    Vec2 b;
};

/// The part of an infinite straight inside a box.
std::optional<Segment> inBox(Vec2 on, Vec2 way, const geometry::Box& box);
/// What two boxes have in common.
geometry::Box common(const geometry::Box& a, const geometry::Box& b);

/// How a strip grows in plan.
Vec2 gradientOf(const Facet& facet, std::size_t strip);
/// The straight on which strips of two faces have one height.
std::optional<Segment> meetingOf(const Facet& a, std::size_t stripOfA, const Facet& b, std::size_t stripOfB,
                                 const geometry::Box& room);

/// Where faces lie, for finding those that may cover one place. Refers to the faces.
class FacePlaces {
public:
    FacePlaces(const std::vector<Facet>& facets, const std::vector<FaceCells>& cells);
    /// In plan.
    [[nodiscard]] const geometry::Box& boxOf(std::size_t i) const { return boxes_[i]; }
    /// Calls `found` with each other face that may touch this one.
    void eachBeside(std::size_t i, const std::function<void(std::size_t)>& found) const;

private:
    [[nodiscard]] bool isApart(std::size_t i, std::size_t k) const;

    const std::vector<Facet>& facets_;
    std::vector<geometry::Box> boxes_;
    std::vector<geometry::Box> own_;  ///< of each in its own coordinates
    geometry::BoxIndex near_;
};

/// Two faces of which the first ends on the flank on which the second begins.
bool sharesFlank(const Facet& a, const Facet& b);
/// One ends on the flank on which the other begins, and follows it.
bool areNeighbours(const EdgeFacets& made, std::size_t i, std::size_t k);

}  // namespace erdwerk::earthwork
