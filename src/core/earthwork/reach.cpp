#include "core/earthwork/reach.h"

#include <tbb/parallel_for.h>

#include <cmath>

#include "core/earthwork/flood.h"
#include "core/terrain/trace.h"

namespace erdwerk::earthwork {

namespace {

/// The target's height over the side, in the face's coordinates: at the origin, and along s.
struct Level {
    double atOrigin = 0;
    double alongS = 0;
};

std::optional<Level> levelOf(const Facet& facet, const BatterTarget& target) {
    if (const auto* height = std::get_if<ToHeight>(&target)) return Level{height->height, 0};
    if (const auto* rise = std::get_if<ToRise>(&target)) {
        const Strip& plane = facet.strips.front();
        return Level{plane.atOrigin + rise->rise, plane.alongS};
    }
    return std::nullopt;
}

/// Of a target that is no surface.
std::vector<FaceLine> straightLines(const Facet& facet, const BatterTarget& target) {
    FaceLines found(facet);
    if (const auto* away = std::get_if<ToDistance>(&target)) {
        const double d = away->distance * facet.scale;
        found.add({-farAway, d}, {farAway, d}, LineKind::Target, Beside::Face, Beside::Beyond);
    }
    if (const auto level = levelOf(facet, target))
        for (std::size_t k = 0; k < facet.strips.size(); ++k) {
            const Strip& strip = facet.strips[k];
            if (strip.alongD == 0) continue;
            const auto at = [&](double s) {
                return Along{s, (level->atOrigin + level->alongS * s - strip.height({s, 0})) / strip.alongD};
            };
            found.add(at(-farAway), at(farAway), LineKind::Target, Beside::Face, Beside::Beyond, k);
        }
    return found.take();
}

/// All floods of the faces of an edge, which pass cells on to their neighbours.
class Floods {
public:
    Floods(const EdgeFacets& made, const terrain::TinLocator& surface) {
        floods_.reserve(made.facets.size());
        beside_.resize(made.facets.size());
        for (std::size_t i = 0; i < made.facets.size(); ++i)
            if (const auto next = made.nextOf(i)) {
                beside_[i].push_back(*next);
                beside_[*next].push_back(i);
            }
        for (const Facet& f : made.facets) {
            floods_.emplace_back(f, surface);
            seed(f, floods_.back(), surface);
        }
        pending_.assign(made.facets.size(), 1);
    }

    bool run(const Context& context) {
        while (std::find(pending_.begin(), pending_.end(), 1) != pending_.end()) {
            tbb::parallel_for(std::size_t{0}, floods_.size(), [&](std::size_t i) {
                if (pending_[i] != 0 && !context.isCancelled()) floods_[i].run();
            });
            if (context.isCancelled()) return false;
            const std::vector<char> ran = std::exchange(pending_, std::vector<char>(floods_.size(), 0));
            for (std::size_t i = 0; i < floods_.size(); ++i)
                if (ran[i] != 0) passOn(i);
        }
        return true;
    }
    std::vector<FaceLine> takeLines(std::size_t i) { return floods_[i].takeLines(); }

private:
    /// Along the edge where the face begins, and at both ends.
    static void seed(const Facet& f, Flood& flood, const terrain::TinLocator& surface) {
        flood.seed(surface.cellAt(f.origin));
        const double step = surface.cellSize() / 2;
        for (const auto& [from, to] : f.starts)
            for (double s = from; s < to + step; s += step)
                flood.seed(surface.cellAt(f.place({std::min(s, to), 0})));
    }

    void passOn(std::size_t i) {
        for (const std::size_t k : beside_[i])
            for (const Flood::Cell cell : floods_[i].wentOver())
                if (floods_[k].wants(cell)) {
                    floods_[k].seed(cell);
                    pending_[k] = 1;
                }
    }

    std::vector<Flood> floods_;
    std::vector<std::vector<std::size_t>> beside_;  ///< of each its neighbours
    std::vector<char> pending_;
};

}  // namespace

std::vector<std::vector<FaceLine>> linesOf(const EdgeFacets& made, const BatterTarget& target,
                                           const terrain::TinLocator* surface, const Context& context) {
    const auto& facets = made.facets;
    std::vector<std::vector<FaceLine>> out(facets.size());
    if (!std::holds_alternative<ToSurface>(target)) {
        for (std::size_t i = 0; i < facets.size(); ++i) out[i] = straightLines(facets[i], target);
    } else if (surface != nullptr && !facets.empty()) {
        Floods floods(made, *surface);
        if (!floods.run(context)) return out;
        for (std::size_t i = 0; i < facets.size(); ++i) out[i] = floods.takeLines(i);
    }
    return out;
}

std::optional<double> gapAt(const Facet& facet, Along place, const BatterTarget& target,
                            const terrain::TinLocator* surface) {
    if (const auto* away = std::get_if<ToDistance>(&target)) return away->distance * facet.scale - place.d;
    if (const auto level = levelOf(facet, target))
        return facet.gap(place, level->atOrigin + level->alongS * place.s);
    if (surface == nullptr) return std::nullopt;
    const auto height = surface->heightAt(facet.place(place));
    return height ? std::optional(facet.gap(place, *height)) : std::nullopt;
}

std::optional<double> reachAtStart(const Facet& facet, const BatterTarget& target,
                                   const terrain::TinLocator* surface) {
    if (!std::holds_alternative<ToSurface>(target)) {
        Facet bare = facet;
        bare.first = bare.last = Flank{{{-1, 0}}, {0, 1}, false};
        bare.last.knots = {{1, 0}};
        std::optional<double> least;
        for (const FaceLine& l : straightLines(bare, target))
            if (l.s0 <= 0 && l.s1 >= 0) least = std::min(least.value_or(l.at(0)), l.at(0));
        return least;
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
            if (d > tinyLength && facet.gap({0, d}, *p.height) <= 0) return std::max(before, d);
            before = d;
        }
    }
    return std::nullopt;
}

}  // namespace erdwerk::earthwork
