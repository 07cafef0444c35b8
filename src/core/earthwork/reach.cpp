#include "core/earthwork/reach.h"

#include <tsl/robin_set.h>

#include <array>
#include <cmath>

#include "core/terrain/trace.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = tinyLength;

/// Scatters numbers that follow each other over the lowest bits, which a table takes.
struct Scattered {
    std::size_t operator()(std::uint32_t n) const {
        const std::uint64_t bits = n * 0x9e3779b97f4a7c15ULL;
        return bits ^ bits >> 32U;
    }
};
using Numbers = tsl::robin_set<std::uint32_t, Scattered>;

/// Cells that were opened. Most faces are narrow: columns near the first are bits of their row's word.
class Opened {
public:
    using Cell = terrain::TinLocator::Cell;
    explicit Opened(Cell first) : first_(first) { rows_.reserve(64); }
    /// False when it was there.
    bool add(Cell c, std::size_t number) {
        const int column = c.column - first_.column + 32;
        if (column < 0 || column >= 64) return far_.insert(static_cast<std::uint32_t>(number)).second;
        // Rows on both sides of the first in turn.
        const int rise = c.row - first_.row;
        const auto row = static_cast<std::size_t>(rise < 0 ? -2 * rise - 1 : 2 * rise);
        if (row >= rows_.size()) rows_.resize(row + 1, 0);
        const std::uint64_t bit = std::uint64_t{1} << static_cast<unsigned>(column);
        if ((rows_[row] & bit) != 0) return false;
        rows_[row] |= bit;
        return true;
    }

private:
    Cell first_;
    std::vector<std::uint64_t> rows_;
    Numbers far_;
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

/// The ground under a face, cell by cell of its grid from the edge outwards, about the nearest first.
class Flood {
public:
    Flood(const Facet& facet, const terrain::TinLocator& surface)
        : facet_(facet),
          surface_(surface),
          tin_(surface.tin()),
          found_(facet),
          opened_(surface.cellAt(facet.origin)) {
        half_ = surface.cellSize() / 2 * (1 + 1e-5);
        halfS_ = half_ * (std::abs(facet.along.x) + std::abs(facet.along.y));
        halfD_ = half_ * (std::abs(facet.out.x) + std::abs(facet.out.y));
        planes_.reserve(facet.strips.size());
        for (const Strip& s : facet.strips)
            planes_.push_back({s.atOrigin, facet.along * s.alongS + facet.out * s.alongD});
    }

    Envelope run() {
        open_.reserve(64);
        open(surface_.cellAt(facet_.origin));
        for (std::size_t next = 0; next < open_.size(); ++next) {
            const Cell cell = open_[next];
            if (!isUnder(cell)) continue;
            if (mayMeet(cell))
                for (const std::uint32_t t : surface_.trianglesIn(cell)) visit(t);
            open({cell.row, cell.column - 1});
            open({cell.row, cell.column + 1});
            open({cell.row - 1, cell.column});
            open({cell.row + 1, cell.column});
        }
        return found_.nearest();
    }

private:
    using Cell = terrain::TinLocator::Cell;
    /// Height over plan coordinates from the face's origin.
    struct Plane {
        double atOrigin = 0;
        Vec2 grows;
    };
    struct Corner {
        std::uint32_t vertex = 0;
        Along at;
        double z = 0;
    };

    void open(Cell cell) {
        if (surface_.has(cell) && opened_.add(cell, surface_.numberOf(cell))) open_.push_back(cell);
    }

    /// Does the face go over it, for all that has been found?
    [[nodiscard]] bool isUnder(Cell cell) const {
        const Along middle = facet_.own(surface_.centreOf(cell));
        const double inmost = std::max(middle.d - halfD_, 0.0);
        const double outmost = middle.d + halfD_;
        if (outmost < 0) return false;
        // Beyond where it ran out over a flank the face does not go.
        const double from = std::max({middle.s - halfS_, found_.firstFrom(inmost, outmost), found_.from()});
        const double to = std::min({middle.s + halfS_, found_.lastTo(inmost, outmost), found_.to()});
        return from <= to && !closed_.covers(from, to, inmost);
    }

    /// False where all of its triangles are beyond the face, by their heights.
    [[nodiscard]] bool mayMeet(Cell cell) const {
        const auto heights = surface_.heightsIn(cell);
        const Vec2 middle = surface_.centreOf(cell) - facet_.origin;
        return std::any_of(planes_.begin(), planes_.end(), [&](const Plane& plane) {
            const double at = plane.atOrigin + geometry::dot(plane.grows, middle);
            const double most = half_ * (std::abs(plane.grows.x) + std::abs(plane.grows.y)) + clear;
            return heights.least < at + most && heights.most > at - most;
        });
    }

    void visit(std::uint32_t t) {
        std::array<Vec3, 3> at;
        for (std::size_t i = 0; i < 3; ++i) {
            const Vec3& p = tin_.vertex(tin_.corner(t, static_cast<int>(i)));
            at[i] = {p.x - facet_.origin.x, p.y - facet_.origin.y, p.z};
        }
        bool isMet = false;
        bool isBefore = false;
        for (const Plane& plane : planes_) {
            double least = std::numeric_limits<double>::infinity();
            double most = -least;
            for (const Vec3& p : at) {
                const double gap = facet_.way * (p.z - plane.atOrigin - geometry::dot(plane.grows, p.plan()));
                least = std::min(least, gap);
                most = std::max(most, gap);
            }
            isMet = isMet || (least < clear && most > -clear);
            isBefore = isBefore || most > 0;
        }
        const bool isRim = isBefore && isAtRim(t);
        if ((!isMet && !isRim) || !met_.insert(t).second) return;
        std::array<Corner, 3> corners;
        for (std::size_t i = 0; i < 3; ++i) {
            const std::uint32_t v = tin_.corner(t, static_cast<int>(i));
            corners[i] = {v, facet_.own(tin_.vertex(v).plan()), tin_.vertex(v).z};
        }
        if (isMet)
            for (std::size_t k = 0; k < facet_.strips.size(); ++k) meet(corners, k);
        if (isRim) runOut(t, corners);
    }

    [[nodiscard]] bool isAtRim(std::uint32_t t) const {
        for (int i = 0; i < 3; ++i)
            if (tin_.neighbour(t, i) == terrain::Tin::none) return true;
        return false;
    }

    /// Over sides without a neighbour.
    void runOut(std::uint32_t t, const std::array<Corner, 3>& corners) {
        for (std::size_t i = 0; i < 3; ++i) {
            if (tin_.neighbour(t, static_cast<int>(i)) != terrain::Tin::none) continue;
            const Corner& a = corners[(i + 1) % 3];
            const Corner& b = corners[(i + 2) % 3];
            const auto part = wayOver(a, b);
            if (part.empty()) continue;
            found_.add(a.at, b.at, EndsOn::Rim);
            close({between(a.at, b.at, part.from), between(a.at, b.at, part.to)});
        }
    }

    void close(const std::pair<Along, Along>& part) {
        const auto& [p, q] = part;
        closed_.add(std::min(p.s, q.s), std::max(p.s, q.s), std::max(p.d, q.d));
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
        if (const auto part = found_.add(on[0], on[1], EndsOn::Target,
                                         facet_.strips.size() > 1 ? std::optional(strip) : std::nullopt))
            close(*part);
    }

    /// Over which part of a triangle's side a face goes on that has not met the ground yet.
    [[nodiscard]] Share wayOver(const Corner& a, const Corner& b) const {
        const Share none{0, 0};
        const double outmost = std::max(a.at.d, b.at.d);
        if (outmost < -tiny) return none;
        Share part;
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
            Share over = part;
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

    /// Gaps smaller than this are looked at closely.
    static constexpr double clear = 1e-6;

    const Facet& facet_;
    const terrain::TinLocator& surface_;
    const terrain::Tin& tin_;
    Gathering found_;
    double half_ = 0;   ///< side of a cell
    double halfS_ = 0;  ///< of a cell, along the side
    double halfD_ = 0;
    std::vector<Plane> planes_;
    Opened opened_;
    Numbers met_;  ///< triangles
    Closed closed_;
    std::vector<Cell> open_;
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
