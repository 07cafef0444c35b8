#include "core/earthwork/envelope.h"

#include <algorithm>
#include <limits>
#include <span>

namespace erdwerk::earthwork {

namespace {

/// Shorter ones are nothing.
constexpr double tiny = 1e-12;

/// Adds the part of a piece from u to v, going on with the last one when it is a part of the same piece.
class Appender {
public:
    void add(const Piece& of, double u, double v) {
        if (of_ == &of && !out.empty() && out.back().s1 == u) {
            out.back().s1 = v;
            out.back().d1 = of.at(v);
            return;
        }
        of_ = &of;
        out.push_back({u, of.at(u), v, of.at(v)});
    }
    Envelope out;

private:
    const Piece* of_ = nullptr;
};

Envelope lowerOfSorted(std::span<const Piece> pieces) {
    if (pieces.empty()) return {};
    if (pieces.size() == 1) return {pieces.front()};
    const std::size_t half = pieces.size() / 2;
    const Envelope a = lowerOfSorted(pieces.first(half));
    const Envelope b = lowerOfSorted(pieces.subspan(half));
    if (a.back().s1 <= b.front().s0) {
        Envelope out = a;
        out.insert(out.end(), b.begin(), b.end());
        return out;
    }
    return lower(a, b);
}

}  // namespace

Envelope lower(const Envelope& a, const Envelope& b) {
    constexpr double far = std::numeric_limits<double>::infinity();
    Appender to;
    std::size_t i = 0;
    std::size_t k = 0;
    double from = -far;
    while (i < a.size() || k < b.size()) {
        const Piece* p = i < a.size() ? &a[i] : nullptr;
        const Piece* q = k < b.size() ? &b[k] : nullptr;
        const double startP = p != nullptr ? std::max(p->s0, from) : far;
        const double startQ = q != nullptr ? std::max(q->s0, from) : far;
        const double u = std::min(startP, startQ);
        double v = far;
        if (p != nullptr) v = std::min(v, startP > u ? startP : p->s1);
        if (q != nullptr) v = std::min(v, startQ > u ? startQ : q->s1);
        const bool onP = startP == u;
        const bool onQ = startQ == u;
        if (v - u > tiny) {
            if (onP && onQ) {
                const double atU = p->at(u) - q->at(u);
                const double atV = p->at(v) - q->at(v);
                if ((atU <= 0 && atV <= 0) || (atU >= 0 && atV >= 0)) {
                    to.add(atU + atV <= 0 ? *p : *q, u, v);
                } else {
                    const double middle = std::clamp(u + (v - u) * atU / (atU - atV), u, v);
                    if (middle > u) to.add(atU < 0 ? *p : *q, u, middle);
                    if (middle < v) to.add(atU < 0 ? *q : *p, middle, v);
                }
            } else {
                to.add(onP ? *p : *q, u, v);
            }
        }
        from = v;
        if (p != nullptr && p->s1 <= v) ++i;
        if (q != nullptr && q->s1 <= v) ++k;
    }
    return std::move(to.out);
}

Envelope lowerOf(std::vector<Piece> pieces) {
    std::erase_if(pieces, [](const Piece& p) { return !(p.s1 - p.s0 > tiny); });
    std::sort(pieces.begin(), pieces.end(), [](const Piece& a, const Piece& b) { return a.s0 < b.s0; });
    return lowerOfSorted(pieces);
}

}  // namespace erdwerk::earthwork
