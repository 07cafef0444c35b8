#include "core/operations/dimensions.h"

#include <algorithm>

#include "core/geometry/element.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/route/alignment.h"

namespace erdwerk::operations {

using annotate::DimensionKind;
using document::freshName;

namespace {

ObjectId styleIn(Document& d) {
    if (const auto all = d.all<objects::DimensionStyle>(); !all.empty()) return all.front();
    ObjectId id;
    d = d.added("Plain dimensions", objects::DimensionStyle{}, &id);
    return id;
}

std::optional<geometry::Segment> at(const geometry::Path& path, std::size_t index) {
    return index < path.size() ? std::optional(path[index]) : std::nullopt;
}

std::optional<geometry::Vec2> placeOf(const Anchor& anchor, const std::optional<geometry::Segment>& side) {
    if (anchor.on == Anchor::On::Place) return anchor.place;
    return side ? std::optional(pointAt(*side, anchor.fraction)) : std::nullopt;
}

std::optional<geometry::Vec2> pointIn(const objects::Points& points, std::size_t index) {
    return index < points.set.size() ? std::optional(points.set[index].plan) : std::nullopt;
}

std::optional<geometry::Vec2> vertexIn(const linework::ResolvedLine& line, std::size_t index) {
    return index < line.vertices.size() ? std::optional(line.vertices[index].place) : std::nullopt;
}

}  // namespace

Edit newDimension(DimensionKind kind, std::vector<Anchor> anchors, annotate::DimensionLine line) {
    return [kind, anchors = std::move(anchors), line](const Document& given) -> Result<Edited> {
        if (anchors.size() < annotate::anchorsOf(kind)) return badInput("a dimension needs more places");
        for (const Anchor& a : anchors) {
            if (a.object && !given.find(a.object)) return badInput("what was picked is gone");
            if (annotate::isOfSides(kind) && a.on != Anchor::On::Side)
                return badInput("pick a side of a line or of an alignment");
        }
        Document d = given;
        objects::Dimension made{kind, anchors, line, styleIn(d)};
        return d.added(freshName<objects::Dimension>(d, "Dimension"), std::move(made));
    };
}

Edit moveDimension(ObjectId dimension, double offset) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Dimension>(dimension) == nullptr) return badInput("the dimension is gone");
        return changed<objects::Dimension>(d, dimension, [=](auto& x) { x.line.offset = offset; });
    };
}

std::optional<geometry::Segment> anchorSide(const Derived& derived, const Anchor& anchor) {
    if (anchor.on != Anchor::On::Side) return std::nullopt;
    if (const auto* line = Derived::in(derived.lines, anchor.object)) return at(line->path, anchor.index);
    if (const auto* alignment = Derived::in(derived.alignments, anchor.object))
        return at(alignment->path, anchor.index);
    return std::nullopt;
}

std::optional<geometry::Vec2> anchorPlace(const Derived& derived, const Anchor& anchor) {
    if (anchor.on != Anchor::On::Vertex) return placeOf(anchor, anchorSide(derived, anchor));
    if (const auto* points = derived.document.get<objects::Points>(anchor.object))
        return pointIn(*points, anchor.index);
    const auto* line = Derived::in(derived.lines, anchor.object);
    return line == nullptr ? std::nullopt : vertexIn(*line, anchor.index);
}

namespace {

/// From the corner of an angle, or the centre of an arc; of a radius, along it from its end inwards.
std::optional<double> radiusThrough(const Document& document, const Dimension& dimension,
                                    const std::vector<geometry::Vec2>& at, geometry::Vec2 place) {
    const auto side = anchorSide(document, dimension.anchors.front());
    if (!side) return std::nullopt;
    if (dimension.kind == DimensionKind::Angle) {
        const auto other = anchorSide(document, dimension.anchors.back());
        const auto corner =
            other ? annotate::cornerOfSides(*side, at.front(), *other, at.back()) : std::nullopt;
        return corner ? std::optional(geometry::distance(place, *corner)) : std::nullopt;
    }
    const auto arc = arcOf(*side);
    if (!arc) return std::nullopt;
    if (dimension.kind == DimensionKind::Delta) return geometry::distance(place, arc->centre);
    return std::clamp(geometry::distance(place, at.front()), 0.05 * arc->radius, arc->radius);
}

}  // namespace

std::optional<double> offsetThrough(const Document& document, const Dimension& dimension,
                                    geometry::Vec2 place) {
    std::vector<geometry::Vec2> at;
    for (const Anchor& a : dimension.anchors) {
        if (a.on == Anchor::On::Gone) return std::nullopt;
        at.push_back(anchorPlace(document, a).value_or(a.place));
    }
    if (at.empty()) return std::nullopt;
    if (annotate::isOfSides(dimension.kind)) return radiusThrough(document, dimension, at, place);
    geometry::Vec2 along = at.back() - at.front();
    const bool turned = dimension.kind == DimensionKind::Linear || dimension.kind == DimensionKind::Chain;
    if (dimension.line.azimuth && turned) along = geometry::directionOf(*dimension.line.azimuth);
    const double length = geometry::length(along);
    if (length < 1e-9) return std::nullopt;
    return -geometry::cross(along, place - at.front()) / length;
}

Edit dragDimension(ObjectId dimension, geometry::Vec2 place) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* of = d.get<objects::Dimension>(dimension);
        if (of == nullptr) return badInput("the dimension is gone");
        const auto offset = offsetThrough(d, *of, place);
        if (!offset) return badInput("what it measured is gone");
        return moveDimension(dimension, *offset)(d);
    };
}

Anchor anchorOn(const Derived& derived, ObjectId object, std::optional<std::size_t> part,
                geometry::Vec2 place) {
    if (const auto* parcel = derived.document.get<objects::Parcel>(object)) object = parcel->line;
    const auto* line = Derived::in(derived.lines, object);
    const auto* alignment = Derived::in(derived.alignments, object);
    const bool points = derived.document.get<objects::Points>(object) != nullptr;
    if (part && (points || (line != nullptr && *part < line->vertices.size())))
        return {Anchor::On::Vertex, object, *part, 0.5, place};
    const geometry::Path* path =
        line != nullptr ? &line->path : (alignment != nullptr ? &alignment->path : nullptr);
    const auto near = path != nullptr ? geometry::nearestOn(*path, place) : std::nullopt;
    if (!near) return {Anchor::On::Place, {}, 0, 0.5, place};
    return {Anchor::On::Side, object, near->segment, near->fraction, place};
}

Edit keepDimensionInPlace(ObjectId dimension) {
    return [=](const Document& d) -> Result<Edited> {
        return changed<objects::Dimension>(d, dimension, [](objects::Dimension& x) {
            for (Anchor& a : x.anchors)
                if (a.on == Anchor::On::Gone) a.on = Anchor::On::Place;
        });
    };
}

Edit addDimensionStyle() {
    return [](const Document& d) -> Result<Edited> {
        return d.added(freshName<objects::DimensionStyle>(d, "Dimensions"), objects::DimensionStyle{});
    };
}

Edit changeDimensionStyle(ObjectId style, std::function<void(annotate::DimensionStyle&)> change) {
    return [style, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<objects::DimensionStyle>(style);
        if (old == nullptr) return badInput("the style is gone");
        auto next = *old;
        change(next.style);
        if (auto valid = annotate::validate(next.style); !valid) return tl::unexpected(valid.error());
        return d.withPayload(style, next);
    };
}

}  // namespace erdwerk::operations
