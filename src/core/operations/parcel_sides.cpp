#include "core/operations/parcel_sides.h"

#include <algorithm>

#include "core/linework/path_crossings.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"

namespace erdwerk::operations {

using geometry::Vec2;

namespace {

/// Coordinates that were worked out twice differ by less.
constexpr double same = 1e-6;

bool meets(Vec2 a, Vec2 b) {
    return geometry::distance(a, b) < same;
}

/// The line of a parcel; null when it has none.
const linework::Line3D* lineOf(const Document& document, ObjectId parcel) {
    const auto* of = document.get<Parcel>(parcel);
    const auto* line = of == nullptr ? nullptr : document.get<Line>(of->line);
    return line == nullptr ? nullptr : &line->line;
}

bool sameSide(const geometry::Segment& a, const geometry::Segment& b) {
    // Half way along both lie on one place only when they bend alike.
    return meets(a.start, b.start) && meets(a.end, b.end) && meets(pointAt(a, 0.5), pointAt(b, 0.5));
}

}  // namespace

std::vector<LineCorner> cornersShared(const Document& document, ObjectId line, std::size_t vertex) {
    std::vector<LineCorner> out;
    const auto* own = document.get<Line>(line);
    const auto parcels = document.all<Parcel>();
    const bool isParcels = std::any_of(parcels.begin(), parcels.end(),
                                       [&](ObjectId id) { return document.get<Parcel>(id)->line == line; });
    if (!isParcels || own == nullptr || vertex >= own->line.vertices.size() ||
        !own->line.vertices[vertex].isCorner)
        return out;
    const Vec2 place = own->line.vertices[vertex].place;
    for (const ObjectId parcel : parcels) {
        const ObjectId other = document.get<Parcel>(parcel)->line;
        const auto* of = lineOf(document, parcel);
        // A boundary that follows others goes along by itself.
        if (of == nullptr || other == line || document.get<Line>(other)->follows) continue;
        for (std::size_t i = 0; i < of->vertices.size(); ++i)
            if (const LineCorner corner{other, i}; of->vertices[i].isCorner &&
                                                   meets(of->vertices[i].place, place) &&
                                                   std::find(out.begin(), out.end(), corner) == out.end())
                out.push_back(corner);
    }
    return out;
}

std::vector<LineCorner> cornersUnder(const Document& document, ObjectId boundary, std::size_t vertex) {
    std::vector<LineCorner> out;
    const auto* line = document.get<Line>(boundary);
    const auto* figure = line == nullptr ? nullptr : objects::figureOf(*line);
    if (figure == nullptr || vertex >= line->line.vertices.size()) return out;
    const Vec2 place = line->line.vertices[vertex].place;
    for (const ObjectId id : figure->lines) {
        const auto* of = document.get<Line>(id);
        if (of == nullptr || of->follows) continue;
        // Ends that only come near are within what the figure takes for touching.
        for (std::size_t i = 0; i < of->line.vertices.size(); ++i)
            if (of->line.vertices[i].isCorner &&
                geometry::distance(of->line.vertices[i].place, place) <= 2 * linework::pathsTouch)
                out.push_back({id, i});
    }
    return out;
}

std::optional<SharedSide> sideShared(const Document& document, ObjectId parcel, std::size_t side) {
    const auto* own = lineOf(document, parcel);
    if (own == nullptr) return std::nullopt;
    const auto path = planPath(*own);
    if (side >= path.size()) return std::nullopt;
    const auto back = geometry::reversed(path[side]);
    for (const ObjectId other : document.all<Parcel>()) {
        const auto* of = lineOf(document, other);
        if (other == parcel || of == nullptr || of == own) continue;
        const auto sides = planPath(*of);
        for (std::size_t i = 0; i < sides.size(); ++i) {
            if (sameSide(path[side], sides[i])) return SharedSide{other, i, true};
            if (sameSide(back, sides[i])) return SharedSide{other, i, false};
        }
    }
    return std::nullopt;
}

namespace {

/// The parcel on a line; none when there is none.
ObjectId parcelOn(const Document& document, ObjectId line) {
    for (const ObjectId id : document.all<Parcel>())
        if (document.get<Parcel>(id)->line == line) return id;
    return {};
}

}  // namespace

std::vector<LinePlace> placesShared(const Document& document, const LinePlace& at) {
    const ObjectId parcel = parcelOn(document, at.line);
    const auto shared = parcel ? sideShared(document, parcel, at.segment) : std::nullopt;
    if (!shared || document.get<Line>(document.get<Parcel>(shared->parcel)->line)->follows) return {};
    return {{document.get<Parcel>(shared->parcel)->line, std::nullopt, shared->side,
             shared->sameWay ? at.fraction : 1 - at.fraction}};
}

std::vector<LineCorner> cornersBetweenShared(const Document& document, ObjectId line, std::size_t vertex) {
    const ObjectId parcel = parcelOn(document, line);
    const auto* of = parcel ? lineOf(document, parcel) : nullptr;
    if (of == nullptr || vertex >= of->vertices.size() || !of->vertices[vertex].isCorner) return {};
    const auto path = planPath(*of);
    const Vec2 place = of->vertices[vertex].place;
    // The sides that end and begin there.
    std::vector<SharedSide> beside;
    for (std::size_t side = 0; side < path.size(); ++side)
        if (meets(path[side].start, place) || meets(path[side].end, place))
            if (const auto shared = sideShared(document, parcel, side)) beside.push_back(*shared);
    if (beside.size() != 2 || beside[0].parcel != beside[1].parcel) return {};
    const ObjectId other = document.get<Parcel>(beside[0].parcel)->line;
    if (document.get<Line>(other)->follows) return {};
    auto out = cornersShared(document, line, vertex);
    std::erase_if(out, [other](const LineCorner& c) { return c.line != other; });
    return out;
}

std::vector<std::pair<std::size_t, SharedSide>> sidesShared(const Document& document, ObjectId parcel) {
    std::vector<std::pair<std::size_t, SharedSide>> out;
    const auto* line = lineOf(document, parcel);
    const std::size_t sides = line == nullptr ? 0 : planPath(*line).size();
    for (std::size_t side = 0; side < sides; ++side)
        if (const auto shared = sideShared(document, parcel, side)) out.emplace_back(side, *shared);
    return out;
}

Edit nameNeighbours(ObjectId parcel) {
    return [parcel](const Document& d) -> Result<Edited> {
        if (lineOf(d, parcel) == nullptr) return badInput("the parcel is gone");
        Parcel next = *d.get<Parcel>(parcel);
        const auto shared = sidesShared(d, parcel);
        for (const auto& [side, with] : shared)
            if (std::none_of(next.adjoiners.begin(), next.adjoiners.end(),
                             [side = side](const Parcel::Named& n) { return n.part == side; }))
                next.adjoiners.push_back({side, d.nameOf(with.parcel)});
        if (shared.empty()) return badInput("no other parcel has a side of " + d.nameOf(parcel));
        return Edited(d.withPayload(parcel, std::move(next)), "Name the neighbours of " + d.nameOf(parcel));
    };
}

}  // namespace erdwerk::operations
