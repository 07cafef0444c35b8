#include "core/earthwork/gathering.h"

#include <cmath>

namespace erdwerk::earthwork {

namespace {
constexpr double tiny = tinyLength;
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
    if (!leansTo(facet.first, -1)) from_ = facet.first.knots.front().s;
    if (!leansTo(facet.last, 1)) to_ = facet.last.knots.front().s;
    if (!breaks_.empty() || first_.slope <= last_.slope) return;
    // Beyond where the flanks cross there is nothing.
    const double crossing = first_.at + first_.slope * (last_.at - first_.at) / (first_.slope - last_.slope);
    if (first_.slope < 0) from_ = std::max(from_, crossing);
    if (last_.slope > 0) to_ = std::min(to_, crossing);
}

std::optional<std::pair<Along, Along>> Gathering::add(Along a, Along b, EndsOn on,
                                                      std::optional<std::size_t> strip) {
    Share part;
    part.keep(a.d + tiny, b.d + tiny);
    if (strip && *strip > 0) {
        const Strip& own = facet_.strips[*strip];
        part.keep(a.d - own.start(a.s) + tiny, b.d - own.start(b.s) + tiny);
    }
    if (strip && *strip + 1 < facet_.strips.size()) {
        const Strip& next = facet_.strips[*strip + 1];
        part.keep(next.start(a.s) - a.d + tiny, next.start(b.s) - b.d + tiny);
    }
    if (part.empty()) return std::nullopt;
    const Along p = between(a, b, part.from);
    const Along q = between(a, b, part.to);
    addBetweenFlanks(p, q, on);
    return std::pair{p, q};
}

void Gathering::addBetweenFlanks(Along p, Along q, EndsOn on) {
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
    if (p.d > q.d && !breaks_.empty()) return addBetweenFlanks(q, p, on);
    cut(between(p, q, from), q, on);
}

void Gathering::cut(Along a, Along b, EndsOn on) {
    if (a.s > b.s) std::swap(a, b);
    // Each flank as a straight through this range of d.
    const Straight first = breaks_.empty() ? first_ : straightOf(facet_.first, (a.d + b.d) / 2);
    const Straight last = breaks_.empty() ? last_ : straightOf(facet_.last, (a.d + b.d) / 2);
    const auto offFirst = [&](Along p) { return p.s - (first.at + first.slope * p.d); };
    const auto offLast = [&](Along p) { return last.at + last.slope * p.d - p.s; };
    Share part;
    part.keep(offFirst(a), offFirst(b));
    if (part.empty()) return;
    Share other = part;
    other.keep(offLast(a), offLast(b));
    if (other.empty()) return;
    const Along p = between(a, b, other.from);
    const Along q = between(a, b, other.to);
    // Where it runs out over a flank that leans outwards the face ends; also when that is at its very
    // beginning, where the edge touches the ground.
    const bool isThrough = on != EndsOn::Face && std::max(q.s - p.s, std::abs(q.d - p.d)) > tiny;
    const double beyond = isThrough ? -tiny : tiny;
    for (const Along& end : {p, q}) {
        if (end.s < -beyond && std::abs(offFirst(end)) < tiny) from_ = std::max(from_, end.s);
        if (end.s > facet_.length + beyond && std::abs(offLast(end)) < tiny) to_ = std::min(to_, end.s);
    }
    if (q.s > p.s) pieces_.push_back({p.s, p.d, q.s, q.d, on});
}

Envelope Gathering::nearest() const {
    Envelope all = within(lowerOf(pieces_), from_, to_);
    std::erase_if(all, [](const Piece& p) { return p.on == EndsOn::Rim; });
    return all;
}

}  // namespace erdwerk::earthwork
