#pragma once
// A face divided into cells: between two of its lines, from one s to another.

#include <functional>
#include <span>

#include "core/earthwork/face_lines.h"

namespace erdwerk::earthwork {

/// All of it lies before the target, on one strip.
struct FaceCell {
    double from = 0;  ///< s
    double to = 0;
    std::uint32_t low = 0;  ///< lines
    std::uint32_t high = 0;
    std::uint32_t slab = 0;  ///< counted along s; cells of one slab have the same s
    std::size_t strip = 0;
};

/// Does a place of the face lie before its target?
using IsBefore = std::function<bool(Along)>;

/// In the order of s, then d.
class FaceCells {
public:
    FaceCells() = default;
    /// `lines` as FaceLines gives them; edge, flanks and berms are added. Where lines do not say on which
    /// hand the face lies, `isBefore` does. Beyond a wall or a cap, and where the ground ends before the
    /// target is met, there is nothing. Costs the lines, times those that lie over one s.
    FaceCells(const Facet& facet, std::vector<FaceLine> lines, const IsBefore& isBefore);

    std::vector<FaceLine> lines;
    std::vector<FaceCell> cells;

    [[nodiscard]] double low(const FaceCell& c, double s) const { return lines[c.low].at(s); }
    [[nodiscard]] double high(const FaceCell& c, double s) const { return lines[c.high].at(s); }
    [[nodiscard]] Along middle(const FaceCell& c) const {
        const double s = (c.from + c.to) / 2;
        return {s, (low(c, s) + high(c, s)) / 2};
    }
    /// The cell at a place.
    [[nodiscard]] std::optional<std::uint32_t> at(Along place) const;
    /// A part of the straight a-b (0 to 1) within a cell.
    struct Part {
        double from = 0;
        double to = 1;
        std::uint32_t cell = 0;
    };
    /// In the order of the straight.
    [[nodiscard]] std::vector<Part> partsUnder(Along a, Along b) const;
    /// Calls `found` with each two cells that lie beside each other along more than a point.
    void eachPair(const std::function<void(std::uint32_t, std::uint32_t)>& found) const;
    /// Keeps those whose number says so.
    void keep(const std::function<bool(std::uint32_t)>& stays);

private:
    [[nodiscard]] std::size_t firstAfter(double s) const;
};

/// A side of cells on one line, as far as they follow each other.
struct CellSide {
    std::uint32_t line = 0;
    bool isOuter = false;  ///< the cells lie towards the edge from it
    double from = 0;       ///< s
    double to = 0;
};
/// Of cells in the order of s.
std::vector<CellSide> sidesOf(std::span<const FaceCell> cells);

}  // namespace erdwerk::earthwork
