// The route against its peers, on the same data in the same run.
//   Station and offset of 1 000 000 points on an alignment of 200 elements, against a pass that writes the
//   points. A dragged PI of an alignment of 20 km over a surface of 1 000 000 points: its profile again,
//   against a frame.

#include <cstdio>
#include <memory>
#include <random>

#include "compare.h"
#include "core/base/display.h"
#include "core/route/pis.h"
#include "core/route/profile.h"
#include "core/route/station_finder.h"
#include "demo_site/site.h"

namespace {

using namespace erdwerk;
using bench::bestOf;
using bench::ratio;
using geometry::Vec2;

/// A winding line: so many PIs, each with an arc and two spirals, within a box of this size.
std::vector<route::Pi> winding(int count, Vec2 from, Vec2 to, double wave) {
    std::vector<route::Pi> pis;
    for (int k = 0; k < count; ++k) {
        const double t = k / (count - 1.0);
        const Vec2 along = to - from;
        const Vec2 side = geometry::leftOf(along * (1 / geometry::length(along)));
        route::Pi pi{from + along * t + side * (k % 2 == 0 ? wave : -wave)};
        if (k > 0 && k + 1 < count) {
            const double step = geometry::length(along) / (count - 1);
            pi.radius = step * 0.3;
            pi.spiralIn = pi.spiralOut = step * 0.05;
        }
        pis.push_back(pi);
    }
    return pis;
}

void stations() {
    const auto path = route::pathOf(winding(51, {0, 0}, {10'000, 3'000}, 60));
    const auto line = route::alignmentOn(*path, 0);
    std::mt19937 random(5);
    std::uniform_real_distribution<double> east(-200, 10'200);
    std::uniform_real_distribution<double> north(-400, 3'400);
    std::vector<Vec2> points(1'000'000);
    for (Vec2& p : points) p = {east(random), north(random)};
    const route::StationFinder finder(line);
    double sum = 0;
    const double ours = bestOf(3, [&] {
        for (const auto& found : finder.findAll(points)) sum += found.distance;
    });
    std::size_t bytes = 0;
    const double peer = bestOf(3, [&] {
        std::string text;
        for (const Vec2 p : points) {
            text += formatExact(p.x) + "," + formatExact(p.y) + "\n";
            if (text.size() > 1'000'000) {
                bytes += text.size();
                text.clear();
            }
        }
    });
    std::printf("stations: %zu elements, %.0f long, %zu bytes written (%.0f)\n", line.path.size(),
                line.length, bytes, sum);
    ratio("station and offset of 1 000 000 points / writing them", ours, peer, 10);
}

void drag() {
    const auto built = terrain::build(demo::largeInput(1'000'000, 0, 7));
    const auto ground =
        std::make_shared<const terrain::TinLocator>(std::make_shared<const terrain::Tin>(built->tin));
    const auto box = ground->tin().bounds();
    // Up and down the site until 20 km are full.
    std::vector<route::Pi> pis;
    const int rows = 40;
    for (int k = 0; k < rows; ++k)
        for (const bool first : {true, false}) {
            const double x = first == (k % 2 == 0) ? box.minX + 10 : box.maxX - 10;
            route::Pi pi{{x, box.minY + 10 + k * (box.height() - 20) / rows}};
            if (!pis.empty()) pi.radius = (box.height() - 20) / rows / 2.5;
            pis.push_back(pi);
        }
    pis.back().radius = 0;
    std::size_t points = 0;
    double length = 0;
    route::GroundPieces before;
    const double ours = bestOf(6, [&] {
        pis[7].place.x += 0.1;
        const auto line = route::alignmentOn(*route::pathOf(pis), 0);
        length = line.length;
        before = route::groundPieces(line.path, ground, &before);
        points = joined(before, line).size();
    });
    std::printf("drag: %.0f long, %zu places of its profile\n", length, points);
    ratio("profile of 20 km over 1 000 000 points / a frame of 1/60 s", ours, 1.0 / 60, 1);
}

}  // namespace

int main() {
    stations();
    drag();
    return 0;
}
