#include "demo_site/cloud.h"

#include <algorithm>
#include <cmath>
#include <random>

#include "demo_site/site.h"

namespace erdwerk::demo {

using geometry::Vec2;
using geometry::Vec3;

namespace {

struct Shrub {
    Vec2 centre;
    double radius;
    double height;
};

/// A hut with a flat roof west of the knoll.
constexpr geometry::Box hut{originEast + 133, originNorth + 108, originEast + 139, originNorth + 112};

survey::Colour shade(Vec3 rgb, double grain) {
    const auto channel = [&](double v) {
        return static_cast<std::uint8_t>(std::clamp(v * grain, 0.0, 255.0));
    };
    return {channel(rgb.x), channel(rgb.y), channel(rgb.z)};
}

}  // namespace

CloudPlan northKnoll() {
    CloudPlan plan;
    plan.area = {originEast + 123, originNorth + 98, originEast + 211, originNorth + 186};
    return plan;
}

MadeCloud makeCloud(const CloudPlan& plan) {
    std::mt19937 random(plan.seed);
    std::uniform_real_distribution<double> unit(0, 1);
    std::vector<Shrub> shrubs;
    const auto shrubCount = static_cast<int>(plan.area.width() * plan.area.height() / 90);
    for (int i = 0; plan.shrubs && i < shrubCount; ++i)
        shrubs.push_back({{plan.area.minX + unit(random) * plan.area.width(),
                           plan.area.minY + unit(random) * plan.area.height()},
                          0.6 + 0.9 * unit(random),
                          0.6 + 2.0 * unit(random)});
    const auto columns = static_cast<std::size_t>(plan.area.width() / plan.spacing);
    const auto rows = static_cast<std::size_t>(plan.area.height() / plan.spacing);
    survey::CloudColumns out(columns * rows, plan.coloured);
    out.offset = {originEast, originNorth, 300};
    MadeCloud made;
    made.ground.resize(columns * rows);
    for (std::size_t i = 0; i < columns * rows; ++i) {
        const Vec2 p{
            plan.area.minX + (static_cast<double>(i % columns) + 0.1 + 0.8 * unit(random)) * plan.spacing,
            plan.area.minY + (static_cast<double>(i / columns) + 0.1 + 0.8 * unit(random)) * plan.spacing};
        const double ground = groundHeight(p);
        double above = 0;
        bool roof = false;
        std::uint8_t returns = 0x11;
        if (plan.shrubs && hut.contains(p)) {
            above = groundHeight(hut.centre()) + 3 - ground;
            roof = true;
        }
        for (const Shrub& s : shrubs) {
            const double r = geometry::distance(p, s.centre) / s.radius;
            if (roof || r >= 1 || unit(random) < 0.3) continue;
            above = s.height * std::sqrt(1 - r * r) * (0.5 + 0.5 * unit(random));
            returns = 0x21;
        }
        made.ground[i] = above == 0;
        const double z = ground + above + plan.noise * (unit(random) - 0.5);
        out.grid[i] = {static_cast<std::int32_t>(std::lround((p.x - out.offset.x) * 1000)),
                       static_cast<std::int32_t>(std::lround((p.y - out.offset.y) * 1000)),
                       static_cast<std::int32_t>(std::lround((z - out.offset.z) * 1000))};
        const double slope =
            std::hypot(groundHeight(p + Vec2{0.2, 0}) - ground, groundHeight(p + Vec2{0, 0.2}) - ground) /
            0.2;
        const double grain = 0.85 + 0.3 * unit(random);
        out.intensity[i] = static_cast<std::uint16_t>((slope > 1 ? 30000 : 18000) * grain);
        out.returns[i] = returns;
        out.flags[i] = 0;
        out.classes[i] = survey::cloud_class::unclassified;
        if (!plan.coloured) continue;
        const Vec3 rgb = roof        ? Vec3{122, 92, 84}
                         : above > 0 ? Vec3{86, 112, 64}
                         : slope > 1 ? Vec3{150, 144, 134}
                                     : Vec3{138, 132, 92};
        out.colours[i] = shade(rgb, grain);
    }
    made.cloud = survey::PointCloud(std::move(out));
    return made;
}

}  // namespace erdwerk::demo
