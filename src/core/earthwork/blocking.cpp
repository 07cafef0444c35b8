#include "core/earthwork/blocking.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "core/earthwork/gathering.h"
#include "core/geometry/box_index.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = 1e-9;

/// A plane over plan coordinates about a place of reference.
struct Plane {
    double at = 0;
    Vec2 grows;
};

Plane planeOf(const Facet& f, std::size_t strip, Vec2 about) {
    const Strip& s = f.strips[strip];
    return {s.height(f.own(about)), f.along * s.alongS + f.out * s.alongD};
}

/// The part of an infinite straight inside a box, as two places.
std::optional<std::pair<Vec2, Vec2>> inBox(Vec2 on, Vec2 way, const geometry::Box& box) {
    double from = -1e18;
    double to = 1e18;
    const auto slab = [&](double at, double step, double low, double high) {
        if (std::abs(step) < 1e-15) {
            if (at < low || at > high) to = from;
            return;
        }
        const double a = (low - at) / step;
        const double b = (high - at) / step;
        from = std::max(from, std::min(a, b));
        to = std::min(to, std::max(a, b));
    };
    slab(on.x, way.x, box.minX, box.maxX);
    slab(on.y, way.y, box.minY, box.maxY);
    if (!(to > from)) return std::nullopt;
    return std::pair{on + way * from, on + way * to};
}

/// Is there a face at a place?
bool covers(const Facet& f, const Envelope& end, Along p) {
    if (p.d < -tiny || p.s < f.first.at(p.d) - tiny || p.s > f.last.at(p.d) + tiny) return false;
    auto it = std::upper_bound(end.begin(), end.end(), p.s,
                               [](double s, const Piece& piece) { return s < piece.s0; });
    if (it == end.begin()) return false;
    --it;
    return p.s <= it->s1 && p.d <= it->at(p.s);
}

/// Calls `found` with each part of the straight a-b (in the face's coordinates) that lies under the face.
template <class Found>
void partsUnder(const Facet& f, const Envelope& end, Along a, Along b, const Found& found) {
    std::vector<double> cuts{0, 1};
    const double ds = b.s - a.s;
    const double dd = b.d - a.d;
    const auto cut = [&](double t) {
        if (t > 0 && t < 1) cuts.push_back(t);
    };
    const auto cutAt = [&](double valueA, double valueB) {
        if ((valueA < 0) != (valueB < 0)) cut(valueA / (valueA - valueB));
    };
    for (const Piece& p : end) {
        if (p.s1 < std::min(a.s, b.s) || p.s0 > std::max(a.s, b.s)) continue;
        cutAt(a.s - p.s0, b.s - p.s0);
        cutAt(a.s - p.s1, b.s - p.s1);
        const double slope = (p.d1 - p.d0) / (p.s1 - p.s0);
        cutAt(a.d - p.d0 - slope * (a.s - p.s0), b.d - p.d0 - slope * (b.s - p.s0));
    }
    cutAt(a.d, b.d);
    for (const Flank* flank : {&f.first, &f.last})
        for (std::size_t k = 0; k < flank->knots.size(); ++k) {
            const Along from = flank->knots[k];
            const Along way = k + 1 < flank->knots.size()
                                  ? Along{flank->knots[k + 1].s - from.s, flank->knots[k + 1].d - from.d}
                                  : flank->onwards;
            const auto beside = [&](Along p) { return (p.s - from.s) * way.d - (p.d - from.d) * way.s; };
            cutAt(beside(a), beside(b));
            cutAt(a.d - from.d, b.d - from.d);
        }
    std::sort(cuts.begin(), cuts.end());
    for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
        if (cuts[i + 1] - cuts[i] < 1e-12) continue;
        const double middle = (cuts[i] + cuts[i + 1]) / 2;
        if (covers(f, end, {a.s + ds * middle, a.d + dd * middle})) found(cuts[i], cuts[i + 1]);
    }
}

/// What another face takes of a face.
class Block {
public:
    Block(const Facet& face, const Facet& other, const geometry::Box& room, Gathering& found)
        : face_(face), other_(other), room_(room), found_(found) {}

    void run() {
        for (std::size_t k = 0; k < face_.strips.size(); ++k)
            for (std::size_t m = 0; m < other_.strips.size(); ++m) meet(k, m);
    }

private:
    /// Where two strips have the same height, and the other face stays beyond.
    void meet(std::size_t k, std::size_t m) {
        const Vec2 about = room_.centre();
        const Plane mine = planeOf(face_, k, about);
        const Plane its = planeOf(other_, m, about);
        const Vec2 difference = its.grows - mine.grows;
        const double size = geometry::length(difference);
        if (size < tiny) return;
        // Beyond it the other one is higher when both fall, lower when both rise.
        if (-face_.way * geometry::dot(difference, face_.out) <= 0) return;
        const Vec2 on = about + difference * ((mine.at - its.at) / (size * size));
        const auto part = inBox(on, geometry::leftOf(difference) * (1 / size), room_);
        if (!part) return;
        const Along a = other_.own(part->first);
        const Along b = other_.own(part->second);
        partsUnder(other_, other_.end, a, b, [&](double from, double to) {
            const auto at = [&](double t) { return Along{a.s + (b.s - a.s) * t, a.d + (b.d - a.d) * t}; };
            if (other_.strips.size() > 1) return stripPart(m, k, at(from), at(to));
            found_.add(face_.own(other_.place(at(from))), face_.own(other_.place(at(to))), EndsOn::Face,
                       face_.strips.size() > 1 ? std::optional(k) : std::nullopt);
        });
    }
    /// The part that lies on the other's strip.
    void stripPart(std::size_t m, std::size_t k, Along a, Along b) {
        double from = 0;
        double to = 1;
        const auto keep = [&](double u, double v) {
            if (u < 0 && v < 0) to = from;
            if (u < 0 && v >= 0) from = std::max(from, u / (u - v));
            if (u >= 0 && v < 0) to = std::min(to, u / (u - v));
        };
        if (m > 0) {
            const Strip& s = other_.strips[m];
            keep(a.d - s.start(a.s) + tiny, b.d - s.start(b.s) + tiny);
        }
        if (m + 1 < other_.strips.size()) {
            const Strip& s = other_.strips[m + 1];
            keep(s.start(a.s) - a.d + tiny, s.start(b.s) - b.d + tiny);
        }
        if (!(to > from)) return;
        const auto at = [&](double t) { return Along{a.s + (b.s - a.s) * t, a.d + (b.d - a.d) * t}; };
        found_.add(face_.own(other_.place(at(from))), face_.own(other_.place(at(to))), EndsOn::Face, k);
    }

    const Facet& face_;
    const Facet& other_;
    geometry::Box room_;
    Gathering& found_;
};

geometry::Box common(const geometry::Box& a, const geometry::Box& b) {
    return {std::max(a.minX, b.minX), std::max(a.minY, b.minY), std::min(a.maxX, b.maxX),
            std::min(a.maxY, b.maxY)};
}

}  // namespace

geometry::Box boundsOf(const Facet& facet, const Envelope& end) {
    geometry::Box box;
    for (const Piece& p : end) {
        box.add(facet.place({p.s0, p.d0}));
        box.add(facet.place({p.s1, p.d1}));
        const double from = std::clamp(p.s0, 0.0, facet.length);
        const double to = std::clamp(p.s1, 0.0, facet.length);
        box.add(facet.place({from, 0}));
        box.add(facet.place({to, 0}));
    }
    return box;
}

std::vector<Envelope> cutByEachOther(const std::vector<Facet>& facets, bool closed, const Context& context) {
    std::vector<geometry::Box> boxes;
    boxes.reserve(facets.size());
    for (const Facet& f : facets) boxes.push_back(boundsOf(f, f.end));
    const geometry::BoxIndex near(boxes);
    std::vector<Envelope> out(facets.size());
    const auto meetAtFlank = [&](std::size_t i, std::size_t k) {
        const bool next = k == i + 1 || (closed && i + 1 == facets.size() && k == 0);
        const bool before = i == k + 1 || (closed && k + 1 == facets.size() && i == 0);
        return (next && (facets[i].last.isMeeting || facets[k].first.isMeeting)) ||
               (before && (facets[k].last.isMeeting || facets[i].first.isMeeting));
    };
    tbb::parallel_for(std::size_t{0}, facets.size(), [&](std::size_t i) {
        const Facet& f = facets[i];
        out[i] = f.end;
        if (f.end.empty() || context.isCancelled()) return;
        Gathering found(f, false);  // its end has them
        near.query(boxes[i], [&](std::uint32_t k) {
            const Facet& other = facets[k];
            if (k == i || other.way != f.way || other.end.empty() || meetAtFlank(i, k)) return true;
            Block(f, other, common(boxes[i], boxes[k]), found).run();
            return true;
        });
        out[i] = within(lower(f.end, found.nearest()), found.from(), found.to());
    });
    return out;
}

}  // namespace erdwerk::earthwork
