#include "core/linework/chorded_arcs.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace erdwerk::linework {

namespace {

constexpr std::size_t fewestSides = 8;
constexpr double mostTurn = 15 * std::numbers::pi / 180;
constexpr double leastWhole = 5 * std::numbers::pi / 180;

/// The corners of a line, a closed one's first again at the end, and what lies between them.
struct Corners {
    std::vector<std::size_t> vertex;
    std::vector<Vec2> place;
    std::vector<double> length;  ///< of the side behind a corner; 0 where that is an arc
    std::vector<double> turn;    ///< at a corner, between its two sides, clockwise positive

    explicit Corners(const Line3D& line) : vertex(cornersOf(line)) {
        for (const std::size_t v : vertex) place.push_back(line.vertices[v].place);
        if (line.closed) {
            vertex.push_back(line.vertices.size());
            place.push_back(place.front());
        }
        for (std::size_t k = 0; k + 1 < place.size(); ++k)
            length.push_back(line.vertices[vertex[k]].through ? 0
                                                              : geometry::distance(place[k], place[k + 1]));
        turn.assign(place.size(), 0);
        for (std::size_t k = 1; k + 1 < place.size(); ++k) {
            const Vec2 in = place[k] - place[k - 1];
            const Vec2 out = place[k + 1] - place[k];
            turn[k] = -std::atan2(geometry::cross(in, out), geometry::dot(in, out));
        }
    }
};

class Finder {
public:
    Finder(const Line3D& line, double rounding) : corners_(line), closed_(line.closed), rounding_(rounding) {}

    std::vector<ChordedArc> run() {
        std::size_t at = 0;
        while (at + fewestSides < corners_.place.size()) {
            const std::size_t sides = runFrom(at);
            if (sides >= fewestSides) add(at, at + sides);
            at += std::max<std::size_t>(1, sides >= fewestSides ? sides : 1);
        }
        return std::move(out_);
    }

private:
    /// How many sides from a corner on have one length and turn.
    [[nodiscard]] std::size_t runFrom(std::size_t at) const {
        const double length = corners_.length[at];
        const double turn = corners_.turn[at + 1];
        // Each end of a side may be off by the rounding, across or along it.
        const double sameLength = 3 * rounding_;
        const double sameTurn = 5 * rounding_ / std::max(length, 1e-9);
        if (length <= 10 * rounding_ || std::abs(turn) > mostTurn || std::abs(turn) <= 2 * sameTurn) return 0;
        std::size_t sides = 1;
        while (at + sides < corners_.length.size() &&
               std::abs(corners_.length[at + sides] - length) <= sameLength &&
               std::abs(corners_.turn[at + sides] - turn) <= sameTurn)
            ++sides;
        return sides;
    }

    void add(std::size_t from, std::size_t to) {
        if (closed_ && from == 0 && to + 1 == corners_.place.size()) {
            addOne(from, to / 2);
            addOne(to / 2, to);
        } else {
            addOne(from, to);
        }
    }

    void addOne(std::size_t from, std::size_t to) {
        const Vec2 middle = corners_.place[(from + to) / 2];
        const auto arc = geometry::arcOf({corners_.place[from], corners_.place[to], middle, {}});
        if (!arc || std::abs(arc->sweep.radians()) < leastWhole) return;
        double off = 0;
        for (std::size_t k = from; k <= to; ++k)
            off = std::max(off, std::abs(geometry::distance(corners_.place[k], arc->centre) - arc->radius));
        if (off > 2 * rounding_) return;
        const double step = std::abs(arc->sweep.radians()) / static_cast<double>(to - from);
        out_.push_back({corners_.vertex[from], corners_.vertex[to], to - from, arc->radius,
                        off + arc->radius * (1 - std::cos(step / 2)), middle});
    }

    Corners corners_;
    bool closed_;
    double rounding_;
    std::vector<ChordedArc> out_;
};

}  // namespace

Line3D withArcs(const Line3D& line, const std::vector<ChordedArc>& arcs) {
    const bool heights = std::any_of(line.vertices.begin(), line.vertices.end(), [](const LineVertex& v) {
        return !std::holds_alternative<NoHeight>(v.rule);
    });
    Line3D out;
    out.closed = line.closed;
    std::size_t at = 0;
    for (const ChordedArc& arc : arcs) {
        for (; at < arc.first; ++at) out.vertices.push_back(line.vertices[at]);
        out.vertices.push_back(line.vertices[at++]);
        out.vertices.back().through = arc.middle;
        std::size_t side = 0;
        for (; at < arc.last; ++at) {
            LineVertex v = line.vertices[at];
            side += v.isCorner ? 1 : 0;
            if (!heights || std::holds_alternative<Interpolated>(v.rule)) continue;
            v.fraction =
                (static_cast<double>(side) + (v.isCorner ? 0 : v.fraction)) / static_cast<double>(arc.sides);
            v.isCorner = false;
            out.vertices.push_back(std::move(v));
        }
    }
    for (; at < line.vertices.size(); ++at) out.vertices.push_back(line.vertices[at]);
    return out;
}

std::vector<ChordedArc> chordedArcs(const Line3D& line, double rounding) {
    if (line.vertices.size() <= fewestSides) return {};
    return Finder(line, rounding).run();
}

}  // namespace erdwerk::linework
