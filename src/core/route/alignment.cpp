#include "core/route/alignment.h"

#include <cmath>

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
        case PointKind::Corner:
            break;
    }
    return "PI";
}

AlignmentGeometry alignmentOn(Path path, double startStation) {
    AlignmentGeometry out;
    out.startStation = startStation;
    double station = startStation;
    for (std::size_t i = 0; i < path.size(); ++i) {
        const Angle ahead = tangentAt(path[i], 0);
        const bool curve = isCurved(path[i]);
        if (i == 0) {
            out.keyPoints.push_back({PointKind::Begin, station, path[i].start, ahead});
        } else {
            const Angle behind = tangentAt(path[i - 1], 1);
            const bool curveBefore = isCurved(path[i - 1]);
            const Angle turn = (ahead - behind).signedTurn();
            if (std::abs(turn.radians()) > tangencyTolerance.radians())
                out.breaks.push_back({i - 1, station, path[i].start, turn});
            const PointKind kind = curve ? (curveBefore ? PointKind::CurveToCurve : PointKind::Pc)
                                         : (curveBefore ? PointKind::Pt : PointKind::Corner);
            out.keyPoints.push_back({kind, station, path[i].start, behind});
        }
        station += lengthOf(path[i]);
    }
    if (!path.empty())
        out.keyPoints.push_back({PointKind::End, station, path.back().end, tangentAt(path.back(), 1)});
    out.length = station - startStation;
    out.path = std::move(path);
    return out;
}

std::vector<Tick> ticks(const AlignmentGeometry& alignment, double interval) {
    std::vector<Tick> out;
    if (alignment.path.empty() || alignment.length / interval > 1e5) return out;
    for (double k = std::ceil(alignment.startStation / interval - 1e-9);
         k * interval <= alignment.endStation() + 1e-9; ++k) {
        const auto at = positionAt(alignment.path, k * interval - alignment.startStation);
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
    return at.place - geometry::leftOf(geometry::directionOf(at.direction)) * offset;
}

}  // namespace erdwerk::route
