#include "core/earthwork/edge_facets.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/earthwork/clean_edge.h"
#include "core/earthwork/reach.h"
#include "core/terrain/trace.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = 1e-9;
constexpr double sagitta = 0.01;  ///< of the facets of cones

/// A part of a side along which faces go one way; 0: the edge lies on its target.
struct SideStretch {
    std::size_t side = 0;
    double from = 0;  ///< along the side
    double to = 0;
    int way = 0;
    bool off = false;  ///< off the surface
};

class Sides {
public:
    Sides(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface)
        : edge_(edge), shape_(shape), surface_(surface) {}

    [[nodiscard]] std::size_t count() const {
        return edge_.closed ? edge_.corners.size() : edge_.corners.size() - 1;
    }
    [[nodiscard]] const Vec3& start(std::size_t side) const { return edge_.corners[side]; }
    [[nodiscard]] const Vec3& end(std::size_t side) const {
        return edge_.corners[(side + 1) % edge_.corners.size()];
    }
    [[nodiscard]] double length(std::size_t side) const {
        return geometry::distance(start(side).plan(), end(side).plan());
    }
    [[nodiscard]] double grade(std::size_t side) const {
        return (end(side).z - start(side).z) / length(side);
    }
    [[nodiscard]] Vec2 along(std::size_t side) const {
        return (end(side).plan() - start(side).plan()) * (1 / length(side));
    }
    [[nodiscard]] Vec2 out(std::size_t side) const {
        return geometry::leftOf(along(side)) * (shape_.right ? -1.0 : 1.0);
    }

    /// A side, divided where its faces turn from rising to falling.
    void divide(std::size_t side, std::vector<SideStretch>& out) const {
        const double size = length(side);
        if (const auto* rise = std::get_if<ToRise>(&shape_.target))
            return out.push_back({side, 0, size, rise->rise > 0 ? 1 : -1, false});
        if (std::holds_alternative<ToDistance>(shape_.target))
            return out.push_back({side, 0, size, shape_.cut ? 1 : -1, false});
        if (const auto* height = std::get_if<ToHeight>(&shape_.target))
            return stretch(side, 0, height->height - start(side).z, size, height->height - end(side).z, out);
        if (surface_ == nullptr) return out.push_back({side, 0, size, 0, true});
        if (const int way = wayByCells(side); way != 0) return out.push_back({side, 0, size, way, false});
        const auto points = terrain::trace(*surface_, start(side).plan(), end(side).plan());
        for (std::size_t i = 0; i + 1 < points.size(); ++i) {
            const auto& a = points[i];
            const auto& b = points[i + 1];
            const double from = a.fraction * size;
            const double to = b.fraction * size;
            if (!a.height || !b.height || !a.triangleAfter) {
                add({side, from, to, 0, true}, out);
                continue;
            }
            const auto above = [&](const terrain::TracePoint& p) {
                return *p.height - (start(side).z + grade(side) * p.fraction * size);
            };
            stretch(side, from, above(a), to, above(b), out);
        }
    }

private:
    /// Which way its faces go all along a short side, where the heights of the ground's cells say so; 0: look
    /// closer.
    [[nodiscard]] int wayByCells(std::size_t side) const {
        constexpr int most = 12;
        const auto from = surface_->cellAt(start(side).plan());
        const auto to = surface_->cellAt(end(side).plan());
        const auto [bottom, top] = std::minmax(from.row, to.row);
        const auto [left, right] = std::minmax(from.column, to.column);
        if ((top - bottom + 1) * (right - left + 1) > most) return 0;
        const auto [low, high] = std::minmax(start(side).z, end(side).z);
        bool isAbove = true;
        bool isBelow = true;
        for (int row = bottom; row <= top; ++row)
            for (int column = left; column <= right; ++column) {
                const auto heights = surface_->heightsIn({row, column});
                // Where the ground has a rim there are no bounds, where it has nothing they are the wrong way
                // round.
                if (heights.least > heights.most) return 0;
                isAbove = isAbove && heights.least > high + tiny;
                isBelow = isBelow && heights.most < low - tiny;
            }
        return isAbove ? 1 : (isBelow ? -1 : 0);
    }
    static void add(SideStretch part, std::vector<SideStretch>& out) {
        if (!(part.to > part.from)) return;
        if (!out.empty() && out.back().side == part.side && out.back().way == part.way &&
            out.back().off == part.off) {
            out.back().to = part.to;
            return;
        }
        out.push_back(part);
    }
    /// The target lies by a and b above the edge at both ends.
    static void stretch(std::size_t side, double from, double a, double to, double b,
                        std::vector<SideStretch>& out) {
        const auto wayOf = [](double v) { return std::abs(v) <= tiny ? 0 : (v > 0 ? 1 : -1); };
        const int wayA = wayOf(a);
        const int wayB = wayOf(b);
        if (wayA * wayB >= 0) return add({side, from, to, wayA != 0 ? wayA : wayB, false}, out);
        const double middle = from + (to - from) * a / (a - b);
        add({side, from, middle, wayA, false}, out);
        add({side, middle, to, wayB, false}, out);
    }

    const Edge& edge_;
    const BatterShape& shape_;
    const terrain::TinLocator* surface_;
};

/// Makes the faces of all parts and what lies between them.
class Maker {
public:
    Maker(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface, double reach)
        : edge_(edge), shape_(shape), surface_(surface), reach_(reach), sides_(edge, shape, surface) {}

    Result<EdgeFacets> run() {
        out_.closed = edge_.closed;
        std::vector<std::vector<SideStretch>> ofSide(sides_.count());
        tbb::parallel_for(std::size_t{0}, ofSide.size(), [&](std::size_t k) { sides_.divide(k, ofSide[k]); });
        std::vector<SideStretch> parts;
        for (std::size_t k = 0; k < ofSide.size(); ++k) {
            distances_.push_back(out_.length);
            out_.length += sides_.length(k);
            parts.insert(parts.end(), ofSide[k].begin(), ofSide[k].end());
        }
        for (const SideStretch& part : parts) addCorner(part);
        if (!edge_.closed) out_.edge.push_back(edge_.corners.back());
        for (const SideStretch& part : parts)
            if (part.off) out_.none.push_back(stretchOf(part));
        for (std::size_t k = 0; k < ofSide.size(); ++k)
            out_.sides.emplace_back(sides_.start(k), sides_.end(k));
        for (const int way : {1, -1})
            if (auto done = addWay(way, ofSide); !done) return tl::unexpected(done.error());
        return std::move(out_);
    }

private:
    [[nodiscard]] Vec3 placeOn(std::size_t side, double along) const {
        const Vec2 p = sides_.start(side).plan() + sides_.along(side) * along;
        if (along >= sides_.length(side)) return sides_.end(side);
        return along <= 0 ? sides_.start(side)
                          : Vec3{p.x, p.y, sides_.start(side).z + sides_.grade(side) * along};
    }
    [[nodiscard]] EdgeStretch stretchOf(const SideStretch& p) const {
        return {distances_[p.side] + p.from, distances_[p.side] + p.to, placeOn(p.side, p.from),
                placeOn(p.side, p.to)};
    }
    void addCorner(const SideStretch& part) { out_.edge.push_back(placeOn(part.side, part.from)); }

    /// Slopes at a distance along the edge.
    [[nodiscard]] double slopeAt(double distance, int way) const {
        double slope = (way > 0 ? shape_.cut : shape_.fill).value_or(0);
        for (const SlopeChange& c : shape_.changes) {
            if (distance <= c.from && !(c.to == c.from && distance == c.from)) break;
            const double next = way > 0 ? c.cut : c.fill;
            const double share = distance >= c.to ? 1.0 : (distance - c.from) / (c.to - c.from);
            slope += (next - slope) * share;
        }
        return slope;
    }

    Result<Facet> facet(std::size_t side, double from, double to, int way, double slope) const {
        Facet f;
        const Vec3 start = placeOn(side, from);
        f.origin = start.plan();
        f.along = sides_.along(side);
        f.out = sides_.out(side);
        f.length = to - from;
        f.way = way;
        f.side = side;
        f.distance = distances_[side] + from;
        f.first.knots = {{0, 0}};
        f.last.knots = {{f.length, 0}};
        auto strips = stripsOf({start.z, sides_.grade(side), way * slope, 0, 0}, f.length, shape_.berms);
        if (!strips) return tl::unexpected(strips.error());
        f.strips = std::move(*strips);
        return f;
    }

    /// All faces that go one way, where any does.
    Result<void> addWay(int way, const std::vector<std::vector<SideStretch>>& ofSide) {
        const auto goes = [&](const SideStretch& p) { return p.way == way; };
        if (std::none_of(ofSide.begin(), ofSide.end(),
                         [&](const auto& parts) { return std::any_of(parts.begin(), parts.end(), goes); }))
            return {};
        faces_.clear();
        for (std::size_t k = 0; k < ofSide.size(); ++k) {
            const std::size_t before = faces_.size();
            auto done = addSide({k, 0, sides_.length(k), way, false});
            if (!done) {
                // A berm that only another part of the side passes.
                faces_.resize(before);
                done = {};
                for (const SideStretch& part : ofSide[k])
                    if (done && goes(part)) done = addSide(part);
                if (!done) return done;
            }
            for (std::size_t i = before; i < faces_.size(); ++i)
                for (const SideStretch& part : ofSide[k])
                    if (goes(part)) addStart(faces_[i], part);
        }
        joinCorners();
        if (way > 0) out_.rising = out_.facets.size();
        return {};
    }

    void addStart(Facet& f, const SideStretch& part) const {
        const double at = f.distance - distances_[f.side];
        const double from = std::max(part.from - at, 0.0);
        const double to = std::min(part.to - at, f.length);
        if (to > from) f.starts.emplace_back(from, to);
    }

    /// Where slopes change along the side it is divided, and more finely while they pass into others.
    Result<void> addSide(const SideStretch& part) {
        const double base = distances_[part.side];
        std::vector<double> cuts{part.from, part.to};
        for (const SlopeChange& c : shape_.changes)
            for (const double d : {c.from, c.to})
                if (d - base > part.from + tiny && d - base < part.to - tiny) cuts.push_back(d - base);
        std::sort(cuts.begin(), cuts.end());
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            const double from = slopeAt(base + cuts[i] + tiny, part.way);
            const double to = slopeAt(base + cuts[i + 1] - tiny, part.way);
            if (std::abs(from - to) < 1e-6) {
                auto f = facet(part.side, cuts[i], cuts[i + 1], part.way, from);
                if (!f) return tl::unexpected(f.error());
                faces_.push_back(std::move(*f));
            } else if (auto done = addChange(part, cuts[i], cuts[i + 1], from, to); !done) {
                return done;
            }
        }
        return {};
    }

    /// While the slope changes the face is a ruled one: it is made of pairs of triangles, so many that they
    /// are within the sagitta of it.
    Result<void> addChange(const SideStretch& part, double from, double to, double slopeFrom,
                           double slopeTo) {
        double reach = reach_;
        for (const double slope : {slopeFrom, slopeTo})
            for (const double at : {from, to}) {
                const auto f = facet(part.side, at, at + shortestSide, part.way, slope);
                if (!f) return tl::unexpected(f.error());
                reach = std::max(reach, reachAtStart(*f, shape_.target, surface_).value_or(1));
            }
        reach *= 2;
        const double count =
            std::clamp(std::ceil(std::abs(slopeTo - slopeFrom) * reach / (4 * sagitta)), 2.0, 400.0);
        for (double i = 0; i < count; ++i) {
            const double a = from + (to - from) * i / count;
            const double b = from + (to - from) * (i + 1) / count;
            auto f = facet(part.side, a, b, part.way, slopeFrom + (slopeTo - slopeFrom) * i / count);
            if (!f) return tl::unexpected(f.error());
            const double next = slopeFrom + (slopeTo - slopeFrom) * (i + 1) / count;
            // From the end of this piece to the far end of its beginning.
            f->last.onwards = {-(b - a), reach};
            Facet other = *f;
            other.origin = placeOn(part.side, b).plan();
            other.length = 0;
            other.distance += b - a;
            const double z = placeOn(part.side, b).z;
            // Through that far end, and with the next slope at right angles to the edge.
            const double far = f->strips.front().height({0, reach});
            const double alongD = part.way * next;
            const Strip plane{z, (z + alongD * reach - far) / (b - a), alongD, 0, 0};
            auto strips = stripsOf(plane, 0, shape_.berms);
            if (!strips) return tl::unexpected(strips.error());
            other.strips = std::move(*strips);
            other.first = {{{0, 0}}, {-(b - a), reach}, true};
            other.last = {{{0, 0}}, {0, 1}, false};
            f->last.isMeeting = true;
            f->reach = other.reach = reach;
            faces_.push_back(std::move(*f));
            faces_.push_back(std::move(other));
        }
        return {};
    }

    void joinCorners() {
        std::vector<Facet> all = std::exchange(faces_, {});
        const std::size_t n = all.size();
        std::vector<std::vector<Facet>> cones(n);
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t k = (i + 1) % n;
            if (n > 1 && (k != 0 || edge_.closed)) join(all[i], all[k], cones[i]);
        }
        for (std::size_t i = 0; i < n; ++i) {
            out_.facets.push_back(std::move(all[i]));
            for (Facet& f : cones[i]) out_.facets.push_back(std::move(f));
        }
    }

    void join(Facet& a, Facet& b, std::vector<Facet>& cone) const {
        const Vec2 corner = a.place({a.length, 0});
        if (a.side == b.side || a.way != b.way || geometry::distance(corner, b.origin) > shortestSide) return;
        const double turn = geometry::cross(a.along, b.along) * (shape_.right ? -1.0 : 1.0);
        const bool turnsBack = geometry::dot(a.along, b.along) < -0.9999;
        if (std::abs(turn) < 1e-12 && !turnsBack) return;
        const bool outside = turn < 0 || turnsBack;
        const auto meeting = turnsBack ? std::nullopt : meetingFlank(a, b, corner);
        // Steps that fall with a falling edge need not meet in one line: such a corner is round.
        const bool oneWay = meeting && leansOneWay(*meeting) && leansOneWay(flankOn(*meeting, a, b));
        if (outside && (!oneWay || shape_.corners == linework::OutsideCorner::Round))
            return fan(a, b, corner, cone);
        if (!meeting || !oneWay) return;
        const Flank there = flankOn(*meeting, a, b);
        // At an inside corner faces are cut where they meet later, unless that leans over the end of a side.
        if (!outside && !leansTo(*meeting, 1) && !leansTo(there, -1)) return;
        a.last = *meeting;
        b.first = there;
    }

    /// Facets of the cone about a corner.
    void fan(const Facet& a, const Facet& b, Vec2 corner, std::vector<Facet>& cone) const {
        const double sign = shape_.right ? -1.0 : 1.0;
        const double full = 2 * std::numbers::pi;
        double angle = std::atan2(geometry::cross(a.out, b.out) * sign, geometry::dot(a.out, b.out));
        if (angle > 0) angle -= full;  // round the outside: against the side the batter lies on
        angle = -angle;
        Facet plain = a;
        plain.origin = corner;
        plain.distance = a.distance + a.length;
        plain.length = 0;
        plain.starts.clear();
        plain.ofCone = true;
        const double z = a.height({a.length, 0});
        const double slope = a.strips.front().alongD;
        const auto ray = [&](double turned) {
            const double t = -turned * sign;
            return a.out * std::cos(t) + geometry::leftOf(a.out) * std::sin(t);
        };
        double reach = reach_;
        for (const double share : {0.0, 0.5, 1.0}) {
            plain.out = ray(angle * share);
            plain.along = geometry::leftOf(plain.out) * -sign;
            if (auto strips = stripsOf({z, 0, slope, 0, 0}, 0, shape_.berms)) plain.strips = *strips;
            reach = std::max(reach, reachAtStart(plain, shape_.target, surface_).value_or(1));
        }
        const double step = 2 * std::acos(1 - sagitta / (1.2 * reach + sagitta));
        const auto count = std::max(1.0, std::ceil(angle / step));
        for (double i = 0; i < count; ++i) {
            Facet f = plain;
            const double half = angle / count / 2;
            f.out = ray(angle * (i + 0.5) / count);
            f.along = geometry::leftOf(f.out) * -sign;
            f.scale = std::cos(half);
            f.reach = 1.2 * reach;
            if (auto strips = stripsOf({z, 0, slope / f.scale, 0, 0}, 0, shape_.berms, f.scale))
                f.strips = *strips;
            f.first = {{{0, 0}}, {-std::sin(half), std::cos(half)}, true};
            f.last = {{{0, 0}}, {std::sin(half), std::cos(half)}, true};
            cone.push_back(std::move(f));
        }
    }

    const Edge& edge_;
    const BatterShape& shape_;
    const terrain::TinLocator* surface_;
    double reach_;
    Sides sides_;
    std::vector<double> distances_;  ///< along the edge, where each side begins
    std::vector<Facet> faces_;       ///< that go one way
    EdgeFacets out_;
};

}  // namespace

std::optional<std::size_t> EdgeFacets::nextOf(std::size_t i) const {
    const std::size_t first = i < rising ? 0 : rising;
    const std::size_t end = i < rising ? rising : facets.size();
    if (i + 1 < end) return i + 1;
    return closed && end - first > 1 ? std::optional(first) : std::nullopt;
}

Result<EdgeFacets> facetsOf(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface,
                            double reach) {
    const auto clean = cleanEdge(edge);
    if (!clean) return tl::unexpected(clean.error());
    return Maker(*clean, shape, surface, reach).run();
}

}  // namespace erdwerk::earthwork
