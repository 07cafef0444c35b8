#include "core/terrain/tin.h"

#include <oneapi/tbb/parallel_sort.h>

#include <cassert>
#include <cmath>
#include <limits>
#include <numbers>
#include <unordered_map>

namespace erdwerk::terrain {

namespace {

struct HalfEdge {
    std::uint32_t low;
    std::uint32_t high;
    std::uint32_t slot;  ///< position in the corner array
};

}  // namespace

Tin::Tin(std::vector<Vec3> vertices, std::vector<std::uint32_t> corners)
    : vertices_(std::move(vertices)), corners_(std::move(corners)), links_(corners_.size(), none) {
    std::vector<HalfEdge> edges(corners_.size());
    for (std::size_t slot = 0; slot < corners_.size(); ++slot) {
        const std::size_t base = slot - slot % 3;
        const std::uint32_t a = corners_[base + (slot + 1 - base) % 3];
        const std::uint32_t b = corners_[base + (slot + 2 - base) % 3];
        edges[slot] = {std::min(a, b), std::max(a, b), static_cast<std::uint32_t>(slot)};
    }
    tbb::parallel_sort(edges.begin(), edges.end(), [](const HalfEdge& a, const HalfEdge& b) {
        return a.low != b.low ? a.low < b.low : (a.high != b.high ? a.high < b.high : a.slot < b.slot);
    });
    for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
        if (edges[i].low != edges[i + 1].low || edges[i].high != edges[i + 1].high) continue;
        links_[edges[i].slot] = edges[i + 1].slot / 3;
        links_[edges[i + 1].slot] = edges[i].slot / 3;
        ++i;
    }
}

Tin Tin::fromLinked(std::vector<Vec3> vertices, std::vector<std::uint32_t> corners,
                    std::vector<std::uint32_t> links) {
    assert(corners.size() == links.size());
    Tin tin;
    tin.vertices_ = std::move(vertices);
    tin.corners_ = std::move(corners);
    tin.links_ = std::move(links);
    return tin;
}

void Tin::constrain(std::uint32_t t, int i) {
    links_[3 * std::size_t{t} + unsigned(i)] |= ~none;
    const std::uint32_t other = neighbour(t, i);
    if (other == none) return;
    for (int j = 0; j < 3; ++j)
        if (neighbour(other, j) == t && corner(other, (j + 1) % 3) == corner(t, (i + 2) % 3))
            links_[3 * std::size_t{other} + unsigned(j)] |= ~none;
}

std::size_t Tin::constraintCount() const {
    std::size_t count = 0;
    for (std::uint32_t t = 0; t < triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (constrained(t, i) && (neighbour(t, i) == none || neighbour(t, i) > t)) ++count;
    return count;
}

Box Tin::bounds() const {
    Box box;
    for (const Vec3& v : vertices_) box.add(v.plan());
    return box;
}

std::size_t Tin::memory() const {
    return vertices_.capacity() * sizeof(Vec3) +
           (corners_.capacity() + links_.capacity()) * sizeof(std::uint32_t);
}

Tin Tin::subset(const std::vector<bool>& keep) const {
    std::vector<std::uint32_t> newTriangle(triangleCount(), none);
    std::vector<std::uint32_t> newVertex(vertices_.size(), none);
    std::uint32_t triangles = 0;
    for (std::uint32_t t = 0; t < triangleCount(); ++t) {
        if (!keep[t]) continue;
        newTriangle[t] = triangles++;
        for (int i = 0; i < 3; ++i) newVertex[corner(t, i)] = 0;
    }
    std::uint32_t used = 0;
    for (auto& v : newVertex)
        if (v == 0) v = used++;
    Tin out;
    out.vertices_.reserve(used);
    for (std::size_t v = 0; v < vertices_.size(); ++v)
        if (newVertex[v] != none) out.vertices_.push_back(vertices_[v]);
    out.corners_.reserve(3 * std::size_t{triangles});
    out.links_.reserve(3 * std::size_t{triangles});
    for (std::uint32_t t = 0; t < triangleCount(); ++t) {
        if (!keep[t]) continue;
        for (int i = 0; i < 3; ++i) {
            out.corners_.push_back(newVertex[corner(t, i)]);
            const std::uint32_t n = neighbour(t, i);
            out.links_.push_back((n == none ? none : newTriangle[n]) | (constrained(t, i) ? ~none : 0U));
        }
    }
    return out;
}

double planeHeight(const std::array<Vec3, 3>& t, Vec2 p) {
    const Vec2 b = t[1].plan() - t[0].plan();
    const Vec2 c = t[2].plan() - t[0].plan();
    const Vec2 d = p - t[0].plan();
    const double area = geometry::cross(b, c);
    const double v = geometry::cross(d, c) / area;
    const double w = geometry::cross(b, d) / area;
    if (v == 1 && w == 0) return t[1].z;
    if (v == 0 && w == 1) return t[2].z;
    return t[0].z + v * (t[1].z - t[0].z) + w * (t[2].z - t[0].z);
}

Slope slopeOf(const std::array<Vec3, 3>& t) {
    const Vec2 b = t[1].plan() - t[0].plan();
    const Vec2 c = t[2].plan() - t[0].plan();
    const double area = geometry::cross(b, c);
    const double dz1 = t[1].z - t[0].z;
    const double dz2 = t[2].z - t[0].z;
    const Vec2 gradient{(dz1 * c.y - dz2 * b.y) / area, (dz2 * b.x - dz1 * c.x) / area};
    return {geometry::length(gradient), geometry::azimuth({0, 0}, gradient * -1.0)};
}

namespace {

/// All but the areas.
TinFigures extentOf(const Tin& tin) {
    TinFigures f;
    f.points = tin.vertexCount();
    f.triangles = tin.triangleCount();
    if (tin.empty()) return f;
    f.min = f.max = tin.vertex(0);
    for (const Vec3& v : tin.vertices()) {
        f.min = {std::min(f.min.x, v.x), std::min(f.min.y, v.y), std::min(f.min.z, v.z)};
        f.max = {std::max(f.max.x, v.x), std::max(f.max.y, v.y), std::max(f.max.z, v.z)};
    }
    return f;
}

void addAreas(const Tin& tin, std::uint32_t t, double sign, TinFigures& f) {
    const auto [a, b, c] = tin.triangle(t);
    const double plan = geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    const double slope = slopeOf({a, b, c}).grade;
    f.planArea += sign * plan;
    f.surfaceArea += sign * plan * std::sqrt(1 + slope * slope);
}

}  // namespace

TinFigures figuresOf(const Tin& tin) {
    TinFigures f = extentOf(tin);
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) addAreas(tin, t, 1, f);
    return f;
}

TinFigures figuresAfter(const TinFigures& before, const Tin& base, std::span<const std::uint32_t> gone,
                        const Tin& now, std::span<const std::uint32_t> fresh) {
    TinFigures f = extentOf(now);
    f.planArea = before.planArea;
    f.surfaceArea = before.surfaceArea;
    for (const std::uint32_t t : gone) addAreas(base, t, -1, f);
    for (const std::uint32_t t : fresh) addAreas(now, t, 1, f);
    return f;
}

std::vector<std::vector<std::uint32_t>> rimRings(const Tin& tin) {
    std::unordered_multimap<std::uint32_t, std::uint32_t> next;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (tin.neighbour(t, i) == Tin::none)
                next.emplace(tin.corner(t, (i + 1) % 3), tin.corner(t, (i + 2) % 3));
    std::vector<std::vector<std::uint32_t>> rings;
    std::unordered_map<std::uint32_t, std::size_t> inChain;  // of each vertex its place
    while (!next.empty()) {
        std::vector<std::uint32_t> chain{next.begin()->first};
        inChain = {{chain.front(), 0}};
        while (!chain.empty()) {
            const auto it = next.find(chain.back());
            if (it == next.end()) break;
            const std::uint32_t to = it->second;
            next.erase(it);
            const auto [before, isNew] = inChain.try_emplace(to, chain.size());
            if (isNew) {
                chain.push_back(to);
                continue;
            }
            // Back where it was: a ring of its own; the chain goes on from there.
            const auto from = chain.begin() + static_cast<std::ptrdiff_t>(before->second);
            for (auto v = from + 1; v != chain.end(); ++v) inChain.erase(*v);
            rings.emplace_back(from, chain.end());
            chain.erase(from + 1, chain.end());
            if (chain.size() == 1 && !next.contains(to)) break;
        }
    }
    return rings;
}

}  // namespace erdwerk::terrain
