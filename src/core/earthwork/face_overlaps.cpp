#include "core/earthwork/face_overlaps.h"

#include <algorithm>
#include <cmath>

#include "core/earthwork/envelope.h"

namespace erdwerk::earthwork {

namespace {

constexpr double tiny = tinyLength;

std::vector<FaceLine> nearestOf(const std::vector<FaceLine>& caps) {
    std::vector<Piece> pieces;
    pieces.reserve(caps.size());
    for (const FaceLine& l : caps) pieces.push_back({l.s0, l.d0, l.s1, l.d1});
    std::vector<FaceLine> out;
    for (const Piece& p : lowerOf(std::move(pieces)))
        out.push_back({p.s0, p.d0, p.s1, p.d1, LineKind::Cap, Beside::Unknown, Beside::Unknown});
    return out;
}

/// The parts of a straight that lie on one strip of a face, in one piece over cells that follow each other.
std::vector<Share> onStrip(const FaceCells& all, std::size_t strip, Along a, Along b) {
    std::vector<Share> out;
    for (const FaceCells::Part& part : all.partsUnder(a, b)) {
        if (all.cells[part.cell].strip != strip) continue;
        if (!out.empty() && part.from - out.back().to < tiny)
            out.back().to = std::max(out.back().to, part.to);
        else
            out.push_back({part.from, part.to});
    }
    return out;
}

}  // namespace

/// What is left of a face beside the others.
FaceCells FaceOverlaps::of(std::size_t i) const {
    if (cells_[i].cells.empty()) return cells_[i];
    FaceLines caps(facets_[i]);
    FaceLines divides(facets_[i]);
    std::vector<std::size_t> over;     // same way, may lie over it from the edge on
    std::vector<std::size_t> against;  // the other way
    places_.eachBeside(i, [&](std::size_t k) {
        if (facets_[k].way == facets_[i].way) {
            if (areNeighbours(made_, i, k)) return;
            // One may lie over the other without a line on which they meet.
            if (!addMeetings(i, k, caps, divides, over) && isOver(i, k)) over.push_back(k);
        } else if (facets_[k].side != facets_[i].side && commonPlace(i, k)) {
            against.push_back(k);
            addOutline(i, k, divides);
            addHalfway(i, k, divides);
        }
    });
    for (const std::size_t k : over) addOutline(i, k, divides);
    if (caps.all().empty() && divides.all().empty()) return cells_[i];
    std::vector<FaceLine> lines = lines_[i];
    for (const FaceLine& l : nearestOf(caps.all())) lines.push_back(l);
    for (const FaceLine& l : divides.all()) lines.push_back(l);
    FaceCells out = divide_(i, std::move(lines));
    out.keep([&](std::uint32_t c) {
        const Along at = out.middle(out.cells[c]);
        if (!cells_[i].at(at)) return false;
        const auto takes = [&](std::size_t k) { return isTaken(i, at, k); };
        return std::none_of(over.begin(), over.end(), takes) &&
               std::none_of(against.begin(), against.end(), takes);
    });
    return out;
}

/// Lines of one height, where the other one is: beyond them it stays, or before them. False without any.
bool FaceOverlaps::addMeetings(std::size_t i, std::size_t k, FaceLines& caps, FaceLines& divides,
                               std::vector<std::size_t>& over) const {
    const Facet& face = facets_[i];
    const Facet& other = facets_[k];
    const geometry::Box room = common(places_.boxOf(i), places_.boxOf(k));
    bool any = false;
    for (std::size_t m = 0; m < face.strips.size(); ++m)
        for (std::size_t n = 0; n < other.strips.size(); ++n) {
            const auto line = meetingOf(face, m, other, n, room);
            if (!line) continue;
            const Vec2 difference = gradientOf(other, n) - gradientOf(face, m);
            // Beyond it the other one is higher when both fall, lower when both rise.
            const bool isCap = -face.way * geometry::dot(difference, face.out) > 0;
            const Along a = other.own(line->a);
            const Along b = other.own(line->b);
            for (const Share& part : onStrip(cells_[k], n, a, b)) {
                const Along from = face.own(other.place(between(a, b, part.from)));
                const Along to = face.own(other.place(between(a, b, part.to)));
                const auto strip = face.strips.size() > 1 ? std::optional(m) : std::nullopt;
                const std::size_t before = divides.all().size();
                any = true;
                (isCap ? caps : divides)
                    .add(from, to, isCap ? LineKind::Cap : LineKind::Divide, Beside::Unknown, Beside::Unknown,
                         strip);
                if (divides.all().size() > before && (over.empty() || over.back() != k)) over.push_back(k);
            }
        }
    return any;
}

/// The sides of another face's cells; those on the target only when it goes the other way: on its target
/// a face that stays lies beyond this one's.
void FaceOverlaps::addOutline(std::size_t i, std::size_t k, FaceLines& divides) const {
    const Facet& face = facets_[i];
    const Facet& other = facets_[k];
    const auto add = [&](Along a, Along b) {
        const Vec2 from = other.place(a);
        const Vec2 to = other.place(b);
        geometry::Box box;
        box.add(from);
        box.add(to);
        if (box.meets(places_.boxOf(i)))
            divides.add(face.own(from), face.own(to), LineKind::Divide, Beside::Unknown, Beside::Unknown);
    };
    const FaceCells& its = cells_[k];
    for (const CellSide& side : sidesOf(its.cells)) {
        const FaceLine& line = its.lines[side.line];
        if (line.kind != LineKind::Divide && (line.kind != LineKind::Target || other.way != face.way))
            add({side.from, line.at(side.from)}, {side.to, line.at(side.to)});
    }
    for (std::size_t c = 0; c < its.cells.size(); ++c) {
        const FaceCell& cell = its.cells[c];
        // Where nothing goes on.
        if (c == 0 || its.cells[c - 1].to < cell.from - tiny)
            add({cell.from, its.low(cell, cell.from)}, {cell.from, its.high(cell, cell.from)});
        if (c + 1 == its.cells.size() || its.cells[c + 1].from > cell.to + tiny)
            add({cell.to, its.low(cell, cell.to)}, {cell.to, its.high(cell, cell.to)});
    }
}

/// The straight on which both are as far from their sides.
void FaceOverlaps::addHalfway(std::size_t i, std::size_t k, FaceLines& divides) const {
    const Facet& face = facets_[i];
    const Facet& other = facets_[k];
    const geometry::Box room = common(places_.boxOf(i), places_.boxOf(k));
    const Vec2 about = room.centre();
    const Vec2 difference = other.out * (1 / other.scale) - face.out * (1 / face.scale);
    const double size = geometry::length(difference);
    if (size < tiny) return;
    const double off = face.own(about).d / face.scale - other.own(about).d / other.scale;
    const auto line =
        inBox(about + difference * (off / (size * size)), geometry::leftOf(difference) * (1 / size), room);
    if (line)
        divides.add(face.own(line->a), face.own(line->b), LineKind::Divide, Beside::Unknown, Beside::Unknown);
}

/// A place of a face that another one covers as well, in the first one's coordinates. Looks at the
/// corners and middles of both's cells.
std::optional<Along> FaceOverlaps::commonPlace(std::size_t i, std::size_t k) const {
    if (const auto place = placeWithin(i, k)) return place;
    const auto place = placeWithin(k, i);
    return place ? std::optional(facets_[i].own(facets_[k].place(*place))) : std::nullopt;
}
std::optional<Along> FaceOverlaps::placeWithin(std::size_t i, std::size_t k) const {
    const geometry::Box room = common(places_.boxOf(i), places_.boxOf(k));
    const Facet& face = facets_[i];
    const FaceCells& all = cells_[i];
    geometry::Box own;  // the room, in s and d
    for (const double x : {room.minX, room.maxX})
        for (const double y : {room.minY, room.maxY}) {
            const Along corner = face.own({x, y});
            own.add(Vec2{corner.s, corner.d});
        }
    for (const FaceCell& c : all.cells) {
        if (c.to < own.minX || c.from > own.maxX) continue;
        const double inset = (c.to - c.from) * 0.01;
        for (const double s : {c.from + inset, (c.from + c.to) / 2, c.to - inset}) {
            const double low = all.low(c, s);
            const double high = all.high(c, s);
            if (high < own.minY || low > own.maxY) continue;
            for (const double share : {0.01, 0.5, 0.99}) {
                const Along at{s, low + (high - low) * share};
                const Vec2 p = face.place(at);
                if (room.contains(p) && cells_[k].at(facets_[k].own(p))) return at;
            }
        }
    }
    return std::nullopt;
}
/// Does another face that goes the same way lie over it somewhere?
bool FaceOverlaps::isOver(std::size_t i, std::size_t k) const {
    const auto place = commonPlace(i, k);
    return place && isTaken(i, *place, k);
}

/// Does another face stay at a place of a face?
bool FaceOverlaps::isTaken(std::size_t i, Along at, std::size_t k) const {
    const Facet& face = facets_[i];
    const Facet& other = facets_[k];
    const Along there = other.own(face.place(at));
    if (!cells_[k].at(there)) return false;
    if (other.way != face.way) return there.d / other.scale < at.d / face.scale;
    return -face.way * (other.height(there) - face.height(at)) > 0;
}

}  // namespace erdwerk::earthwork
