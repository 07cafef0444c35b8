#include "core/document/anchors.h"

#include "core/document/following.h"
#include "core/linework/line3d.h"
#include "core/objects/dimension.h"
#include "core/objects/line.h"
#include "core/objects/points.h"

namespace erdwerk::document {

using geometry::Vec2;
using objects::Anchor;

std::optional<geometry::Segment> anchorSide(const Document& document, const Anchor& anchor) {
    if (anchor.on != Anchor::On::Side) return std::nullopt;
    geometry::Path path;
    if (const auto* line = document.get<objects::Line>(anchor.object))
        path = planPath(line->line);
    else if (document.get<objects::Alignment>(anchor.object) != nullptr)
        path = alignmentIn(document, anchor.object).path;
    return anchor.index < path.size() ? std::optional(path[anchor.index]) : std::nullopt;
}

std::optional<Vec2> anchorPlace(const Document& document, const Anchor& anchor) {
    if (anchor.on == Anchor::On::Place) return anchor.place;
    if (const auto side = anchorSide(document, anchor)) return pointAt(*side, anchor.fraction);
    if (anchor.on != Anchor::On::Vertex) return std::nullopt;
    if (const auto* points = document.get<objects::Points>(anchor.object))
        return anchor.index < points->set.size() ? std::optional(points->set[anchor.index].plan)
                                                 : std::nullopt;
    const auto* line = document.get<objects::Line>(anchor.object);
    if (line == nullptr) return std::nullopt;
    const auto placed = linework::placed(line->line);
    return anchor.index < placed.vertices.size() ? std::optional(placed.vertices[anchor.index].place)
                                                 : std::nullopt;
}

Document withLostAnchors(const Document& before, Document after) {
    for (const ObjectId id : before.all<objects::Dimension>()) {
        const auto* was = before.get<objects::Dimension>(id);
        const auto* is = after.get<objects::Dimension>(id);
        if (is == nullptr || is == was || is->anchors.size() != was->anchors.size()) continue;
        auto next = *is;
        for (std::size_t i = 0; i < next.anchors.size(); ++i)
            if (next.anchors[i].on == Anchor::On::Gone && was->anchors[i].on != Anchor::On::Gone)
                if (const auto place = anchorPlace(before, was->anchors[i])) next.anchors[i].place = *place;
        if (!(next == *is)) after = after.withPayload(id, std::move(next));
    }
    return after;
}

}  // namespace erdwerk::document
