#include "core/route/alignment.h"

#include <cmath>
#include <numbers>

namespace erdwerk::route {

std::string_view shortName(PointKind kind) {
    switch (kind) {
        case PointKind::Begin:
            return "BP";
        case PointKind::End:
            return "EP";
        case PointKind::Pc:
            return "PC";
        case PointKind::Pt:
            return "PT";
        case PointKind::CurveToCurve:
            return "PCC";
        case PointKind::Reverse:
            return "PRC";
        case PointKind::Ts:
            return "TS";
        case PointKind::St:
            return "ST";
        case PointKind::Sc:
            return "SC";
        case PointKind::Cs:
            return "CS";
        case PointKind::Ss:
            return "SS";
        case PointKind::Corner:
            break;
    }
    return "PI";
}

namespace {

PointKind kindBetween(const geometry::Segment& behind, const geometry::Segment& ahead) {
    enum Sort { Straight, Curve, Spiral };
    const auto sortOf = [](const geometry::Segment& s) {
        return clothoidOf(s) ? Spiral : (arcOf(s) ? Curve : Straight);
    };
    switch (3 * sortOf(behind) + sortOf(ahead)) {
        case 3 * Straight + Curve:
            return PointKind::Pc;
        case 3 * Straight + Spiral:
            return PointKind::Ts;
        case 3 * Curve + Straight:
            return PointKind::Pt;
        case 3 * Curve + Curve:
            return arcOf(behind)->right() == arcOf(ahead)->right() ? PointKind::CurveToCurve
                                                                   : PointKind::Reverse;
        case 3 * Curve + Spiral:
            return PointKind::Cs;
        case 3 * Spiral + Straight:
            return PointKind::St;
        case 3 * Spiral + Curve:
            return PointKind::Sc;
        case 3 * Spiral + Spiral:
            return PointKind::Ss;
        default:
            return PointKind::Corner;
    }
}

double turnOf(const geometry::Segment& s) {
    if (const auto c = clothoidOf(s)) return c->shape.turn().radians();
    if (const auto a = arcOf(s)) return a->sweep.radians();
    return 0;
}

}  // namespace

AlignmentGeometry alignmentOn(Path path, double startStation) {
    return alignmentOn(std::move(path), Stationing(startStation));
}

AlignmentGeometry alignmentOn(Path path, Stationing stationing) {
    AlignmentGeometry out;
    out.startStation = stationing.start();
    double at = 0;
    const auto add = [&](PointKind kind, Vec2 place, Angle direction) {
        out.keyPoints.push_back({kind, stationing.stationAt(at), place, direction, at});
    };
    for (std::size_t i = 0; i < path.size(); ++i) {
        const Angle ahead = tangentAt(path[i], 0);
        out.starts.push_back(at);
        if (i == 0) {
            add(PointKind::Begin, path[i].start, ahead);
        } else {
            const Angle behind = tangentAt(path[i - 1], 1);
            const Angle turn = (ahead - behind).signedTurn();
            if (std::abs(turn.radians()) > tangencyTolerance.radians())
                out.breaks.push_back({i - 1, stationing.stationAt(at), path[i].start, turn, at});
            add(kindBetween(path[i - 1], path[i]), path[i].start, behind);
        }
        at += lengthOf(path[i]);
    }
    if (!path.empty()) add(PointKind::End, path.back().end, tangentAt(path.back(), 1));
    out.length = at;
    out.path = std::move(path);
    out.stationing = std::move(stationing);
    return out;
}

std::vector<Intersection> intersections(const AlignmentGeometry& alignment) {
    std::vector<Intersection> out;
    const Path& path = alignment.path;
    for (std::size_t i = 0; i < path.size();) {
        if (!isCurved(path[i])) {
            ++i;
            continue;
        }
        std::size_t last = i;
        const auto first = clothoidOf(path[i]);
        const bool winds = first && first->shape.startCurvature == 0;
        if (winds && i + 1 < path.size() && isCurved(path[i + 1])) ++last;
        if ((!first || last > i) && !clothoidOf(path[last]) && last + 1 < path.size()) {
            const auto unwinds = clothoidOf(path[last + 1]);
            if (unwinds && unwinds->shape.endCurvature == 0) ++last;
        }
        double turn = 0;
        for (std::size_t k = i; k <= last; ++k) turn += turnOf(path[k]);
        const Vec2 chord = path[last].end - path[i].start;
        const Vec2 in = geometry::directionOf(tangentAt(path[i], 0));
        const Vec2 away = geometry::directionOf(tangentAt(path[last], 1));
        const double across = geometry::cross(in, away);
        if (std::abs(turn) < std::numbers::pi - 1e-9 && std::abs(across) > 1e-12) {
            const double tangent = geometry::cross(chord, away) / across;
            out.push_back({i, last, path[i].start + in * tangent, alignment.starts[i] + tangent, tangent,
                           Angle::radians(turn)});
        }
        i = last + 1;
    }
    return out;
}

std::vector<double> multiplesAlong(const AlignmentGeometry& alignment, double interval) {
    std::vector<double> out;
    if (alignment.path.empty() || alignment.length / interval > 1e7) return out;
    const Stationing& numbering = alignment.stationing;
    double from = 0;
    double first = numbering.start();
    for (std::size_t r = 0; r <= numbering.equations().size() && from <= alignment.length; ++r) {
        const bool ends = r == numbering.equations().size();
        const double to =
            ends ? alignment.length + 1e-9 : std::min(alignment.length, numbering.distanceOf(r) - 1e-9);
        for (double k = std::ceil(first / interval - 1e-9); from + k * interval - first <= to; ++k)
            out.push_back(from + k * interval - first);
        if (ends) break;
        from = numbering.distanceOf(r);
        first = numbering.equations()[r].ahead;
    }
    return out;
}

std::vector<Tick> ticks(const AlignmentGeometry& alignment, double interval) {
    std::vector<Tick> out;
    if (alignment.length / interval > 1e5) return out;
    for (const double distance : multiplesAlong(alignment, interval)) {
        const auto at = positionAt(alignment.path, distance);
        const double k = std::round(alignment.stationing.stationAt(distance) / interval);
        out.push_back({k * interval, at.place, at.direction, std::fmod(std::abs(k), 5.0) == 0});
    }
    return out;
}

StationOffset stationOffset(const AlignmentGeometry& alignment, Vec2 place) {
    const auto nearest = geometry::nearestOn(alignment.path, place);
    return {alignment.startStation + geometry::distanceAlong(alignment.path, *nearest), nearest->distance};
}

Vec2 placeAt(const AlignmentGeometry& alignment, double station, double offset) {
    const auto at = positionAt(alignment.path, station - alignment.startStation);
    const auto& element = alignment.path[at.segment];
    // Along an axis a straight loses no digits.
    const Vec2 way = isCurved(element) ? geometry::directionOf(at.direction)
                                       : (element.end - element.start) *
                                             (1 / geometry::distance(element.start, element.end));
    return at.place - geometry::leftOf(way) * offset;
}

}  // namespace erdwerk::route
