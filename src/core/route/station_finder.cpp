#include "core/route/station_finder.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace erdwerk::route {

namespace {

double squareTo(const geometry::Box& box, Vec2 p) {
    const double dx = std::max({0.0, box.minX - p.x, p.x - box.maxX});
    const double dy = std::max({0.0, box.minY - p.y, p.y - box.maxY});
    return dx * dx + dy * dy;
}

}  // namespace

StationFinder::StationFinder(const AlignmentGeometry& alignment) {
    parts_.reserve(alignment.path.size());
    for (std::size_t i = 0; i < alignment.path.size(); ++i) {
        Piece part{elementOf(alignment.path[i]), boundsOf(alignment.path[i]), alignment.starts[i],
                   lengthOf(alignment.path[i])};
        if (const auto* spiral = std::get_if<geometry::Clothoid>(&part.element)) {
            const double most =
                std::max(std::abs(spiral->shape.startCurvature), std::abs(spiral->shape.endCurvature));
            const int n = 4 + static_cast<int>(std::min(1e5, 4 * most * part.length));
            for (int k = 0; k <= n; ++k) {
                const double f = static_cast<double>(k) / n;
                part.samples.push_back(
                    {f, k == n ? spiral->end : spiral->at(f), geometry::directionOf(spiral->direction(f))});
            }
        }
        parts_.push_back(std::move(part));
    }
}

StationFinder::Near StationFinder::nearestOfSpiral(const Piece& part, const geometry::Clothoid& spiral,
                                                   Vec2 p) {
    const auto& samples = part.samples;
    Near best{0, samples.front().place};
    double least = std::numeric_limits<double>::infinity();
    const auto offer = [&](double fraction, Vec2 place) {
        const Vec2 off = p - place;
        if (const double square = dot(off, off); square < least) {
            least = square;
            best = {fraction, place};
        }
    };
    offer(0, samples.front().place);
    offer(1, samples.back().place);
    const auto ahead = [&](const Sample& s) { return dot(p - s.place, s.way); };
    double a = ahead(samples.front());
    for (std::size_t k = 1; k < samples.size(); ++k) {
        const double b = ahead(samples[k]);
        // Nearest where what lay ahead comes to lie behind.
        if (a >= 0 && b <= 0 && a > b) {
            const Sample& from = samples[k - 1];
            double f = from.fraction + (samples[k].fraction - from.fraction) * a / (a - b);
            Vec2 place;
            for (int step = 0; step < 12; ++step) {
                const Vec2 way =
                    geometry::directionOf(spiral.azimuth + Angle::radians(spiral.shape.turnedAt(f)));
                place = from.place + spiral.turned(spiral.shape.way(from.fraction, f));
                const Vec2 off = p - place;
                // The rate at which it falls behind: 1 less what the bend takes towards the place.
                const double rate = part.length * (1 + spiral.curvature(f) * cross(way, off));
                if (rate <= 0) break;
                const double next = std::clamp(f + dot(off, way) / rate, from.fraction, samples[k].fraction);
                const bool done = std::abs(next - f) * part.length < 1e-12 * (1 + part.length);
                f = next;
                if (done) break;
            }
            offer(f, from.place + spiral.turned(spiral.shape.way(from.fraction, f)));
        }
        a = b;
    }
    return best;
}

StationFinder::Near StationFinder::nearestOf(const Piece& part, Vec2 p) {
    if (const auto* spiral = std::get_if<geometry::Clothoid>(&part.element))
        return nearestOfSpiral(part, *spiral, p);
    return std::visit(
        [p](const auto& e) {
            const double t = e.nearest(p);
            return Near{t, t <= 0 ? e.start : (t >= 1 ? e.end : e.at(t))};
        },
        part.element);
}

Vec2 StationFinder::directionAt(std::size_t part, double fraction) const {
    return std::visit([&](const auto& e) { return geometry::directionOf(e.direction(fraction)); },
                      parts_[part].element);
}

std::vector<FoundStation> StationFinder::findAll(std::span<const Vec2> places) const {
    std::vector<FoundStation> out(places.size());
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, places.size(), 256), [&](const auto& range) {
        for (std::size_t i = range.begin(); i < range.end(); ++i) out[i] = find(places[i]);
    });
    return out;
}

FoundStation StationFinder::find(Vec2 p) const {
    // The element whose box is nearest first: it leaves few others.
    std::size_t best = 0;
    double nearestBox = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < parts_.size(); ++i)
        if (const double square = squareTo(parts_[i].box, p); square < nearestBox) {
            nearestBox = square;
            best = i;
        }
    const std::size_t begun = best;
    Near near = nearestOf(parts_[best], p);
    double least = dot(p - near.place, p - near.place);
    for (std::size_t i = 0; i < parts_.size(); ++i) {
        // Of several as near the first on the line.
        if (i == begun || squareTo(parts_[i].box, p) > least) continue;
        const Near other = nearestOf(parts_[i], p);
        const double square = dot(p - other.place, p - other.place);
        if (square > least || (square == least && i > best)) continue;
        least = square;
        best = i;
        near = other;
    }
    const double fraction = near.fraction;
    const Vec2 place = near.place;
    FoundStation out;
    out.place = place;
    out.distance = parts_[best].start + fraction * parts_[best].length;
    Vec2 along = directionAt(best, fraction);
    const Vec2 off = p - place;
    const bool first = best == 0 && fraction <= 0;
    const bool last = best + 1 == parts_.size() && fraction >= 1;
    if (first || last) out.beyond = std::abs(dot(along, off)) > 1e-9 * (1 + geometry::length(off));
    if (fraction >= 1 && !last)
        along = along + directionAt(best + 1, 0);
    else if (fraction <= 0 && !first)
        along = along + directionAt(best - 1, 1);
    const double distance = geometry::length(off);
    out.offset = cross(along, off) > 0 ? -distance : distance;
    return out;
}

}  // namespace erdwerk::route
