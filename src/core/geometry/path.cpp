#include "core/geometry/path.h"

#include <algorithm>

#include "core/geometry/predicates.h"

namespace erdwerk::geometry {

std::vector<Nearest> tangentPlaces(const Segment& segment, Vec2 from) {
    std::vector<Nearest> out;
    for (const double t : std::visit([from](const auto& e) { return e.touches(from); }, elementOf(segment)))
        out.push_back({0, t, pointAt(segment, t), 0});
    return out;
}

Path pathThrough(std::span<const Vec2> places) {
    Path out;
    for (std::size_t k = 0; k + 1 < places.size(); ++k) out.push_back({places[k], places[k + 1], {}});
    return out;
}

double lengthOf(const Path& path) {
    double sum = 0;
    for (const Segment& s : path) sum += lengthOf(s);
    return sum;
}

Box boundsOf(const Path& path) {
    Box box;
    for (const Segment& s : path) box.add(boundsOf(s));
    return box;
}

bool hasCurves(const Path& path) {
    return std::any_of(path.begin(), path.end(), [](const Segment& s) { return isCurved(s); });
}

double distanceAlong(const Path& path, const Nearest& nearest) {
    double sum = nearest.fraction * lengthOf(path[nearest.segment]);
    for (std::size_t i = 0; i < nearest.segment; ++i) sum += lengthOf(path[i]);
    return sum;
}

std::optional<Nearest> nearestOn(const Path& path, Vec2 p) {
    std::optional<Nearest> best;
    for (std::size_t i = 0; i < path.size(); ++i) {
        const double t = nearestFraction(path[i], p);
        const Vec2 place = pointAt(path[i], t);
        const double d = distance(place, p);
        if (best && d >= std::abs(best->distance)) continue;
        const Vec2 along = directionOf(tangentAt(path[i], t));
        best = Nearest{i, t, place, cross(along, p - place) > 0 ? -d : d};
    }
    return best;
}

PathPosition positionAt(const Path& path, double along) {
    double left = std::max(0.0, along);
    for (std::size_t i = 0; i < path.size(); ++i) {
        const double size = lengthOf(path[i]);
        if (left <= size || i + 1 == path.size()) {
            const double t = size == 0 ? 0 : std::min(1.0, left / size);
            return {i, t, pointAt(path[i], t), tangentAt(path[i], t)};
        }
        left -= size;
    }
    return {};
}

Path reversed(const Path& path) {
    Path out;
    out.reserve(path.size());
    for (auto it = path.rbegin(); it != path.rend(); ++it) out.push_back(reversed(*it));
    return out;
}

std::vector<Vec2> placesAlong(const Path& path, double spacing, int most) {
    if (path.empty()) return {};
    const double length = lengthOf(path);
    const int pieces = static_cast<int>(std::clamp(length / spacing, 2.0, static_cast<double>(most)));
    std::vector<Vec2> out;
    std::size_t i = 0;
    double base = 0;
    double size = lengthOf(path[0]);
    for (int k = 0; k <= pieces; ++k) {
        const double along = length * k / pieces;
        while (i + 1 < path.size() && along > base + size) {
            base += size;
            size = lengthOf(path[++i]);
        }
        out.push_back(pointAt(path[i], size == 0 ? 0 : (along - base) / size));
    }
    return out;
}

std::vector<Vec2> flattened(const Path& path, double sagitta) {
    std::vector<Vec2> out;
    for (const Segment& s : path) {
        const auto places = flattened(s, sagitta);
        out.insert(out.end(), places.begin() + (out.empty() ? 0 : 1), places.end());
    }
    return out;
}

double signedArea(std::span<const Vec2> ring) {
    double twice = 0;
    for (std::size_t i = 1; i + 1 < ring.size(); ++i)
        twice += cross(ring[i] - ring[0], ring[i + 1] - ring[0]);
    return twice / 2;
}

double signedArea(const Path& ring) {
    std::vector<Vec2> corners;
    double bulges = 0;
    for (const Segment& s : ring) {
        corners.push_back(s.start);
        bulges += bulgeArea(s);
    }
    // A bulge to the left of a counter-clockwise side takes area away.
    return signedArea(corners) - bulges;
}

Side sideOf(std::span<const Vec2> ring, Vec2 p) {
    bool inside = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Vec2 a = ring[j];
        const Vec2 b = ring[i];
        if (std::min(a.y, b.y) > p.y || std::max(a.y, b.y) < p.y) continue;
        const int turn = orientation(a, b, p);
        if (turn == 0 && std::min(a.x, b.x) <= p.x && p.x <= std::max(a.x, b.x)) return Side::OnEdge;
        if ((a.y > p.y) != (b.y > p.y) && (turn > 0) == (b.y > a.y)) inside = !inside;
    }
    return inside ? Side::Inside : Side::Outside;
}

}  // namespace erdwerk::geometry
