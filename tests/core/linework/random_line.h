#pragma once
// Random lines for property tests: arcs, grade points, rules of every kind, vertical curves.

#include <random>

#include "core/linework/height_solver.h"
#include "core/linework/rule_list.h"

namespace erdwerk::linework {

/// "=Ground" is the plane 50 + 0.1 E - 0.05 N.
inline Result<std::optional<double>> slopingGround(ObjectId, Vec2 p) {
    return std::optional(50 + 0.1 * p.x - 0.05 * p.y);
}

inline Line3D randomLine(std::mt19937& random, bool closed) {
    const auto pick = [&](std::size_t n) {
        return std::uniform_int_distribution<std::size_t>(0, n - 1)(random);
    };
    const auto real = [&](double a, double b) {
        return std::uniform_real_distribution<double>(a, b)(random);
    };
    const auto rule = [&](bool gradePoint) -> HeightRule {
        switch (pick(gradePoint ? 9 : 8)) {
            case 0:
                return FixedHeight{real(90, 110)};
            case 1:
                return GradeFromPrevious{Grade::percent(real(-6, 6))};
            case 2:
                return RiseFromPrevious{real(-1, 1)};
            case 3:
                return OnSurface{{7}, real(-1, 1)};
            case 4:
                return GradeToNext{Grade::percent(real(-6, 6))};
            case 5:
                return RiseToNext{real(-1, 1)};
            case 8:
                return MeetingGrades{{Grade::percent(real(1, 6))}, {Grade::percent(real(-6, -1))}};
            default:
                return Interpolated{};
        }
    };
    Line3D line;
    line.closed = closed;
    const std::size_t corners = 4 + pick(4);
    for (std::size_t k = 0; k < corners; ++k) {
        LineVertex v;
        const double turn = 2 * M_PI * static_cast<double>(k) / static_cast<double>(corners);
        v.place = closed ? Vec2{std::sin(turn) * real(60, 90), std::cos(turn) * real(60, 90)}
                         : Vec2{40.0 * static_cast<double>(k) + real(0, 10), real(0, 30)};
        v.rule =
            k == 0 || (!closed && k + 1 == corners) ? HeightRule{FixedHeight{real(90, 110)}} : rule(false);
        line.vertices.push_back(v);
    }
    for (std::size_t k = corners; k-- > 0;) {
        if (!closed && k + 1 == corners) continue;
        const Vec2 a = line.vertices[k].place;
        const Vec2 b = line.vertices[(k + 1) % corners].place;
        if (pick(3) == 0)
            line.vertices[k].through = lerp(a, b, 0.5) + geometry::leftOf(b - a) * real(-0.3, 0.3);
        if (pick(2) == 0) {
            LineVertex g;
            g.isCorner = false;
            g.fraction = real(0.2, 0.8);
            g.rule = rule(true);
            line.vertices.insert(line.vertices.begin() + static_cast<std::ptrdiff_t>(k) + 1, g);
        }
    }
    for (std::size_t i = 1; i + 1 < line.vertices.size(); ++i)
        if (pick(4) == 0 && isControl(line.vertices[i].rule))
            line.vertices[i].curve = VerticalCurve{VerticalCurve::By::Length, real(2, 25)};
    return line;
}

}  // namespace erdwerk::linework
