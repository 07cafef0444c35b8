#include "core/earthwork/reach.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/terrain/trace.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = 1e-9;
/// Farther than any face; small enough to leave 1e-9 of precision.
constexpr double farAway = 1e6;

Along between(Along a, Along b, double t) {
    if (t <= 0) return a;
    if (t >= 1) return b;
    return {a.s + (b.s - a.s) * t, a.d + (b.d - a.d) * t};
}

/// A part of a straight, from 0 to 1.
struct Part {
    double from = 0;
    double to = 1;
    [[nodiscard]] bool empty() const { return !(to > from); }
    /// Keeps where a linear value, `a` at 0 and `b` at 1, is not below 0. True when that took the end at 1.
    void keep(double a, double b) {
        if (a >= 0 && b >= 0) return;
        if (a < 0 && b < 0) {
            to = from;
            return;
        }
        const double zero = a / (a - b);
        if (a < 0)
            from = std::max(from, zero);
        else
            to = std::min(to, zero);
    }
};

}  // namespace

Gathering::Straight Gathering::straightOf(const Flank& flank, double about) {
    std::size_t k = flank.knots.size() - 1;
    while (k > 0 && about < flank.knots[k].d) --k;
    const Along from = flank.knots[k];
    const Along way = k + 1 < flank.knots.size()
                          ? Along{flank.knots[k + 1].s - from.s, flank.knots[k + 1].d - from.d}
                          : flank.onwards;
    const double slope = way.d > 0 ? way.s / way.d : 0;
    return {from.s - slope * from.d, slope};
}

Gathering::Gathering(const Facet& facet, bool flanksEndIt)
    : facet_(facet), first_(straightOf(facet.first, 0)), last_(straightOf(facet.last, 0)) {
    for (const Flank* flank : {&facet.first, &facet.last}) {
        for (std::size_t k = 1; k < flank->knots.size(); ++k) breaks_.push_back(flank->knots[k].d);
        // A flank that leans inwards ends the face itself.
        const double inwards = flank == &facet.first ? 1 : -1;
        if (!flanksEndIt || !leansTo(*flank, inwards)) continue;
        Along from = flank->knots.front();
        const auto until = [&](Along to) {
            if (inwards * (to.s - from.s) > 0)
                pieces_.push_back(inwards > 0 ? Piece{from.s, from.d, to.s, to.d, EndsOn::Face}
                                              : Piece{to.s, to.d, from.s, from.d, EndsOn::Face});
            from = to;
        };
        for (std::size_t k = 1; k < flank->knots.size(); ++k) until(flank->knots[k]);
        until({from.s + flank->onwards.s * farAway, from.d + flank->onwards.d * farAway});
    }
    std::sort(breaks_.begin(), breaks_.end());
}

void Gathering::add(Along a, Along b, EndsOn on, std::optional<std::size_t> strip) {
    Part part;
    part.keep(a.d + tiny, b.d + tiny);
    if (strip && *strip > 0) {
        const Strip& own = facet_.strips[*strip];
        part.keep(a.d - own.start(a.s) + tiny, b.d - own.start(b.s) + tiny);
    }
    if (strip && *strip + 1 < facet_.strips.size()) {
        const Strip& next = facet_.strips[*strip + 1];
        part.keep(next.start(a.s) - a.d + tiny, next.start(b.s) - b.d + tiny);
    }
    if (part.empty()) return;
    const Along p = between(a, b, part.from);
    const Along q = between(a, b, part.to);
    // Between two knots the flanks are straight.
    double from = 0;
    for (const double d : breaks_) {
        if (!((p.d < d && q.d > d) || (p.d > d && q.d < d))) continue;
        const double t = (d - p.d) / (q.d - p.d);
        if (t <= from) continue;
        if (p.d < q.d) {
            cut(between(p, q, from), between(p, q, t), on);
            from = t;
        }
    }
    if (p.d > q.d && !breaks_.empty()) return add(q, p, on, std::nullopt);
    cut(between(p, q, from), q, on);
}

void Gathering::cut(Along a, Along b, EndsOn on) {
    if (a.s > b.s) std::swap(a, b);
    // Each flank as a straight through this range of d.
    const Straight first = breaks_.empty() ? first_ : straightOf(facet_.first, (a.d + b.d) / 2);
    const Straight last = breaks_.empty() ? last_ : straightOf(facet_.last, (a.d + b.d) / 2);
    const auto offFirst = [&](Along p) { return p.s - (first.at + first.slope * p.d); };
    const auto offLast = [&](Along p) { return last.at + last.slope * p.d - p.s; };
    Part part;
    part.keep(offFirst(a), offFirst(b));
    if (part.empty()) return;
    Part other = part;
    other.keep(offLast(a), offLast(b));
    if (other.empty()) return;
    const Along p = between(a, b, other.from);
    const Along q = between(a, b, other.to);
    // Where it runs out over a flank that leans outwards the face ends.
    for (const Along& end : {p, q}) {
        if (end.s < -tiny && std::abs(offFirst(end)) < tiny) from_ = std::max(from_, end.s);
        if (end.s > facet_.length + tiny && std::abs(offLast(end)) < tiny) to_ = std::min(to_, end.s);
    }
    if (q.s > p.s) pieces_.push_back({p.s, p.d, q.s, q.d, on});
}

Envelope Gathering::nearest() const {
    Envelope all = within(lowerOf(pieces_), from_, to_);
    std::erase_if(all, [](const Piece& p) { return p.on == EndsOn::Rim; });
    return all;
}

namespace {

/// Triangles that were met, in a table of open addresses.
class Met {
public:
    /// False when it was there.
    bool add(std::uint32_t t) {
        if (2 * (count_ + 1) > slots_.size()) grow();
        std::size_t at = slot(t);
        for (; slots_[at] != terrain::Tin::none; at = (at + 1) & (slots_.size() - 1))
            if (slots_[at] == t) return false;
        slots_[at] = t;
        ++count_;
        return true;
    }

    [[nodiscard]] bool has(std::uint32_t t) const {
        if (slots_.empty()) return false;
        for (std::size_t at = slot(t); slots_[at] != terrain::Tin::none; at = (at + 1) & (slots_.size() - 1))
            if (slots_[at] == t) return true;
        return false;
    }

private:
    [[nodiscard]] std::size_t slot(std::uint32_t t) const { return (t * 0x9e3779b1U) & (slots_.size() - 1); }
    void grow() {
        const auto before = std::exchange(
            slots_,
            std::vector<std::uint32_t>(std::max<std::size_t>(128, 2 * slots_.size()), terrain::Tin::none));
        count_ = 0;
        for (const std::uint32_t t : before)
            if (t != terrain::Tin::none) add(t);
    }
    std::vector<std::uint32_t> slots_;  ///< as many as a power of two
    std::size_t count_ = 0;
};

/// Ranges of s over which the target is met nearer than a d.
class Closed {
public:
    void add(double from, double to, double d) {
        const auto first = std::lower_bound(ranges_.begin(), ranges_.end(), from - tiny,
                                            [](const Range& r, double s) { return r.to < s; });
        auto last = first;
        Range whole{from, to, d};
        for (; last != ranges_.end() && last->from <= to + tiny; ++last)
            whole = {std::min(whole.from, last->from), std::max(whole.to, last->to),
                     std::max(whole.d, last->d)};
        if (first == last) {
            ranges_.insert(first, whole);
        } else {
            *first = whole;
            ranges_.erase(first + 1, last);
        }
    }
    [[nodiscard]] bool covers(double from, double to, double d) const {
        const auto at = std::lower_bound(ranges_.begin(), ranges_.end(), from,
                                         [](const Range& r, double s) { return r.to < s; });
        return at != ranges_.end() && at->from <= from && at->to >= to && at->d <= d;
    }

private:
    struct Range {
        double from;
        double to;
        double d;
    };
    std::vector<Range> ranges_;
};

/// The ground under a face, triangle by triangle from the edge outwards, about the nearest first.
class Flood {
public:
    Flood(const Facet& facet, const terrain::TinLocator& surface)
        : facet_(facet), surface_(surface), tin_(surface.tin()), found_(facet) {}

    Envelope run() {
        for (const std::uint32_t t : surface_.along(facet_.place({0, 0}), facet_.place({facet_.length, 0})))
            if (met_.add(t)) visit(t);
        for (std::size_t next = 0; next < open_.size(); ++next) {
            const Way way = open_[next];
            if (next + 3 < open_.size()) expect(open_[next + 3].triangle);
            // Beyond where it ran out over a flank the face does not go.
            const double from = std::max(way.from, found_.from());
            const double to = std::min(way.to, found_.to());
            if (from > to || closed_.covers(from, to, way.d)) continue;
            if (met_.add(way.triangle)) visit(way.triangle);
        }
        return found_.nearest();
    }

private:
    /// Over a side of a triangle into the next.
    struct Way {
        double d = 0;  ///< the nearest of the side
        double from = 0;
        double to = 0;
        std::uint32_t triangle = 0;
    };
    struct Corner {
        std::uint32_t vertex = 0;
        Along at;
        double z = 0;
    };

    /// The places of a triangle that is visited soon are on their way while another one is worked on.
    void expect(std::uint32_t t) const {
        for (int i = 0; i < 3; ++i) __builtin_prefetch(tin_.vertices().data() + tin_.corner(t, i));
    }

    void visit(std::uint32_t t) {
        std::array<Corner, 3> corners;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t v = tin_.corner(t, i);
            const Vec3& p = tin_.vertex(v);
            corners[static_cast<std::size_t>(i)] = {v, facet_.own(p.plan()), p.z};
        }
        for (std::size_t k = 0; k < facet_.strips.size(); ++k) meet(corners, k);
        for (std::size_t i = 0; i < 3; ++i) {
            const std::uint32_t next = tin_.neighbour(t, static_cast<int>(i));
            if (next != terrain::Tin::none && met_.has(next)) continue;
            const Corner& a = corners[(i + 1) % 3];
            const Corner& b = corners[(i + 2) % 3];
            const auto part = wayOver(a, b);
            if (part.empty()) continue;
            const Along p = between(a.at, b.at, part.from);
            const Along q = between(a.at, b.at, part.to);
            if (next == terrain::Tin::none) {
                found_.add(a.at, b.at, EndsOn::Rim);
                continue;
            }
            // It is visited soon: its corners and neighbours are on their way meanwhile.
            __builtin_prefetch(tin_.corners().data() + 3 * std::size_t{next});
            __builtin_prefetch(tin_.links().data() + 3 * std::size_t{next});
            open_.push_back({std::min(p.d, q.d), std::min(p.s, q.s), std::max(p.s, q.s), next});
        }
    }

    /// Where the triangle's plane is that of a strip.
    void meet(const std::array<Corner, 3>& corners, std::size_t strip) {
        std::array<double, 3> gap{};
        for (std::size_t i = 0; i < 3; ++i)
            gap[i] = facet_.way * (corners[i].z - facet_.strips[strip].height(corners[i].at));
        std::array<Along, 2> on;
        std::size_t count = 0;
        for (std::size_t i = 0; i < 3 && count < 2; ++i) {
            std::size_t a = i;
            std::size_t b = (i + 1) % 3;
            if ((gap[a] > 0) == (gap[b] > 0)) continue;
            // The same figure from both sides of the triangle's side.
            if (corners[a].vertex > corners[b].vertex) std::swap(a, b);
            const double f = gap[a] / (gap[a] - gap[b]);
            on[count++] = {corners[a].at.s + (corners[b].at.s - corners[a].at.s) * f,
                           corners[a].at.d + (corners[b].at.d - corners[a].at.d) * f};
        }
        if (count != 2) return;
        if (facet_.strips.size() == 1)
            closed_.add(std::min(on[0].s, on[1].s), std::max(on[0].s, on[1].s), std::max(on[0].d, on[1].d));
        found_.add(on[0], on[1], EndsOn::Target,
                   facet_.strips.size() > 1 ? std::optional(strip) : std::nullopt);
    }

    /// Over which part of a triangle's side a face goes on that has not met the ground yet.
    [[nodiscard]] Part wayOver(const Corner& a, const Corner& b) const {
        const Part none{0, 0};
        const double outmost = std::max(a.at.d, b.at.d);
        if (outmost < -tiny) return none;
        Part part;
        part.keep(a.at.d + tiny, b.at.d + tiny);
        const double low = std::min(0.0, found_.firstAt(outmost)) - tiny;
        const double high = std::max(facet_.length, found_.lastAt(outmost)) + tiny;
        part.keep(a.at.s - low, b.at.s - low);
        if (part.empty()) return none;
        part.keep(high - a.at.s, high - b.at.s);
        if (part.empty()) return none;
        const auto gapAt = [&](double t) {
            return facet_.gap(between(a.at, b.at, t), a.z + (b.z - a.z) * t);
        };
        const double atFrom = gapAt(part.from);
        const double atTo = gapAt(part.to);
        if (facet_.strips.size() == 1) {
            Part over = part;
            // Linear along the side.
            if (atFrom <= 0 && atTo <= 0) return none;
            const double zero = part.from + (part.to - part.from) * atFrom / (atFrom - atTo);
            if (atFrom <= 0) over.from = zero;
            if (atTo <= 0) over.to = zero;
            return over;
        }
        if (atFrom > 0 || atTo > 0) return part;
        // A step may look out between both ends.
        for (double t = 0.125; t < 1; t += 0.125)
            if (gapAt(part.from + (part.to - part.from) * t) > 0) return part;
        return none;
    }

    const Facet& facet_;
    const terrain::TinLocator& surface_;
    const terrain::Tin& tin_;
    Gathering found_;
    Met met_;
    Closed closed_;
    std::vector<Way> open_;
};

/// The target's height over the side, in the face's coordinates: at the origin, and along s.
struct Level {
    double atOrigin = 0;
    double alongS = 0;
};

Envelope reachOfLevel(const Facet& facet, const Level& level) {
    Gathering found(facet);
    for (std::size_t k = 0; k < facet.strips.size(); ++k) {
        const Strip& strip = facet.strips[k];
        if (strip.alongD == 0) continue;
        const auto at = [&](double s) {
            return Along{s, (level.atOrigin + level.alongS * s - strip.height({s, 0})) / strip.alongD};
        };
        found.add(at(-farAway), at(farAway), EndsOn::Target, k);
    }
    return found.nearest();
}

}  // namespace

Envelope reachOf(const Facet& facet, const BatterTarget& target, const terrain::TinLocator* surface) {
    if (const auto* height = std::get_if<ToHeight>(&target)) return reachOfLevel(facet, {height->height, 0});
    if (const auto* rise = std::get_if<ToRise>(&target)) {
        const Strip& plane = facet.strips.front();
        return reachOfLevel(facet, {plane.atOrigin + rise->rise, plane.alongS});
    }
    if (const auto* away = std::get_if<ToDistance>(&target)) {
        Gathering found(facet);
        const double d = away->distance * facet.scale;
        found.add({-farAway, d}, {farAway, d}, EndsOn::Target);
        return found.nearest();
    }
    return surface == nullptr ? Envelope{} : Flood(facet, *surface).run();
}

std::optional<double> reachAtStart(const Facet& facet, const BatterTarget& target,
                                   const terrain::TinLocator* surface) {
    if (!std::holds_alternative<ToSurface>(target)) {
        Facet bare = facet;
        bare.first = bare.last = Flank{{{-1, 0}}, {0, 1}, false};
        bare.last.knots = {{1, 0}};
        const auto all = reachOf(bare, target, nullptr);
        for (const Piece& p : all)
            if (p.s0 <= 0 && p.s1 >= 0) return p.at(0);
        return std::nullopt;
    }
    if (surface == nullptr) return std::nullopt;
    const geometry::Box box = surface->tin().bounds();
    const double most = std::hypot(box.width(), box.height());
    double from = 0;
    for (double to = std::min(16.0, most); from < most; from = to, to = std::min(2 * to, most)) {
        double before = 0;
        for (const auto& p : terrain::trace(*surface, facet.place({0, from}), facet.place({0, to}))) {
            const double d = from + p.fraction * (to - from);
            if (!p.height) return std::nullopt;
            if (d > tiny && facet.gap({0, d}, *p.height) <= 0) return std::max(before, d);
            before = d;
        }
    }
    return std::nullopt;
}

}  // namespace erdwerk::earthwork
