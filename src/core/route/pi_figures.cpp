#include "core/route/pi_figures.h"

namespace erdwerk::route {

std::vector<PiFigures> piFigures(const std::vector<Pi>& pis, const AlignmentGeometry& line) {
    const auto meets = intersections(line);
    std::vector<PiFigures> out(pis.size());
    for (std::size_t i = 0; i < pis.size(); ++i) {
        const auto here = [&](Vec2 place) { return geometry::distance(place, pis[i].place) < 1e-6; };
        PiFigures& f = out[i];
        for (const auto& meet : meets)
            if (!f.distance && pis[i].radius > 0 && here(meet.place)) f.distance = meet.distance;
        for (const auto& key : line.keyPoints)
            if (!f.distance && here(key.place)) f.distance = key.distance;
        if (i == 0) continue;
        f.azimuthIn = geometry::azimuth(pis[i - 1].place, pis[i].place);
        f.distanceIn = geometry::distance(pis[i - 1].place, pis[i].place);
        if (i + 1 < pis.size())
            f.turn = (geometry::azimuth(pis[i].place, pis[i + 1].place) - *f.azimuthIn).signedTurn();
    }
    return out;
}

}  // namespace erdwerk::route
