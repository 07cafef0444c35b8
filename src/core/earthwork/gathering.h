#pragma once
// What faces end on: straights gathered over a face, of which the nearest count.

#include <algorithm>
#include <limits>

#include "core/earthwork/facet.h"

namespace erdwerk::earthwork {

/// Lengths smaller than this are none.
inline constexpr double tinyLength = 1e-9;
/// Farther than any face; small enough to leave 1e-9 of precision.
inline constexpr double farAway = 1e6;

/// A place on a straight between two, from 0 to 1.
inline Along between(Along a, Along b, double t) {
    if (t <= 0) return a;
    if (t >= 1) return b;
    return {a.s + (b.s - a.s) * t, a.d + (b.d - a.d) * t};
}

/// A share of a straight, which is from 0 to 1.
struct Share {
    double from = 0;
    double to = 1;
    [[nodiscard]] bool empty() const { return !(to > from); }
    /// Keeps where a linear value, `a` at 0 and `b` at 1, is not below 0.
    void keep(double a, double b) {
        if (a >= 0 && b >= 0) return;
        if (a < 0 && b < 0) {
            to = from;
            return;
        }
        const double zero = a / (a - b);
        if (a < 0)
            from = std::max(from, zero);
        else
            to = std::min(to, zero);
    }
};

/// Gathers what a face may end on, cut to the ground between its flanks. Where that runs out over a flank
/// which the face leans over, the face goes no farther along the edge.
class Gathering {
public:
    /// With `flanksEndIt` it ends on a flank that leans over it, too.
    explicit Gathering(const Facet& facet, bool flanksEndIt = true);
    /// A straight; with a strip only what lies on it. What of it lies there, beyond the flanks too.
    std::optional<std::pair<Along, Along>> add(Along a, Along b, EndsOn on,
                                               std::optional<std::size_t> strip = {});
    /// The nearest of all of them, where the face has ground.
    [[nodiscard]] Envelope nearest() const;
    // The flanks at a d.
    [[nodiscard]] double firstAt(double d) const {
        return breaks_.empty() ? first_.at + first_.slope * d : facet_.first.at(d);
    }
    [[nodiscard]] double lastAt(double d) const {
        return breaks_.empty() ? last_.at + last_.slope * d : facet_.last.at(d);
    }
    /// The least of the first flank from a d to another.
    [[nodiscard]] double firstFrom(double inmost, double outmost) const {
        return breaks_.empty() ? std::min(firstAt(inmost), firstAt(outmost))
                               : std::min(0.0, firstAt(outmost));
    }
    /// The most of the last one.
    [[nodiscard]] double lastTo(double inmost, double outmost) const {
        return breaks_.empty() ? std::max(lastAt(inmost), lastAt(outmost))
                               : std::max(facet_.length, lastAt(outmost));
    }
    [[nodiscard]] double from() const { return from_; }
    [[nodiscard]] double to() const { return to_; }

private:
    /// s = at + slope * d
    struct Straight {
        double at = 0;
        double slope = 0;
    };
    static Straight straightOf(const Flank& flank, double about);
    void addBetweenFlanks(Along p, Along q, EndsOn on);
    void cut(Along a, Along b, EndsOn on);

    const Facet& facet_;
    Straight first_;
    Straight last_;
    std::vector<double> breaks_;  ///< d of the flanks' knots
    std::vector<Piece> pieces_;
    double from_ = -std::numeric_limits<double>::infinity();
    double to_ = std::numeric_limits<double>::infinity();
};

}  // namespace erdwerk::earthwork
