#include "core/parcel/split.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numbers>

namespace erdwerk::parcel {

namespace {

using geometry::Segment;

Vec2 ahead(Angle direction) {
    return {std::sin(direction.radians()), std::cos(direction.radians())};
}

/// Positive to the right of the line.
double rightOf(Vec2 p, Vec2 place, Vec2 way) {
    return (p.x - place.x) * way.y - (p.y - place.y) * way.x;
}

/// Fractions of a segment, strictly within, where it crosses the line, rising.
std::vector<double> cuts(const Segment& s, Vec2 place, Vec2 way) {
    std::vector<double> out;
    const auto take = [&](double f) {
        if (f > 1e-12 && f < 1 - 1e-12) out.push_back(f);
    };
    const double a = rightOf(s.start, place, way);
    const double b = rightOf(s.end, place, way);
    const auto arc = arcOf(s);
    if (!arc) {
        if ((a > 0) != (b > 0) && a != b) take(a / (a - b));
        return out;
    }
    // Where the circle meets the line, as turns from the start.
    const double off = rightOf(arc->centre, place, way);
    if (std::abs(off) >= arc->radius) return out;
    const double half = std::sqrt(arc->radius * arc->radius - off * off);
    const Vec2 foot = arc->centre - Vec2{way.y, -way.x} * off;
    for (const double side : {-half, half}) {
        const Vec2 at = foot + way * side;
        const double turn = (geometry::azimuth(arc->centre, at) - arc->startAzimuth).normalized().radians();
        const double sweep = arc->sweep.radians();
        take(sweep > 0 ? turn / sweep : (2 * std::numbers::pi - turn) / -sweep);
    }
    std::sort(out.begin(), out.end());
    return out;
}

/// Part of an element between two fractions.
Segment piece(const Segment& s, double from, double to) {
    return from == 0 && to == 1 ? s : part(s, from, to);
}

/// Every piece of the figure between the places where it crosses the line.
void eachPiece(const Path& figure, Vec2 place, Vec2 way,
               const std::function<void(const Segment&, bool)>& visit) {
    for (const Segment& s : figure) {
        auto stops = cuts(s, place, way);
        stops.push_back(1);
        double from = 0;
        for (const double to : stops) {
            const Segment p = piece(s, from, to);
            visit(p, rightOf(pointAt(p, 0.5), place, way) > 0);
            from = to;
        }
    }
}

Result<SplitFigure> split(const Path& figure, Vec2 place, Angle direction) {
    Path right;
    Path left;
    const Vec2 way = ahead(direction);
    // Beginning where the figure comes over to the right: the first path is in one go.
    std::vector<std::pair<Segment, bool>> pieces;
    eachPiece(figure, place, way, [&](const Segment& s, bool isRight) { pieces.emplace_back(s, isRight); });
    std::size_t changes = 0;
    std::size_t begin = 0;
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        const bool before = pieces[(i + pieces.size() - 1) % pieces.size()].second;
        if (before == pieces[i].second) continue;
        ++changes;
        if (pieces[i].second) begin = i;
    }
    if (changes == 0) return badInput("the cut does not cross the boundary");
    if (changes > 2) return badInput("the cut crosses the boundary " + std::to_string(changes) + " times");
    std::rotate(pieces.begin(), pieces.begin() + static_cast<std::ptrdiff_t>(begin), pieces.end());
    for (const auto& [s, isRight] : pieces) (isRight ? right : left).push_back(s);
    const Vec2 a = right.front().start;
    const Vec2 b = right.back().end;
    right.push_back({b, a, std::nullopt});
    left.insert(left.begin(), Segment{a, b, std::nullopt});
    return SplitFigure{std::move(right), std::move(left)};
}

double extentOf(const Path& figure) {
    const auto box = boundsOf(figure);
    return std::hypot(box.width(), box.height());
}

/// Where a rising function reaches a value, to the last bits; it is 0 and the whole at the ends.
double solve(double low, double high, double wanted, const std::function<double(double)>& at) {
    for (int i = 0; i < 200 && low < high; ++i) {
        const double mid = low + (high - low) / 2;
        if (mid == low || mid == high) break;
        (at(mid) < wanted ? low : high) = mid;
    }
    return low + (high - low) / 2;
}

Result<double> wholeOf(const Path& figure, double area) {
    if (figure.empty() || geometry::distance(figure.front().start, figure.back().end) > 1e-6)
        return badInput("only a closed figure can be divided");
    const double whole = std::abs(geometry::signedArea(figure));
    if (!(area > 0) || area >= whole) return badInput("the area lies between 0 and the whole");
    return whole;
}

}  // namespace

double areaRightOf(const Path& figure, Vec2 place, Angle direction) {
    double sum = 0;
    eachPiece(figure, place, ahead(direction), [&](const Segment& s, bool isRight) {
        if (!isRight) return;
        const Vec2 a = s.start - place;
        const Vec2 b = s.end - place;
        // A bulge to the left of a counter-clockwise boundary lies inside it with a minus.
        sum += 0.5 * (a.x * b.y - a.y * b.x) - bulgeArea(s);
    });
    return std::abs(sum);
}

Result<SplitFigure> splitAlong(const Path& figure, Vec2 from, Vec2 to) {
    if (auto whole = wholeOf(figure, 1e-300); !whole) return tl::unexpected(whole.error());
    if (geometry::distance(from, to) == 0) return badInput("a cut needs two places");
    return split(figure, from, geometry::azimuth(from, to));
}

Result<SplitFigure> splitOffParallel(const Path& figure, std::size_t side, double area) {
    if (auto whole = wholeOf(figure, area); !whole) return tl::unexpected(whole.error());
    if (side >= figure.size()) return badInput("there is no such side");
    const Segment& along = figure[side];
    if (isCurved(along)) return badInput("only along a straight side");
    Angle direction = geometry::azimuth(along.start, along.end);
    // The part beside the side comes to lie on the right of the cut: the figure on the left of it.
    const bool clockwise = geometry::signedArea(figure) < 0;
    if (clockwise) direction = direction + Angle::radians(std::numbers::pi);
    const Vec2 way = ahead(direction);
    const Vec2 inwards{-way.y, way.x};
    // Parts of a figure may reach beyond its side.
    const double reach = extentOf(figure);
    const auto at = [&](double off) { return areaRightOf(figure, along.start + inwards * off, direction); };
    const double off = solve(-reach, reach, area, at);
    return split(figure, along.start + inwards * off, direction);
}

Result<SplitFigure> splitOffThrough(const Path& figure, Vec2 place, double area) {
    if (auto whole = wholeOf(figure, area); !whole) return tl::unexpected(whole.error());
    const auto nearest = nearestOn(figure, place);
    if (std::abs(nearest->distance) > 1e-6 * (1 + extentOf(figure)))
        return badInput("the place does not lie on the boundary");
    // Looking from the place, the right hand side grows from nothing to all while the line turns by half a
    // turn from along the boundary; beyond a place where the boundary bends inwards it may not.
    const Segment& on = figure[nearest->segment];
    const bool clockwise = geometry::signedArea(figure) < 0;
    Angle start = tangentAt(on, nearest->fraction);
    if (!clockwise) start = start + Angle::radians(std::numbers::pi);
    // From looking back along the boundary, turning to looking ahead.
    const auto direction = [&](double turn) { return Angle::radians(start.radians() + turn); };
    const auto at = [&](double turn) { return areaRightOf(figure, nearest->place, direction(turn)); };
    constexpr int steps = 720;
    double low = 0;
    double before = at(0);
    for (int i = 1; i <= steps; ++i) {
        const double turn = 2 * std::numbers::pi * i / steps;
        const double now = at(turn);
        if ((before - area) * (now - area) <= 0 && before != now) {
            const bool rising = now > before;
            const double found =
                solve(low, turn, rising ? area : -area, [&](double t) { return rising ? at(t) : -at(t); });
            if (auto done = split(figure, nearest->place, direction(found))) return done;
        }
        low = turn;
        before = now;
    }
    return badInput("no straight cut through this place gives that area");
}

}  // namespace erdwerk::parcel
