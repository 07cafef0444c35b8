#pragma once
// The ground under a face.

#include <tsl/robin_set.h>

#include "core/earthwork/face_lines.h"

namespace erdwerk::earthwork {

/// Scatters numbers that follow each other over the lowest bits, which a table takes.
struct Scattered {
    std::size_t operator()(std::uint32_t n) const {
        const std::uint64_t bits = n * 0x9e3779b97f4a7c15ULL;
        return bits ^ bits >> 32U;
    }
};
using Numbers = tsl::robin_set<std::uint32_t, Scattered>;

/// Cells that were opened. Most faces are narrow: columns near the first are bits of their row's word.
class Opened {
public:
    using Cell = terrain::TinLocator::Cell;
    explicit Opened(Cell first) : first_(first) { rows_.reserve(64); }
    /// False when it was there.
    bool add(Cell c, std::size_t number);
    [[nodiscard]] bool has(Cell c, std::size_t number) const;

private:
    /// Of a cell near the first: rows on both sides of it in turn.
    struct Bit {
        std::size_t row = 0;
        std::uint64_t bit = 0;
    };
    [[nodiscard]] std::optional<Bit> bitOf(Cell c) const;
    Cell first_;
    std::vector<std::uint64_t> rows_;
    Numbers far_;
};

/// Goes over the ground under one face, cell by cell of its grid, as far as the face may lie before the
/// ground, and gathers where both meet. Refers to the face and the ground.
class Flood {
public:
    using Cell = terrain::TinLocator::Cell;
    Flood(const Facet& facet, const terrain::TinLocator& surface);
    /// A cell from which it goes on.
    void seed(Cell cell) { open(cell); }
    /// Does the face's ground cover a cell that was not opened yet?
    [[nodiscard]] bool wants(Cell cell) const;
    void run();
    /// Cells that the last run went over where the face may lie before the ground.
    [[nodiscard]] const std::vector<Cell>& wentOver() const { return wentOver_; }
    [[nodiscard]] std::vector<FaceLine> takeLines() { return found_.take(); }

private:
    /// Height over plan coordinates from the face's origin.
    struct Plane {
        double atOrigin = 0;
        Vec2 grows;
    };
    struct Corner {
        std::uint32_t vertex = 0;
        Along at;
        double z = 0;
    };
    enum class Lies { Beyond, Before, Both };

    void open(Cell cell);
    [[nodiscard]] bool isUnder(Cell cell) const;
    [[nodiscard]] Lies liesIn(Cell cell) const;
    void visit(std::uint32_t t);
    [[nodiscard]] bool isAtRim(std::uint32_t t) const;
    void runOut(std::uint32_t t, const std::array<Corner, 3>& corners);
    void meet(const std::array<Corner, 3>& corners, std::size_t strip);
    [[nodiscard]] Share before(const Corner& a, const Corner& b) const;

    const Facet& facet_;
    const terrain::TinLocator& surface_;
    const terrain::Tin& tin_;
    FaceLines found_;
    double half_ = 0;   ///< side of a cell
    double halfS_ = 0;  ///< of a cell, along the side
    double halfD_ = 0;
    std::vector<Plane> planes_;
    Opened opened_;
    Numbers met_;  ///< triangles
    std::vector<Cell> open_;
    std::size_t next_ = 0;
    std::vector<Cell> wentOver_;
};

}  // namespace erdwerk::earthwork
