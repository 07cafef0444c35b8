#include "core/earthwork/facet.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = 1e-9;

/// How a plane grows in plan.
Vec2 gradient(const Facet& f, const Strip& strip) {
    return f.along * strip.alongS + f.out * strip.alongD;
}

/// Where the borders d = start(s) of two faces' strips cross.
std::optional<Vec2> bordersCross(const Facet& a, const Strip& p, const Facet& b, const Strip& q) {
    const Vec2 onA = a.place({0, p.startAtZero});
    const Vec2 wayA = a.along + a.out * p.startSlope;
    const Vec2 onB = b.place({0, q.startAtZero});
    const Vec2 wayB = b.along + b.out * q.startSlope;
    const double turn = geometry::cross(wayA, wayB);
    if (std::abs(turn) < tiny) return std::nullopt;
    return onA + wayA * (geometry::cross(onB - onA, wayB) / turn);
}

}  // namespace

double Flank::at(double d) const {
    std::size_t k = knots.size() - 1;
    while (k > 0 && d < knots[k].d) --k;
    const Along from = knots[k];
    const Along way =
        k + 1 < knots.size() ? Along{knots[k + 1].s - from.s, knots[k + 1].d - from.d} : onwards;
    return way.d > 0 ? from.s + way.s * (d - from.d) / way.d : from.s;
}

Result<std::vector<Strip>> stripsOf(const Strip& plane, double length, const std::vector<Berm>& berms,
                                    double scale) {
    const double way = plane.alongD > 0 ? 1 : -1;
    std::vector<Strip> out{plane};
    double shift = 0;  // of d, by the berms before
    // Those measured from the edge and those at heights both in the order in which they are met at the start.
    std::vector<Berm> order = berms;
    const auto rise = [&](const Berm& b, double s) {
        return b.fromEdge ? b.height : b.height - plane.height({s, 0});
    };
    std::sort(order.begin(), order.end(),
              [&](const Berm& a, const Berm& b) { return way * rise(a, 0) < way * rise(b, 0); });
    for (const Berm& berm : order) {
        const bool atStart = way * rise(berm, 0) > tiny;
        const bool atEnd = way * rise(berm, length) > tiny;
        if (!atStart && !atEnd) continue;
        if (atStart != atEnd)
            return badInput("the edge passes the height of a berm; say how far the berm is from the edge");
        Strip level{berm.height, 0, 0, 0, 0};
        if (berm.fromEdge) level = {plane.atOrigin + berm.height, plane.alongS, 0, 0, 0};
        // Where the plane, shifted, comes to the berm.
        level.startAtZero = shift + (level.atOrigin - plane.atOrigin) / plane.alongD;
        level.startSlope = (level.alongS - plane.alongS) / plane.alongD;
        const Strip& before = out.back();
        if (level.start(0) < before.start(0) - tiny || level.start(length) < before.start(length) - tiny)
            return badInput("two berms lie on each other");
        const double width = berm.width * scale;
        shift += width;
        Strip after = plane;
        after.atOrigin -= plane.alongD * shift;
        after.startAtZero = level.startAtZero + width;
        after.startSlope = level.startSlope;
        out.push_back(level);
        out.push_back(after);
    }
    return out;
}

namespace {

/// How far along a straight (from p, by way) a border lies; nothing when it is behind or never met.
std::optional<double> untilBorder(const Facet& f, const Strip& border, Vec2 p, Vec2 way) {
    const Along at = f.own(p);
    const double off = border.start(at.s) - at.d;  // > 0: not there yet
    const double step = geometry::dot(way, f.out) - border.startSlope * geometry::dot(way, f.along);
    if (std::abs(step) < 1e-12) return std::nullopt;
    const double t = off / step;
    return t > -tiny ? std::optional(std::max(t, 0.0)) : std::nullopt;
}

/// Follows the places where two faces have the same height, from strip to strip.
class MeetingWalk {
public:
    MeetingWalk(const Facet& a, const Facet& b, Vec2 corner) : a_(a), b_(b), at_(corner) {
        out_.isMeeting = true;
        out_.knots.push_back(a.own(corner));
    }

    std::optional<Flank> run() {
        while (true) {
            const bool moreA = k_ + 1 < a_.strips.size();
            const bool moreB = m_ + 1 < b_.strips.size();
            const Vec2 difference = gradient(a_, a_.strips[k_]) - gradient(b_, b_.strips[m_]);
            const double size = geometry::length(difference);
            if (size < tiny) {
                // One plane, as two level steps at one height: to where both end.
                const auto next = moreA && moreB ? bordersCross(a_, a_.strips[k_ + 1], b_, b_.strips[m_ + 1])
                                                 : std::nullopt;
                if (!next || !go(*next)) return std::nullopt;
                ++k_;
                ++m_;
                continue;
            }
            Vec2 way = geometry::leftOf(difference) * (1 / size);
            if (geometry::dot(way, a_.out + b_.out) < 0) way = way * -1.0;
            if (geometry::dot(way, a_.out) < 1e-6 || geometry::dot(way, b_.out) < 1e-6) return std::nullopt;
            const auto toA = moreA ? untilBorder(a_, a_.strips[k_ + 1], at_, way) : std::nullopt;
            const auto toB = moreB ? untilBorder(b_, b_.strips[m_ + 1], at_, way) : std::nullopt;
            if (!toA && !toB) {
                if (moreA || moreB) return std::nullopt;
                out_.onwards = {geometry::dot(way, a_.along), geometry::dot(way, a_.out)};
                return out_;
            }
            const double t = std::min(toA.value_or(1e300), toB.value_or(1e300));
            if (!go(at_ + way * t)) return std::nullopt;
            if (toA && *toA <= t + tiny) ++k_;
            if (toB && *toB <= t + tiny) ++m_;
        }
    }

private:
    bool go(Vec2 to) {
        const Along own = a_.own(to);
        if (own.d < out_.knots.back().d - tiny) return false;
        if (own.d > out_.knots.back().d + tiny) out_.knots.push_back(own);
        at_ = to;
        return true;
    }

    const Facet& a_;
    const Facet& b_;
    Vec2 at_;
    std::size_t k_ = 0;
    std::size_t m_ = 0;
    Flank out_;
};

}  // namespace

std::optional<Flank> meetingFlank(const Facet& a, const Facet& b, Vec2 corner) {
    return MeetingWalk(a, b, corner).run();
}

bool leansTo(const Flank& flank, double side) {
    for (std::size_t k = 0; k < flank.knots.size(); ++k) {
        const bool end = k + 1 == flank.knots.size();
        const double step = end ? flank.onwards.s : flank.knots[k + 1].s - flank.knots[k].s;
        if (side * step > tiny) return true;
    }
    return false;
}

bool leansOneWay(const Flank& flank) {
    return !leansTo(flank, 1) || !leansTo(flank, -1);
}

Flank flankOn(const Flank& flank, const Facet& from, const Facet& to) {
    Flank out;
    out.isMeeting = flank.isMeeting;
    for (const Along& k : flank.knots) out.knots.push_back(to.own(from.place(k)));
    const Vec2 way = from.along * flank.onwards.s + from.out * flank.onwards.d;
    out.onwards = {geometry::dot(way, to.along), geometry::dot(way, to.out)};
    return out;
}

}  // namespace erdwerk::earthwork
