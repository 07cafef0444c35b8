#include "demo_site/site.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <numbers>
#include <random>

namespace erdwerk::demo {

using geometry::Vec2;
using geometry::Vec3;

namespace {

constexpr double pi = std::numbers::pi;
constexpr Vec2 knollCentre{originEast + 168, originNorth + 142};
constexpr double toeRatio = 1.22;

double knollRadius(double angle) {
    return 27 + 4 * std::sin(3 * angle) + 2.5 * std::cos(5 * angle + 1);
}

/// Millimetres, as a total station writes them.
double rounded(double v) {
    return std::round(v * 1000) / 1000;
}

Vec2 at(double east, double north) {
    return {originEast + east, originNorth + north};
}

std::vector<Vec3> ring(double ratio, int count) {
    std::vector<Vec3> out;
    for (int k = 0; k < count; ++k) {
        const double angle = 2 * pi * k / count;
        const double r = knollRadius(angle) * ratio;
        const Vec2 p = knollCentre + Vec2{std::cos(angle), std::sin(angle)} * r;
        out.push_back({rounded(p.x), rounded(p.y), rounded(groundHeight(p))});
    }
    return out;
}

std::vector<Vec2> along(const std::vector<Vec2>& corners, double spacing) {
    std::vector<Vec2> out;
    for (std::size_t i = 0; i + 1 < corners.size(); ++i) {
        const int pieces = std::max(
            1, static_cast<int>(std::lround(geometry::distance(corners[i], corners[i + 1]) / spacing)));
        for (int k = 0; k < pieces; ++k)
            out.push_back(geometry::lerp(corners[i], corners[i + 1], static_cast<double>(k) / pieces));
    }
    out.push_back(corners.back());
    return out;
}

struct Surveyor {
    std::mt19937 random;
    int next = 1001;
    Site site;

    double jitter(double size) { return size * (2.0 * static_cast<double>(random()) / 4294967295.0 - 1.0); }

    void shoot(Vec2 p, const std::string& code, std::optional<double> height, const std::string& note = {}) {
        site.points.push_back({std::to_string(next++),
                               {rounded(p.x), rounded(p.y)},
                               height ? std::optional(rounded(*height)) : std::nullopt,
                               code,
                               note});
    }

    /// Points along a line, coded, and the line through them.
    void feature(const std::string& name, const std::string& code, const std::vector<Vec2>& places,
                 double above, bool closed = false) {
        std::vector<Vec2> corners;
        std::vector<std::optional<double>> heights;
        for (const Vec2 p : places) {
            const Vec2 r{rounded(p.x), rounded(p.y)};
            const double h = rounded(groundHeight(r) + above);
            shoot(r, code, h);
            corners.push_back(r);
            heights.emplace_back(h);
        }
        site.breaklines.push_back({name, linework::lineThrough(corners, heights, closed)});
    }
};

std::vector<Vec2> plan(const std::vector<Vec3>& places) {
    std::vector<Vec2> out;
    for (const Vec3& p : places) out.push_back(p.plan());
    return out;
}

linework::LineVertex corner(Vec2 p, std::optional<Vec2> through = std::nullopt) {
    linework::LineVertex v;
    v.place = p;
    v.through = through;
    return v;
}

/// A centre line by PIs and radii: tangent arcs between straights. `skew` turns the last straight off its
/// tangent.
linework::Line3D centreLine(const std::vector<Vec2>& pis, const std::vector<double>& radii, double skew) {
    linework::Line3D line;
    line.vertices.push_back(corner(pis.front()));
    for (std::size_t i = 1; i + 1 < pis.size(); ++i) {
        const Angle in = geometry::azimuth(pis[i - 1], pis[i]);
        const Angle out = geometry::azimuth(pis[i], pis[i + 1]);
        const double turn = (out - in).signedTurn().radians();
        const double tangent = radii[i - 1] * std::tan(std::abs(turn) / 2);
        const Vec2 pc = pis[i] - geometry::directionOf(in) * tangent;
        const Vec2 pt = pis[i] + geometry::directionOf(out) * tangent;
        line.vertices.push_back(corner(pc, geometry::tangentArc(pc, in, pt).through));
        line.vertices.push_back(corner(pt));
    }
    const Vec2 last = line.vertices.back().place;
    const Angle direction = geometry::azimuth(last, pis.back()) + Angle::radians(skew);
    line.vertices.push_back(
        corner(last + geometry::directionOf(direction) * geometry::distance(last, pis.back())));
    return line;
}

}  // namespace

double groundHeight(Vec2 p) {
    const double u = p.x - originEast;
    const double v = p.y - originNorth;
    double h = 313.5 + 0.042 * u + 0.034 * v + 1.3 * std::sin(u / 37) * std::cos(v / 29) +
               0.35 * std::sin(u / 9 + v / 13);
    const Vec2 d = p - knollCentre;
    const double ratio = geometry::length(d) / knollRadius(std::atan2(d.y, d.x));
    if (ratio < 1)
        h += 22 + 7 * (1 - ratio * ratio);
    else if (ratio < toeRatio)
        h += 22 - 15 * (ratio - 1) / (toeRatio - 1);
    else if (ratio < 2.6)
        h += 7 * std::pow(1 - (ratio - toeRatio) / (2.6 - toeRatio), 2);
    return h;
}

std::vector<Vec3> knollCrest(int count) {
    return ring(1.0, count);
}
std::vector<Vec3> knollToe(int count) {
    return ring(toeRatio, count);
}

Site survey(std::uint32_t seed) {
    Surveyor s{std::mt19937(seed), 1001, {}};
    for (double v = 6; v < siteDepth; v += 10.5)
        for (double u = 6; u < siteWidth; u += 11) {
            const Vec2 p = at(u + s.jitter(3), v + s.jitter(3));
            s.shoot(p, "GRND", groundHeight(p) + s.jitter(0.02));
        }
    s.feature("North Knoll crest", "CREST1", plan(knollCrest(36)), 0, true);
    s.feature("North Knoll toe", "TOE1", plan(knollToe(36)), 0, true);
    const auto ditch = along({at(14, 176), at(48, 150), at(66, 112), at(58, 74), at(34, 52)}, 8);
    s.feature("Peat ditch", "DITCH1", ditch, -0.6);
    s.feature("Retaining wall foot", "WALL1", along({at(82, 128), at(108, 134), at(128, 128)}, 6), 0);
    s.site.lane = {"Starling Lane",
                   centreLine({at(8, 22), at(82, 46), at(146, 16), at(232, 44)}, {60, 85}, 0.021)};
    const auto centre = planPath(s.site.lane.line);
    const double length = geometry::lengthOf(centre);
    for (const auto& [name, code, offset] :
         {std::tuple{"Lane edge left", "LANEL", 2.5}, std::tuple{"Lane edge right", "LANER", -2.5}}) {
        std::vector<Vec2> edge;
        for (int k = 0; k <= 28; ++k) {
            const auto p = geometry::positionAt(centre, length * k / 28.0);
            edge.push_back(p.place + geometry::leftOf(geometry::directionOf(p.direction)) * offset);
        }
        s.feature(name, code, edge, 0);
    }
    // The footpath steps over the ditch on a plank: the two lines cross with different heights.
    s.feature("Footpath", "PATH1", along({at(28, 118), at(84, 98), at(112, 108), at(126, 120)}, 9), 0.05);
    s.shoot(at(203.4, 88.2), "SIGN", std::nullopt, "prism hidden, height to follow");
    const auto& doubled = s.site.points[40];
    s.shoot(doubled.plan, "GRND", *doubled.height + 0.17, "second setup");

    const Vec2 a = at(72, 62);
    const Vec2 b = at(132, 58);
    const Vec2 c = at(146, 74);
    const Vec2 d = at(141, 112);
    const Vec2 e = at(104, 126);
    const Vec2 f = at(70, 108);
    linework::Line3D plot;
    plot.closed = true;
    plot.vertices = {corner(a), corner(b, geometry::tangentArc(b, geometry::azimuth(a, b), c).through),
                     corner(c), corner(d, geometry::arcByRadius(d, e, 48, false).through),
                     corner(e), corner(f)};
    s.site.plot = {"Plot Q-4", plot};
    s.site.rim = {
        "Survey rim",
        linework::lineThrough({at(4, 4), at(236, 5), at(235, 196), at(120, 194), at(5, 195)}, {}, true)};
    return s.site;
}

FlatDrawing turningPlace(const linework::Line3D& lane) {
    // Along the lane's left edge, and away from the lane.
    const auto centre = planPath(lane);
    const auto mouth = geometry::positionAt(centre, geometry::lengthOf(centre) - 44);
    const Vec2 along = geometry::directionOf(mouth.direction);
    const Vec2 away = geometry::leftOf(along);
    const Vec2 origin = mouth.place + away * 2.5;
    const auto here = [&](double x, double y) { return origin + along * x + away * y; };
    const auto height = [](double x, double y) { return 322.1 + 0.010 * x + 0.012 * y; };
    const auto written = [&](double x, double y, bool comma) {
        char text[32];
        std::snprintf(text, sizeof text, "k %.2f", height(x, y));
        std::string out = text;
        if (comma) std::replace(out.begin(), out.end(), '.', ',');
        return out;
    };
    FlatDrawing out;
    linework::Line3D kerb;
    kerb.vertices = {corner(here(-10, 0), here(-7.17, 1.17)),  corner(here(-6, 4)),
                     corner(here(-6, 19), here(-4.83, 21.83)), corner(here(-2, 23)),
                     corner(here(2, 23), here(4.83, 21.83)),   corner(here(6, 19)),
                     corner(here(6, 4), here(7.17, 1.17)),     corner(here(10, 0))};
    out.kerbs.push_back({"Turning place kerb", kerb});
    linework::Line3D island;
    island.closed = true;
    island.vertices = {corner(here(-2.5, 14), here(-1.77, 15.77)), corner(here(0, 16.5), here(1.77, 15.77)),
                       corner(here(2.5, 14), here(0, 11.5))};
    out.kerbs.push_back({"Island", island});
    out.kerbs.push_back(
        {"Splitter", linework::lineThrough({here(0, 2), here(1.2, 6), here(-1.2, 6)}, {}, true)});
    const auto leader = [&](double x, double y, double dx, double dy, bool comma) {
        const Vec2 text = here(x + dx, y + dy);
        out.leaders.push_back({"Leader " + std::to_string(out.leaders.size() + 1),
                               linework::lineThrough({text, here(x, y)}, {})});
        out.texts.emplace_back(written(x, y, comma), text);
    };
    leader(-6, 4, -5, 2, false);
    leader(-6, 19, -5, 2, false);
    leader(2, 23, 3, 4, true);
    leader(6, 19, 5, 2, false);
    leader(-2.5, 14, -2.2, 2, false);
    leader(2.5, 14, 2.2, 2, true);
    leader(0, 2, -3, -1, false);
    out.texts.emplace_back(written(1.2, 6, false), here(1.22, 6.02));
    out.texts.emplace_back(written(-1.2, 6, false), here(-1.22, 6.02));
    out.texts.emplace_back("kerb type B", here(-9, 12));
    out.texts.emplace_back("gully", here(5, 8));
    out.texts.emplace_back("see section 4", here(9, 14));
    return out;
}

linework::Line3D domeTerrace() {
    using namespace linework;
    Line3D pad;
    pad.closed = true;
    const Vec2 base{originEast + 92, originNorth + 82};
    const std::vector<std::pair<Vec2, HeightRule>> corners{
        {base, FixedHeight{321.4}},
        {base + Vec2{28, 0}, GradeFromPrevious{Grade::percent(-1)}},
        {base + Vec2{28, 20}, RiseFromPrevious{0.15}},
        {base + Vec2{0, 20}, Interpolated{}}};
    for (const auto& [place, rule] : corners) {
        LineVertex v;
        v.place = place;
        v.rule = rule;
        pad.vertices.push_back(v);
    }
    return pad;
}

std::vector<route::Pvi> laneDesign() {
    return {{0, 315.4, 0}, {78, 318.1, 40}, {158, 319.0, 40}, {228, 323.9, 0}};
}

linework::Line3D laneFormation(const linework::Line3D& lane, const std::vector<route::Pvi>& design,
                               ObjectId ground) {
    using namespace linework;
    const auto centre = planPath(lane);
    const double length = geometry::lengthOf(centre);
    std::vector<double> stations{0};
    for (const auto& element : centre) stations.push_back(stations.back() + geometry::lengthOf(element));
    const auto beside = [&](double station, double offset) {
        const auto p = geometry::positionAt(centre, station);
        return p.place + geometry::leftOf(geometry::directionOf(p.direction)) * offset;
    };
    Line3D out;
    out.closed = true;
    // Up along the left edge, back along the right one.
    for (const double side : {2.5, -2.5}) {
        const bool forth = side > 0;
        const std::size_t sides = centre.size();
        for (std::size_t k = 0; k <= sides; ++k) {
            const std::size_t at = forth ? k : sides - k;
            LineVertex v = corner(beside(stations[at], side));
            if (at == 0 || at == sides)
                v.rule = OnSurface{ground, 0};
            else
                v.rule = Interpolated{};
            const std::size_t element = forth ? at : at - 1;
            if (k < sides && arcOf(centre[element]))
                v.through = beside((stations[element] + stations[element + 1]) / 2, side);
            out.vertices.push_back(v);
            if (k == sides) continue;
            std::vector<LineVertex> between;
            for (const auto& pvi : design) {
                if (pvi.station <= stations[element] || pvi.station >= stations[element + 1] ||
                    pvi.station > length - 20)
                    continue;
                LineVertex grade;
                grade.isCorner = false;
                grade.fraction =
                    (pvi.station - stations[element]) / (stations[element + 1] - stations[element]);
                if (!forth) grade.fraction = 1 - grade.fraction;
                grade.rule = FixedHeight{pvi.height};
                if (pvi.curveLength > 0)
                    grade.curve = VerticalCurve{VerticalCurve::By::Length, pvi.curveLength};
                between.push_back(grade);
            }
            if (!forth) std::reverse(between.begin(), between.end());
            out.vertices.insert(out.vertices.end(), between.begin(), between.end());
        }
    }
    return out;
}

namespace {

/// The pond's shape, so many times its floor.
std::vector<Vec2> pondRing(double times) {
    const Vec2 middle{originEast + 30, originNorth + 74};
    std::vector<Vec2> corners;
    for (const Vec2 v : {Vec2{6, -1}, Vec2{4, 4}, Vec2{-1, 5.5}, Vec2{-5, 2}, Vec2{-4.5, -3}, Vec2{1, -5}})
        corners.push_back(middle + v * times);
    return corners;
}

}  // namespace

linework::Line3D pondFloor() {
    const auto corners = pondRing(1);
    return linework::lineThrough(corners, std::vector<std::optional<double>>(corners.size(), 314.6), true);
}

linework::Line3D pondRim() {
    return linework::lineThrough(pondRing(2.4), {}, true);
}

terrain::BuildInput largeInput(std::size_t count, std::size_t segments, std::uint32_t seed) {
    terrain::BuildInput input;
    std::mt19937_64 random(seed);
    std::uniform_real_distribution<double> unit(0, 1);
    // The site is scaled up with the number of points, so their density stays that of a survey by scanner (4
    // per m²).
    const double scale = std::max(1.0, std::sqrt(static_cast<double>(count) / (4 * siteWidth * siteDepth)));
    const auto height = [scale](double u, double v) { return groundHeight(at(u / scale, v / scale)); };
    for (std::size_t i = 0; i < count; ++i) {
        const double u = unit(random) * siteWidth * scale;
        const double v = unit(random) * siteDepth * scale;
        input.points.push_back({originEast + u, originNorth + v, height(u, v) + 0.02 * (unit(random) - 0.5)});
    }
    const std::size_t perLine = 200;
    const std::size_t lines = (segments + perLine - 1) / perLine;
    for (std::size_t l = 0; l < lines; ++l) {
        terrain::Breakline line;
        const double v0 = siteDepth * scale * (static_cast<double>(l) + 0.5) / static_cast<double>(lines);
        const double wave = 0.3 * siteDepth * scale / static_cast<double>(lines);
        const std::size_t sides = std::min(perLine, segments - l * perLine);
        for (std::size_t k = 0; k <= sides; ++k) {
            const double u =
                siteWidth * scale * (0.02 + 0.96 * static_cast<double>(k) / static_cast<double>(perLine));
            const double v = v0 + wave * std::sin(u / 7);
            line.corners.push_back({originEast + u, originNorth + v, height(u, v)});
        }
        input.lines.push_back(std::move(line));
    }
    return input;
}

}  // namespace erdwerk::demo
