#include "core/linework/enclosure.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <set>
#include <span>

#include "core/linework/path_crossings.h"

namespace erdwerk::linework {

namespace {

using geometry::Segment;
using geometry::Vec2;

/// A stretch of one side between two nodes.
struct Edge {
    std::size_t path = 0;
    std::size_t side = 0;
    double from = 0;  ///< fractions of the side
    double to = 1;
    Segment shape;
    std::size_t start = 0;  ///< nodes
    std::size_t end = 0;
    bool used = true;
};

/// An edge in one direction.
struct Way {
    std::size_t edge = 0;
    bool backward = false;
    friend bool operator==(const Way&, const Way&) = default;
};

class Net {
public:
    explicit Net(const std::vector<Path>& paths) {
        for (std::size_t i = 0; i < paths.size(); ++i) cut(paths, i);
        prune();
        leaving_.resize(nodes_.size());
        for (std::size_t e = 0; e < edges_.size(); ++e) {
            if (!edges_[e].used) continue;
            leaving_[edges_[e].start].push_back({e, false});
            leaving_[edges_[e].end].push_back({e, true});
        }
    }

    /// Ways that a ray to the east from a place meets, the nearest first, each with the place on its left.
    [[nodiscard]] std::vector<Way> eastOf(Vec2 place) const {
        std::vector<std::pair<double, Way>> found;
        for (std::size_t e = 0; e < edges_.size(); ++e) {
            if (!edges_[e].used) continue;
            const auto points = geometry::flattened(edges_[e].shape, 1e-4);
            for (std::size_t i = 0; i + 1 < points.size(); ++i) {
                const Vec2 a = points[i];
                const Vec2 b = points[i + 1];
                if ((a.y > place.y) == (b.y > place.y)) continue;
                const double x = a.x + (place.y - a.y) / (b.y - a.y) * (b.x - a.x);
                if (x > place.x) found.push_back({x, {e, b.y < a.y}});
            }
        }
        std::sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        std::vector<Way> out;
        out.reserve(found.size());
        for (const auto& [x, way] : found) out.push_back(way);
        return out;
    }

    /// The face on the left of a way, back to it.
    [[nodiscard]] std::vector<Way> faceOf(Way first) const {
        std::vector<Way> out;
        Way at = first;
        do {
            out.push_back(at);
            at = next(at);
        } while (!(at == first) && out.size() <= 2 * edges_.size());
        return out;
    }

    /// A face as a path; stretches of one side that follow each other are one again.
    [[nodiscard]] Path pathOf(const std::vector<Way>& face, const std::vector<Path>& paths) const {
        struct Stretch {
            std::size_t path, side;
            double from, to;
        };
        std::vector<Stretch> stretches;
        for (const Way& way : face) {
            const Edge& e = edges_[way.edge];
            const Stretch next{e.path, e.side, way.backward ? e.to : e.from, way.backward ? e.from : e.to};
            auto* last = stretches.empty() ? nullptr : &stretches.back();
            if (last != nullptr && last->path == next.path && last->side == next.side &&
                last->to == next.from)
                last->to = next.to;
            else
                stretches.push_back(next);
        }
        if (stretches.size() > 1 && stretches.front().path == stretches.back().path &&
            stretches.front().side == stretches.back().side &&
            stretches.back().to == stretches.front().from) {
            stretches.front().from = stretches.back().from;
            stretches.pop_back();
        }
        Path out;
        for (const auto& s : stretches) {
            const Segment& side = paths[s.path][s.side];
            const bool backward = s.to < s.from;
            Segment piece = part(side, std::min(s.from, s.to), std::max(s.from, s.to));
            if (backward) piece = geometry::reversed(piece);
            // They meet in one node, whatever the last digits say.
            if (!out.empty()) piece.start = out.back().end;
            out.push_back(piece);
        }
        if (!out.empty()) out.back().end = out.front().start;
        return out;
    }

    /// Which paths a face has stretches of.
    [[nodiscard]] std::vector<std::size_t> pathsOf(const std::vector<Way>& face) const {
        std::set<std::size_t> out;
        for (const Way& way : face) out.insert(edges_[way.edge].path);
        return {out.begin(), out.end()};
    }

private:
    std::vector<Edge> edges_;
    std::vector<Vec2> nodes_;
    std::vector<std::vector<Way>> leaving_;
    std::map<std::pair<long long, long long>, std::size_t> grid_;

    std::size_t nodeAt(Vec2 p) {
        constexpr double cell = 4 * pathsTouch;
        const auto x = std::llround(p.x / cell);
        const auto y = std::llround(p.y / cell);
        for (long long i = -1; i <= 1; ++i)
            for (long long k = -1; k <= 1; ++k)
                if (const auto it = grid_.find({x + i, y + k});
                    it != grid_.end() && geometry::distance(nodes_[it->second], p) <= 2 * pathsTouch)
                    return it->second;
        nodes_.push_back(p);
        grid_[{x, y}] = nodes_.size() - 1;
        return nodes_.size() - 1;
    }

    void cut(const std::vector<Path>& paths, std::size_t i) {
        const Path& path = paths[i];
        std::vector<double> stops;
        const auto box = boundsOf(path);
        for (std::size_t k = 0; k < paths.size(); ++k)
            if (k != i && !paths[k].empty() && boundsOf(paths[k]).meets(box))
                for (const auto& [along, other] : pathCrossings(path, paths[k])) stops.push_back(along);
        std::sort(stops.begin(), stops.end());
        double start = 0;
        std::size_t stop = 0;
        for (std::size_t side = 0; side < path.size(); ++side) {
            const double length = lengthOf(path[side]);
            if (length <= pathsTouch) continue;
            std::vector<double> fractions{0};
            for (; stop < stops.size() && stops[stop] <= start + length; ++stop) {
                const double f = (stops[stop] - start) / length;
                const bool fresh =
                    (f - fractions.back()) * length > pathsTouch && (1 - f) * length > pathsTouch;
                if (fresh) fractions.push_back(f);
            }
            fractions.push_back(1);
            for (std::size_t f = 0; f + 1 < fractions.size(); ++f) {
                Edge edge{i, side, fractions[f], fractions[f + 1], {}, 0, 0, true};
                edge.shape = part(path[side], edge.from, edge.to);
                edge.start = nodeAt(edge.shape.start);
                edge.end = nodeAt(edge.shape.end);
                edges_.push_back(edge);
            }
            start += length;
        }
    }

    /// Takes away what leads nowhere.
    void prune() {
        std::vector<int> degree(nodes_.size(), 0);
        for (const Edge& e : edges_) {
            ++degree[e.start];
            ++degree[e.end];
        }
        for (bool again = true; again;) {
            again = false;
            for (Edge& e : edges_) {
                if (!e.used || (degree[e.start] > 1 && degree[e.end] > 1)) continue;
                e.used = false;
                --degree[e.start];
                --degree[e.end];
                again = true;
            }
        }
    }

    /// Azimuth in which a way leaves its node: to a place a little along it, so that arcs that leave in one
    /// direction are told apart.
    [[nodiscard]] double azimuthOf(Way way) const {
        const Segment& s = edges_[way.edge].shape;
        const double f = std::min(0.5, 1e-3 / lengthOf(s));
        const Vec2 from = way.backward ? s.end : s.start;
        return geometry::azimuth(from, pointAt(s, way.backward ? 1 - f : f)).radians();
    }

    /// Sharpest to the left.
    [[nodiscard]] Way next(Way at) const {
        const Edge& e = edges_[at.edge];
        const Way back{at.edge, !at.backward};
        const double looking = azimuthOf(back);
        Way best = back;
        double least = 2 * std::numbers::pi;
        for (const Way& way : leaving_[at.backward ? e.start : e.end]) {
            if (way == back) continue;
            const double turn = Angle::radians(azimuthOf(way) - looking).normalized().radians();
            if (turn < least) {
                least = turn;
                best = way;
            }
        }
        return best;
    }
};

}  // namespace

Result<Enclosure> enclosureOf(const std::vector<Path>& paths, Vec2 place) {
    const Net net(paths);
    for (const Way& way : net.eastOf(place)) {
        const auto face = net.faceOf(way);
        Path path = net.pathOf(face, paths);
        // A clockwise one is an island that the ray met first; one further on need not be round the place.
        if (path.size() < 2 || geometry::signedArea(path) <= 0) continue;
        const auto ring = geometry::flattened(path, 1e-4);
        if (geometry::sideOf(std::span(ring).subspan(1), place) == geometry::Side::Inside)
            return Enclosure{std::move(path), net.pathsOf(face)};
    }
    return badInput("the lines close nothing round this place");
}

Result<Path> figureOfAll(const std::vector<Path>& paths, Vec2 place) {
    auto made = enclosureOf(paths, place);
    if (!made) return tl::unexpected(made.error());
    if (made->paths.size() < paths.size())
        return badInput("not all of its lines are sides of one figure any more");
    return std::move(made->figure);
}

Line3D lineRound(const Path& figure) {
    Line3D out;
    out.closed = true;
    for (const auto& segment : figure) {
        LineVertex corner;
        corner.place = segment.start;
        corner.through = segment.through;
        out.vertices.push_back(corner);
    }
    return out;
}

}  // namespace erdwerk::linework
