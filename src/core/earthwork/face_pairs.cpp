#include "core/earthwork/face_pairs.h"

#include <cmath>

namespace erdwerk::earthwork {

std::optional<Segment> inBox(Vec2 on, Vec2 way, const geometry::Box& box) {
    double from = -1e18;
    double to = 1e18;
    const auto slab = [&](double at, double step, double low, double high) {
        if (std::abs(step) < 1e-15) {
            if (at < low || at > high) to = from;
            return;
        }
        const double a = (low - at) / step;
        const double b = (high - at) / step;
        from = std::max(from, std::min(a, b));
        to = std::min(to, std::max(a, b));
    };
    slab(on.x, way.x, box.minX, box.maxX);
    slab(on.y, way.y, box.minY, box.maxY);
    if (!(to > from)) return std::nullopt;
    return Segment{on + way * from, on + way * to};
}

geometry::Box common(const geometry::Box& a, const geometry::Box& b) {
    return {std::max(a.minX, b.minX), std::max(a.minY, b.minY), std::min(a.maxX, b.maxX),
            std::min(a.maxY, b.maxY)};
}

Vec2 gradientOf(const Facet& facet, std::size_t strip) {
    const Strip& s = facet.strips[strip];
    return facet.along * s.alongS + facet.out * s.alongD;
}

std::optional<Segment> meetingOf(const Facet& a, std::size_t stripOfA, const Facet& b, std::size_t stripOfB,
                                 const geometry::Box& room) {
    const Vec2 about = room.centre();
    const Vec2 difference = gradientOf(b, stripOfB) - gradientOf(a, stripOfA);
    const double size = geometry::length(difference);
    if (size < 1e-9) return std::nullopt;
    const double off = a.strips[stripOfA].height(a.own(about)) - b.strips[stripOfB].height(b.own(about));
    return inBox(about + difference * (off / (size * size)), geometry::leftOf(difference) * (1 / size), room);
}

bool sharesFlank(const Facet& a, const Facet& b) {
    const Vec2 corner = a.place(a.last.knots.front());
    if (geometry::distance(corner, b.place(b.first.knots.front())) > 1e-6) return false;
    const auto way = [](const Facet& f, const Flank& flank) {
        const Vec2 on = f.along * flank.onwards.s + f.out * flank.onwards.d;
        return on * (1 / geometry::length(on));
    };
    return geometry::distance(way(a, a.last), way(b, b.first)) < 1e-6;
}

FacePlaces::FacePlaces(const std::vector<Facet>& facets, const std::vector<FaceCells>& cells)
    : facets_(facets), boxes_(facets.size()), own_(facets.size()) {
    for (std::size_t i = 0; i < facets.size(); ++i)
        for (const FaceCell& c : cells[i].cells)
            for (const double s : {c.from, c.to})
                for (const double d : {cells[i].low(c, s), cells[i].high(c, s)}) {
                    own_[i].add(Vec2{s, d});
                    boxes_[i].add(facets[i].place({s, d}));
                }
    near_ = geometry::BoxIndex(boxes_);
}

/// Does a side of the first one's box in its own coordinates part it from the other's?
bool FacePlaces::isApart(std::size_t i, std::size_t k) const {
    geometry::Box other;
    for (const double s : {own_[k].minX, own_[k].maxX})
        for (const double d : {own_[k].minY, own_[k].maxY}) {
            const Along at = facets_[i].own(facets_[k].place({s, d}));
            other.add(Vec2{at.s, at.d});
        }
    return !own_[i].meets(other);
}

void FacePlaces::eachBeside(std::size_t i, const std::function<void(std::size_t)>& found) const {
    if (boxes_[i].empty()) return;
    near_.query(boxes_[i], [&](std::uint32_t k) {
        if (k != i && !boxes_[k].empty() && !isApart(i, k) && !isApart(k, i)) found(k);
        return true;
    });
}

bool areNeighbours(const EdgeFacets& made, std::size_t i, std::size_t k) {
    const auto follows = [&](std::size_t a, std::size_t b) {
        return made.nextOf(a) == b && sharesFlank(made.facets[a], made.facets[b]);
    };
    return follows(i, k) || follows(k, i);
}

}  // namespace erdwerk::earthwork
