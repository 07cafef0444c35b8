#include "core/terrain/own_edits.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <optional>

#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/locator.h"
#include "core/terrain/mesh.h"

namespace erdwerk::terrain {

namespace {

using Triangle = std::array<std::uint32_t, 3>;
using Edge = std::pair<std::uint32_t, std::uint32_t>;

std::optional<std::uint32_t> triangleNear(const Tin& tin, Vec2 place) {
    std::optional<std::uint32_t> best;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        if (geometry::orientation(a.plan(), b.plan(), place) >= 0 &&
            geometry::orientation(b.plan(), c.plan(), place) >= 0 &&
            geometry::orientation(c.plan(), a.plan(), place) >= 0)
            return t;
    }
    return best;
}

std::optional<std::uint32_t> vertexNear(const Tin& tin, Vec2 place) {
    std::optional<std::uint32_t> best;
    double least = 1e300;
    for (std::uint32_t v = 0; v < tin.vertexCount(); ++v) {
        const double d = geometry::distance(tin.vertex(v).plan(), place);
        if (d >= least) continue;
        least = d;
        best = v;
    }
    return best;
}

/// Puts other triangles in the place of some that make up one region; sides keep their constraints.
Tin replaced(const Tin& tin, std::vector<Vec3> vertices, const std::vector<std::uint32_t>& removed,
             const std::vector<Triangle>& added) {
    std::vector<std::uint32_t> corners(tin.corners().begin(), tin.corners().end());
    std::vector<std::uint32_t> links(tin.links().begin(), tin.links().end());
    std::map<Edge, std::uint32_t> outer;
    const auto corner = [](std::uint32_t t, int i) {
        return 3 * std::size_t{t} + static_cast<std::size_t>(i % 3);
    };
    for (const std::uint32_t t : removed)
        for (int i = 0; i < 3; ++i)
            outer[{corners[corner(t, i + 1)], corners[corner(t, i + 2)]}] = links[corner(t, i)];
    std::vector<std::uint32_t> slots = removed;
    while (slots.size() < added.size()) {
        slots.push_back(static_cast<std::uint32_t>(corners.size() / 3));
        corners.resize(corners.size() + 3);
        links.resize(links.size() + 3);
    }
    std::map<Edge, std::uint32_t> inner;
    for (std::size_t k = 0; k < added.size(); ++k)
        for (int i = 0; i < 3; ++i) {
            corners[corner(slots[k], i)] = added[k][static_cast<std::size_t>(i)];
            inner[{added[k][static_cast<std::size_t>((i + 1) % 3)],
                   added[k][static_cast<std::size_t>((i + 2) % 3)]}] = slots[k];
        }
    for (std::size_t k = 0; k < added.size(); ++k)
        for (int i = 0; i < 3; ++i) {
            const std::size_t at = corner(slots[k], i);
            const Edge edge{corners[corner(slots[k], i + 1)], corners[corner(slots[k], i + 2)]};
            const auto before = outer.find(edge);
            const std::uint32_t flag = before == outer.end() ? 0 : before->second & ~Tin::none;
            if (const auto it = inner.find({edge.second, edge.first}); it != inner.end()) {
                links[at] = it->second | flag;
                continue;
            }
            links[at] = before == outer.end() ? Tin::none : before->second;
        }
    // Neighbours outside point at what now lies across their side, or at nothing.
    for (const auto& [edge, link] : outer) {
        const std::uint32_t n = link & Tin::none;
        if (n == Tin::none || std::find(removed.begin(), removed.end(), n) != removed.end()) continue;
        const auto it = inner.find(edge);
        for (int j = 0; j < 3; ++j)
            if (corners[corner(n, j + 1)] == edge.second && corners[corner(n, j + 2)] == edge.first)
                links[corner(n, j)] =
                    (it == inner.end() ? Tin::none : it->second) | (links[corner(n, j)] & ~Tin::none);
    }
    std::vector<bool> keep(corners.size() / 3, true);
    for (std::size_t k = added.size(); k < removed.size(); ++k) keep[removed[k]] = false;
    return Tin::fromLinked(std::move(vertices), std::move(corners), std::move(links)).subset(keep);
}

std::vector<Vec3> verticesOf(const Tin& tin) {
    return {tin.vertices().begin(), tin.vertices().end()};
}

Result<Tin> flipped(const Tin& tin, Vec2 place) {
    const auto t = triangleNear(tin, place);
    if (!t) return badInput("there is no triangle here");
    int side = 0;
    double least = 1e300;
    for (int i = 0; i < 3; ++i) {
        const Vec2 a = tin.vertex(tin.corner(*t, (i + 1) % 3)).plan();
        const Vec2 b = tin.vertex(tin.corner(*t, (i + 2) % 3)).plan();
        const double d = std::abs(geometry::cross(b - a, place - a)) / geometry::distance(a, b);
        if (d >= least) continue;
        least = d;
        side = i;
    }
    const std::uint32_t n = tin.neighbour(*t, side);
    if (n == Tin::none) return badInput("a side of the rim cannot be flipped");
    if (tin.constrained(*t, side)) return badInput("a side on a line cannot be flipped");
    const std::uint32_t v = tin.corner(*t, side);
    const std::uint32_t a = tin.corner(*t, (side + 1) % 3);
    const std::uint32_t b = tin.corner(*t, (side + 2) % 3);
    std::uint32_t d = a;
    for (int j = 0; j < 3; ++j)
        if (tin.corner(n, j) != a && tin.corner(n, j) != b) d = tin.corner(n, j);
    const auto at = [&](std::uint32_t i) { return tin.vertex(i).plan(); };
    if (geometry::orientation(at(v), at(a), at(d)) <= 0 || geometry::orientation(at(v), at(d), at(b)) <= 0)
        return badInput("the two triangles do not make a shape that can be split the other way");
    return replaced(tin, verticesOf(tin), {*t, n}, {{v, a, d}, {v, d, b}});
}

/// Triangles at a vertex, and the chain of vertices round it (closed for one inside).
std::vector<std::uint32_t> starOf(const Tin& tin, std::uint32_t v) {
    std::vector<std::uint32_t> out;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (tin.corner(t, i) == v) out.push_back(t);
    return out;
}

Result<Tin> withoutPoint(const Tin& tin, Vec2 place) {
    const auto v = vertexNear(tin, place);
    if (!v) return badInput("there is no point here");
    const auto star = starOf(tin, *v);
    std::map<std::uint32_t, std::uint32_t> next;
    bool rim = false;
    for (const std::uint32_t t : star)
        for (int i = 0; i < 3; ++i) {
            if (tin.corner(t, i) != *v) continue;
            next[tin.corner(t, (i + 1) % 3)] = tin.corner(t, (i + 2) % 3);
            rim = rim || tin.neighbour(t, (i + 1) % 3) == Tin::none ||
                  tin.neighbour(t, (i + 2) % 3) == Tin::none;
        }
    if (rim) return replaced(tin, verticesOf(tin), star, {});
    std::vector<std::uint32_t> ring;
    std::vector<Vec2> places;
    for (std::uint32_t at = next.begin()->first; ring.size() < next.size(); at = next.at(at)) {
        ring.push_back(at);
        places.push_back(tin.vertex(at).plan());
    }
    std::vector<std::array<std::uint32_t, 2>> sides;
    for (std::uint32_t i = 0; i < ring.size(); ++i)
        sides.push_back({i, static_cast<std::uint32_t>((i + 1) % ring.size())});
    const auto pieces = constrainedTriangles(places, sides);
    std::vector<Triangle> added;
    for (std::size_t k = 0; k < pieces.size(); k += 3) {
        const Vec2 centre = (places[pieces[k]] + places[pieces[k + 1]] + places[pieces[k + 2]]) * (1.0 / 3);
        if (geometry::sideOf(places, centre) != geometry::Side::Inside) continue;
        added.push_back({ring[pieces[k]], ring[pieces[k + 1]], ring[pieces[k + 2]]});
    }
    return replaced(tin, verticesOf(tin), star, added);
}

Result<Tin> withPoint(const Tin& tin, const Vec3& point) {
    const auto t = triangleNear(tin, point.plan());
    if (!t) return badInput("the point lies outside the surface");
    Mesh mesh(tin);
    const auto where = mesh.locate(point.plan(), *t);
    if (where.at == Mesh::At::Corner) return badInput("there is a point of the surface already");
    mesh.insert(point, where);
    return std::move(mesh).tin();
}

}  // namespace

Result<Tin> edited(const Tin& tin, const OwnEdit& edit) {
    switch (edit.kind) {
        case EditKind::FlipSide:
            return flipped(tin, edit.at);
        case EditKind::RemoveTriangle: {
            const auto t = triangleNear(tin, edit.at);
            if (!t) return badInput("there is no triangle here");
            return replaced(tin, verticesOf(tin), {*t}, {});
        }
        case EditKind::RemovePoint:
            return withoutPoint(tin, edit.at);
        case EditKind::AddPoint:
            return withPoint(tin, edit.to);
        case EditKind::MovePoint: {
            const auto v = vertexNear(tin, edit.at);
            if (!v) return badInput("there is no point here");
            if (tin.vertex(*v).plan() == edit.to.plan()) {
                auto vertices = verticesOf(tin);
                vertices[*v].z = edit.to.z;
                return replaced(tin, std::move(vertices), {}, {});
            }
            auto without = withoutPoint(tin, edit.at);
            if (!without) return without;
            return withPoint(*without, edit.to);
        }
        case EditKind::Raise: {
            auto vertices = verticesOf(tin);
            for (Vec3& v : vertices) v.z += edit.to.z;
            return replaced(tin, std::move(vertices), {}, {});
        }
        case EditKind::TakeOver:
            break;
    }
    return badInput("the other surface is not there");
}

}  // namespace erdwerk::terrain
