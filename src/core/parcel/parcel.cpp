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

namespace {

std::string lengthWords(double value, LengthUnit unit) {
    return formatFixed(value, 2) + (unit == LengthUnit::Metre ? " metres" : " feet");
}

std::string courseWords(const Course& c, LengthUnit unit) {
    if (!c.isCurve)
        return "thence " + formatBearing(c.azimuth) + ", a distance of " + lengthWords(c.distance, unit);
    std::string out = "thence along a ";
    out += c.tangent ? "tangent curve" : "non-tangent curve";
    out += c.right ? " to the right" : " to the left";
    out += ", having a radius of " + lengthWords(c.radius, unit);
    out += " and a central angle of " + formatAngle(c.delta, AngleUnit::DegreesMinutesSeconds);
    out += ", the chord of which bears " + formatBearing(c.azimuth) + " and measures " +
           lengthWords(c.distance, unit);
    out += ", an arc length of " + lengthWords(c.arcLength, unit);
    return out;
}

std::string beginningWords(const ParcelGeometry& parcel, const DescriptionOptions& options) {
    DisplaySettings two = options.display;
    two.lengthDecimals = 2;
    const Vec2 p = parcel.courses.front().start;
    const std::string place = formatPosition(p.x, p.y, two);
    if (options.beginning.empty()) return "Beginning at a point at " + place + ", the point of beginning";
    return "Beginning at " + options.beginning + " (" + place + "), the point of beginning";
}

}  // namespace

std::string describe(const ParcelGeometry& parcel, const DescriptionOptions& options) {
    if (parcel.courses.empty()) return {};
    const LengthUnit unit = options.display.unit;
    std::string out;
    if (!options.name.empty()) out += options.name + ": a parcel of land, described as follows.\n\n";
    out += beginningWords(parcel, options);
    const bool closes = parcel.closure.closes(unit);
    for (std::size_t i = 0; i < parcel.courses.size(); ++i) {
        out += ";\n" + courseWords(parcel.courses[i], unit);
        if (i + 1 == parcel.courses.size() && closes) out += ", to the point of beginning";
    }
    out += ".\n\nContaining ";
    if (unit == LengthUnit::Metre)
        out += formatFixed(parcel.area, 2) + " square metres (" + formatFixed(parcel.area / 10000, 4) +
               " hectares)";
    else
        out += formatFixed(parcel.area, 0) + " square feet (" + formatFixed(parcel.area / 43560.0, 4) +
               " acres)";
    out += ", more or less.\n";
    if (!closes) {
        out += "\nThe courses do not close: from the end of the last, the point of beginning lies ";
        out += formatBearing(*parcel.closure.azimuth) + ", " + formatFixed(parcel.closure.distance, 3) +
               " away.\n";
    }
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
