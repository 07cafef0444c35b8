#include "core/operations/parcel_split.h"

#include <algorithm>

#include "core/geometry/element.h"
#include "core/geometry/inside.h"
#include "core/linework/enclosure.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/operations/free_name.h"

namespace erdwerk::operations {

namespace {

using geometry::Path;
using geometry::Vec2;
using linework::Line3D;

/// The figure of the parcel's line in the line's own direction.
const Path* figureOf(const Derived& derived, ObjectId parcel) {
    const auto* of = derived.document.get<Parcel>(parcel);
    const auto* line = of == nullptr ? nullptr : Derived::in(derived.lines, of->line);
    return line == nullptr ? nullptr : &line->path;
}

/// A closed line along a path; corners where the old line has one keep what they have.
Line3D lineAlong(const Path& path, const Line3D& old) {
    Line3D out = linework::lineRound(path);
    for (auto& corner : out.vertices)
        for (const auto& v : old.vertices)
            if (v.isCorner && v.place == corner.place) {
                corner.rule = v.rule;
                corner.curve = v.curve;
            }
    return out;
}

bool hasCorner(const Path& path, Vec2 place) {
    return std::any_of(path.begin(), path.end(), [&](const auto& s) { return s.start == place; });
}

/// Names of sides and corners that lie on the other part go there.
Parcel othersNames(const Parcel& of, const Line3D& old, const Line3D& part) {
    Parcel out;
    out.wording = of.wording;
    out.areas = of.areas;
    const auto path = planPath(part);
    const auto whole = planPath(old);
    for (const auto& named : of.adjoiners) {
        if (named.part >= whole.size()) continue;
        const Vec2 middle = pointAt(whole[named.part], 0.5);
        for (std::size_t i = 0; i < path.size(); ++i)
            if (geometry::distance(pointAt(path[i], nearestFraction(path[i], middle)), middle) < 1e-6)
                out.adjoiners.push_back({i, named.name});
    }
    for (const auto& named : of.things) {
        if (named.part >= whole.size()) continue;
        for (std::size_t i = 0; i < path.size(); ++i)
            if (path[i].start == whole[named.part].start) out.things.push_back({i, named.name});
    }
    return out;
}

}  // namespace

Result<parcel::SplitFigure> splitOf(const Derived& derived, ObjectId parcel, const ParcelCut& cut) {
    const Path* figure = figureOf(derived, parcel);
    if (figure == nullptr || figure->empty()) return badInput("the parcel has no boundary");
    switch (cut.by) {
        case ParcelCut::By::Parallel: {
            const auto on = nearestOn(*figure, cut.from);
            return parcel::splitOffParallel(*figure, on->segment, cut.area);
        }
        case ParcelCut::By::Through: {
            // A click is near the boundary, not on it.
            const auto on = nearestOn(*figure, cut.from);
            return parcel::splitOffThrough(*figure, on->place, cut.area);
        }
        case ParcelCut::By::Line:
            break;
    }
    return parcel::splitAlong(*figure, cut.from, cut.to);
}

namespace {

struct FigureRound {
    Path figure;
    std::vector<ObjectId> lines;  ///< that it is made of
};

Result<FigureRound> linesRound(const Derived& derived, Vec2 place) {
    const auto& hidden = derived.document.shown().hidden;
    std::vector<Path> paths;
    std::vector<ObjectId> ids;
    for (const auto& [id, line] : derived.lines) {
        const ObjectId group = derived.document.find(id)->group;
        const bool shown = hidden.count(id) == 0 && (!group || hidden.count(group) == 0);
        // What follows the figure of others lies on them.
        if (!shown || line->path.empty() || objects::figureOf(*derived.document.get<Line>(id)) != nullptr)
            continue;
        paths.push_back(line->path);
        ids.push_back(id);
    }
    auto made = linework::enclosureOf(paths, place);
    if (!made) return tl::unexpected(made.error());
    FigureRound out{std::move(made->figure), {}};
    for (const std::size_t path : made->paths) out.lines.push_back(ids[path]);
    return out;
}

}  // namespace

Result<Path> figureRound(const Derived& derived, Vec2 place) {
    auto made = linesRound(derived, place);
    if (!made) return tl::unexpected(made.error());
    return std::move(made->figure);
}

Edit parcelRound(const Results& seen, Vec2 place) {
    return document::onlyWhileSame(
        seen->document, seen->document.all<Line>(), [=](const Document& d) -> Result<Edited> {
            const auto made = linesRound(*seen, place);
            if (!made) return tl::unexpected(made.error());
            Line boundary{linework::lineRound(made->figure)};
            boundary.follows = std::make_shared<const objects::Follows>(objects::FigureOf{
                made->lines, geometry::placeInside(geometry::flattened(made->figure, 1e-3))});
            ObjectId line;
            const Document out =
                d.added(document::freshName<Line>(d, "Boundary"), std::move(boundary), &line);
            return out.added(document::freshName<Parcel>(d, "Parcel"), Parcel{line, false, 0, {}});
        });
}

Edit splitParcel(const Results& seen, ObjectId parcel, const ParcelCut& cut) {
    const auto* at = seen->document.get<Parcel>(parcel);
    const ObjectId line = at == nullptr ? ObjectId{} : at->line;
    return document::onlyWhileSame(seen->document, {parcel, line}, [=](const Document& d) -> Result<Edited> {
        const auto parts = splitOf(*seen, parcel, cut);
        if (!parts) return tl::unexpected(parts.error());
        const auto* of = d.get<Parcel>(parcel);
        const auto* on = d.get<Line>(line);
        if (of == nullptr || on == nullptr) return badInput("the parcel is gone");
        const bool isFigure = objects::figureOf(*on) != nullptr;
        if (on->follows && !isFigure) return badInput("its boundary follows other lines: loosen it first");
        const auto whole = planPath(on->line);
        const std::size_t begin = of->reversed ? (whole.size() - of->begin % whole.size()) % whole.size()
                                               : of->begin % whole.size();
        const bool firstStays = hasCorner(parts->first, whole[begin].start);
        const Line3D stays = lineAlong(firstStays ? parts->first : parts->second, on->line);
        const Line3D goes = lineAlong(firstStays ? parts->second : parts->first, on->line);
        Line kept = *on;
        kept.follows = nullptr;
        kept.line = stays;
        Line other = kept;
        other.line = goes;
        ObjectId otherLine;
        Document out = d.withPayload(line, std::move(kept));
        out = out.added(freeName<Line>(d, d.nameOf(line)), std::move(other), &otherLine, d.find(line)->group);
        Parcel next = othersNames(*of, on->line, goes);
        next.line = otherLine;
        out = document::changed<Parcel>(out, parcel, [&](Parcel& p) {
            // In the numbers of the line as it was: they are carried along with the rest.
            const auto gone = [&](Vec2 place) {
                return !hasCorner(planPath(stays), place) && hasCorner(planPath(goes), place);
            };
            std::erase_if(p.adjoiners,
                          [&](const auto& n) { return n.part < whole.size() && gone(whole[n.part].start); });
            std::erase_if(p.things,
                          [&](const auto& n) { return n.part < whole.size() && gone(whole[n.part].start); });
        });
        Edited done(out.added(freeName<Parcel>(d, d.nameOf(parcel)), std::move(next)));
        if (isFigure) done.said = "Its boundary no longer follows the lines that it was picked from";
        return done;
    });
}

}  // namespace erdwerk::operations
