#include "core/earthwork/flood.h"

#include <array>
#include <cmath>
#include <limits>

namespace erdwerk::earthwork {

namespace {

/// Gaps smaller than this are looked at closely.
constexpr double clear = 1e-6;

}  // namespace

std::optional<Opened::Bit> Opened::bitOf(Cell c) const {
    const int column = c.column - first_.column + 32;
    if (column < 0 || column >= 64) return std::nullopt;
    const int rise = c.row - first_.row;
    return Bit{static_cast<std::size_t>(rise < 0 ? -2 * rise - 1 : 2 * rise),
               std::uint64_t{1} << static_cast<unsigned>(column)};
}

bool Opened::add(Cell c, std::size_t number) {
    const auto at = bitOf(c);
    if (!at) return far_.insert(static_cast<std::uint32_t>(number)).second;
    if (at->row >= rows_.size()) rows_.resize(at->row + 1, 0);
    if ((rows_[at->row] & at->bit) != 0) return false;
    rows_[at->row] |= at->bit;
    return true;
}

bool Opened::has(Cell c, std::size_t number) const {
    const auto at = bitOf(c);
    if (!at) return far_.contains(static_cast<std::uint32_t>(number));
    return at->row < rows_.size() && (rows_[at->row] & at->bit) != 0;
}

Flood::Flood(const Facet& facet, const terrain::TinLocator& surface)
    : facet_(facet),
      surface_(surface),
      tin_(surface.tin()),
      found_(facet),
      opened_(surface.cellAt(facet.origin)) {
    half_ = surface.cellSize() / 2 * (1 + 1e-5);
    halfS_ = half_ * (std::abs(facet.along.x) + std::abs(facet.along.y));
    halfD_ = half_ * (std::abs(facet.out.x) + std::abs(facet.out.y));
    planes_.reserve(facet.strips.size());
    for (const Strip& s : facet.strips)
        planes_.push_back({s.atOrigin, facet.along * s.alongS + facet.out * s.alongD});
}

void Flood::run() {
    wentOver_.clear();
    for (; next_ < open_.size(); ++next_) {
        const Cell cell = open_[next_];
        if (!isUnder(cell)) continue;
        const Lies lies = liesIn(cell);
        if (lies == Lies::Beyond) continue;
        wentOver_.push_back(cell);
        if (lies == Lies::Both)
            for (const std::uint32_t t : surface_.trianglesIn(cell)) visit(t);
        open({cell.row, cell.column - 1});
        open({cell.row, cell.column + 1});
        open({cell.row - 1, cell.column});
        open({cell.row + 1, cell.column});
    }
}

void Flood::open(Cell cell) {
    if (surface_.has(cell) && opened_.add(cell, surface_.numberOf(cell))) open_.push_back(cell);
}

bool Flood::wants(Cell cell) const {
    return surface_.has(cell) && !opened_.has(cell, surface_.numberOf(cell)) && isUnder(cell);
}

/// Is any of it between the flanks?
bool Flood::isUnder(Cell cell) const {
    const Along middle = facet_.own(surface_.centreOf(cell));
    const double inmost = std::max(middle.d - halfD_, 0.0);
    const double outmost = middle.d + halfD_;
    if (outmost < 0) return false;
    return std::max(middle.s - halfS_, found_.firstFrom(inmost, outmost)) <=
           std::min(middle.s + halfS_, found_.lastTo(inmost, outmost));
}

/// How the face lies to the ground of a cell, by the heights of both.
Flood::Lies Flood::liesIn(Cell cell) const {
    const auto heights = surface_.heightsIn(cell);
    if (heights.least > heights.most) return Lies::Beyond;  // there is no ground
    const Vec2 middle = surface_.centreOf(cell) - facet_.origin;
    bool isBefore = false;
    bool isBeyond = false;
    for (const Plane& plane : planes_) {
        const double at = plane.atOrigin + geometry::dot(plane.grows, middle);
        const double most = half_ * (std::abs(plane.grows.x) + std::abs(plane.grows.y)) + clear;
        const bool over = heights.most > at - most;
        const bool under = heights.least < at + most;
        isBefore = isBefore || (facet_.way > 0 ? over : under);
        isBeyond = isBeyond || (facet_.way > 0 ? under : over);
    }
    if (!isBefore) return Lies::Beyond;
    return isBeyond ? Lies::Both : Lies::Before;
}

void Flood::visit(std::uint32_t t) {
    std::array<Vec3, 3> at;
    for (std::size_t i = 0; i < 3; ++i) {
        const Vec3& p = tin_.vertex(tin_.corner(t, static_cast<int>(i)));
        at[i] = {p.x - facet_.origin.x, p.y - facet_.origin.y, p.z};
    }
    bool isMet = false;
    bool isBefore = false;
    for (const Plane& plane : planes_) {
        double least = std::numeric_limits<double>::infinity();
        double most = -least;
        for (const Vec3& p : at) {
            const double gap = facet_.way * (p.z - plane.atOrigin - geometry::dot(plane.grows, p.plan()));
            least = std::min(least, gap);
            most = std::max(most, gap);
        }
        isMet = isMet || (least < clear && most > -clear);
        isBefore = isBefore || most > 0;
    }
    const bool isRim = isBefore && isAtRim(t);
    if ((!isMet && !isRim) || !met_.insert(t).second) return;
    std::array<Corner, 3> corners;
    for (std::size_t i = 0; i < 3; ++i) {
        const std::uint32_t v = tin_.corner(t, static_cast<int>(i));
        corners[i] = {v, facet_.own(tin_.vertex(v).plan()), tin_.vertex(v).z};
    }
    if (isMet)
        for (std::size_t k = 0; k < facet_.strips.size(); ++k) meet(corners, k);
    if (isRim) runOut(t, corners);
}

bool Flood::isAtRim(std::uint32_t t) const {
    for (int i = 0; i < 3; ++i)
        if (tin_.neighbour(t, i) == terrain::Tin::none) return true;
    return false;
}

/// Over sides without a neighbour.
void Flood::runOut(std::uint32_t t, const std::array<Corner, 3>& corners) {
    for (std::size_t i = 0; i < 3; ++i) {
        if (tin_.neighbour(t, static_cast<int>(i)) != terrain::Tin::none) continue;
        const Corner& a = corners[(i + 1) % 3];
        const Corner& b = corners[(i + 2) % 3];
        const Share part = before(a, b);
        if (!part.empty())
            found_.add(between(a.at, b.at, part.from), between(a.at, b.at, part.to), LineKind::Rim,
                       Beside::Nothing, Beside::Nothing);
    }
}

/// Where the triangle's plane is that of a strip.
void Flood::meet(const std::array<Corner, 3>& corners, std::size_t strip) {
    std::array<double, 3> gap{};
    for (std::size_t i = 0; i < 3; ++i)
        gap[i] = facet_.way * (corners[i].z - facet_.strips[strip].height(corners[i].at));
    std::array<Along, 2> on;
    std::size_t count = 0;
    for (std::size_t i = 0; i < 3 && count < 2; ++i) {
        std::size_t a = i;
        std::size_t b = (i + 1) % 3;
        if ((gap[a] > 0) == (gap[b] > 0)) continue;
        // The same figure from both sides of the triangle's side.
        if (corners[a].vertex > corners[b].vertex) std::swap(a, b);
        const double f = gap[a] / (gap[a] - gap[b]);
        on[count++] = {corners[a].at.s + (corners[b].at.s - corners[a].at.s) * f,
                       corners[a].at.d + (corners[b].at.d - corners[a].at.d) * f};
    }
    if (count != 2) return;
    if (on[0].s > on[1].s) std::swap(on[0], on[1]);
    // On which hand the face lies before the ground: where the corner is that counts most.
    const auto far = static_cast<std::size_t>(std::distance(
        gap.begin(), std::max_element(gap.begin(), gap.end(),
                                      [](double a, double b) { return std::abs(a) < std::abs(b); })));
    const Along to = corners[far].at;
    const double turn = (on[1].s - on[0].s) * (to.d - on[0].d) - (on[1].d - on[0].d) * (to.s - on[0].s);
    const bool outerIsBefore = (turn > 0) == (gap[far] > 0);
    found_.add(on[0], on[1], LineKind::Target, outerIsBefore ? Beside::Beyond : Beside::Face,
               outerIsBefore ? Beside::Face : Beside::Beyond,
               facet_.strips.size() > 1 ? std::optional(strip) : std::nullopt);
}

/// The part of a triangle's side over which the face lies before the ground.
Share Flood::before(const Corner& a, const Corner& b) const {
    const auto gapAt = [&](double t) { return facet_.gap(between(a.at, b.at, t), a.z + (b.z - a.z) * t); };
    const double atFrom = gapAt(0);
    const double atTo = gapAt(1);
    Share part;
    if (facet_.strips.size() == 1) {
        // Linear along the side.
        part.keep(atFrom, atTo);
        return part;
    }
    if (atFrom > 0 || atTo > 0) return part;
    // A step may look out between both ends.
    for (double t = 0.125; t < 1; t += 0.125)
        if (gapAt(t) > 0) return part;
    return {0, 0};
}

}  // namespace erdwerk::earthwork
