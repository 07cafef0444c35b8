#pragma once
// Faces that cover one place.

#include "core/earthwork/face_cells.h"
#include "core/earthwork/face_pairs.h"

namespace erdwerk::earthwork {

/// Makes the cells of a face from lines.
using Divide = std::function<FaceCells(std::size_t, std::vector<FaceLine>)>;

/// Gives each place to one face: of two that fall to the higher one, of two that rise to the lower one, of a
/// face that falls and one that rises to the one that is nearer to its edge. For each face its lines, its
/// cells and their boxes; refers to all of them.
class FaceOverlaps {
public:
    FaceOverlaps(const EdgeFacets& made, const std::vector<std::vector<FaceLine>>& lines,
                 const std::vector<FaceCells>& cells, const FacePlaces& places, Divide divide)
        : made_(made),
          facets_(made.facets),
          lines_(lines),
          cells_(cells),
          places_(places),
          divide_(std::move(divide)) {}
    /// What is left of a face.
    [[nodiscard]] FaceCells of(std::size_t i) const;

private:
    bool addMeetings(std::size_t i, std::size_t k, FaceLines& caps, FaceLines& divides,
                     std::vector<std::size_t>& over) const;
    void addOutline(std::size_t i, std::size_t k, FaceLines& divides) const;
    void addHalfway(std::size_t i, std::size_t k, FaceLines& divides) const;
    [[nodiscard]] std::optional<Along> commonPlace(std::size_t i, std::size_t k) const;
    [[nodiscard]] std::optional<Along> placeWithin(std::size_t i, std::size_t k) const;
    [[nodiscard]] bool isOver(std::size_t i, std::size_t k) const;
    [[nodiscard]] bool isTaken(std::size_t i, Along at, std::size_t k) const;

    const EdgeFacets& made_;
    const std::vector<Facet>& facets_;
    const std::vector<std::vector<FaceLine>>& lines_;
    const std::vector<FaceCells>& cells_;
    const FacePlaces& places_;
    Divide divide_;
};

}  // namespace erdwerk::earthwork
