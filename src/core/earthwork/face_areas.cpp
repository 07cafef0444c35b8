#include "core/earthwork/face_areas.h"

#include <tbb/parallel_for.h>

#include <cmath>
#include <numeric>

#include "core/earthwork/face_overlaps.h"
#include "core/earthwork/reach.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = tinyLength;
/// Faces that touch along less touch at a point.
constexpr double point = 1e-7;

/// Sets of cells that hang together.
class Sets {
public:
    explicit Sets(std::size_t count) : up_(count) { std::iota(up_.begin(), up_.end(), 0U); }
    std::uint32_t of(std::uint32_t i) {
        while (up_[i] != i) i = up_[i] = up_[up_[i]];
        return i;
    }
    void join(std::uint32_t a, std::uint32_t b) { up_[of(a)] = of(b); }

private:
    std::vector<std::uint32_t> up_;
};

/// Where a cell touches a flank.
struct Touch {
    Vec2 a;
    Vec2 b;
    std::uint32_t cell = 0;
};

std::vector<Touch> touchesOf(const Facet& f, const FaceCells& cells, LineKind flank) {
    const Flank& along = flank == LineKind::First ? f.first : f.last;
    std::vector<Touch> out;
    for (std::uint32_t i = 0; i < cells.cells.size(); ++i) {
        const FaceCell& c = cells.cells[i];
        for (const std::uint32_t l : {c.low, c.high})
            if (cells.lines[l].kind == flank)
                out.push_back({f.place({c.from, cells.lines[l].at(c.from)}),
                               f.place({c.to, cells.lines[l].at(c.to)}), i});
        // Where the flank stands straight it is a side of the cell.
        const double s = flank == LineKind::First ? c.from : c.to;
        const double low = cells.low(c, s);
        const double high = cells.high(c, s);
        if (high - low > point && std::abs(along.at((low + high) / 2) - s) < tiny)
            out.push_back({f.place({s, low}), f.place({s, high}), i});
    }
    return out;
}

class Areas {
public:
    Areas(const EdgeFacets& made, const BatterTarget& target, const terrain::TinLocator* surface,
          const Context& context)
        : made_(made), facets_(made.facets), target_(target), surface_(surface), context_(context) {}

    FaceAreas run() {
        lines_ = linesOf(made_, target_, surface_, context_);
        if (context_.isCancelled()) return {};
        addWalls();
        cells_.resize(facets_.size());
        tbb::parallel_for(std::size_t{0}, facets_.size(),
                          [&](std::size_t i) { cells_[i] = divided(i, lines_[i]); });
        places_.emplace(facets_, cells_);
        keepConnected();
        places_.emplace(facets_, cells_);
        const FaceOverlaps overlaps(made_, lines_, cells_, *places_,
                                    [&](std::size_t i, auto lines) { return divided(i, std::move(lines)); });
        std::vector<FaceCells> out(facets_.size());
        tbb::parallel_for(std::size_t{0}, facets_.size(), [&](std::size_t i) {
            if (!context_.isCancelled()) out[i] = overlaps.of(i);
        });
        return {std::move(cells_), std::move(out)};
    }

private:
    FaceCells divided(std::size_t i, std::vector<FaceLine> lines) const {
        return {facets_[i], std::move(lines), [&](Along at) {
                    const auto gap = gapAt(facets_[i], at, target_, surface_);
                    return gap && *gap > 0;
                }};
    }

    /// Sides of the edge that lie in a face's way.
    void addWalls() {
        std::vector<geometry::Box> sides(made_.sides.size());
        for (std::size_t k = 0; k < sides.size(); ++k) {
            sides[k].add(made_.sides[k].first.plan());
            sides[k].add(made_.sides[k].second.plan());
        }
        const geometry::BoxIndex near(sides);
        tbb::parallel_for(std::size_t{0}, facets_.size(), [&](std::size_t i) {
            const Facet& f = facets_[i];
            geometry::Box box;
            for (const FaceLine& l : lines_[i]) {
                box.add(f.place({l.s0, l.d0}));
                box.add(f.place({l.s1, l.d1}));
            }
            if (box.empty()) return;
            box.add(f.origin);
            box.add(f.place({f.length, 0}));
            FaceLines walls(f);
            near.query(box, [&](std::uint32_t k) {
                const Along a = f.own(made_.sides[k].first.plan());
                const Along b = f.own(made_.sides[k].second.plan());
                if (k != f.side && std::max(a.d, b.d) > 1e-6)
                    walls.add(a, b, LineKind::Wall, Beside::Unknown, Beside::Unknown);
                return true;
            });
            for (const FaceLine& l : walls.all())
                if (std::max(l.d0, l.d1) > 1e-6) lines_[i].push_back(l);
        });
    }

    void keepConnected() {
        start_.assign(facets_.size() + 1, 0);
        for (std::size_t i = 0; i < facets_.size(); ++i)
            start_[i + 1] = start_[i] + static_cast<std::uint32_t>(cells_[i].cells.size());
        Sets sets(start_.back() + 1);
        const std::uint32_t edge = start_.back();
        for (std::size_t i = 0; i < facets_.size(); ++i) joinOwn(i, sets, edge);
        joinLoose(sets, edge);
        const std::uint32_t whole = sets.of(edge);
        for (std::size_t i = 0; i < facets_.size(); ++i)
            cells_[i].keep([&](std::uint32_t c) { return sets.of(start_[i] + c) == whole; });
    }

    /// Cells that do not hang together with the edge by their own face may do so over others: over the flank
    /// that two share, or where two cover one place.
    void joinLoose(Sets& sets, std::uint32_t edge) const {
        std::vector<bool> loose(facets_.size(), false);
        const std::uint32_t whole = sets.of(edge);
        for (std::size_t i = 0; i < facets_.size(); ++i)
            for (std::uint32_t c = start_[i]; c < start_[i + 1]; ++c)
                if (sets.of(c) != whole) loose[i] = true;
        for (std::size_t i = 0; i < facets_.size(); ++i) {
            if (const auto next = made_.nextOf(i); next && (loose[i] || loose[*next]))
                joinNext(i, *next, sets);
            if (!loose[i]) continue;
            places_->eachBeside(i, [&](std::size_t k) {
                if (facets_[k].way == facets_[i].way && (k < i || !loose[k])) joinOver(i, k, sets);
            });
        }
    }

    /// Within a face, and with the edge where it begins.
    void joinOwn(std::size_t i, Sets& sets, std::uint32_t edge) const {
        const FaceCells& all = cells_[i];
        all.eachPair([&](std::uint32_t a, std::uint32_t b) { sets.join(start_[i] + a, start_[i] + b); });
        for (std::uint32_t c = 0; c < all.cells.size(); ++c) {
            const FaceCell& cell = all.cells[c];
            if (all.lines[cell.low].kind != LineKind::Edge) continue;
            for (const auto& [from, to] : facets_[i].starts)
                if (std::min(to, cell.to) - std::max(from, cell.from) > point) sets.join(start_[i] + c, edge);
        }
    }

    /// Over the flank that it shares with the next one.
    void joinNext(std::size_t i, std::size_t k, Sets& sets) const {
        if (!sharesFlank(facets_[i], facets_[k])) return;
        const auto here = touchesOf(facets_[i], cells_[i], LineKind::Last);
        const auto there = touchesOf(facets_[k], cells_[k], LineKind::First);
        const Vec2 corner = facets_[i].place(facets_[i].last.knots.front());
        const Vec2 out = facets_[i].out + facets_[k].out;
        const double size = geometry::length(out);
        const Vec2 way = size > 1e-6 ? out * (1 / size) : facets_[i].out;
        const auto ranges = [&](const std::vector<Touch>& touches) {
            std::vector<FaceCells::Part> parts;
            for (const Touch& t : touches) {
                const auto [from, to] =
                    std::minmax({geometry::dot(t.a - corner, way), geometry::dot(t.b - corner, way)});
                parts.push_back({from, to, t.cell});
            }
            return parts;
        };
        joinParts(i, k, ranges(here), ranges(there), 1, sets);
    }

    /// Cells of both that lie on one stretch of a straight, `length` long from 0 to 1.
    void joinParts(std::size_t i, std::size_t k, const std::vector<FaceCells::Part>& mine,
                   const std::vector<FaceCells::Part>& its, double length, Sets& sets) const {
        for (const auto& p : mine)
            for (const auto& q : its)
                if ((std::min(p.to, q.to) - std::max(p.from, q.from)) * length > point)
                    sets.join(start_[i] + p.cell, start_[k] + q.cell);
    }

    /// Where both are, they hang together: along the lines on which they have one height, and along flanks.
    void joinOver(std::size_t i, std::size_t k, Sets& sets) const {
        const geometry::Box room = common(places_->boxOf(i), places_->boxOf(k));
        std::vector<Segment> ways;
        for (std::size_t m = 0; m < facets_[i].strips.size(); ++m)
            for (std::size_t n = 0; n < facets_[k].strips.size(); ++n)
                if (const auto line = meetingOf(facets_[i], m, facets_[k], n, room)) ways.push_back(*line);
        if (!areNeighbours(made_, i, k))
            for (const std::size_t f : {i, k})
                for (const Flank* flank : {&facets_[f].first, &facets_[f].last}) {
                    const Along from = flank->knots.back();
                    const Vec2 on = facets_[f].place(from);
                    const Vec2 way = facets_[f].along * flank->onwards.s + facets_[f].out * flank->onwards.d;
                    if (const auto line = inBox(on, way, room)) ways.push_back(*line);
                }
        for (const Segment& w : ways)
            joinParts(i, k, cells_[i].partsUnder(facets_[i].own(w.a), facets_[i].own(w.b)),
                      cells_[k].partsUnder(facets_[k].own(w.a), facets_[k].own(w.b)),
                      geometry::distance(w.a, w.b), sets);
    }

    const EdgeFacets& made_;
    const std::vector<Facet>& facets_;
    const BatterTarget& target_;
    const terrain::TinLocator* surface_;
    const Context& context_;
    std::vector<std::vector<FaceLine>> lines_;
    std::vector<FaceCells> cells_;
    std::optional<FacePlaces> places_;
    std::vector<std::uint32_t> start_;  ///< of each face's cells in one count of all
};

}  // namespace

FaceAreas areasOf(const EdgeFacets& made, const BatterTarget& target, const terrain::TinLocator* surface,
                  const Context& context) {
    return Areas(made, target, surface, context).run();
}

}  // namespace erdwerk::earthwork
