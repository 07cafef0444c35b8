#include "core/earthwork/batter.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "core/earthwork/blocking.h"
#include "core/earthwork/edge_facets.h"
#include "core/earthwork/face_mesh.h"
#include "core/earthwork/reach.h"

namespace erdwerk::earthwork {

namespace {

bool isSlope(double slope) {
    return std::isfinite(slope) && slope > 1e-6 && slope < 1e6;
}

/// Stretches of a side without faces.
void addOpen(const Facet& f, const Envelope& end, std::vector<EdgeStretch>& out) {
    constexpr double least = 1e-6;
    double at = 0;
    const auto open = [&](double to) {
        if (to - at < least) return;
        const auto place = [&](double s) {
            const Vec2 p = f.place({s, 0});
            return Vec3{p.x, p.y, f.strips.front().height({s, 0})};
        };
        EdgeStretch stretch{f.distance + at, f.distance + to, place(at), place(to)};
        if (!out.empty() && std::abs(out.back().to - stretch.from) < least) {
            out.back().to = stretch.to;
            out.back().end = stretch.end;
        } else {
            out.push_back(stretch);
        }
    };
    for (const Piece& p : end) {
        open(std::min(p.s0, f.length));
        at = std::max(at, p.s1);
        if (at >= f.length) return;
    }
    open(f.length);
}

/// Sides of daylight, chained one to the next.
class Chains {
public:
    void add(std::uint32_t a, std::uint32_t b) {
        if (a == b) return;
        if (chains_.empty() || chains_.back().back() != a) chains_.push_back({a});
        chains_.back().push_back(b);
    }
    std::vector<std::vector<std::uint32_t>> take() {
        if (chains_.size() > 1 && chains_.back().back() == chains_.front().front()) {
            auto& last = chains_.back();
            last.insert(last.end(), chains_.front().begin() + 1, chains_.front().end());
            chains_.front() = std::move(last);
            chains_.pop_back();
        }
        return std::move(chains_);
    }

private:
    std::vector<std::vector<std::uint32_t>> chains_;
};

/// A face that has found its end.
struct Face {
    struct Side {
        double s;
        Vec3 a;
        Vec3 b;
    };
    std::vector<FaceRegion> regions;
    std::vector<Side> daylight;  ///< by s

    Face(const Facet& f, const Envelope& end) : regions(regionsOf(f, end)) {
        for (const FaceRegion& region : regions) {
            const auto at = [&](Along p) {
                const Vec2 place = f.place(p);
                return Vec3{place.x, place.y, f.strips[region.strip].height(p)};
            };
            for (std::size_t k = 0; k + 1 < region.outer.size() && k < region.meets.size(); ++k)
                if (region.meets[k])
                    daylight.push_back({region.outer[k].s, at(region.outer[k]), at(region.outer[k + 1])});
        }
        std::stable_sort(daylight.begin(), daylight.end(),
                         [](const Side& a, const Side& b) { return a.s < b.s; });
    }
};

Batter assembled(const EdgeFacets& made, const std::vector<Envelope>& ends) {
    Batter out;
    out.edge = made.edge;
    out.closed = made.closed;
    out.open = made.none;
    std::vector<std::optional<Face>> faces(made.facets.size());
    tbb::parallel_for(std::size_t{0}, faces.size(),
                      [&](std::size_t i) { faces[i].emplace(made.facets[i], ends[i]); });
    MeshPool pool;
    std::size_t corners = 0;
    for (const auto& face : faces)
        for (const FaceRegion& region : face->regions) corners += region.inner.size() + region.outer.size();
    pool.reserve(corners);
    Chains chains;
    for (std::size_t i = 0; i < made.facets.size(); ++i) {
        const Facet& f = made.facets[i];
        if (!f.ofCone && f.length > 0) addOpen(f, ends[i], out.open);
        for (const FaceRegion& region : faces[i]->regions) addRegion(pool, f, region);
        for (const Face::Side& side : faces[i]->daylight)
            chains.add(pool.vertex(side.a), pool.vertex(side.b));
    }
    for (const auto& chain : chains.take()) {
        std::vector<Vec3> places;
        places.reserve(chain.size());
        for (const std::uint32_t v : chain) places.push_back(pool.at(v));
        for (std::size_t k = 0; k + 1 < places.size(); ++k)
            out.daylightLength += geometry::distance(places[k].plan(), places[k + 1].plan());
        out.daylight.push_back(std::move(places));
    }
    out.faces = pool.take();
    for (std::uint32_t t = 0; t < out.faces.triangleCount(); ++t) {
        const auto [a, b, c] = out.faces.triangle(t);
        out.planArea += geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    }
    std::sort(out.open.begin(), out.open.end(),
              [](const EdgeStretch& a, const EdgeStretch& b) { return a.from < b.from; });
    return out;
}

}  // namespace

double Batter::openLength() const {
    double sum = 0;
    for (const EdgeStretch& s : open) sum += s.to - s.from;
    return sum;
}

std::optional<std::string> validate(const BatterShape& shape) {
    for (const auto& slope : {shape.cut, shape.fill})
        if (slope && !isSlope(*slope)) return "a slope must be above 0; write 2:1, 1 in 2 or 50%";
    if (const auto* away = std::get_if<ToDistance>(&shape.target)) {
        if (!(away->distance > 0) || !std::isfinite(away->distance)) return "the distance must be above 0";
        if (shape.cut.has_value() == shape.fill.has_value())
            return "to a distance there is either a cut slope, which rises, or a fill slope, which falls";
    } else if (const auto* rise = std::get_if<ToRise>(&shape.target)) {
        if (rise->rise == 0 || !std::isfinite(rise->rise)) return "the rise must not be 0";
        if (!(rise->rise > 0 ? shape.cut : shape.fill))
            return rise->rise > 0 ? "a batter that rises needs a cut slope"
                                  : "a batter that falls needs a fill slope";
    } else if (!shape.cut || !shape.fill) {
        return "a batter needs a slope in cut and one in fill";
    }
    if (const auto* height = std::get_if<ToHeight>(&shape.target); height && !std::isfinite(height->height))
        return "the height is no figure";
    for (const Berm& b : shape.berms)
        if (!(b.width > 0) || !std::isfinite(b.width) || !std::isfinite(b.height))
            return "a berm has a height, and a width above 0";
    for (const SlopeChange& c : shape.changes)
        if (!isSlope(c.cut) || !isSlope(c.fill) || !(c.to >= c.from))
            return "slopes that change need a place, and slopes above 0";
    return std::nullopt;
}

Result<Batter> batter(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface,
                      const Context& context) {
    if (auto problem = validate(shape)) return badInput(std::move(*problem));
    auto made = facetsOf(edge, shape, surface);
    if (!made) return tl::unexpected(made.error());
    auto& facets = made->facets;
    tbb::parallel_for(std::size_t{0}, facets.size(), [&](std::size_t i) {
        if (!context.isCancelled()) facets[i].end = reachOf(facets[i], shape.target, surface);
    });
    const auto ends = cutByEachOther(facets, made->closed, context);
    if (context.isCancelled()) return cancelled();
    return assembled(*made, ends);
}

}  // namespace erdwerk::earthwork
