#include "core/format/project_layers.h"

#include <algorithm>

#include "core/derive/parcel_result.h"
#include "core/derive/surface_result.h"
#include "core/format/line_rules.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/operations/lines.h"
#include "core/route/alignment.h"

namespace erdwerk::format {

using derive::Derived;

namespace {

/// Larger surfaces show their boundary instead.
constexpr std::uint32_t mostTriangles = 200'000;

VectorLayer pointLayer(const Derived& derived) {
    VectorLayer layer{"survey_points", Shape::PointZ, {{"number"}, {"code"}, {"note"}, {"point_set"}}, {}};
    for (const auto id : derived.document.all<objects::Points>()) {
        const auto& set = derived.document.get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) {
            const auto& p = set[i];
            layer.features.push_back({{{p.plan.x, p.plan.y, p.height.value_or(0)}},
                                      {},
                                      {p.number, p.code, p.note, derived.document.nameOf(id)},
                                      !p.height});
        }
    }
    return layer;
}

/// Places of a line's vertices in order, arcs cut; flat when a height is missing.
VectorFeature lineFeature(const linework::ResolvedLine& line) {
    VectorFeature f;
    const auto runs = runsWithHeights(line, derive::breaklineSagitta);
    if (line.complete() && runs.size() == 1) {
        f.places = runs.front();
    } else {
        f.flat = true;
        for (const auto p : geometry::flattened(line.path, derive::breaklineSagitta))
            f.places.push_back({p.x, p.y, 0});
    }
    return f;
}

/// A line with its arcs as arcs, cut at its grade points, so that every vertex keeps its height.
VectorFeature curvedFeature(const linework::ResolvedLine& line) {
    VectorFeature f;
    f.flat = !line.complete();
    std::size_t side = 0;
    double base = 0;
    const std::size_t n = line.vertices.size();
    for (std::size_t i = 0; i < n; ++i) {
        const auto& v = line.vertices[i];
        while (side + 1 < line.path.size() && v.distance >= base + lengthOf(line.path[side]) - 1e-9)
            base += lengthOf(line.path[side++]);
        linework::LineVertex corner;
        corner.place = v.place;
        const double size = lengthOf(line.path[side]);
        const double to = i + 1 < n ? line.vertices[i + 1].distance : line.length;
        if (size > 0 && (i + 1 < n || line.closed))
            corner.through =
                part(line.path[side], (v.distance - base) / size, std::min(1.0, (to - base) / size)).through;
        f.curve.vertices.push_back(corner);
        f.places.push_back({v.place.x, v.place.y, v.height.value_or(0)});
    }
    f.curve.closed = line.closed;
    return f;
}

/// Lines of straights, or those with arcs. `chorded` has all of them, with chords for arcs.
VectorLayer lineLayer(const Derived& derived, bool arcs, bool rules, std::size_t* chorded = nullptr) {
    VectorLayer layer{
        arcs ? "curved_lines" : "lines", arcs ? Shape::CurveZ : Shape::LineZ, {{"name"}, {"group_name"}}, {}};
    if (rules) layer.fields.push_back({"rules"});
    const auto names = operations::namesIn(derived.document);
    for (const auto& [id, line] : derived.lines) {
        const bool curved = hasCurves(line->path);
        if (chorded == nullptr && curved != arcs) continue;
        if (chorded != nullptr && curved) ++*chorded;
        VectorFeature f;
        std::string text;
        if (rules) {
            auto ruled = ruledGeometry(*derived.definition(id), *line, names, arcs);
            f.flat = ruled.flat;
            f.places = std::move(ruled.places);
            if (ruled.line.closed && !arcs) f.places.push_back(f.places.front());
            f.curve = std::move(ruled.line);
            text = std::move(ruled.rules);
        } else {
            f = arcs ? curvedFeature(*line) : lineFeature(*line);
        }
        f.values = {derived.document.nameOf(id), derived.document.nameOf(derived.document.find(id)->group)};
        if (rules) f.values.emplace_back(std::move(text));
        layer.features.push_back(std::move(f));
    }
    return layer;
}

VectorLayer triangleLayer(const Derived& derived) {
    VectorLayer layer{"surface_triangles", Shape::PolygonZ, {{"surface"}}, {}};
    for (const auto& [id, surface] : derived.surfaces) {
        if (!surface->locator) continue;
        const auto& tin = surface->locator->tin();
        if (tin.triangleCount() > mostTriangles) continue;
        for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
            const auto [a, b, c] = tin.triangle(t);
            layer.features.push_back({{a, b, c}, {}, {derived.document.nameOf(id)}, false});
        }
    }
    return layer;
}

/// The rim of surfaces that have too many triangles to show one by one.
VectorLayer rimLayer(const Derived& derived) {
    VectorLayer layer{"surface_boundaries", Shape::PolygonZ, {{"surface"}}, {}};
    for (const auto& [id, surface] : derived.surfaces) {
        if (!surface->locator || surface->locator->tin().triangleCount() <= mostTriangles) continue;
        const auto& tin = surface->locator->tin();
        for (const auto& ring : terrain::rimRings(tin)) {
            VectorFeature f;
            for (const std::uint32_t v : ring) f.places.push_back(tin.vertex(v));
            f.values = {derived.document.nameOf(id)};
            layer.features.push_back(std::move(f));
        }
    }
    return layer;
}

/// A path as a compound curve, flat.
VectorFeature pathFeature(const geometry::Path& path) {
    VectorFeature f;
    f.flat = true;
    const auto add = [&](geometry::Vec2 place, std::optional<geometry::Vec2> through) {
        linework::LineVertex v;
        v.place = place;
        v.through = through;
        f.curve.vertices.push_back(v);
        f.places.push_back({place.x, place.y, 0});
    };
    for (const auto& s : path) {
        if (!s.spiral) {
            add(s.start, s.through);
            continue;
        }
        // The standard has no clothoids: chords within a millimetre.
        const auto chords = flattened(s, 0.001);
        for (std::size_t k = 0; k + 1 < chords.size(); ++k) add(chords[k], std::nullopt);
    }
    linework::LineVertex end;
    end.place = path.back().end;
    f.curve.vertices.push_back(end);
    f.places.push_back({end.place.x, end.place.y, 0});
    return f;
}

}  // namespace

VectorLayer chordedLines(const Derived& derived, std::size_t* chorded) {
    return lineLayer(derived, false, true, chorded);
}

std::vector<VectorLayer> projectLayers(const Derived& derived, bool rules) {
    std::vector<VectorLayer> layers{pointLayer(derived), lineLayer(derived, false, rules),
                                    lineLayer(derived, true, rules), triangleLayer(derived),
                                    rimLayer(derived)};
    VectorLayer alignments{"alignments", Shape::CurveZ, {{"name"}, {"start_station", FieldKind::Real}}, {}};
    for (const auto& [id, alignment] : derived.alignments) {
        if (alignment->path.empty()) continue;
        VectorFeature f = pathFeature(alignment->path);
        f.values = {derived.document.nameOf(id), alignment->startStation};
        alignments.features.push_back(std::move(f));
    }
    VectorLayer parcels{
        "parcels", Shape::PolygonZ, {{"name"}, {"area", FieldKind::Real}, {"description"}}, {}};
    for (const auto& [id, parcel] : derived.parcels) {
        VectorFeature f;
        f.flat = true;
        geometry::Path path;
        const auto& payload = *derived.document.get<objects::Parcel>(id);
        const auto* line = Derived::in(derived.lines, payload.line);
        if (line == nullptr) continue;
        path = line->path;
        for (const auto p : geometry::flattened(path, derive::breaklineSagitta))
            f.places.push_back({p.x, p.y, 0});
        f.values = {derived.document.nameOf(id), parcel->geometry.area, parcel->description};
        parcels.features.push_back(std::move(f));
    }
    layers.push_back(std::move(alignments));
    layers.push_back(std::move(parcels));
    std::erase_if(layers, [](const VectorLayer& l) { return l.features.empty(); });
    return layers;
}

}  // namespace erdwerk::format
