// Earthworks against their peers, on the same data in the same run.
//   A batter from an edge of 2 000 corners on a surface of 1 000 000 points, against locating all its corners
//   and walking its daylight line.
//   A dragged corner of a pad with 200 sides on that surface, against working the project out anew.

#include <cstdio>
#include <cstdlib>
#include <memory>
#include <random>

#include "compare.h"
#include "core/derive/model.h"
#include "core/derive/surface_result.h"
#include "core/earthwork/pad.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/earthworks.h"
#include "core/operations/surfaces.h"
#include "core/terrain/trace.h"
#include "demo_site/site.h"

namespace {

using namespace erdwerk;
using bench::bestOf;
using bench::ratio;
using geometry::Vec2;
using geometry::Vec3;

/// A ring with a wavy shape about a place: a designed line, with the mean of the ground along a stretch of it
/// as height, plus an amount.
earthwork::Edge ring(const terrain::TinLocator& ground, Vec2 middle, double radius, int corners,
                     double above) {
    earthwork::Edge out;
    out.closed = true;
    std::vector<double> heights;
    for (int k = 0; k < corners; ++k) {
        const double a = k * 2 * M_PI / corners;
        const double r = radius * (1 + 0.1 * std::sin(7 * a));
        const Vec2 p{middle.x + r * std::cos(a), middle.y + r * std::sin(a)};
        heights.push_back(ground.heightAt(p).value_or(0));
        out.corners.push_back({p.x, p.y, 0});
    }
    const int half = corners / 100;
    for (int k = 0; k < corners; ++k) {
        double sum = 0;
        for (int i = -half; i <= half; ++i)
            sum += heights[static_cast<std::size_t>((k + i + corners) % corners)];
        out.corners[static_cast<std::size_t>(k)].z = sum / (2 * half + 1) + above;
    }
    return out;
}

void batterOfManyCorners(const terrain::TinLocator& ground) {
    const auto box = ground.tin().bounds();
    const double radius = std::min(box.width(), box.height()) * 0.3;
    const auto edge = ring(ground, box.centre(), radius, 2000, 2.0);
    earthwork::BatterShape shape;
    shape.cut = 0.5;
    shape.fill = 0.5;
    shape.right = true;
    earthwork::Batter made;
    const double ours = bestOf(5, [&] { made = *earthwork::batter(edge, shape, &ground); });
    std::size_t crossed = 0;
    const double peer = bestOf(5, [&] {
        crossed = 0;
        for (const Vec3& p : edge.corners) crossed += ground.triangleAt(p.plan()) ? 1 : 0;
        for (const auto& chain : made.daylight)
            for (std::size_t k = 0; k + 1 < chain.size(); ++k)
                crossed += terrain::trace(ground, chain[k].plan(), chain[k + 1].plan()).size();
    });
    std::printf(
        "batter: %u triangles over %.0f m2 of %.0f, daylight %.0f m, open %.1f m; %zu places walked\n",
        made.faces.triangleCount(), made.planArea, box.width() * box.height(), made.daylightLength,
        made.openLength(), crossed);
    ratio("batter of 2 000 corners / locating and walking", ours, peer, 3);
}

/// Dragging a corner of a pad with 200 sides in a project, against working all of it out anew.
void dragOfAPad(const terrain::BuildInput& input, const terrain::TinLocator& ground) {
    std::vector<survey::SurveyPoint> points;
    points.reserve(input.points.size());
    for (const Vec3& p : input.points)
        points.push_back({std::to_string(points.size()), p.plan(), p.z, "", ""});
    document::Document d;
    ObjectId set;
    objects::Earthwork pad;
    d = d.added("Survey", objects::Points{survey::PointSet(std::move(points))}, &set);
    d = operations::addSurface("Ground", {{set, objects::Role::Points}})(d)->document;
    pad.ground = d.byName<objects::Surface>("Ground");
    const auto edge = ring(ground, ground.tin().bounds().centre(), 40, 200, 1.0);
    std::vector<Vec2> corners;
    std::vector<std::optional<double>> heights;
    for (const Vec3& p : edge.corners) {
        corners.push_back(p.plan());
        heights.emplace_back(edge.corners.front().z);
    }
    d = d.added("Edge", objects::Line{linework::lineThrough(corners, heights, true), {}}, &pad.edge);
    pad.sort = objects::EarthworkSort::Pad;
    d = operations::addEarthwork(pad)(d)->document;
    const double all = bestOf(1, [&] { (void)*derive::evaluate(d); });
    derive::Model model;
    const auto seen = *model.evaluate(d);
    // A pad that is not in the finished surface would cost nothing.
    const auto* finished = derive::Derived::in(seen.surfaces, operations::finishedOf(d, pad.ground));
    if (finished == nullptr || !finished->editProblems.empty()) {
        std::printf("the pad is not in the finished surface\n");
        std::exit(1);
    }
    double drag = 1e300;
    for (int i = 1; i <= 3; ++i) {
        const auto moved = *operations::moveVertex(pad.edge, 17, corners[17] + Vec2{0.1 * i, 0.1 * i})(d);
        drag = std::min(drag, bestOf(1, [&] { (void)*model.evaluate(moved.document); }));
    }
    ratio("drag of a pad's corner / all anew", drag, all, 0.02);
}

}  // namespace

int main() {
    const auto input = demo::largeInput(1'000'000, 0, 7);
    const auto built = terrain::build(input);
    if (!built) return 1;
    const terrain::TinLocator ground(std::make_shared<const terrain::Tin>(built->tin));
    std::printf("ground: %zu points, %u triangles\n", ground.tin().vertexCount(),
                ground.tin().triangleCount());
    batterOfManyCorners(ground);
    dragOfAPad(input, ground);
    return 0;
}
