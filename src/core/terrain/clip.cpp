#include "core/terrain/clip.h"

#include <algorithm>
#include <map>
#include <memory>
#include <unordered_map>

#include "core/geometry/box_index.h"
#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/trace.h"

namespace erdwerk::terrain {

Result<void> validate(const Boundary& boundary) {
    const auto& ring = boundary.ring;
    const std::size_t n = ring.size();
    if (n < 3) return badInput("a boundary needs at least three corners");
    std::vector<Box> boxes(n);
    for (std::size_t i = 0; i < n; ++i) {
        if (!std::isfinite(ring[i].x) || !std::isfinite(ring[i].y))
            return badInput("a boundary corner is not a finite number");
        if (ring[i] == ring[(i + 1) % n])
            return badInput("the boundary repeats corner " + std::to_string(i + 1));
        boxes[i].add(ring[i]);
        boxes[i].add(ring[(i + 1) % n]);
    }
    const geometry::BoxIndex index(boxes);
    for (std::size_t i = 0; i < n; ++i) {
        std::optional<std::size_t> crossed;
        index.query(boxes[i], [&](std::uint32_t j) {
            if (j <= i) return true;
            const auto m = geometry::meeting(ring[i], ring[(i + 1) % n], ring[j], ring[(j + 1) % n]);
            const bool next = j == i + 1 || (i == 0 && j + 1 == n);
            if (m == geometry::Meeting::Crossing || m == geometry::Meeting::Overlap ||
                (m == geometry::Meeting::Touching && !next))
                crossed = j;
            return !crossed;
        });
        if (crossed)
            return badInput("the boundary crosses itself: sides " + std::to_string(i + 1) + " and " +
                            std::to_string(*crossed + 1));
    }
    return {};
}

namespace {

/// Marks the triangles inside the ring. Triangles joined by an edge that `separates` does not cut share one
/// answer.
template <class Separates>
std::vector<bool> insideByRegion(const Tin& tin, const std::vector<Vec2>& ring, const std::vector<bool>& skip,
                                 const Separates& separates) {
    std::vector<bool> inside(tin.triangleCount(), false);
    std::vector<bool> seen = skip;
    std::vector<std::uint32_t> work;
    for (std::uint32_t seed = 0; seed < tin.triangleCount(); ++seed) {
        if (seen[seed]) continue;
        const auto [a, b, c] = tin.triangle(seed);
        const Vec2 centre = (a.plan() + b.plan() + c.plan()) * (1.0 / 3.0);
        const bool in = geometry::sideOf(ring, centre) != geometry::Side::Outside;
        seen[seed] = true;
        work.assign(1, seed);
        while (!work.empty()) {
            const std::uint32_t t = work.back();
            work.pop_back();
            inside[t] = in;
            for (int i = 0; i < 3; ++i) {
                const std::uint32_t n = tin.neighbour(t, i);
                if (n == Tin::none || seen[n] || separates(t, i)) continue;
                seen[n] = true;
                work.push_back(n);
            }
        }
    }
    return inside;
}

/// One triangle that the ring crosses, with what falls into it.
struct Piece {
    std::vector<std::uint32_t> vertices;              ///< corners first
    std::vector<std::array<std::uint32_t, 2>> sides;  ///< of the ring, as vertices of the new surface
};

class Clipper {
public:
    Clipper(const Tin& tin, const std::vector<Vec2>& ring, Part part)
        : tin_(tin),
          ring_(ring),
          inside_(part == Part::Inside),
          locator_(std::make_shared<const Tin>(tin)),
          vertices_(tin.vertices().begin(), tin.vertices().end()) {
        byPlace_.reserve(vertices_.size());
        for (std::uint32_t v = 0; v < vertices_.size(); ++v) byPlace_.emplace(key(vertices_[v].plan()), v);
    }

    Tin run() {
        for (std::size_t i = 0; i < ring_.size(); ++i) addSide(ring_[i], ring_[(i + 1) % ring_.size()]);
        std::vector<bool> crossed(tin_.triangleCount(), false);
        for (const auto& [t, piece] : pieces_) crossed[t] = true;
        // A vertex put on an edge also belongs to the neighbour, even if no side of the ring runs through it.
        for (std::uint32_t t = 0; t < tin_.triangleCount(); ++t) {
            if (crossed[t]) continue;
            for (int i = 0; i < 3; ++i)
                if (onEdge_.count(edgeKey(t, i)) != 0) crossed[t] = true;
            if (crossed[t]) pieces_[t];
        }
        const auto inside = insideByRegion(tin_, ring_, crossed, [&](std::uint32_t t, int i) {
            return ringEdges_.count(edgeKey(t, i)) != 0;
        });
        for (std::uint32_t t = 0; t < tin_.triangleCount(); ++t)
            if (inside[t] == inside_ && !crossed[t])
                for (int i = 0; i < 3; ++i) corners_.push_back(tin_.corner(t, i));
        for (auto& [t, piece] : pieces_) triangulate(t, piece);
        return finish();
    }

private:
    using Edge = std::pair<std::uint32_t, std::uint32_t>;
    using Key = std::pair<double, double>;
    struct KeyHash {
        std::size_t operator()(const Key& k) const {
            return std::hash<double>{}(k.first) * 0x9e3779b97f4a7c15U ^ std::hash<double>{}(k.second);
        }
    };
    static Key key(Vec2 p) { return {p.x, p.y}; }
    static Edge ordered(std::uint32_t a, std::uint32_t b) { return {std::min(a, b), std::max(a, b)}; }
    [[nodiscard]] Edge edgeKey(std::uint32_t t, int i) const {
        return ordered(tin_.corner(t, (i + 1) % 3), tin_.corner(t, (i + 2) % 3));
    }

    std::uint32_t vertexAt(Vec2 p, double z) {
        const auto [it, fresh] = byPlace_.try_emplace(key(p), static_cast<std::uint32_t>(vertices_.size()));
        if (fresh) vertices_.push_back({p.x, p.y, z});
        return it->second;
    }

    void addSide(Vec2 a, Vec2 b) {
        const auto points = trace(locator_, a, b);
        std::optional<std::uint32_t> last;
        for (std::size_t k = 0; k < points.size(); ++k) {
            std::optional<std::uint32_t> here;
            if (points[k].height) {
                here = vertexAt(points[k].place, *points[k].height);
                placeOnEdges(*here);
            }
            if (k > 0 && last && here && points[k - 1].triangleAfter)
                addPiece(*points[k - 1].triangleAfter, *last, *here);
            last = here;
        }
    }

    /// Registers a new vertex with the edge it lies on (decided by the triangles around it).
    void placeOnEdges(std::uint32_t v) {
        if (v < tin_.vertexCount()) return;
        Box box;
        const Vec2 p = vertices_[v].plan();
        box.add(p);
        for (const std::uint32_t t : locator_.near(box.grown(1e-7))) {
            for (int i = 0; i < 3; ++i) {
                const Vec2 a = tin_.vertex(tin_.corner(t, (i + 1) % 3)).plan();
                const Vec2 b = tin_.vertex(tin_.corner(t, (i + 2) % 3)).plan();
                const double size = geometry::distance(a, b);
                const double off = std::abs(geometry::cross(b - a, p - a)) / size;
                const double along = geometry::dot(p - a, b - a) / (size * size);
                if (off < 1e-9 * std::max(1.0, size) && along > 0 && along < 1)
                    addTo(onEdge_[edgeKey(t, i)], v);
            }
        }
    }

    static void addTo(std::vector<std::uint32_t>& list, std::uint32_t v) {
        if (std::find(list.begin(), list.end(), v) == list.end()) list.push_back(v);
    }

    void addPiece(std::uint32_t t, std::uint32_t from, std::uint32_t to) {
        if (from == to) return;
        ringSides_.push_back(ordered(from, to));
        for (int i = 0; i < 3; ++i) {
            if (edgeKey(t, i) == ordered(from, to)) {
                ringEdges_[ordered(from, to)] = true;
                return;
            }
        }
        Piece& piece = pieces_[t];
        addTo(piece.vertices, from);
        addTo(piece.vertices, to);
        piece.sides.push_back({from, to});
    }

    /// Splits one crossed triangle along the ring. Worked out in the triangle's own plan, so its plane is
    /// kept.
    void triangulate(std::uint32_t t, Piece& piece) {
        std::vector<std::uint32_t> all{tin_.corner(t, 0), tin_.corner(t, 1), tin_.corner(t, 2)};
        std::vector<std::array<std::uint32_t, 2>> sides = piece.sides;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t a = tin_.corner(t, (i + 1) % 3);
            const std::uint32_t b = tin_.corner(t, (i + 2) % 3);
            std::vector<std::uint32_t> chain;
            if (const auto it = onEdge_.find(ordered(a, b)); it != onEdge_.end()) chain = it->second;
            const Vec2 from = vertices_[a].plan();
            std::sort(chain.begin(), chain.end(), [&](std::uint32_t x, std::uint32_t y) {
                return geometry::distance(from, vertices_[x].plan()) <
                       geometry::distance(from, vertices_[y].plan());
            });
            chain.insert(chain.begin(), a);
            chain.push_back(b);
            for (std::size_t k = 0; k + 1 < chain.size(); ++k) {
                addTo(all, chain[k]);
                sides.push_back({chain[k], chain[k + 1]});
            }
        }
        for (const std::uint32_t v : piece.vertices) addTo(all, v);
        std::vector<Vec2> plan;
        std::map<std::uint32_t, std::uint32_t> local;
        for (const std::uint32_t v : all) {
            local[v] = static_cast<std::uint32_t>(plan.size());
            plan.push_back(vertices_[v].plan());
        }
        std::vector<std::array<std::uint32_t, 2>> localSides;
        localSides.reserve(sides.size());
        for (const auto& [a, b] : sides) localSides.push_back({local[a], local[b]});
        const auto pieces = constrainedTriangles(plan, localSides);
        for (std::size_t k = 0; k < pieces.size(); k += 3) {
            const Vec2 a = plan[pieces[k]];
            const Vec2 b = plan[pieces[k + 1]];
            const Vec2 c = plan[pieces[k + 2]];
            const Vec2 centre = (a + b + c) * (1.0 / 3.0);
            const double longest =
                std::max({geometry::distance(a, b), geometry::distance(b, c), geometry::distance(c, a)});
            const double thin = geometry::cross(b - a, c - a) / (longest * longest);
            // A vertex on an edge is on it only to rounding: slivers outside the triangle are not part of it.
            if (thin < 1e-9 || (geometry::sideOf(ring_, centre) != geometry::Side::Outside) != inside_)
                continue;
            for (std::size_t m = 0; m < 3; ++m) corners_.push_back(all[pieces[k + m]]);
        }
    }

    Tin finish() {
        Tin raw(std::move(vertices_), std::move(corners_));
        std::map<Edge, bool> constrained;
        for (const Edge& e : ringSides_) constrained[e] = true;
        for (std::uint32_t t = 0; t < tin_.triangleCount(); ++t)
            for (int i = 0; i < 3; ++i)
                if (tin_.constrained(t, i)) markChain(edgeKey(t, i), constrained);
        for (std::uint32_t t = 0; t < raw.triangleCount(); ++t)
            for (int i = 0; i < 3; ++i)
                if (constrained.count(ordered(raw.corner(t, (i + 1) % 3), raw.corner(t, (i + 2) % 3))) != 0)
                    raw.constrain(t, i);
        return raw.subset(std::vector<bool>(raw.triangleCount(), true));
    }

    void markChain(const Edge& edge, std::map<Edge, bool>& constrained) const {
        constrained[edge] = true;
        const auto it = onEdge_.find(edge);
        if (it == onEdge_.end()) return;
        std::vector<std::uint32_t> chain = it->second;
        chain.push_back(edge.first);
        chain.push_back(edge.second);
        for (const std::uint32_t a : chain)
            for (const std::uint32_t b : chain)
                if (a != b) constrained[ordered(a, b)] = true;
    }

    const Tin& tin_;
    const std::vector<Vec2>& ring_;
    bool inside_;
    TinLocator locator_;
    std::vector<Vec3> vertices_;
    std::unordered_map<Key, std::uint32_t, KeyHash> byPlace_;
    std::map<std::uint32_t, Piece> pieces_;
    std::map<Edge, std::vector<std::uint32_t>> onEdge_;
    std::map<Edge, bool> ringEdges_;
    std::vector<Edge> ringSides_;
    std::vector<std::uint32_t> corners_;
};

}  // namespace

Tin keepInside(const Tin& tin, const std::vector<Vec2>& ring) {
    const std::vector<bool> none(tin.triangleCount(), false);
    return tin.subset(
        insideByRegion(tin, ring, none, [&](std::uint32_t t, int i) { return tin.constrained(t, i); }));
}

Tin keepOutside(const Tin& tin, const std::vector<Vec2>& ring) {
    const std::vector<bool> none(tin.triangleCount(), false);
    auto keep =
        insideByRegion(tin, ring, none, [&](std::uint32_t t, int i) { return tin.constrained(t, i); });
    keep.flip();
    return tin.subset(keep);
}

Tin joined(const Tin& a, const Tin& b) {
    std::vector<Vec3> vertices(a.vertices().begin(), a.vertices().end());
    vertices.insert(vertices.end(), b.vertices().begin(), b.vertices().end());
    std::vector<std::uint32_t> corners(a.corners().begin(), a.corners().end());
    std::vector<std::uint32_t> links(a.links().begin(), a.links().end());
    const auto vertexShift = static_cast<std::uint32_t>(a.vertexCount());
    for (const std::uint32_t c : b.corners()) corners.push_back(c + vertexShift);
    for (const std::uint32_t l : b.links())
        links.push_back((l & Tin::none) == Tin::none ? l : l + a.triangleCount());
    return Tin::fromLinked(std::move(vertices), std::move(corners), std::move(links));
}

namespace {

/// A place to a grid; looked for in the cells beside it too.
class RimVertices {
public:
    void add(std::uint32_t v, const Vec3& p) { cells_[{cell(p.x), cell(p.y)}].emplace_back(v, p); }
    [[nodiscard]] std::optional<std::uint32_t> at(const Vec3& p) const {
        for (std::int64_t dx = -1; dx <= 1; ++dx)
            for (std::int64_t dy = -1; dy <= 1; ++dy) {
                const auto it = cells_.find({cell(p.x) + dx, cell(p.y) + dy});
                if (it == cells_.end()) continue;
                for (const auto& [v, place] : it->second)
                    if (geometry::distance(place.plan(), p.plan()) <= grid && std::abs(place.z - p.z) <= grid)
                        return v;
            }
        return std::nullopt;
    }

private:
    static constexpr double grid = 1e-6;
    static std::int64_t cell(double v) { return static_cast<std::int64_t>(std::floor(v / grid)); }
    std::map<std::pair<std::int64_t, std::int64_t>, std::vector<std::pair<std::uint32_t, Vec3>>> cells_;
};

/// Sides without a neighbour, by their vertices in the triangle's sense.
template <class Visit>
void rimSides(const Tin& tin, const Visit& visit) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (tin.neighbour(t, i) == Tin::none)
                visit(t, i, tin.corner(t, (i + 1) % 3), tin.corner(t, (i + 2) % 3));
}

}  // namespace

Tin sewn(const Tin& a, const Tin& b) {
    const Box near = b.bounds().grown(1e-3);
    RimVertices rim;
    std::map<std::pair<std::uint32_t, std::uint32_t>, std::size_t> sides;  // to the place of its link
    rimSides(a, [&](std::uint32_t t, int i, std::uint32_t u, std::uint32_t v) {
        if (!near.contains(a.vertex(u).plan()) || !near.contains(a.vertex(v).plan())) return;
        rim.add(u, a.vertex(u));
        rim.add(v, a.vertex(v));
        sides[{u, v}] = 3 * std::size_t{t} + static_cast<std::size_t>(i);
    });
    std::vector<Vec3> vertices(a.vertices().begin(), a.vertices().end());
    std::vector<std::uint32_t> number(b.vertexCount(), Tin::none);
    rimSides(b, [&](std::uint32_t, int, std::uint32_t u, std::uint32_t v) {
        for (const std::uint32_t w : {u, v})
            if (const auto shared = rim.at(b.vertex(w))) number[w] = *shared;
    });
    for (std::uint32_t v = 0; v < b.vertexCount(); ++v) {
        if (number[v] != Tin::none) continue;
        number[v] = static_cast<std::uint32_t>(vertices.size());
        vertices.push_back(b.vertex(v));
    }
    std::vector<std::uint32_t> corners(a.corners().begin(), a.corners().end());
    std::vector<std::uint32_t> links(a.links().begin(), a.links().end());
    for (const std::uint32_t c : b.corners()) corners.push_back(number[c]);
    for (const std::uint32_t l : b.links())
        links.push_back((l & Tin::none) == Tin::none ? l : l + a.triangleCount());
    rimSides(b, [&](std::uint32_t t, int i, std::uint32_t u, std::uint32_t v) {
        const auto side = sides.find({number[v], number[u]});
        if (side == sides.end()) return;
        const std::size_t own = 3 * (std::size_t{a.triangleCount()} + t) + static_cast<std::size_t>(i);
        const std::uint32_t other = static_cast<std::uint32_t>(side->second / 3);
        // Constrained: what was sewn together stays apart when it is edited.
        links[own] = other | ~Tin::none;
        links[side->second] = (a.triangleCount() + t) | ~Tin::none;
        sides.erase(side);
    });
    return Tin::fromLinked(std::move(vertices), std::move(corners), std::move(links));
}

Tin clip(const Tin& tin, const std::vector<Vec2>& ring, Part part) {
    return Clipper(tin, ring, part).run();
}

}  // namespace erdwerk::terrain
