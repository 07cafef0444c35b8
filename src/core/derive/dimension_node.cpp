// Dimensions: what they measure now.

#include "core/derive/evaluation.h"
#include "core/derive/measured.h"
#include "core/geometry/element.h"
#include "core/objects/anchor.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/points.h"
#include "core/route/alignment.h"

namespace erdwerk::derive {

namespace {

using annotate::MeasuredPlace;

MeasuredPlace onSide(const geometry::Path& path, const Anchor& anchor) {
    const auto& side = path[anchor.index];
    return {pointAt(side, anchor.fraction), {}, side};
}

std::optional<MeasuredPlace> onPoints(const Points& points, const Anchor& anchor) {
    if (anchor.index >= points.set.size()) return std::nullopt;
    const auto& p = points.set[anchor.index];
    return MeasuredPlace{p.plan, p.height, {}};
}

std::optional<MeasuredPlace> onAlignment(const route::AlignmentGeometry& along, const Anchor& anchor) {
    if (anchor.on != Anchor::On::Side || anchor.index >= along.path.size()) return std::nullopt;
    return onSide(along.path, anchor);
}

std::optional<MeasuredPlace> onLine(const linework::ResolvedLine& line, const Anchor& anchor) {
    if (anchor.on == Anchor::On::Vertex) {
        if (anchor.index >= line.vertices.size()) return std::nullopt;
        const auto& v = line.vertices[anchor.index];
        return MeasuredPlace{v.place, linework::heightAt(line, v.distance), {}};
    }
    if (anchor.index >= line.path.size()) return std::nullopt;
    double start = 0;
    for (std::size_t i = 0; i < anchor.index; ++i) start += lengthOf(line.path[i]);
    auto out = onSide(line.path, anchor);
    out.height = linework::heightAt(line, start + anchor.fraction * lengthOf(line.path[anchor.index]));
    return out;
}

/// What anchors hold on to, as it is now, and the dimension of that. `line` and `alignment` give those of an
/// id, or null.
template <class LineOf, class AlignmentOf>
annotate::Dimensioned measuredBy(const Document& document, const Dimension& dimension,
                                 const annotate::DimensionStyle& style, const LineOf& line,
                                 const AlignmentOf& alignment) {
    std::vector<MeasuredPlace> at;
    for (const Anchor& anchor : dimension.anchors) {
        std::optional<MeasuredPlace> place;
        if (anchor.on == Anchor::On::Place)
            place = MeasuredPlace{anchor.place, {}, {}};
        else if (const auto* points = document.get<Points>(anchor.object))
            place = onPoints(*points, anchor);
        else if (const auto& along = alignment(anchor.object))
            place = onAlignment(*along, anchor);
        else if (const auto& resolved = line(anchor.object))
            place = onLine(*resolved, anchor);
        if (!place) return {{}, "what it measured is gone"};
        at.push_back(*place);
    }
    return annotate::measure(dimension.kind, at, dimension.line, style, document.settings().display);
}

}  // namespace

annotate::Dimensioned measured(const Derived& derived, const Dimension& dimension,
                               const annotate::DimensionStyle& style) {
    return measuredBy(
        derived.document, dimension, style, [&](ObjectId id) { return Derived::in(derived.lines, id); },
        [&](ObjectId id) { return Derived::in(derived.alignments, id); });
}

void work(Evaluation& evaluation, ObjectId id, const Dimension& dimension) {
    const Document& document = evaluation.document;
    std::vector<Input> inputs{document.find(id), document.find(dimension.style), document.settingsPointer()};
    for (const Anchor& anchor : dimension.anchors) {
        if (!anchor.object) continue;
        if (document.get<Points>(anchor.object) != nullptr) {
            inputs.push_back(document.find(anchor.object));
        } else {
            inputs.push_back(evaluation.alignment(anchor.object));
            inputs.push_back(evaluation.line(anchor.object));
        }
    }
    evaluation.out.dimensions[id] =
        evaluation.remembered<annotate::Dimensioned>("dimension", id, std::move(inputs), {}, [&] {
            const auto* style = document.get<DimensionStyle>(dimension.style);
            return measuredBy(
                document, dimension, style != nullptr ? style->style : annotate::DimensionStyle{},
                [&](ObjectId of) { return evaluation.line(of); },
                [&](ObjectId of) { return evaluation.alignment(of); });
        });
}

}  // namespace erdwerk::derive
