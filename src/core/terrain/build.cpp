#include "core/terrain/build.h"

#define CGAL_LINKED_WITH_TBB 1
#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Spatial_sort_traits_adapter_2.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>
#include <CGAL/hilbert_sort.h>
#include <CGAL/property_map.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>

#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/clip.h"
#include "core/terrain/noding.h"
#include "core/terrain/rim.h"

namespace erdwerk::terrain {

namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
constexpr std::uint32_t unset = 0xffffffffU;

/// Position in the input; `unset` for a vertex that rounding made CGAL add.
struct VertexInfo {
    std::uint32_t input = unset;
};

using VertexBase = CGAL::Triangulation_vertex_base_with_info_2<VertexInfo, Kernel>;
using FaceBase = CGAL::Constrained_triangulation_face_base_2<Kernel>;

/// Knows its number in the flat arrays; it fits into the padding behind the constraint flags.
template <class Gt, class Fb = FaceBase>
class Face : public Fb {
public:
    using Vertex_handle = typename Fb::Vertex_handle;
    using Face_handle = typename Fb::Face_handle;
    template <class Tds>
    struct Rebind_TDS {
        using Fb2 = typename Fb::template Rebind_TDS<Tds>::Other;
        using Other = Face<Gt, Fb2>;
    };
    using Fb::Fb;
    std::uint32_t number = Tin::none;
};

using Structure = CGAL::Triangulation_data_structure_2<VertexBase, Face<Kernel>>;
using Cdt = CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure, CGAL::Exact_predicates_tag>;

Kernel::Point_2 planOf(const Vec3& v) {
    return {v.x, v.y};
}

/// Biased randomized insertion order (Amenta, Choi, Rote: "Incremental constructions con BRIO", 2003): rounds
/// that grow fourfold, each along a Hilbert curve. The shuffle is seeded, so the same input gives the same
/// triangles.
using Numbered = std::pair<Kernel::Point_2, std::uint32_t>;
std::vector<Numbered> insertionOrder(const std::vector<Vec3>& vertices) {
    std::vector<Numbered> order(vertices.size());
    for (std::uint32_t i = 0; i < order.size(); ++i) order[i] = {planOf(vertices[i]), i};
    std::shuffle(order.begin(), order.end(), std::mt19937(20));
    const CGAL::Spatial_sort_traits_adapter_2<Kernel, CGAL::First_of_pair_property_map<Numbered>> traits;
    for (std::size_t end = order.size(); end > 0;) {
        const std::size_t begin = end > 64 ? end / 4 : 0;
        CGAL::hilbert_sort<CGAL::Parallel_tag>(order.begin() + static_cast<std::ptrdiff_t>(begin),
                                               order.begin() + static_cast<std::ptrdiff_t>(end), traits);
        end = begin;
    }
    return order;
}

class Builder {
public:
    Builder(const BuildInput& input, NodedLines noded)
        : points_(input.points.size()), noded_(std::move(noded)) {
        all_ = input.points;
        all_.insert(all_.end(), noded_.vertices.begin(), noded_.vertices.end());
    }

    Result<BuiltSurface> run(const Context& context) {
        if (!insertVertices(context)) return cancelled();
        if (!insertSides(context)) return cancelled();
        if (cdt_.dimension() < 2)
            return fail(ErrorCode::Degenerate, "fewer than three points that are not on one line");
        out_.crossings = std::move(noded_.crossings);
        out_.points = points_ - out_.duplicates.size();
        flatten();
        return std::move(out_);
    }

private:
    bool insertVertices(const Context& context) {
        handle_.assign(all_.size(), Cdt::Vertex_handle());
        Cdt::Face_handle hint;
        std::size_t done = 0;
        for (const auto& [place, i] : insertionOrder(all_)) {
            const auto v = cdt_.insert(place, hint);
            hint = v->face();
            handle_[i] = v;
            v->info().input = std::min(v->info().input, i);
            if ((++done & 0x3fffU) == 0) {
                if (context.isCancelled()) return false;
                context.report(0.8 * static_cast<double>(done) / static_cast<double>(all_.size()));
            }
        }
        for (std::size_t i = 0; i < points_; ++i)
            if (handle_[i]->info().input != i) out_.duplicates.push_back({handle_[i]->info().input, i});
        return true;
    }

    bool insertSides(const Context& context) {
        std::size_t done = 0;
        for (const auto& [from, to] : noded_.sides) {
            const auto a = handle_[points_ + from];
            const auto b = handle_[points_ + to];
            if (a != b) cdt_.insert_constraint(a, b);
            if ((++done & 0xfffU) == 0 && context.isCancelled()) return false;
        }
        context.report(0.9);
        return true;
    }

    /// Vertices that CGAL had to add where rounded sides still crossed take their height from the sides they
    /// cut.
    double heightBetweenSides(Cdt::Vertex_handle v) {
        double sum = 0;
        double weights = 0;
        auto edge = cdt_.incident_edges(v);
        const auto start = edge;
        do {
            if (cdt_.is_infinite(edge)) continue;
            const auto& [face, i] = *edge;
            auto other = face->vertex(cdt_.ccw(i));
            if (other == v) other = face->vertex(cdt_.cw(i));
            if (other->info().input == unset || !cdt_.is_constrained(*edge)) continue;
            const double w =
                1 / std::sqrt(CGAL::to_double(CGAL::squared_distance(v->point(), other->point())));
            sum += w * all_[other->info().input].z;
            weights += w;
        } while (++edge != start);
        return weights > 0 ? sum / weights : 0.0;
    }

    void flatten() {
        std::vector<std::uint32_t> position(all_.size(), Tin::none);
        std::vector<Vec3> vertices;
        vertices.reserve(cdt_.number_of_vertices());
        for (std::uint32_t i = 0; i < all_.size(); ++i) {
            if (handle_[i]->info().input != i) continue;
            position[i] = static_cast<std::uint32_t>(vertices.size());
            vertices.push_back(all_[i]);
        }
        if (vertices.size() < cdt_.number_of_vertices()) {
            for (auto v = cdt_.finite_vertices_begin(); v != cdt_.finite_vertices_end(); ++v) {
                if (v->info().input != unset) continue;
                const double z = heightBetweenSides(v);
                v->info().input = static_cast<std::uint32_t>(all_.size());
                all_.push_back({v->point().x(), v->point().y(), z});
                position.push_back(static_cast<std::uint32_t>(vertices.size()));
                vertices.push_back(all_.back());
            }
        }
        std::uint32_t faces = 0;
        for (auto f = cdt_.finite_faces_begin(); f != cdt_.finite_faces_end(); ++f) f->number = faces++;
        std::vector<std::uint32_t> corners(3 * std::size_t{faces});
        std::vector<std::uint32_t> links(3 * std::size_t{faces});
        std::size_t slot = 0;
        for (auto f = cdt_.finite_faces_begin(); f != cdt_.finite_faces_end(); ++f) {
            for (int i = 0; i < 3; ++i, ++slot) {
                corners[slot] = position[f->vertex(i)->info().input];
                links[slot] = f->neighbor(i)->number | (f->is_constrained(i) ? ~Tin::none : 0U);
            }
        }
        out_.tin = Tin::fromLinked(std::move(vertices), std::move(corners), std::move(links));
    }

    std::size_t points_;
    NodedLines noded_;
    std::vector<Vec3> all_;  ///< points, then line vertices
    std::vector<Cdt::Vertex_handle> handle_;
    Cdt cdt_;
    BuiltSurface out_;
};

bool allFinite(const BuildInput& input) {
    const auto finite = [](const Vec3& v) {
        return std::isfinite(v.x) && std::isfinite(v.y) && std::isfinite(v.z);
    };
    if (!std::all_of(input.points.begin(), input.points.end(), finite)) return false;
    return std::all_of(input.lines.begin(), input.lines.end(), [&](const Breakline& line) {
        return std::all_of(line.corners.begin(), line.corners.end(), finite);
    });
}

/// How many of the first `points` vertices of the whole are in what was left of it: both are in input order,
/// so the two lists are merged.
std::size_t pointsTakingPart(const Tin& whole, std::size_t points, const Tin& left) {
    std::size_t count = 0;
    for (std::size_t i = 0; i < points && count < left.vertexCount(); ++i)
        if (left.vertex(static_cast<std::uint32_t>(count)) == whole.vertex(static_cast<std::uint32_t>(i)))
            ++count;
    return count;
}

}  // namespace

bool Boundary::hasHeights() const {
    return heights.size() == ring.size() &&
           std::all_of(heights.begin(), heights.end(), [](const auto& h) { return h.has_value(); });
}

Breakline lineOf(const Boundary& boundary) {
    Breakline out{{}, true};
    for (std::size_t i = 0; i < boundary.ring.size(); ++i)
        out.corners.push_back({boundary.ring[i].x, boundary.ring[i].y, *boundary.heights[i]});
    return out;
}

Tin endOn(const Tin& tin, const Boundary& boundary) {
    return boundary.hasHeights() ? keepInside(tin, boundary.ring) : clip(tin, boundary.ring);
}

Result<BuiltSurface> triangulate(const BuildInput& input, const Context& context) {
    if (!allFinite(input)) return badInput("a coordinate is not a finite number");
    return Builder(input, nodeLines(input.lines, input.onCrossing)).run(context);
}

Result<void> validateRings(const BuildInput& input) {
    if (input.boundary)
        if (auto valid = validate(*input.boundary); !valid) return valid;
    for (const Opening& opening : input.openings)
        if (auto valid = validate(opening.ring); !valid)
            return badInput((opening.island ? "island: " : "opening: ") + valid.error().text);
    return {};
}

namespace {

/// Takes the openings out of a surface and puts the islands back.
Tin cutOpenings(const Tin& whole, const std::vector<Opening>& openings) {
    Tin out = whole;
    for (const Opening& opening : openings) {
        if (opening.island) continue;
        out = opening.ring.hasHeights() ? keepOutside(out, opening.ring.ring)
                                        : clip(out, opening.ring.ring, Keep::Outside);
    }
    for (const Opening& island : openings) {
        const bool inOpening = std::any_of(openings.begin(), openings.end(), [&](const Opening& o) {
            return !o.island &&
                   geometry::sideOf(o.ring.ring, island.ring.ring.front()) != geometry::Side::Outside;
        });
        if (island.island && inOpening) out = joined(out, endOn(whole, island.ring));
    }
    return out;
}

}  // namespace

Tin trimmed(const Tin& whole, const BuildInput& input) {
    Tin out = input.boundary ? endOn(whole, *input.boundary) : whole;
    if (!input.openings.empty()) out = cutOpenings(out, input.openings);
    return peelRim(out, {input.maxEdge, input.narrowest, input.boundary || !input.openings.empty()});
}

void addRings(BuildInput& input) {
    if (input.boundary && input.boundary->hasHeights()) input.lines.push_back(lineOf(*input.boundary));
    for (const Opening& opening : input.openings)
        if (opening.ring.hasHeights()) input.lines.push_back(lineOf(opening.ring));
}

BuiltSurface ended(const BuiltSurface& whole, const Tin& tin, const BuildInput& input) {
    BuiltSurface out;
    out.tin = trimmed(tin, input);
    out.points = pointsTakingPart(tin, whole.points, out.tin);
    out.duplicates = whole.duplicates;
    out.crossings = whole.crossings;
    // What crosses outside the surface is no conflict of it; nor is a line that ends on a ring's own height.
    const auto rings = std::count_if(input.openings.begin(), input.openings.end(),
                                     [](const Opening& o) { return o.ring.hasHeights(); }) +
                       (input.boundary && input.boundary->hasHeights() ? 1 : 0);
    const std::size_t lines = input.lines.size() - static_cast<std::size_t>(rings);
    if (input.boundary)
        std::erase_if(out.crossings, [&](const Crossing& c) {
            return c.second < lines &&
                   geometry::sideOf(input.boundary->ring, c.place) == geometry::Side::Outside;
        });
    return out;
}

Result<BuiltSurface> build(BuildInput input, const Context& context) {
    if (auto valid = validateRings(input); !valid) return tl::unexpected(valid.error());
    addRings(input);
    const auto whole = triangulate(input, context);
    if (!whole) return whole;
    auto built = ended(*whole, whole->tin, input);
    if (built.tin.empty())
        return fail(ErrorCode::Degenerate, "no triangle is left: check the boundary and the longest edge");
    context.report(1);
    return built;
}

std::vector<std::uint32_t> constrainedTriangles(const std::vector<Vec2>& positions,
                                                const std::vector<std::array<std::uint32_t, 2>>& sides) {
    Cdt cdt;
    std::vector<Cdt::Vertex_handle> handles;
    for (std::uint32_t i = 0; i < positions.size(); ++i) {
        handles.push_back(cdt.insert(Kernel::Point_2(positions[i].x, positions[i].y)));
        handles.back()->info().input = std::min(handles.back()->info().input, i);
    }
    for (const auto& [a, b] : sides)
        if (handles[a] != handles[b]) cdt.insert_constraint(handles[a], handles[b]);
    std::vector<std::uint32_t> out;
    for (auto f = cdt.finite_faces_begin(); f != cdt.finite_faces_end(); ++f) {
        const std::array<std::uint32_t, 3> t{f->vertex(0)->info().input, f->vertex(1)->info().input,
                                             f->vertex(2)->info().input};
        if (std::find(t.begin(), t.end(), unset) == t.end()) out.insert(out.end(), t.begin(), t.end());
    }
    return out;
}

}  // namespace erdwerk::terrain
