#pragma once
// Following a contour over the triangles of a surface. For `contours` and `contoursAfter`.

#include <algorithm>
#include <cmath>
#include <optional>

#include "core/terrain/contours.h"

namespace erdwerk::terrain {

/// Heights of the levels k with low < level <= high: those that separate a vertex below from one on or above.
std::vector<double> contourLevels(double low, double high, double interval);

/// One level. Walking with higher ground on the right, a line enters a counter-clockwise triangle over the
/// side that rises from below to above in the triangle's sense, and leaves over the side that falls.
class ContourWalk {
public:
    ContourWalk(const Tin& tin, double level, const ContourOptions& options)
        : tin_(tin), level_(level), options_(options) {}

    /// Sides of a triangle that the level crosses.
    [[nodiscard]] int entry(std::uint32_t t) const { return sideWhere(t, false); }
    [[nodiscard]] int exit(std::uint32_t t) const { return sideWhere(t, true); }

    /// The line from a triangle to where it leaves the surface or is back. `firstVisit` is told of every
    /// triangle and says whether it was not there before. Nothing for a peak that only just reaches the
    /// level.
    template <class FirstVisit>
    std::optional<Contour> follow(std::uint32_t first, const FirstVisit& firstVisit) {
        nodes_.clear();
        add(nodeOn(first, entry(first)));
        bool closed = false;
        // Met a second time only where triangles are linked as they should not be.
        for (std::uint32_t t = first; firstVisit(t);) {
            const int out = exit(t);
            add(nodeOn(t, out));
            t = tin_.neighbour(t, out);
            closed = t == first;
            if (t == Tin::none || closed) break;
        }
        return line(closed);
    }

private:
    /// A place on a line, with the edge it lies on.
    struct Node {
        Vec2 place;
        double slope;  ///< height difference per length along the edge, absolute
        double room;   ///< the edge's plan length: 0 where the line runs through a vertex
    };

    [[nodiscard]] bool above(std::uint32_t v) const { return tin_.vertex(v).z >= level_; }
    [[nodiscard]] int sideWhere(std::uint32_t t, bool startAbove) const {
        for (int i = 0; i < 3; ++i)
            if (above(tin_.corner(t, (i + 1) % 3)) == startAbove &&
                above(tin_.corner(t, (i + 2) % 3)) != startAbove)
                return i;
        return 0;
    }
    [[nodiscard]] Node nodeOn(std::uint32_t t, int i) const;
    void add(const Node& node) {
        if (nodes_.empty() || !(nodes_.back().place == node.place)) nodes_.push_back(node);
    }
    [[nodiscard]] std::optional<Contour> line(bool closed);
    [[nodiscard]] std::vector<Vec2> rounded(bool closed) const;

    const Tin& tin_;
    double level_;
    const ContourOptions& options_;
    std::vector<Node> nodes_;
};

}  // namespace erdwerk::terrain
