#pragma once
// The lines on which a face may end or that divide it, in its own coordinates.

#include <algorithm>
#include <cstdint>
#include <vector>

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

/// What lies beside a line: the face before its target, what is beyond the target, no target at all.
enum class Beside : std::uint8_t { Unknown, Face, Beyond, Nothing };

enum class LineKind : std::uint8_t {
    Edge,    ///< of the earthwork
    First,   ///< flank at the start of the side
    Last,    ///< flank at its end
    Target,  ///< the face meets its target
    Rim,     ///< the ground ends
    Wall,    ///< another part of the edge, which no face crosses
    Cap,     ///< another face stays instead, from here outwards
    Divide   ///< berms, and what may be another face's
};

/// A straight from (s0, d0) to (s1, d1), s0 < s1.
struct FaceLine {
    double s0 = 0;
    double d0 = 0;
    double s1 = 0;
    double d1 = 0;
    LineKind kind = LineKind::Target;
    Beside inner = Beside::Unknown;  ///< towards the edge
    Beside outer = Beside::Unknown;
    [[nodiscard]] double at(double s) const {
        if (s <= s0) return d0;
        if (s >= s1) return d1;
        return d0 + (d1 - d0) * (s - s0) / (s1 - s0);
    }
};

/// Gathers straights, each cut to the ground between a face's flanks.
class FaceLines {
public:
    explicit FaceLines(const Facet& facet);
    /// A straight in any direction; with a strip only what lies on it. What of it lies before the edge,
    /// beyond the flanks too.
    void add(Along a, Along b, LineKind kind, Beside inner, Beside outer,
             std::optional<std::size_t> strip = {});
    [[nodiscard]] const std::vector<FaceLine>& all() const { return lines_; }
    [[nodiscard]] std::vector<FaceLine> take() { return std::move(lines_); }
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

private:
    /// s = at + slope * d
    struct Straight {
        double at = 0;
        double slope = 0;
    };
    static Straight straightOf(const Flank& flank, double about);
    void addBetweenFlanks(Along p, Along q, const FaceLine& as);
    void cut(Along a, Along b, FaceLine as);

    const Facet& facet_;
    Straight first_;
    Straight last_;
    std::vector<double> breaks_;  ///< d of the flanks' knots
    std::vector<FaceLine> lines_;
};

}  // namespace erdwerk::earthwork
