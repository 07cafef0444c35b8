// Surfaces, with their contours, bands and fit check.

#include "core/derive/earthwork_result.h"
#include "core/derive/evaluation.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/objects/cloud.h"
#include "core/objects/points.h"
#include "core/terrain/bands.h"
#include "core/terrain/contour_patch.h"

namespace erdwerk::derive {

namespace {

/// A source with what it names; `inputs` receives what the surface depends on by it.
ResolvedSource resolved(Evaluation& evaluation, const Source& source, std::vector<Input>& inputs) {
    ResolvedSource out{source, evaluation.document.find(source.object), nullptr};
    if (evaluation.document.get<Line>(source.object) == nullptr) {
        inputs.push_back(evaluation.survey(out.object));
        return out;
    }
    out.line = evaluation.line(source.object);
    // A change of name or style of the line does not matter.
    out.object.reset();
    inputs.push_back(out.line);
    inputs.push_back(nullptr);
    return out;
}

using Contours = std::vector<terrain::Contour>;

std::shared_ptr<const Contours> contoursOf(Evaluation& e, ObjectId id, const Surface& surface);

/// Of a finished surface, from those of the surface that it begins with, where that shows the same.
std::optional<Contours> contoursAfter(Evaluation& e, const Surface& surface, const SurfaceResult& result) {
    const ObjectId from = surface.definition->base;
    const auto* base = e.document.get<Surface>(from);
    if (!result.patch || base == nullptr || base->style.interval != surface.style.interval ||
        base->style.smooth != surface.style.smooth)
        return std::nullopt;
    const auto before = contoursOf(e, from, *base);
    if (!before || e.out.surfaces.at(from)->locator != result.patch->base) return std::nullopt;
    return terrain::contoursAfter(*before, result.patch->base->tin(), result.patch->gone,
                                  result.locator->tin(), result.patch->fresh,
                                  {surface.style.interval, surface.style.smooth});
}

/// Null where none are shown.
std::shared_ptr<const Contours> contoursOf(Evaluation& e, ObjectId id, const Surface& surface) {
    const auto result = e.surface(id);
    const SurfaceStyle& style = surface.style;
    if (!style.contours || !result || !result->locator) return nullptr;
    if (const auto it = e.out.contours.find(id); it != e.out.contours.end()) return it->second;
    auto made = e.remembered<Contours>(
        "contours", id, {result}, formatExact(style.interval) + (style.smooth ? " smooth" : ""), [&] {
            if (auto after = contoursAfter(e, surface, *result)) return std::move(*after);
            auto lines = terrain::contours(result->locator->tin(), {style.interval, style.smooth}, e.context);
            if (!lines && lines.error().code == ErrorCode::Cancelled) e.cancel();
            return lines ? std::move(*lines) : Contours{};
        });
    e.out.contours[id] = made;
    return made;
}

void contoursBefore(Evaluation& e, ObjectId id, const SurfaceStyle& style,
                    const std::shared_ptr<const SurfaceResult>& result) {
    if (!style.contours || !style.before || !result->patch) return;
    e.out.contoursBefore[id] =
        e.remembered<Contours>("contours-before", id, {result}, formatExact(style.interval), [&] {
            return terrain::contoursTakenAway(result->patch->base->tin(), result->patch->gone,
                                              *result->locator, style.interval);
        });
}

void bands(Evaluation& e, ObjectId id, Bands shown, const std::shared_ptr<const SurfaceResult>& result) {
    if (shown == Bands::None) return;
    e.out.bands[id] = e.remembered<BandTable>("bands", id, {result}, std::string(bandsName(shown)), [&] {
        BandTable table;
        table.kind = static_cast<terrain::BandKind>(static_cast<int>(shown) - 1);
        table.limits = terrain::bandLimits(result->locator->tin(), table.kind);
        table.bands = terrain::bandsOf(result->locator->tin(), table.kind, table.limits);
        return table;
    });
}

void fit(Evaluation& e, ObjectId id, const Surface& surface,
         const std::shared_ptr<const SurfaceResult>& result) {
    std::vector<Source> sources;
    if (surface.fit.source)
        sources.push_back({surface.fit.source, Role::Cloud});
    else
        for (const Source& s : expandedSources(e.document, *surface.definition))
            if (s.role == Role::Cloud || s.role == Role::Raster) sources.push_back(s);
    std::vector<Input> inputs{result};
    std::vector<ResolvedSource> dense;
    for (const Source& s : sources)
        if (auto object = e.document.find(s.object)) {
            inputs.push_back(e.survey(object));
            dense.push_back({s, std::move(object), nullptr});
        }
    if (dense.empty()) return;
    const double tolerance = surface.fit.tolerance;
    auto checked = e.remembered<FitResult>("fit", id, std::move(inputs), formatExact(tolerance), [&] {
        auto made = checkFit(*result->locator, dense, tolerance, e.context);
        if (!made && made.error().code == ErrorCode::Cancelled) e.cancel();
        return made ? std::move(*made) : FitResult{};
    });
    if (checked->figures.points > 0) e.out.fits[id] = std::move(checked);
}

}  // namespace

std::shared_ptr<const std::vector<terrain::Contour>> Evaluation::contours(ObjectId id) {
    const auto* surface = document.get<Surface>(id);
    return surface == nullptr ? nullptr : contoursOf(*this, id, *surface);
}

std::shared_ptr<const SurfaceResult> Evaluation::surface(ObjectId id) {
    if (const auto it = out.surfaces.find(id); it != out.surfaces.end()) return it->second;
    const auto* surface = document.get<Surface>(id);
    if (surface == nullptr || busySurfaces.count(id) != 0) return nullptr;
    busySurfaces.insert(id);
    asked.push_back({id, std::nullopt});
    std::vector<Input> inputs{surface->definition};
    std::vector<ResolvedSource> sources;
    for (const Source& source : expandedSources(document, *surface->definition))
        sources.push_back(resolved(*this, source, inputs));
    for (const SurfaceEdit& edit : surface->definition->edits)
        if (edit.edit.kind == terrain::EditKind::TakeOver && edit.on) {
            if (document.get<Surface>(edit.surface)) inputs.push_back(this->surface(edit.surface));
            if (document.get<Earthwork>(edit.surface)) inputs.push_back(earthwork(edit.surface));
        }
    std::shared_ptr<const SurfaceResult> base;
    if (document.get<Surface>(surface->definition->base))
        inputs.push_back(base = this->surface(surface->definition->base));
    busySurfaces.erase(id);
    asked.pop_back();
    const auto before = last<SurfaceResult>("surface", id);
    auto result = remembered<SurfaceResult>("surface", id, std::move(inputs), {}, [&] {
        const auto other = [&](ObjectId of) -> const terrain::TinLocator* {
            if (const auto* made = Derived::in(out.earthworks, of)) return made->surface.get();
            const auto it = out.surfaces.find(of);
            return it == out.surfaces.end() || !it->second ? nullptr : it->second->locator.get();
        };
        auto made = buildSurface(*surface->definition, std::move(sources), {before.get(), base.get(), other},
                                 context);
        if (!made) cancel();
        return made ? std::move(*made) : SurfaceResult{};
    });
    out.surfaces[id] = result;
    return result;
}

Input Evaluation::survey(const std::shared_ptr<const Object>& object) {
    // A number, a code, a note changes no ground.
    if (const auto* points = object ? object->payload.as<Points>() : nullptr) return points->set.geometry();
    const auto* cloud = object ? object->payload.as<Cloud>() : nullptr;
    if (cloud == nullptr) return object;
    std::string part(cloud->filter.classes.begin(), cloud->filter.classes.end());
    for (const auto& p : cloud->filter.inside) part += ' ' + formatExact(p.x) + ' ' + formatExact(p.y);
    Memo& memo = memory_[{"cloud-part", object->id}];
    if (!memo.value || memo.inputs != std::vector<Input>{cloud->cloud} || memo.parameters != part)
        memo = {{cloud->cloud}, std::move(part), std::make_shared<const int>(0)};
    return memo.value;
}

void work(Evaluation& evaluation, ObjectId id, const Surface& surface) {
    const auto result = evaluation.surface(id);
    if (!result || !result->locator) return;
    contoursOf(evaluation, id, surface);
    contoursBefore(evaluation, id, surface.style, result);
    fit(evaluation, id, surface, result);
    bands(evaluation, id, surface.style.bands, result);
}

}  // namespace erdwerk::derive
