#include "core/derive/surface_build.h"

#include <algorithm>
#include <set>

#include "core/derive/edge.h"
#include "core/derive/surface_result.h"
#include "core/objects/cloud.h"
#include "core/objects/height_raster.h"
#include "core/survey/cloud.h"
#include "core/terrain/clip.h"
#include "core/terrain/fit.h"
#include "core/terrain/local_edit.h"
#include "core/terrain/patch.h"
#include "core/terrain/thin.h"

namespace erdwerk::derive {

namespace {

/// In a group: lines take its role, other things have their own.
std::optional<Role> roleInGroup(const Object& member, Role ofGroup) {
    if (member.payload.is<Group>()) return std::nullopt;
    const auto own = sourceRole(member.payload);
    return own && isLineRole(*own) && isLineRole(ofGroup) ? ofGroup : own;
}

/// A surface's inputs on the way into the triangulation, with who they came from.
struct Gathered {
    terrain::BuildInput input;
    std::vector<geometry::Vec3> dense;  ///< to be thinned
    std::vector<PointRef> points;
    std::vector<ObjectId> lines;
    ObjectId edge;
    std::vector<ObjectId> openings;  ///< of those with heights
};

void addBreakline(Gathered& g, ObjectId id, const linework::ResolvedLine& resolved) {
    for (auto& run : runsWithHeights(resolved, breaklineSagitta)) {
        g.input.lines.push_back({std::move(run), false});
        g.lines.push_back(id);
    }
}

terrain::Boundary ringOf(const ResolvedSource& s) {
    auto ring = boundaryAlong(*s.line, breaklineSagitta);
    if (!s.source.ownHeights) ring.heights.assign(ring.ring.size(), std::nullopt);
    return ring;
}

Result<Gathered> gather(const SurfaceDefinition& definition, const std::vector<ResolvedSource>& sources,
                        const Context& context) {
    Gathered g;
    g.input.maxEdge = definition.maxEdge;
    g.input.narrowest = definition.narrowest;
    g.input.onCrossing = definition.onCrossing;
    for (const ResolvedSource& s : sources) {
        const ObjectId id = s.source.object;
        if (!s.line && !s.object) continue;  // a line that would be made from this surface
        if (const auto* points = s.object ? s.object->payload.as<Points>() : nullptr) {
            for (std::size_t i = 0; i < points->set.size(); ++i) {
                const auto& p = points->set[i];
                if (!p.height) continue;
                g.input.points.push_back({p.plan.x, p.plan.y, *p.height});
                g.points.push_back({id, i});
            }
        } else if (s.line) {
            switch (s.source.role) {
                case Role::Edge:
                    g.input.boundary = ringOf(s);
                    g.edge = id;
                    break;
                case Role::Opening:
                case Role::Island:
                    g.input.openings.push_back({ringOf(s), s.source.role == Role::Island});
                    if (g.input.openings.back().ring.hasHeights()) g.openings.push_back(id);
                    break;
                default:
                    addBreakline(g, id, *s.line);
            }
        } else {
            auto places = densePlaces({s}, context);
            if (!places) return tl::unexpected(places.error());
            if (definition.tolerance > 0) {
                g.dense.insert(g.dense.end(), places->begin(), places->end());
            } else {
                for (std::size_t i = 0; i < places->size(); ++i) g.points.push_back({id, i});
                g.input.points.insert(g.input.points.end(), places->begin(), places->end());
            }
        }
    }
    return g;
}

class SurfaceBuilder {
public:
    SurfaceBuilder(const SurfaceDefinition& definition, const Context& context)
        : definition_(definition), context_(context) {}

    Result<terrain::Tin> fromSources(std::vector<ResolvedSource> sources, const SurfaceResult* before) {
        if (auto tin = locally(sources, before)) return std::move(*tin);
        auto gathered = gather(definition_, sources, context_);
        if (!gathered) return tl::unexpected(gathered.error());
        if (auto valid = terrain::validateRings(gathered->input); !valid)
            return tl::unexpected(valid.error());
        return gathered->dense.empty() ? built(std::move(*gathered), std::move(sources))
                                       : thinned(std::move(*gathered));
    }

    SurfaceResult result;

private:
    /// Rings with heights are breaklines as well; they come after the lines.
    static void addRings(Gathered& g) {
        terrain::addRings(g.input);
        if (g.input.boundary && g.input.boundary->hasHeights()) g.lines.push_back(g.edge);
        g.lines.insert(g.lines.end(), g.openings.begin(), g.openings.end());
    }

    /// One more breakline at the end of the same sources: only what it touches is worked out again.
    std::optional<terrain::Tin> locally(const std::vector<ResolvedSource>& sources,
                                        const SurfaceResult* before) {
        if (before == nullptr || !before->work || sources.size() != before->work->sources.size() + 1)
            return std::nullopt;
        const SurfaceWork& old = *before->work;
        const Role role = sources.back().source.role;
        if ((role != Role::Breakline && role != Role::Contour) || !sources.back().line ||
            !std::equal(old.sources.begin(), old.sources.end(), sources.begin()) || old.lines.boundary ||
            !old.lines.openings.empty() || old.lines.onCrossing != definition_.onCrossing)
            return std::nullopt;
        auto work = std::make_shared<SurfaceWork>();
        work->sources = sources;
        work->lines = old.lines;
        work->lines.maxEdge = definition_.maxEdge;
        work->lines.narrowest = definition_.narrowest;
        work->lineOwners = old.lineOwners;
        work->points = old.points;
        work->whole = old.whole;
        work->whole.tin = old.locator->tin();
        work->locator = old.locator;
        for (auto& run : runsWithHeights(*sources.back().line, breaklineSagitta)) {
            const terrain::Breakline line{std::move(run), false};
            auto next = terrain::withLine(work->whole, *work->locator, work->lines, line);
            if (!next) return std::nullopt;
            work->lines.lines.push_back(line);
            work->lineOwners.push_back(sources.back().source.object);
            work->whole = std::move(*next);
            work->locator = std::make_shared<const terrain::TinLocator>(
                std::make_shared<const terrain::Tin>(std::move(work->whole.tin)));
        }
        result.locally = true;
        return finish(std::move(work));
    }

    Result<terrain::Tin> built(Gathered g, std::vector<ResolvedSource> sources) {
        addRings(g);
        auto whole = terrain::triangulate(g.input, context_);
        if (!whole) return tl::unexpected(whole.error());
        auto work = std::make_shared<SurfaceWork>();
        work->sources = std::move(sources);
        work->lines = std::move(g.input);
        work->lines.points.clear();
        work->lines.points.shrink_to_fit();
        work->lineOwners = std::move(g.lines);
        work->points = std::move(g.points);
        work->whole = std::move(*whole);
        work->locator = std::make_shared<const terrain::TinLocator>(
            std::make_shared<const terrain::Tin>(std::move(work->whole.tin)));
        return finish(std::move(work));
    }

    terrain::Tin finish(std::shared_ptr<SurfaceWork> work) {
        auto ended = terrain::ended(work->whole, work->locator->tin(), work->lines);
        for (const auto& c : ended.crossings)
            result.crossings.push_back({c, work->lineOwners[c.first], work->lineOwners[c.second]});
        for (const auto& d : ended.duplicates)
            result.duplicates.push_back({work->points[d.kept], work->points[d.dropped]});
        result.points = ended.points;
        result.work = std::move(work);
        return std::move(ended.tin);
    }

    Result<terrain::Tin> thinned(Gathered g) {
        terrain::ThinOptions options;
        options.tolerance = definition_.tolerance;
        options.slopeChange = definition_.slopeChange;
        options.boundary = g.input.boundary;
        options.fixed = g.input.points;
        options.onCrossing = g.input.onCrossing;
        // The boundary is the thinning's own affair; only openings are breaklines beside the lines.
        Gathered openings = std::move(g);
        openings.input.boundary.reset();
        addRings(openings);
        options.lines = openings.input.lines;
        auto owners = openings.lines;
        if (options.boundary && options.boundary->hasHeights()) owners.push_back(openings.edge);
        auto thin = terrain::thin(openings.dense, options, context_);
        if (!thin) return tl::unexpected(thin.error());
        for (const auto& c : thin->crossings)
            result.crossings.push_back({c, owners[c.first], owners[c.second]});
        result.points = thin->tin.vertexCount();
        result.thinned =
            ThinFigures{thin->pointsIn,         thin->tin.vertexCount(), thin->tin.triangleCount(),
                        thin->largestDeviation, thin->largestProved,     thin->excused,
                        thin->beyond,           thin->contradicting};
        return terrain::trimmed(thin->tin, openings.input);
    }

    const SurfaceDefinition& definition_;
    const Context& context_;
};

}  // namespace

std::vector<Source> expandedSources(const Document& document, const SurfaceDefinition& definition) {
    std::vector<Source> out;
    std::set<ObjectId> seen;
    for (const Source& source : definition.sources) {
        const auto object = document.find(source.object);
        if (!object || !source.on) continue;
        if (!object->payload.is<Group>()) {
            if (seen.insert(source.object).second) out.push_back(source);
            continue;
        }
        for (const auto& [id, member] : document.objects()) {
            if (member->group != source.object) continue;
            const auto role = roleInGroup(*member, source.role);
            if (!role || !seen.insert(id).second) continue;
            Source own = source;
            own.object = id;
            own.role = *role;
            out.push_back(own);
        }
    }
    return out;
}

Result<std::vector<geometry::Vec3>> densePlaces(const std::vector<ResolvedSource>& sources,
                                                const Context& context) {
    std::vector<geometry::Vec3> out;
    for (const ResolvedSource& s : sources) {
        if (!s.object) continue;
        if (const auto* cloud = s.object->payload.as<Cloud>(); cloud != nullptr && cloud->cloud) {
            auto places = survey::placesOf(*cloud->cloud, cloud->filter, context);
            if (!places) return places;
            if (out.empty())
                out = std::move(*places);
            else
                out.insert(out.end(), places->begin(), places->end());
        } else if (const auto* raster = s.object->payload.as<HeightRaster>();
                   raster != nullptr && raster->raster) {
            const auto places = raster->raster->places();
            out.insert(out.end(), places.begin(), places.end());
        }
    }
    return out;
}

namespace {

/// Equally many is not enough: a cut can leave as many triangles as there were, in other places.
bool sameTriangles(const terrain::Tin& a, const terrain::Tin& b) {
    return a.triangleCount() == b.triangleCount() && a.vertexCount() == b.vertexCount() &&
           std::equal(a.corners().begin(), a.corners().end(), b.corners().begin()) &&
           std::equal(a.vertices().begin(), a.vertices().end(), b.vertices().begin());
}

/// What is taken over is cut out along its rim.
bool hasPlainRim(const terrain::Tin& tin) {
    const auto rings = terrain::ringsToCut(tin);
    return std::all_of(rings.begin(), rings.end(), [](const auto& ring) {
        return geometry::signedArea(ring) <= 0 || terrain::validate(terrain::Boundary{ring, {}});
    });
}

/// The surface that an edit takes over; where it cannot be, why goes into the result.
const terrain::TinLocator* takenOverBy(const SurfaceDefinition& definition, std::size_t edit,
                                       const BuildBasis& basis, SurfaceResult& result) {
    const auto* other = basis.surfaceAt(definition.edits[edit].surface);
    if (other == nullptr)
        result.editProblems.emplace_back(edit, "the surface to take over is not there");
    else if (!hasPlainRim(other->tin()))
        result.editProblems.emplace_back(edit, "its rim crosses itself, so nothing can be cut along it");
    else
        return other;
    return nullptr;
}

/// Those that are on, in order; why one does not apply goes into the result.
void applyEdits(const SurfaceDefinition& definition, const BuildBasis& basis, terrain::Tin& tin,
                SurfaceResult& result) {
    for (std::size_t k = 0; k < definition.edits.size(); ++k) {
        const SurfaceEdit& edit = definition.edits[k];
        if (!edit.on) continue;
        if (edit.edit.kind == terrain::EditKind::TakeOver) {
            if (const auto* other = takenOverBy(definition, k, basis, result))
                tin = terrain::takenOver(tin, other->tin());
            continue;
        }
        auto next = terrain::edited(tin, edit.edit);
        if (next)
            tin = std::move(*next);
        else
            result.editProblems.emplace_back(k, next.error().text);
    }
}

bool onlyTakesOver(const SurfaceDefinition& definition) {
    return std::all_of(definition.edits.begin(), definition.edits.end(), [](const SurfaceEdit& e) {
        return !e.on || e.edit.kind == terrain::EditKind::TakeOver;
    });
}

/// A finished surface, from the one that it begins with.
SurfaceResult patchedSurface(const SurfaceDefinition& definition, const BuildBasis& basis) {
    SurfaceResult result;
    terrain::Patch patch(basis.base->locator);
    for (std::size_t k = 0; k < definition.edits.size(); ++k)
        if (definition.edits[k].on)
            if (const auto* other = takenOverBy(definition, k, basis, result)) patch.takeOver(other->tin());
    auto patched = std::move(patch).finish();
    const auto& base = basis.base->locator;
    result.points = base->tin().vertexCount();
    if (patched.locator->tin().empty()) {
        result.problem = "no triangle is left";
        return result;
    }
    result.figures = terrain::figuresAfter(basis.base->figures, base->tin(), patched.gone,
                                           patched.locator->tin(), patched.fresh);
    result.locator = patched.locator;
    result.patch = std::make_shared<const SurfacePatch>(
        SurfacePatch{base, std::move(patched.gone), std::move(patched.fresh)});
    return result;
}

}  // namespace

Result<SurfaceResult> buildSurface(const SurfaceDefinition& definition, std::vector<ResolvedSource> sources,
                                   const BuildBasis& basis, const Context& context) {
    SurfaceBuilder builder(definition, context);
    const bool hasBase = basis.base != nullptr && basis.base->locator;
    if (!definition.imported && definition.base && hasBase && onlyTakesOver(definition))
        return patchedSurface(definition, basis);
    const auto begin = [&]() -> Result<terrain::Tin> {
        if (definition.imported) return *definition.imported;
        if (!definition.base) return builder.fromSources(std::move(sources), basis.before);
        return hasBase ? Result<terrain::Tin>(basis.base->locator->tin())
                       : badInput("the surface that it begins with is not there");
    };
    Result<terrain::Tin> tin = begin();
    SurfaceResult result = std::move(builder.result);
    if (!tin && tin.error().code == ErrorCode::Cancelled) return tl::unexpected(tin.error());
    if (!tin) {
        result.problem = tin.error().text;
        result.work.reset();
        return result;
    }
    if (definition.imported || definition.base) result.points = tin->vertexCount();
    applyEdits(definition, basis, *tin, result);
    if (tin->empty()) {
        result.problem = "no triangle is left: check the boundary, the openings and the longest edge";
        return result;
    }
    result.figures = terrain::figuresOf(*tin);
    // Nothing cut, peeled or edited: the triangulation and its index are shared.
    const bool same =
        result.work && definition.edits.empty() && sameTriangles(result.work->locator->tin(), *tin);
    result.locator = same ? result.work->locator
                          : std::make_shared<const terrain::TinLocator>(
                                std::make_shared<const terrain::Tin>(std::move(*tin)));
    return result;
}

Result<FitResult> checkFit(const terrain::TinLocator& surface, const std::vector<ResolvedSource>& dense,
                           double tolerance, const Context& context) {
    const auto places = densePlaces(dense, context);
    if (!places) return tl::unexpected(places.error());
    const auto deviations = terrain::deviationsOf(surface, *places, context);
    if (!deviations) return tl::unexpected(deviations.error());
    FitResult out;
    out.tolerance = tolerance;
    out.figures = terrain::figuresOf(*deviations, tolerance);
    const double spacing = std::sqrt(surface.tin().bounds().width() * surface.tin().bounds().height() /
                                     std::max<double>(1, static_cast<double>(out.figures.points)));
    out.map = terrain::deviationMap(*places, *deviations, spacing);
    for (const auto& worst : terrain::worstPlaces(*places, *deviations, tolerance, 10 * spacing, 20))
        out.worst.push_back({(*places)[worst.point], worst.deviation});
    return out;
}

}  // namespace erdwerk::derive
