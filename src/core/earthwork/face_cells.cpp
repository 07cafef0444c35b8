#include "core/earthwork/face_cells.h"

#include <cmath>
#include <limits>
#include <unordered_map>

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = tinyLength;
/// Slabs narrower than this are none.
constexpr double narrow = 1e-10;

bool isBound(const FaceLine& l) {
    return l.kind == LineKind::Edge || l.kind == LineKind::First || l.kind == LineKind::Last;
}

/// Does a face lie above it, seen from the edge?
bool isInner(const Facet& facet, const FaceLine& l) {
    if (l.kind == LineKind::Edge) return true;
    // Flanks that lean outwards, away from the side.
    return l.kind == LineKind::First ? l.s1 <= tiny : l.s0 >= facet.length - tiny;
}

/// Goes along s from slab to slab.
class Division {
public:
    Division(const Facet& facet, FaceCells& out, const IsBefore& isBefore)
        : facet_(facet), out_(out), lines_(out.lines), isBefore_(isBefore) {}

    void run() {
        const std::vector<double> cuts = cutsOf();
        std::vector<std::uint32_t> order(lines_.size());
        for (std::uint32_t i = 0; i < order.size(); ++i) order[i] = i;
        std::sort(order.begin(), order.end(),
                  [&](std::uint32_t a, std::uint32_t b) { return lines_[a].s0 < lines_[b].s0; });
        std::vector<std::uint32_t> active;
        std::size_t next = 0;
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            const double middle = (cuts[i] + cuts[i + 1]) / 2;
            while (next < order.size() && lines_[order[next]].s0 < middle) active.push_back(order[next++]);
            std::erase_if(active, [&](std::uint32_t l) { return lines_[l].s1 < middle; });
            if (cuts[i + 1] - cuts[i] > narrow) slab(cuts[i], cuts[i + 1], active);
            ++slab_;
        }
    }

private:
    /// Where lines end, and where they cross.
    [[nodiscard]] std::vector<double> cutsOf() const {
        std::vector<double> cuts;
        std::vector<std::uint32_t> crossing;  // those that may cross others
        for (std::uint32_t i = 0; i < lines_.size(); ++i) {
            cuts.push_back(lines_[i].s0);
            cuts.push_back(lines_[i].s1);
            if (lines_[i].kind != LineKind::Target && lines_[i].kind != LineKind::Rim) crossing.push_back(i);
        }
        for (const std::uint32_t i : crossing)
            for (std::uint32_t k = 0; k < lines_.size(); ++k) {
                const FaceLine& a = lines_[i];
                const FaceLine& b = lines_[k];
                const double u = std::max(a.s0, b.s0);
                const double v = std::min(a.s1, b.s1);
                if (k == i || !(v > u)) continue;
                const double atU = a.at(u) - b.at(u);
                const double atV = a.at(v) - b.at(v);
                if ((atU < -tiny && atV > tiny) || (atU > tiny && atV < -tiny))
                    cuts.push_back(u + (v - u) * atU / (atU - atV));
            }
        std::sort(cuts.begin(), cuts.end());
        cuts.erase(
            std::unique(cuts.begin(), cuts.end(), [](double a, double b) { return b - a < narrow / 10; }),
            cuts.end());
        return cuts;
    }

    void slab(double from, double to, const std::vector<std::uint32_t>& active) {
        const double middle = (from + to) / 2;
        constexpr double none = std::numeric_limits<double>::infinity();
        double low = -none;
        double high = none;
        over_.clear();
        std::uint32_t first = 0;
        std::uint32_t last = 0;
        for (const std::uint32_t l : active) {
            const double d = lines_[l].at(middle);
            if (!isBound(lines_[l])) {
                over_.push_back({d, l});
            } else if (isInner(facet_, lines_[l])) {
                if (d > low) {
                    low = d;
                    first = l;
                }
            } else if (d < high) {
                high = d;
                last = l;
            }
        }
        if (low == -none || !(high - low > narrow)) return;
        std::erase_if(over_, [&](const Over& o) { return o.d <= low || o.d >= high; });
        std::sort(over_.begin(), over_.end(), [](const Over& a, const Over& b) { return a.d < b.d; });
        over_.insert(over_.begin(), {low, first});
        if (high < none) over_.push_back({high, last});
        runs(from, to, high < none);
    }

    /// Stretches of d between lines that say where the face lies.
    void runs(double from, double to, bool isBounded) {
        const auto says = [&](std::size_t i) {
            const FaceLine& l = lines_[over_[i].line];
            return l.inner != Beside::Unknown || l.outer != Beside::Unknown;
        };
        for (std::size_t i = 0; i + 1 < over_.size();) {
            std::size_t k = i + 1;
            const auto ends = [&](std::size_t at) {
                const LineKind kind = lines_[over_[at].line].kind;
                return kind == LineKind::Wall || kind == LineKind::Cap;
            };
            while (k + 1 < over_.size() && !says(k) && !ends(k)) ++k;
            // Nothing is known of what no line bounds outwards.
            const bool known = says(k) || ends(k) || isBounded;
            if (known && isFace(i, k, (from + to) / 2)) add(i, k, from, to);
            if (ends(k)) return;
            i = k;
        }
    }

    [[nodiscard]] bool isFace(std::size_t i, std::size_t k, double s) const {
        const Beside below = lines_[over_[i].line].outer;
        const Beside above = lines_[over_[k].line].inner;
        const auto has = [&](Beside b) { return below == b || above == b; };
        if (has(Beside::Nothing)) return false;
        if (has(Beside::Face) && !has(Beside::Beyond)) return true;
        if (has(Beside::Beyond) && !has(Beside::Face)) return false;
        // Where the widest part of it lies.
        std::size_t widest = i;
        for (std::size_t m = i; m < k; ++m)
            if (over_[m + 1].d - over_[m].d > over_[widest + 1].d - over_[widest].d) widest = m;
        return isBefore_({s, (over_[widest].d + over_[widest + 1].d) / 2});
    }

    void add(std::size_t i, std::size_t k, double from, double to) {
        const double middle = (from + to) / 2;
        for (std::size_t m = i; m < k; ++m) {
            if (!(over_[m + 1].d - over_[m].d > narrow)) continue;
            const Along at{middle, (over_[m].d + over_[m + 1].d) / 2};
            out_.cells.push_back({from, to, over_[m].line, over_[m + 1].line, slab_, facet_.stripAt(at)});
        }
    }

    struct Over {
        double d = 0;
        std::uint32_t line = 0;
    };
    const Facet& facet_;
    FaceCells& out_;
    const std::vector<FaceLine>& lines_;
    const IsBefore& isBefore_;
    std::vector<Over> over_;
    std::uint32_t slab_ = 0;
};

/// The lines on which a face begins and by which it is bounded: edge and flanks, as far as `reach` outwards.
std::vector<FaceLine> boundsOf(const Facet& facet, double reach) {
    std::vector<FaceLine> out;
    const auto flank = [&](const Flank& along, LineKind kind) {
        for (std::size_t k = 0; k < along.knots.size(); ++k) {
            const Along a = along.knots[k];
            Along b{};
            if (k + 1 < along.knots.size()) {
                b = along.knots[k + 1];
            } else {
                // Far enough outwards, and not so far that figures are lost.
                const double t = along.onwards.d > 0 ? std::max(reach - a.d, 1.0) / along.onwards.d : 1;
                b = {a.s + along.onwards.s * t, a.d + along.onwards.d * t};
            }
            if (std::abs(b.s - a.s) < 1e-12) continue;
            FaceLine l{a.s, a.d, b.s, b.d, kind, Beside::Unknown, Beside::Unknown};
            if (l.s1 < l.s0) {
                std::swap(l.s0, l.s1);
                std::swap(l.d0, l.d1);
            }
            out.push_back(l);
        }
    };
    flank(facet.first, LineKind::First);
    flank(facet.last, LineKind::Last);
    if (facet.length > 0)
        out.push_back({0, 0, facet.length, 0, LineKind::Edge, Beside::Unknown, Beside::Unknown});
    return out;
}

}  // namespace

std::vector<CellSide> sidesOf(std::span<const FaceCell> cells) {
    std::vector<CellSide> out;
    std::unordered_map<std::uint32_t, std::size_t> last;  // of each line and hand
    for (const FaceCell& c : cells)
        for (const bool isOuter : {false, true}) {
            const std::uint32_t line = isOuter ? c.high : c.low;
            const auto [it, isNew] = last.try_emplace(2 * line + (isOuter ? 1 : 0), out.size());
            if (!isNew && out[it->second].to == c.from) {
                out[it->second].to = c.to;
                continue;
            }
            it->second = out.size();
            out.push_back({line, isOuter, c.from, c.to});
        }
    return out;
}

FaceCells::FaceCells(const Facet& facet, std::vector<FaceLine> all, const IsBefore& isBefore)
    : lines(std::move(all)) {
    if (lines.empty() && !leansTo(facet.first, 1) && !leansTo(facet.last, -1)) return;
    double reach = 0;
    double from = 0;
    double to = facet.length;
    for (const FaceLine& l : lines) {
        reach = std::max({reach, l.d0, l.d1});
        from = std::min(from, l.s0);
        to = std::max(to, l.s1);
    }
    // Flanks that lean inwards bound a face without any line as well: as far as they cross.
    if (leansTo(facet.first, 1) || leansTo(facet.last, -1)) reach = std::max(reach, 4 * facet.length + 1);
    for (FaceLine& l : boundsOf(facet, reach + 1)) lines.push_back(l);
    for (std::size_t k = 1; k < facet.strips.size(); ++k) {
        const Strip& s = facet.strips[k];
        lines.push_back(
            {from, s.start(from), to, s.start(to), LineKind::Divide, Beside::Unknown, Beside::Unknown});
    }
    Division(facet, *this, isBefore).run();
}

std::size_t FaceCells::firstAfter(double s) const {
    return static_cast<std::size_t>(
        std::partition_point(cells.begin(), cells.end(), [&](const FaceCell& c) { return c.to <= s; }) -
        cells.begin());
}

std::optional<std::uint32_t> FaceCells::at(Along place) const {
    for (std::size_t i = firstAfter(place.s); i < cells.size() && cells[i].from <= place.s; ++i)
        if (low(cells[i], place.s) <= place.d && place.d <= high(cells[i], place.s))
            return static_cast<std::uint32_t>(i);
    return std::nullopt;
}

std::vector<FaceCells::Part> FaceCells::partsUnder(Along a, Along b) const {
    std::vector<Part> out;
    const auto [least, most] = std::minmax(a.s, b.s);
    for (std::size_t i = firstAfter(least); i < cells.size() && cells[i].from <= most; ++i) {
        const FaceCell& c = cells[i];
        Share share;
        share.keep(a.s - c.from, b.s - c.from);
        if (!share.empty()) share.keep(c.to - a.s, c.to - b.s);
        if (share.empty()) continue;
        // Lines go on straight beyond their ends.
        const auto lineAt = [](const FaceLine& l, double s) {
            return l.d0 + (l.d1 - l.d0) * (s - l.s0) / (l.s1 - l.s0);
        };
        const FaceLine& under = lines[c.low];
        const FaceLine& over = lines[c.high];
        share.keep(a.d - lineAt(under, a.s), b.d - lineAt(under, b.s));
        if (!share.empty()) share.keep(lineAt(over, a.s) - a.d, lineAt(over, b.s) - b.d);
        if (!share.empty()) out.push_back({share.from, share.to, static_cast<std::uint32_t>(i)});
    }
    std::sort(out.begin(), out.end(), [](const Part& p, const Part& q) { return p.from < q.from; });
    return out;
}

void FaceCells::eachPair(const std::function<void(std::uint32_t, std::uint32_t)>& found) const {
    constexpr double point = 1e-7;
    std::size_t before = 0;  // the first cell of the slab before
    std::size_t here = 0;
    while (here < cells.size()) {
        std::size_t end = here;
        while (end < cells.size() && cells[end].slab == cells[here].slab) ++end;
        for (std::size_t i = here; i + 1 < end; ++i)
            if (cells[i].high == cells[i + 1].low && lines[cells[i].high].kind == LineKind::Divide)
                found(static_cast<std::uint32_t>(i), static_cast<std::uint32_t>(i + 1));
        const double s = cells[here].from;
        for (std::size_t i = before; i < here && cells[i].to > s - tiny; ++i)
            for (std::size_t k = here; k < end; ++k)
                if (std::min(high(cells[i], s), high(cells[k], s)) -
                        std::max(low(cells[i], s), low(cells[k], s)) >
                    point)
                    found(static_cast<std::uint32_t>(i), static_cast<std::uint32_t>(k));
        before = here;
        here = end;
    }
}

void FaceCells::keep(const std::function<bool(std::uint32_t)>& stays) {
    std::size_t to = 0;
    for (std::size_t i = 0; i < cells.size(); ++i)
        if (stays(static_cast<std::uint32_t>(i))) cells[to++] = cells[i];
    cells.resize(to);
}

}  // namespace erdwerk::earthwork
