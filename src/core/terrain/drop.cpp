#include "core/terrain/drop.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace erdwerk::terrain {

namespace {

/// Downhill in plan (not a unit vector): minus the gradient.
Vec2 fall(const std::array<Vec3, 3>& t) {
    const Slope s = slopeOf(t);
    return geometry::directionOf(s.downhill) * s.grade;
}

class Drop {
public:
    explicit Drop(const TinLocator& surface) : tin_(surface.tin()) {}

    DropPath run(std::uint32_t t, Vec2 from) {
        at_ = from;
        put(planeHeight(tin_.triangle(t), from));
        std::uint32_t triangle = t;  // none while the drop is at a vertex
        std::uint32_t vertex = 0;
        const std::size_t limit = 4 * std::size_t{tin_.triangleCount()} + 100;
        for (std::size_t step = 0; step < limit; ++step) {
            if (triangle != Tin::none) {
                hint_ = triangle;
                const auto exit = across(triangle);
                if (!exit) return finish(DropEnd::Hollow);
                if (exit->vertex) {
                    vertex = *exit->vertex;
                    triangle = Tin::none;
                } else if (exit->next == Tin::none) {
                    return finish(DropEnd::LeavesSurface);
                } else if (const auto low = lowerEnd(triangle, exit->next, exit->side)) {
                    vertex = *low;
                    triangle = Tin::none;
                    at_ = tin_.vertex(vertex).plan();
                    put(tin_.vertex(vertex).z);
                } else {
                    triangle = exit->next;
                }
                continue;
            }
            // At a vertex: the steepest way down of all triangles and edges there.
            const auto way = fromVertex(vertex);
            if (!way) return finish(rim_ ? DropEnd::LeavesSurface : DropEnd::Hollow);
            hint_ = way->from;
            if (way->vertex) {
                vertex = *way->vertex;
                at_ = tin_.vertex(vertex).plan();
                put(tin_.vertex(vertex).z);
            } else {
                triangle = way->next;
            }
        }
        return finish(DropEnd::Hollow);
    }

private:
    struct Way {
        std::optional<std::uint32_t> vertex;  ///< on to this vertex, along an edge or exactly
        std::uint32_t next = Tin::none;       ///< or into this triangle
        std::uint32_t from = 0;               ///< a triangle that is involved
        int side = 0;                         ///< of the triangle that was left
    };

    void put(double z) {
        if (!out_.places.empty()) z = std::min(z, out_.places.back().z);
        out_.places.push_back({at_.x, at_.y, z});
    }

    DropPath finish(DropEnd end) {
        out_.end = end;
        return std::move(out_);
    }

    /// Follows the slope of a triangle to its far side; nothing when it is level.
    std::optional<Way> across(std::uint32_t t) {
        const auto triangle = tin_.triangle(t);
        const Vec2 d = fall(triangle);
        if (geometry::length(d) < 1e-12) return std::nullopt;
        double best = std::numeric_limits<double>::infinity();
        int side = -1;
        double along = 0;
        for (int i = 0; i < 3; ++i) {
            const Vec2 a = triangle[static_cast<std::size_t>((i + 1) % 3)].plan();
            const Vec2 b = triangle[static_cast<std::size_t>((i + 2) % 3)].plan();
            const double leaving = geometry::cross(b - a, d);
            if (leaving >= 0) continue;  // runs along or inwards
            const double s = geometry::cross(b - a, a - at_) / leaving;
            if (s < best) {
                best = s;
                side = i;
                const Vec2 hit = at_ + d * std::max(0.0, s);
                along = geometry::dot(hit - a, b - a) / geometry::dot(b - a, b - a);
            }
        }
        if (side < 0) return std::nullopt;
        const std::uint32_t va = tin_.corner(t, (side + 1) % 3);
        const std::uint32_t vb = tin_.corner(t, (side + 2) % 3);
        if (along < 1e-9 || along > 1 - 1e-9) {
            const std::uint32_t v = along < 0.5 ? va : vb;
            at_ = tin_.vertex(v).plan();
            put(tin_.vertex(v).z);
            return Way{v, Tin::none, t, side};
        }
        at_ = geometry::lerp(tin_.vertex(va).plan(), tin_.vertex(vb).plan(), along);
        put(tin_.vertex(va).z + along * (tin_.vertex(vb).z - tin_.vertex(va).z));
        return Way{std::nullopt, tin_.neighbour(t, side), t, side};
    }

    /// When the triangle beyond sends the drop back, the edge is a valley: on to its lower end.
    std::optional<std::uint32_t> lowerEnd(std::uint32_t t, std::uint32_t next, int side) const {
        const std::uint32_t va = tin_.corner(t, (side + 1) % 3);
        const std::uint32_t vb = tin_.corner(t, (side + 2) % 3);
        const Vec2 a = tin_.vertex(va).plan();
        const Vec2 b = tin_.vertex(vb).plan();
        const Vec2 d = fall(tin_.triangle(next));
        // The next triangle lies on the right of a-b; a fall to the left comes back.
        if (geometry::cross(b - a, d) < 0) return std::nullopt;
        if (tin_.vertex(va).z == tin_.vertex(vb).z)
            return geometry::length(d) < 1e-12 ? std::nullopt : std::optional(va);
        return tin_.vertex(va).z < tin_.vertex(vb).z ? va : vb;
    }

    std::optional<Way> fromVertex(std::uint32_t v) {
        // All triangles at the vertex, turning both ways from the one at hand.
        std::vector<std::uint32_t> star{hint_};
        rim_ = false;
        const auto index = [&](std::uint32_t t) {
            for (int i = 0; i < 3; ++i)
                if (tin_.corner(t, i) == v) return i;
            return -1;
        };
        if (index(hint_) < 0) return std::nullopt;
        for (const int turn : {1, 2}) {
            for (std::uint32_t t = tin_.neighbour(hint_, (index(hint_) + turn) % 3); t != hint_;) {
                if (t == Tin::none) {
                    rim_ = true;
                    break;
                }
                if (std::find(star.begin(), star.end(), t) != star.end()) break;
                star.push_back(t);
                t = tin_.neighbour(t, (index(t) + turn) % 3);
            }
        }
        const Vec3 here = tin_.vertex(v);
        std::optional<Way> best;
        double steepest = 1e-12;
        for (const std::uint32_t t : star) {
            const int i = index(t);
            const Vec3 a = tin_.vertex(tin_.corner(t, (i + 1) % 3));
            const Vec3 b = tin_.vertex(tin_.corner(t, (i + 2) % 3));
            const Vec2 d = fall(tin_.triangle(t));
            if (geometry::cross(a.plan() - here.plan(), d) > 0 &&
                geometry::cross(d, b.plan() - here.plan()) > 0 && geometry::length(d) > steepest) {
                steepest = geometry::length(d);
                best = Way{std::nullopt, t, t, 0};
            }
            for (const int k : {1, 2}) {
                const std::uint32_t other = tin_.corner(t, (i + k) % 3);
                const Vec3 o = tin_.vertex(other);
                const double grade = (here.z - o.z) / geometry::distance(here.plan(), o.plan());
                if (grade > steepest) {
                    steepest = grade;
                    best = Way{other, Tin::none, t, 0};
                }
            }
        }
        return best;
    }

    const Tin& tin_;
    Vec2 at_;
    std::uint32_t hint_ = 0;
    bool rim_ = false;
    DropPath out_;
};

}  // namespace

DropPath dropPath(const TinLocator& surface, Vec2 from) {
    const auto t = surface.triangleAt(from);
    if (!t) return {};
    return Drop(surface).run(*t, from);
}

}  // namespace erdwerk::terrain
