#include "core/earthwork/batter.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/earthwork/face_areas.h"
#include "core/earthwork/face_mesh.h"

namespace erdwerk::earthwork {

namespace {

bool isSlope(double slope) {
    return std::isfinite(slope) && slope > 1e-6 && slope < 1e6;
}

/// Stretches from which a face would start but has none, not even below others.
void addOpen(const Facet& f, const FaceCells& cells, std::vector<EdgeStretch>& out) {
    constexpr double least = 1e-6;
    const auto add = [&](double from, double to) {
        if (to - from < least) return;
        const auto place = [&](double s) {
            const Vec2 p = f.place({s, 0});
            return Vec3{p.x, p.y, f.strips.front().height({s, 0})};
        };
        out.push_back({f.distance + from, f.distance + to, place(from), place(to)});
    };
    for (const auto& [from, to] : f.starts) {
        double at = from;
        for (const FaceCell& c : cells.cells) {
            if (cells.lines[c.low].kind != LineKind::Edge || c.to <= at) continue;
            if (c.from >= to) break;
            add(at, c.from);
            at = c.to;
        }
        add(at, to);
    }
}

/// Those that follow each other are one.
std::vector<EdgeStretch> joined(std::vector<EdgeStretch> all) {
    std::sort(all.begin(), all.end(),
              [](const EdgeStretch& a, const EdgeStretch& b) { return a.from < b.from; });
    std::vector<EdgeStretch> out;
    for (const EdgeStretch& s : all) {
        if (!out.empty() && std::abs(out.back().to - s.from) < 1e-6) {
            out.back().to = s.to;
            out.back().end = s.end;
        } else {
            out.push_back(s);
        }
    }
    return out;
}

/// Sides of daylight, each from vertex to vertex, the face on one hand; chained one to the next.
class Chains {
public:
    void add(std::uint32_t a, std::uint32_t b) {
        if (a == b) return;
        next_.emplace(a, sides_.size());
        sides_.push_back({a, b});
        ++into_[b];
    }
    std::vector<std::vector<std::uint32_t>> take() {
        std::vector<std::vector<std::uint32_t>> out;
        // Chains with a beginning first, then rings.
        for (const bool ring : {false, true})
            for (const auto& [a, b] : sides_)
                if (ring ? next_.contains(a) : next_.contains(a) && !into_.contains(a))
                    out.push_back(from(a));
        return out;
    }

private:
    std::vector<std::uint32_t> from(std::uint32_t at) {
        std::vector<std::uint32_t> chain{at};
        for (auto it = next_.find(at); it != next_.end(); it = next_.find(at)) {
            at = sides_[it->second].second;
            next_.erase(it);
            chain.push_back(at);
        }
        return chain;
    }
    std::vector<std::pair<std::uint32_t, std::uint32_t>> sides_;
    std::multimap<std::uint32_t, std::size_t> next_;  ///< sides by where they begin
    std::map<std::uint32_t, int> into_;
};

struct DaylightSide {
    Vec3 from;
    Vec3 to;
};

/// Where a face meets its target: with the face to the right of its own direction along the edge.
std::vector<DaylightSide> daylightOf(const Facet& f, const FaceCells& cells) {
    std::vector<DaylightSide> out;
    const auto place = [&](Along p) {
        const Vec2 at = f.place(p);
        return Vec3{at.x, at.y, f.height(p)};
    };
    for (const CellSide& side : sidesOf(cells.cells)) {
        const FaceLine& line = cells.lines[side.line];
        if (line.kind != LineKind::Target) continue;
        const Vec3 from = place({side.from, line.at(side.from)});
        const Vec3 to = place({side.to, line.at(side.to)});
        out.push_back(side.isOuter ? DaylightSide{from, to} : DaylightSide{to, from});
    }
    return out;
}

/// How far out and how far up or down they go.
void measure(const Facet& f, const FaceCells& cells, Batter& out) {
    for (const FaceCell& c : cells.cells)
        for (const double s : {c.from, c.to}) {
            const Along at{s, cells.high(c, s)};
            // From the corner where the face goes round it.
            const double along = std::clamp(s, 0.0, f.length);
            const double away = std::hypot(s - along, at.d);
            if (away > out.reach) {
                out.reach = away;
                out.farthest = f.place(at);
            }
            out.depth = std::max(out.depth, std::abs(f.height(at) - f.height({along, 0})));
        }
}

/// The edge with places between its corners where faces begin or end, so that what lies within it meets them.
std::vector<Vec3> dividedEdge(const EdgeFacets& made, const std::vector<FaceCells>& cells) {
    std::map<double, Vec3> all;  // by distance along it
    double at = 0;
    for (std::size_t k = 0; k < made.edge.size(); ++k) {
        if (k > 0) at += geometry::distance(made.edge[k - 1].plan(), made.edge[k].plan());
        all.emplace(at, made.edge[k]);
    }
    const auto add = [&](const Facet& f, double s) {
        constexpr double same = 1e-5;
        const double distance = f.distance + s;
        const auto after = all.lower_bound(distance - same);
        if (after != all.end() && after->first <= distance + same) return;
        if (made.closed && distance > made.length - same) return;
        const Vec2 p = f.place({s, 0});
        all.emplace(distance, Vec3{p.x, p.y, f.strips.front().height({s, 0})});
    };
    for (std::size_t i = 0; i < made.facets.size(); ++i) {
        double end = 0;
        for (const FaceCell& c : cells[i].cells) {
            if (cells[i].lines[c.low].kind != LineKind::Edge) continue;
            if (c.from > end) {
                add(made.facets[i], end);
                add(made.facets[i], c.from);
            }
            end = c.to;
        }
        if (end > 0) add(made.facets[i], end);
    }
    std::vector<Vec3> out;
    out.reserve(all.size());
    for (const auto& [distance, place] : all) out.push_back(place);
    return out;
}

Batter assembled(const EdgeFacets& made, const FaceAreas& areas) {
    const std::vector<FaceCells>& cells = areas.own;
    Batter out;
    out.edge = dividedEdge(made, cells);
    out.closed = made.closed;
    out.open = made.none;
    struct Face {
        FaceParts parts;
        std::vector<DaylightSide> daylight;
    };
    std::vector<Face> faces(made.facets.size());
    tbb::parallel_for(std::size_t{0}, faces.size(), [&](std::size_t i) {
        faces[i] = {partsOf(made.facets[i], cells[i]), daylightOf(made.facets[i], cells[i])};
    });
    MeshPool pool;
    std::size_t corners = 0;
    for (const auto& face : faces)
        for (const FaceRegion& region : face.parts.regions)
            corners += region.inner.size() + region.outer.size();
    pool.reserve(corners);
    Chains chains;
    for (std::size_t i = 0; i < made.facets.size(); ++i) {
        const Facet& f = made.facets[i];
        if (!f.ofCone && f.length > 0) addOpen(f, areas.whole[i], out.open);
        measure(f, cells[i], out);
        for (const FaceRegion& region : faces[i].parts.regions) addRegion(pool, f, region);
        for (const FaceOutline& outline : faces[i].parts.outlines) addOutline(pool, f, cells[i], outline);
        for (const DaylightSide& side : faces[i].daylight)
            chains.add(pool.vertex(side.from), pool.vertex(side.to));
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
    out.open = joined(std::move(out.open));
    return out;
}

/// How far outwards faces go that are cut for less; 0 for none.
double reachWanted(const EdgeFacets& made, const std::vector<FaceCells>& cells) {
    double out = 0;
    for (std::size_t i = 0; i < made.facets.size(); ++i) {
        const Facet& f = made.facets[i];
        if (f.reach == 0) continue;
        for (const FaceCell& c : cells[i].cells)
            for (const double s : {c.from, c.to})
                if (const double d = cells[i].high(c, s) / f.scale; d > f.reach) out = std::max(out, d);
    }
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
    double reach = 1;
    // Cones and changing slopes are cut for how far their faces go, which the faces say.
    for (int round = 0;; ++round) {
        const auto made = facetsOf(edge, shape, surface, reach);
        if (!made) return tl::unexpected(made.error());
        const auto areas = areasOf(*made, shape.target, surface, context);
        if (context.isCancelled()) return cancelled();
        const double wanted = reachWanted(*made, areas.own);
        if (wanted == 0 || round == 3) return assembled(*made, areas);
        reach = wanted;
    }
}

}  // namespace erdwerk::earthwork
