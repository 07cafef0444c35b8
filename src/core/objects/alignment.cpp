#include "core/objects/alignment.h"

namespace erdwerk::objects {

namespace {

/// Of its own; empty where the PIs give none.
geometry::Path ownPath(const Alignment& alignment) {
    if (alignment.pis.empty()) return alignment.elements;
    auto path = route::pathOf(alignment.pis);
    return path ? std::move(*path) : geometry::Path{};
}

}  // namespace

route::AlignmentGeometry geometryOf(const Alignment& alignment, const geometry::Path& ofLine) {
    geometry::Path path = alignment.line ? ofLine : ownPath(alignment);
    auto stationing = route::Stationing::withEquations(alignment.startStation, alignment.equations);
    return route::alignmentOn(alignment.reversed ? geometry::reversed(path) : std::move(path),
                              stationing ? *stationing : route::Stationing(alignment.startStation));
}

std::vector<route::SpeedMark> speedMarks(const Alignment& alignment, const route::AlignmentGeometry& on) {
    std::vector<route::SpeedMark> out;
    for (const DesignSpeed& s : alignment.speeds)
        if (const auto distance = on.stationing.distanceAt(s.station, on.length))
            out.push_back({*distance, s.speed});
    return out;
}

void Kind<Alignment>::references(const Alignment& object, const Visit& visit) {
    if (object.line) visit(object.line);
    if (object.criteria) visit(object.criteria);
    if (object.marking) visit(object.marking);
}

std::optional<Alignment> Kind<Alignment>::without(Alignment object, ObjectId gone) {
    if (object.line == gone) return std::nullopt;
    if (object.criteria == gone) object.criteria = {};
    if (object.marking == gone) object.marking = {};
    return object;
}

}  // namespace erdwerk::objects
