#include "core/parcel/parcel.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::parcel {

namespace {

/// 20 seconds of arc.
constexpr double tangentTolerance = Angle::degrees(20.0 / 3600.0).radians();

Course courseOf(const geometry::Segment& s) {
    Course c;
    c.start = s.start;
    c.end = s.end;
    c.azimuth = geometry::azimuth(s.start, s.end);
    c.distance = geometry::distance(s.start, s.end);
    // A course of a description is a straight or an arc.
    if (const auto arc = arcOf(s)) {
        c.isCurve = true;
        c.radius = arc->radius;
        c.delta = Angle::radians(std::abs(arc->sweep.radians()));
        c.arcLength = lengthOf(s);
        c.right = arc->right();
    }
    return c;
}

}  // namespace

ParcelGeometry survey(const Path& input, std::size_t begin) {
    ParcelGeometry out;
    if (input.empty()) return out;
    Path path = input;
    const double gap = geometry::distance(path.back().end, path.front().start);
    const bool closed = gap < 1e-6;
    if (closed && begin > 0)
        std::rotate(path.begin(), path.begin() + static_cast<std::ptrdiff_t>(begin % path.size()),
                    path.end());
    for (std::size_t i = 0; i < path.size(); ++i) {
        Course c = courseOf(path[i]);
        out.perimeter += c.isCurve ? c.arcLength : c.distance;
        if (c.isCurve && (i > 0 || closed)) {
            const auto& before = path[i == 0 ? path.size() - 1 : i - 1];
            const Angle turn = (tangentAt(path[i], 0) - tangentAt(before, 1)).signedTurn();
            c.tangent = std::abs(turn.radians()) <= tangentTolerance;
        }
        out.courses.push_back(c);
    }
    out.closure.distance = gap;
    if (gap > 0) {
        out.closure.azimuth = geometry::azimuth(path.back().end, path.front().start);
        out.closure.ratio = out.perimeter / gap;
        path.push_back({path.back().end, path.front().start, std::nullopt});
    }
    out.area = std::abs(geometry::signedArea(path));
    return out;
}

std::vector<CourseRow> courseTable(const ParcelGeometry& parcel, const DisplaySettings& display) {
    std::vector<CourseRow> rows;
    int lines = 0;
    int curves = 0;
    for (const Course& c : parcel.courses) {
        CourseRow row;
        row.name = c.isCurve ? "C" + std::to_string(++curves) : "L" + std::to_string(++lines);
        row.direction = formatDirection(c.azimuth, display);
        row.distance = formatFixed(c.distance, display.lengthDecimals);
        if (c.isCurve) {
            row.radius = formatFixed(c.radius, display.lengthDecimals);
            row.delta = formatAngle(c.delta, display.angleUnit);
            row.arcLength = formatFixed(c.arcLength, display.lengthDecimals);
        }
        rows.push_back(row);
    }
    return rows;
}

}  // namespace erdwerk::parcel
