#include "core/terrain/clip.h"

#include <algorithm>
#include <memory>

#include "core/geometry/box_index.h"
#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/ring_cut.h"

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

Tin clip(const Tin& tin, const std::vector<Vec2>& ring, Keep keep) {
    const TinLocator locator(std::make_shared<const Tin>(tin));
    const RingCut cut = cutAlong(locator, ring);
    std::vector<bool> stays(tin.triangleCount(), keep == Keep::Outside);
    for (const std::uint32_t t : cut.within) stays[t] = keep == Keep::Inside;
    for (const std::uint32_t t : cut.crossed) stays[t] = false;
    std::vector<std::uint32_t> corners;
    std::vector<std::uint32_t> whole;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        if (!stays[t]) continue;
        whole.push_back(t);
        for (int i = 0; i < 3; ++i) corners.push_back(tin.corner(t, i));
    }
    for (const Triangle& part3 : keep == Keep::Inside ? cut.inside : cut.outside)
        corners.insert(corners.end(), part3.begin(), part3.end());
    std::vector<Vec3> vertices(tin.vertices().begin(), tin.vertices().end());
    vertices.insert(vertices.end(), cut.vertices.begin(), cut.vertices.end());
    std::vector<bool> onRing(vertices.size(), false);
    for (const auto& [a, b] : cut.constrained) onRing[a] = onRing[b] = true;
    Tin raw(std::move(vertices), std::move(corners));
    for (std::uint32_t t = 0; t < raw.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t a = raw.corner(t, (i + 1) % 3);
            const std::uint32_t b = raw.corner(t, (i + 2) % 3);
            const bool kept = t < whole.size() && tin.constrained(whole[t], i);
            if (kept || (onRing[a] && onRing[b] &&
                         std::binary_search(cut.constrained.begin(), cut.constrained.end(),
                                            VertexPair{std::min(a, b), std::max(a, b)})))
                raw.constrain(t, i);
        }
    return raw.subset(std::vector<bool>(raw.triangleCount(), true));
}

}  // namespace erdwerk::terrain
