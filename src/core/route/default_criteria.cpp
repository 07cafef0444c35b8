#include <cmath>

#include "core/route/criteria.h"

namespace erdwerk::route {

namespace {

double upTo(double value, double step) {
    return std::ceil(value / step - 1e-9) * step;
}

}  // namespace

Criteria laneCriteria() {
    constexpr double gravity = 9.81;
    constexpr double crossfall = 0.03;
    constexpr double reaction = 2.0;
    constexpr double braking = 3.4;
    constexpr double eye = 1.1;
    constexpr double object = 0.3;
    constexpr double comfort = 0.3;
    constexpr double jerk = 0.6;
    Criteria out;
    out.name = "Lanes";
    out.source =
        "Worked out from motion, speeds v in m/s, speeds in the table in km/h. Least radius v^2 / (g (e + "
        "f)), g = 9.81, "
        "crossfall e = 0.03, side friction f = 0.22 - 0.0012 V. Sight distance S = 2.0 v + v^2 / (2 x 3.4): "
        "two seconds "
        "to react, then braking at 3.4 m/s^2. Crest: K = S^2 / (200 (sqrt 1.1 + sqrt 0.3)^2), eye at 1.1 m, "
        "object of "
        "0.3 m. Sag: K = v^2 / (100 x 0.3), so that it presses with no more than 0.3 m/s^2. Spiral: v^3 / "
        "(0.6 R) at the "
        "least radius, a jerk of 0.6 m/s^3. Radii are rounded up to metres, spirals to half metres, K to "
        "tenths. Grades, "
        "lengths and deflection are what a lane for cars and small lorries takes.";
    for (const double speed : {20.0, 30.0, 40.0, 50.0, 60.0, 70.0, 80.0}) {
        const double v = speed / 3.6;
        const double radius = upTo(v * v / (gravity * (crossfall + 0.22 - 0.0012 * speed)), 1);
        const double sight = reaction * v + v * v / (2 * braking);
        const double heights = std::sqrt(eye) + std::sqrt(object);
        SpeedLimits limits;
        limits.speed = speed;
        limits.minRadius = radius;
        limits.minSpiral = upTo(v * v * v / (jerk * radius), 0.5);
        limits.minCrestK = upTo(sight * sight / (200 * heights * heights), 0.1);
        limits.minSagK = upTo(v * v / (100 * comfort), 0.1);
        out.bySpeed.push_back(limits);
    }
    out.maxGrade = 12;
    out.minGrade = 0.5;
    out.minCurveLength = 15;
    out.minTangent = 10;
    out.maxDeflection = 1;
    return out;
}

}  // namespace erdwerk::route
