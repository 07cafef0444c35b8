#include "core/terrain/trace.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

namespace {

struct Hit {
    double fraction;
    Vec2 place;
    double height;
};

void hitsOfEdge(const Vec3& u, const Vec3& v, Vec2 a, Vec2 b, std::vector<Hit>& out) {
    const Vec2 along = b - a;
    const double square = geometry::dot(along, along);
    const auto fractionOf = [&](Vec2 p) { return geometry::dot(p - a, along) / square; };
    const int atU = geometry::orientation(a, b, u.plan());
    const int atV = geometry::orientation(a, b, v.plan());
    // A vertex exactly on the segment is met itself, with its own height.
    for (const auto& [side, vertex] : {std::pair{atU, u}, std::pair{atV, v}}) {
        const double t = fractionOf(vertex.plan());
        if (side == 0 && t >= 0 && t <= 1) out.push_back({t, vertex.plan(), vertex.z});
    }
    if (atU * atV >= 0) return;
    const double s = geometry::crossingFraction(u.plan(), v.plan(), a, b);
    const Vec2 place = geometry::lerp(u.plan(), v.plan(), s);
    const double t = fractionOf(place);
    if (t < -1e-12 || t > 1 + 1e-12) return;
    if (geometry::meeting(u.plan(), v.plan(), a, b) == geometry::Meeting::None) return;
    out.push_back({std::clamp(t, 0.0, 1.0), place, u.z + s * (v.z - u.z)});
}

}  // namespace

std::vector<TracePoint> trace(const TinLocator& surface, Vec2 a, Vec2 b) {
    std::vector<TracePoint> out;
    const double size = geometry::distance(a, b);
    if (size == 0) {
        out.push_back({0, a, surface.heightAt(a), surface.triangleAt(a), false});
        return out;
    }
    std::vector<Hit> hits;
    const Tin& tin = surface.tin();
    for (const std::uint32_t t : surface.along(a, b)) {
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n != Tin::none && n < t) continue;
            hitsOfEdge(tin.vertex(tin.corner(t, (i + 1) % 3)), tin.vertex(tin.corner(t, (i + 2) % 3)), a, b,
                       hits);
        }
    }
    std::sort(hits.begin(), hits.end(), [](const Hit& x, const Hit& y) { return x.fraction < y.fraction; });
    const double tolerance = std::max(1e-9, 1e-9 / size);
    out.push_back({0, a, std::nullopt, std::nullopt, false});
    for (const Hit& h : hits) {
        if (h.fraction - out.back().fraction <= tolerance) {
            if (!out.back().height) out.back().height = h.height;
            out.back().onEdge = true;
            continue;
        }
        out.push_back({h.fraction, h.place, h.height, std::nullopt, true});
    }
    if (1 - out.back().fraction <= tolerance && out.size() > 1) {
        out.back().fraction = 1;
        out.back().place = b;
    } else {
        out.push_back({1, b, std::nullopt, std::nullopt, false});
    }
    for (std::size_t k = 0; k + 1 < out.size(); ++k)
        out[k].triangleAfter =
            surface.triangleAt(geometry::lerp(a, b, (out[k].fraction + out[k + 1].fraction) / 2));
    for (TracePoint& p : out)
        if (!p.height) p.height = surface.heightAt(p.place);
    return out;
}

std::vector<SectionPoint> traceChain(const TinLocator& surface, const std::vector<Vec2>& chain) {
    std::vector<SectionPoint> out;
    double distance = 0;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        const double size = geometry::distance(chain[i], chain[i + 1]);
        if (size == 0) continue;
        const auto points = trace(surface, chain[i], chain[i + 1]);
        for (std::size_t k = out.empty() ? 0 : 1; k < points.size(); ++k) {
            // Between two places off the surface nothing is drawn; at a rim the height belongs to the
            // surface.
            out.push_back({distance + points[k].fraction * size, points[k].place, points[k].height});
        }
        distance += size;
    }
    return out;
}

}  // namespace erdwerk::terrain
