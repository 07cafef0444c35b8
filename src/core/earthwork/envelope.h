#pragma once
// The nearest of many straight pieces over an axis.

#include <optional>
#include <vector>

namespace erdwerk::earthwork {

/// A straight piece from (s0, d0) to (s1, d1), s0 < s1.
struct Piece {
    double s0 = 0;
    double d0 = 0;
    double s1 = 0;
    double d1 = 0;
    [[nodiscard]] double at(double s) const {
        if (s == s0) return d0;
        if (s == s1) return d1;
        return d0 + (d1 - d0) * (s - s0) / (s1 - s0);
    }
};

/// By s, not overlapping; there may be gaps, and steps where the next piece begins elsewhere.
using Envelope = std::vector<Piece>;

/// The piece with the smaller d at each s where one exists. Linear.
Envelope lower(const Envelope& a, const Envelope& b);

/// Of any pieces, in any order, which may cross. Costs n log n.
Envelope lowerOf(std::vector<Piece> pieces);

}  // namespace erdwerk::earthwork
