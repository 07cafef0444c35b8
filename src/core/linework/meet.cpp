#include "core/linework/meet.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

namespace erdwerk::linework {

using geometry::Vec2;
using geometry::Vec3;

namespace {

/// In plan, relative to a local origin: value + slope . p
struct Plane {
    double value = 0;
    Vec2 slope;
    [[nodiscard]] double at(Vec2 p) const { return value + geometry::dot(slope, p); }
};

/// A half of the plan: where edge . p >= least.
struct Half {
    Vec2 edge;
    double least = 0;
};

struct Face {
    Plane plane;
    std::vector<Half> bounds;
};

constexpr double tiny = 1e-12;

/// The side of a chain on which another one lies, by the places of that one: +1 left, -1 right.
double sideTowards(std::span<const Vec3> chain, std::span<const Vec3> other) {
    double sum = 0;
    for (const Vec3& o : other) {
        double best = std::numeric_limits<double>::infinity();
        double side = 0;
        for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
            const Vec2 p = chain[i].plan();
            const Vec2 d = chain[i + 1].plan() - p;
            const double size = geometry::dot(d, d);
            if (size <= 0) continue;
            const double t = std::clamp(geometry::dot(o.plan() - p, d) / size, 0.0, 1.0);
            const double away = geometry::distance(p + d * t, o.plan());
            if (away >= best) continue;
            best = away;
            side = geometry::cross(d, o.plan() - p) >= 0 ? 1 : -1;
        }
        sum += side;
    }
    return sum >= 0 ? 1 : -1;
}

/// The faces of a chain on one side. A side that is steeper than the fall has none.
std::vector<Face> facesOf(std::span<const Vec3> chain, Vec2 origin, double side, Grade grade,
                          SlopeAlong along) {
    struct Side {
        Vec2 from, to, u, out;
        std::optional<Plane> plane;
    };
    std::vector<Side> sides;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        Side s;
        s.from = chain[i].plan() - origin;
        s.to = chain[i + 1].plan() - origin;
        const double length = geometry::distance(s.from, s.to);
        if (!(length > 1e-9)) continue;
        s.u = (s.to - s.from) * (1 / length);
        s.out = geometry::leftOf(s.u) * side;
        const double with = (chain[i + 1].z - chain[i].z) / length;
        double across = grade.riseOverRun();
        if (along == SlopeAlong::Fall) {
            const double rest = across * across - with * with;
            across = rest < 0 ? std::nan("") : std::copysign(std::sqrt(rest), across);
        }
        if (std::isfinite(across)) {
            Plane plane;
            plane.slope = s.u * with + s.out * across;
            plane.value = chain[i].z - geometry::dot(plane.slope, s.from);
            s.plane = plane;
        }
        sides.push_back(s);
    }
    std::vector<Face> out;
    for (std::size_t i = 0; i < sides.size(); ++i) {
        const Side& s = sides[i];
        if (!s.plane) continue;
        Face face{*s.plane, {{s.out, geometry::dot(s.out, s.from)}}};
        // At each end: at right angles, or where this plane meets its neighbour's.
        for (const bool start : {true, false}) {
            const Vec2 at = start ? s.from : s.to;
            const std::size_t k = start ? i - 1 : i + 1;
            Vec2 edge = start ? s.u : s.u * -1.0;
            const bool hasNeighbour = start ? i > 0 : i + 1 < sides.size();
            if (hasNeighbour && sides[k].plane) {
                const Vec2 apart = s.plane->slope - sides[k].plane->slope;
                if (geometry::length(apart) > tiny) {
                    // Along the common line of both planes, on the side of this one.
                    edge = apart;
                    if (geometry::dot(edge, start ? s.u : s.u * -1.0) < 0) edge = edge * -1.0;
                }
            }
            face.bounds.push_back({edge, geometry::dot(edge, at)});
        }
        out.push_back(std::move(face));
    }
    return out;
}

/// Where two faces meet: a straight, or nothing.
std::optional<std::pair<Vec2, Vec2>> meetingOf(const Face& a, const Face& b) {
    const Vec2 apart = a.plane.slope - b.plane.slope;
    const double size = geometry::dot(apart, apart);
    if (size < tiny * tiny) return std::nullopt;
    const Vec2 on = apart * ((b.plane.value - a.plane.value) / size);
    const Vec2 u = geometry::leftOf(apart) * (1 / std::sqrt(size));
    double low = -std::numeric_limits<double>::infinity();
    double high = std::numeric_limits<double>::infinity();
    for (const Face* face : {&a, &b})
        for (const Half& h : face->bounds) {
            const double grows = geometry::dot(h.edge, u);
            const double rest = h.least - geometry::dot(h.edge, on);
            if (std::abs(grows) < tiny) {
                if (rest > 1e-9) return std::nullopt;
            } else if (grows > 0) {
                low = std::max(low, rest / grows);
            } else {
                high = std::min(high, rest / grows);
            }
        }
    if (!(high - low > 1e-9) || !std::isfinite(high - low)) return std::nullopt;
    return std::pair{on + u * low, on + u * high};
}

/// Straights to chains: ends within a micrometre are one place.
class Chainer {
public:
    void add(Vec3 a, Vec3 b) {
        const std::size_t i = placeOf(a);
        const std::size_t k = placeOf(b);
        if (i == k) return;
        joined_[i].push_back(k);
        joined_[k].push_back(i);
    }
    [[nodiscard]] std::vector<std::vector<Vec3>> chains() {
        std::vector<std::vector<Vec3>> out;
        // Those with a loose end first, then rings.
        for (const bool loose : {true, false})
            for (std::size_t i = 0; i < places_.size(); ++i) {
                while (!joined_[i].empty() && (!loose || joined_[i].size() % 2 == 1)) {
                    std::vector<Vec3> chain{places_[i]};
                    for (std::size_t at = i; !joined_[at].empty();) {
                        const std::size_t next = joined_[at].back();
                        joined_[at].pop_back();
                        auto& back = joined_[next];
                        back.erase(std::find(back.begin(), back.end(), at));
                        chain.push_back(places_[next]);
                        at = next;
                    }
                    out.push_back(std::move(chain));
                }
            }
        return out;
    }

private:
    std::size_t placeOf(Vec3 p) {
        constexpr double same = 1e-6;
        const auto cell = [](double v) { return static_cast<std::int64_t>(std::floor(v / same)); };
        const std::pair here{cell(p.x), cell(p.y)};
        for (std::int64_t dx = -1; dx <= 1; ++dx)
            for (std::int64_t dy = -1; dy <= 1; ++dy)
                if (const auto it = cells_.find({here.first + dx, here.second + dy}); it != cells_.end())
                    return it->second;
        cells_[here] = places_.size();
        places_.push_back(p);
        joined_.emplace_back();
        return places_.size() - 1;
    }
    std::map<std::pair<std::int64_t, std::int64_t>, std::size_t> cells_;
    std::vector<Vec3> places_;
    std::vector<std::vector<std::size_t>> joined_;
};

/// How far along a chain the nearest place is.
double along(std::span<const Vec3> chain, Vec2 p) {
    double best = std::numeric_limits<double>::infinity();
    double out = 0;
    double base = 0;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i) {
        const Vec2 a = chain[i].plan();
        const Vec2 d = chain[i + 1].plan() - a;
        const double size = geometry::length(d);
        const double t = size > 0 ? std::clamp(geometry::dot(p - a, d) / (size * size), 0.0, 1.0) : 0.0;
        const double away = geometry::distance(a + d * t, p);
        if (away < best) {
            best = away;
            out = base + t * size;
        }
        base += size;
    }
    return out;
}

}  // namespace

Result<std::vector<std::vector<Vec3>>> meetingLine(std::span<const Vec3> a, std::span<const Vec3> b,
                                                   const MeetOptions& options) {
    if (a.size() < 2 || b.size() < 2) return badInput("a line without length has no slope beside it");
    const Vec2 origin = a.front().plan();
    const auto facesA = facesOf(a, origin, sideTowards(a, b), options.a, options.along);
    const auto facesB = facesOf(b, origin, sideTowards(b, a), options.b, options.along);
    Chainer chainer;
    for (const Face& fa : facesA)
        for (const Face& fb : facesB)
            if (const auto m = meetingOf(fa, fb)) {
                const auto place = [&](Vec2 p) {
                    return Vec3{p.x + origin.x, p.y + origin.y, fa.plane.at(p)};
                };
                chainer.add(place(m->first), place(m->second));
            }
    auto out = chainer.chains();
    if (out.empty()) return fail(ErrorCode::NotFound, "the slopes never meet between the two lines");
    for (auto& chain : out)
        if (along(a, chain.front().plan()) > along(a, chain.back().plan()))
            std::reverse(chain.begin(), chain.end());
    std::sort(out.begin(), out.end(), [&](const auto& x, const auto& y) {
        return along(a, x.front().plan()) < along(a, y.front().plan());
    });
    return out;
}

}  // namespace erdwerk::linework
