#include "core/terrain/ring_cut.h"

#include <algorithm>
#include <map>
#include <optional>
#include <unordered_map>
#include <unordered_set>

#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/trace.h"

namespace erdwerk::terrain {

namespace {

VertexPair ordered(std::uint32_t a, std::uint32_t b) {
    return {std::min(a, b), std::max(a, b)};
}

struct PairHash {
    std::size_t operator()(const VertexPair& p) const {
        return std::hash<std::uint64_t>{}((std::uint64_t{p.first} << 32) | p.second);
    }
};

struct PlaceHash {
    std::size_t operator()(const std::pair<double, double>& p) const {
        return std::hash<double>{}(p.first) * 0x9e3779b97f4a7c15U ^ std::hash<double>{}(p.second);
    }
};

/// One triangle that the ring crosses, with what falls into it.
struct Piece {
    std::vector<std::uint32_t> vertices;
    std::vector<VertexPair> sides;  ///< of the ring
};

void addTo(std::vector<std::uint32_t>& list, std::uint32_t v) {
    if (std::find(list.begin(), list.end(), v) == list.end()) list.push_back(v);
}

class Cutter {
public:
    Cutter(const TinLocator& surface, const std::vector<Vec2>& ring)
        : surface_(surface), tin_(surface.tin()), ring_(ring) {}

    RingCut run() {
        for (std::size_t i = 0; i < ring_.size(); ++i) addSide(ring_[i], ring_[(i + 1) % ring_.size()]);
        // A vertex put on an edge also belongs to the neighbour, even if no side of the ring runs through it.
        for (const auto& [edge, on] : onEdge_)
            for (const std::uint32_t t : on.triangles) pieces_[t];
        for (const auto& [t, piece] : pieces_) out_.crossed.push_back(t);
        findWithin();
        for (const auto& [t, piece] : pieces_) triangulate(t, piece);
        constrain();
        return std::move(out_);
    }

private:
    struct Place {
        Vec2 plan;
        std::vector<std::uint32_t> vertices;
    };
    /// New vertices on a side of the surface, and the triangles beside it.
    struct OnEdge {
        std::vector<std::uint32_t> vertices;
        std::vector<std::uint32_t> triangles;
        bool constrained = false;
    };

    [[nodiscard]] VertexPair edgeKey(std::uint32_t t, int i) const {
        return ordered(tin_.corner(t, (i + 1) % 3), tin_.corner(t, (i + 2) % 3));
    }
    [[nodiscard]] std::uint32_t known() const { return static_cast<std::uint32_t>(tin_.vertexCount()); }
    [[nodiscard]] Vec2 plan(std::uint32_t v) const {
        return v < known() ? tin_.vertex(v).plan() : out_.vertices[v - known()].plan();
    }

    /// A place of the trace; where it lies on sides of the surface (decided by the triangles around it) they
    /// get a vertex there.
    Place& placeAt(Vec2 p) {
        const auto [it, fresh] = places_.try_emplace({p.x, p.y}, Place{p, {}});
        if (!fresh) return it->second;
        Box box;
        box.add(p);
        const auto around = surface_.near(box.grown(1e-7));
        for (const std::uint32_t t : around)
            for (int i = 0; i < 3; ++i)
                if (tin_.vertex(tin_.corner(t, i)).plan() == p) addTo(it->second.vertices, tin_.corner(t, i));
        for (const std::uint32_t t : around) placeOnSides(it->second, t);
        return it->second;
    }

    /// The vertex of a place at a height. Where the surface steps there are several.
    std::uint32_t vertexAt(Place& place, double z) {
        for (const std::uint32_t v : place.vertices)
            if (std::abs((v < known() ? tin_.vertex(v) : out_.vertices[v - known()]).z - z) <= 1e-6) return v;
        const auto v = static_cast<std::uint32_t>(tin_.vertexCount() + out_.vertices.size());
        out_.vertices.push_back({place.plan.x, place.plan.y, z});
        place.vertices.push_back(v);
        return v;
    }

    void placeOnSides(Place& place, std::uint32_t t) {
        const Vec2 p = place.plan;
        for (int i = 0; i < 3; ++i) {
            const Vec3& a = tin_.vertex(tin_.corner(t, (i + 1) % 3));
            const Vec3& b = tin_.vertex(tin_.corner(t, (i + 2) % 3));
            if (a.plan() == p || b.plan() == p) continue;
            const Vec2 way = b.plan() - a.plan();
            const double size = geometry::length(way);
            const double off = std::abs(geometry::cross(way, p - a.plan())) / size;
            const double along = geometry::dot(p - a.plan(), way) / (size * size);
            if (off >= 1e-9 * std::max(1.0, size) || along <= 0 || along >= 1) continue;
            OnEdge& on = onEdge_[edgeKey(t, i)];
            addTo(on.vertices, vertexAt(place, a.z + (b.z - a.z) * along));
            addTo(on.triangles, t);
            if (const std::uint32_t n = tin_.neighbour(t, i); n != Tin::none) addTo(on.triangles, n);
            on.constrained = tin_.constrained(t, i);
        }
    }

    /// The vertex of a place in a triangle: its corner, the one on its side, or one in its plane.
    std::uint32_t vertexIn(std::uint32_t t, Place& place) {
        for (int i = 0; i < 3; ++i)
            if (tin_.vertex(tin_.corner(t, i)).plan() == place.plan) return tin_.corner(t, i);
        for (int i = 0; i < 3; ++i)
            if (const auto it = onEdge_.find(edgeKey(t, i)); it != onEdge_.end())
                for (const std::uint32_t v : it->second.vertices)
                    if (plan(v) == place.plan) return v;
        return vertexAt(place, planeHeight(tin_.triangle(t), place.plan));
    }

    void addSide(Vec2 a, Vec2 b) {
        Place* last = nullptr;
        std::optional<std::uint32_t> under;
        for (const auto& point : trace(surface_, a, b)) {
            Place* here = point.height ? &placeAt(point.place) : nullptr;
            if (last != nullptr && here != nullptr && under && last != here)
                addPiece(*under, vertexIn(*under, *last), vertexIn(*under, *here));
            last = here;
            under = point.triangleAfter;
        }
    }

    void addPiece(std::uint32_t t, std::uint32_t from, std::uint32_t to) {
        out_.chain.emplace_back(from, to);
        out_.constrained.push_back(ordered(from, to));
        for (int i = 0; i < 3; ++i) {
            if (edgeKey(t, i) != ordered(from, to)) continue;
            ringEdges_.insert(ordered(from, to));
            beside_.push_back(t);
            if (const std::uint32_t n = tin_.neighbour(t, i); n != Tin::none) beside_.push_back(n);
            return;
        }
        Piece& piece = pieces_[t];
        addTo(piece.vertices, from);
        addTo(piece.vertices, to);
        piece.sides.emplace_back(from, to);
    }

    /// Whole triangles inside: those that can be reached from beside the ring without crossing it, and parts
    /// of the surface that the ring goes round without touching them (they have a rim inside it).
    void findWithin() {
        for (const std::uint32_t t : out_.crossed)
            for (int i = 0; i < 3; ++i)
                if (const std::uint32_t n = tin_.neighbour(t, i); n != Tin::none) beside_.push_back(n);
        for (const std::uint32_t t : beside_) floodFrom(t);
        for (const std::uint32_t t : surface_.between(ring_))
            for (int i = 0; i < 3; ++i)
                if (tin_.neighbour(t, i) == Tin::none) floodFrom(t);
        std::sort(out_.within.begin(), out_.within.end());
    }

    void floodFrom(std::uint32_t seed) {
        if (seen_.count(seed) != 0 || pieces_.count(seed) != 0) return;
        const auto [a, b, c] = tin_.triangle(seed);
        const Vec2 centre = (a.plan() + b.plan() + c.plan()) * (1.0 / 3.0);
        if (geometry::sideOf(ring_, centre) == geometry::Side::Outside) return;
        std::vector<std::uint32_t> work{seed};
        seen_.insert(seed);
        while (!work.empty()) {
            const std::uint32_t t = work.back();
            work.pop_back();
            out_.within.push_back(t);
            for (int i = 0; i < 3; ++i) {
                const std::uint32_t n = tin_.neighbour(t, i);
                if (n == Tin::none || pieces_.count(n) != 0 || ringEdges_.count(edgeKey(t, i)) != 0) continue;
                if (seen_.insert(n).second) work.push_back(n);
            }
        }
    }

    /// The vertices along a side of the surface, from a to b.
    [[nodiscard]] std::vector<std::uint32_t> along(std::uint32_t a, std::uint32_t b) const {
        std::vector<std::uint32_t> chain;
        if (const auto it = onEdge_.find(ordered(a, b)); it != onEdge_.end()) chain = it->second.vertices;
        const Vec2 from = plan(a);
        std::sort(chain.begin(), chain.end(), [&](std::uint32_t x, std::uint32_t y) {
            return geometry::distance(from, plan(x)) < geometry::distance(from, plan(y));
        });
        chain.insert(chain.begin(), a);
        chain.push_back(b);
        return chain;
    }

    /// Splits one crossed triangle along the ring. Worked out in the triangle's own plan, so its plane is
    /// kept.
    void triangulate(std::uint32_t t, const Piece& piece) {
        std::vector<std::uint32_t> all{tin_.corner(t, 0), tin_.corner(t, 1), tin_.corner(t, 2)};
        std::vector<VertexPair> sides = piece.sides;
        std::array<std::vector<std::uint32_t>, 3> chains;
        for (int i = 0; i < 3; ++i) {
            auto& chain = chains[static_cast<std::size_t>(i)];
            chain = along(tin_.corner(t, (i + 1) % 3), tin_.corner(t, (i + 2) % 3));
            for (std::size_t k = 0; k + 1 < chain.size(); ++k) {
                addTo(all, chain[k]);
                sides.emplace_back(chain[k], chain[k + 1]);
            }
        }
        const auto onOneSide = [&](const Triangle& part) {
            return std::any_of(chains.begin(), chains.end(), [&](const auto& chain) {
                return std::all_of(part.begin(), part.end(), [&](std::uint32_t v) {
                    return std::find(chain.begin(), chain.end(), v) != chain.end();
                });
            });
        };
        for (const std::uint32_t v : piece.vertices) addTo(all, v);
        std::vector<Vec2> places;
        std::map<std::uint32_t, std::uint32_t> local;
        for (const std::uint32_t v : all) {
            local[v] = static_cast<std::uint32_t>(places.size());
            places.push_back(plan(v));
        }
        std::vector<std::array<std::uint32_t, 2>> localSides;
        localSides.reserve(sides.size());
        for (const auto& [a, b] : sides) localSides.push_back({local[a], local[b]});
        const auto parts = constrainedTriangles(places, localSides);
        for (std::size_t k = 0; k < parts.size(); k += 3) {
            const Vec2 a = places[parts[k]];
            const Vec2 b = places[parts[k + 1]];
            const Vec2 c = places[parts[k + 2]];
            const Triangle part{all[parts[k]], all[parts[k + 1]], all[parts[k + 2]]};
            const double longest =
                std::max({geometry::distance(a, b), geometry::distance(b, c), geometry::distance(c, a)});
            // A vertex on an edge is on it only to rounding: slivers outside the triangle are not part of it.
            if (geometry::cross(b - a, c - a) / (longest * longest) < 1e-9 || onOneSide(part)) continue;
            const bool in = geometry::sideOf(ring_, (a + b + c) * (1.0 / 3.0)) != geometry::Side::Outside;
            (in ? out_.inside : out_.outside).push_back(part);
        }
    }

    void constrain() {
        for (const auto& [edge, on] : onEdge_) {
            if (!on.constrained) continue;
            const auto chain = along(edge.first, edge.second);
            for (std::size_t k = 0; k + 1 < chain.size(); ++k)
                out_.constrained.push_back(ordered(chain[k], chain[k + 1]));
        }
        for (const std::uint32_t t : out_.crossed)
            for (int i = 0; i < 3; ++i)
                if (tin_.constrained(t, i)) out_.constrained.push_back(edgeKey(t, i));
        std::sort(out_.constrained.begin(), out_.constrained.end());
        out_.constrained.erase(std::unique(out_.constrained.begin(), out_.constrained.end()),
                               out_.constrained.end());
    }

    const TinLocator& surface_;
    const Tin& tin_;
    const std::vector<Vec2>& ring_;
    RingCut out_;
    std::unordered_map<std::pair<double, double>, Place, PlaceHash> places_;
    std::map<std::uint32_t, Piece> pieces_;
    std::map<VertexPair, OnEdge> onEdge_;
    std::unordered_set<VertexPair, PairHash> ringEdges_;
    std::vector<std::uint32_t> beside_;
    std::unordered_set<std::uint32_t> seen_;
};

}  // namespace

RingCut cutAlong(const TinLocator& surface, const std::vector<Vec2>& ring) {
    return Cutter(surface, ring).run();
}

}  // namespace erdwerk::terrain
