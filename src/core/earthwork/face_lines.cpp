#include "core/earthwork/face_lines.h"

#include <cmath>

namespace erdwerk::earthwork {

namespace {
constexpr double tiny = tinyLength;
}  // namespace

FaceLines::Straight FaceLines::straightOf(const Flank& flank, double about) {
    std::size_t k = flank.knots.size() - 1;
    while (k > 0 && about < flank.knots[k].d) --k;
    const Along from = flank.knots[k];
    const Along way = k + 1 < flank.knots.size()
                          ? Along{flank.knots[k + 1].s - from.s, flank.knots[k + 1].d - from.d}
                          : flank.onwards;
    const double slope = way.d > 0 ? way.s / way.d : 0;
    return {from.s - slope * from.d, slope};
}

FaceLines::FaceLines(const Facet& facet)
    : facet_(facet), first_(straightOf(facet.first, 0)), last_(straightOf(facet.last, 0)) {
    for (const Flank* flank : {&facet.first, &facet.last})
        for (std::size_t k = 1; k < flank->knots.size(); ++k) breaks_.push_back(flank->knots[k].d);
    std::sort(breaks_.begin(), breaks_.end());
}

void FaceLines::add(Along a, Along b, LineKind kind, Beside inner, Beside outer,
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
    if (part.empty()) return;
    FaceLine as;
    as.kind = kind;
    as.inner = inner;
    as.outer = outer;
    addBetweenFlanks(between(a, b, part.from), between(a, b, part.to), as);
}

void FaceLines::addBetweenFlanks(Along p, Along q, const FaceLine& as) {
    if (p.d > q.d) std::swap(p, q);
    // Between two knots the flanks are straight.
    double from = 0;
    for (const double d : breaks_) {
        if (!(p.d < d && q.d > d)) continue;
        const double t = (d - p.d) / (q.d - p.d);
        if (t <= from) continue;
        cut(between(p, q, from), between(p, q, t), as);
        from = t;
    }
    cut(between(p, q, from), q, as);
}

void FaceLines::cut(Along a, Along b, FaceLine as) {
    if (a.s > b.s) std::swap(a, b);
    // Each flank as a straight through this range of d.
    const Straight first = breaks_.empty() ? first_ : straightOf(facet_.first, (a.d + b.d) / 2);
    const Straight last = breaks_.empty() ? last_ : straightOf(facet_.last, (a.d + b.d) / 2);
    const auto offFirst = [&](Along p) { return p.s - (first.at + first.slope * p.d); };
    const auto offLast = [&](Along p) { return last.at + last.slope * p.d - p.s; };
    Share part;
    part.keep(offFirst(a), offFirst(b));
    if (part.empty()) return;
    part.keep(offLast(a), offLast(b));
    if (part.empty()) return;
    const Along p = between(a, b, part.from);
    const Along q = between(a, b, part.to);
    if (!(q.s > p.s)) return;
    as.s0 = p.s;
    as.d0 = p.d;
    as.s1 = q.s;
    as.d1 = q.d;
    lines_.push_back(as);
}

}  // namespace erdwerk::earthwork
