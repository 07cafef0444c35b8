#include "core/parcel/called_figure.h"

#include <cmath>
#include <numbers>

namespace erdwerk::parcel {

namespace {

using std::numbers::pi;

Vec2 along(Angle azimuth, double distance) {
    return {distance * std::sin(azimuth.radians()), distance * std::cos(azimuth.radians())};
}

/// Central angle for an arc over its chord: arc / chord = (d / 2) / sin(d / 2), by halving.
double angleForRatio(double arcOverChord) {
    double low = 0;
    double high = 2 * pi;
    for (int i = 0; i < 80; ++i) {
        const double mid = (low + high) / 2;
        const double ratio = mid > 0 ? (mid / 2) / std::sin(mid / 2) : 1;
        (ratio > 0 && ratio < arcOverChord ? low : high) = mid;
    }
    return (low + high) / 2;
}

/// Radius and central angle from what is called of them; nothing when that is too little or no curve has it.
bool solveCurve(const CalledCourse& called, Course& c) {
    const auto value = [](const std::optional<CalledFigure>& f) { return f ? f->value : 0.0; };
    double r = value(called.radius);
    double d = value(called.delta);
    const double arc = value(called.arcLength);
    const double chord = value(called.distance);
    if (r > 0 && d <= 0) {
        if (arc > 0)
            d = arc / r;
        else if (chord > 0 && chord <= 2 * r)
            d = 2 * std::asin(chord / (2 * r));
    } else if (r <= 0) {
        if (d <= 0 && arc > 0 && chord > 0 && arc > chord) d = angleForRatio(arc / chord);
        if (d > 0 && arc > 0)
            r = arc / d;
        else if (d > 0 && chord > 0 && d < 2 * pi)
            r = chord / (2 * std::sin(d / 2));
    }
    if (!(r > 0) || !(d > 0) || d >= 2 * pi) return false;
    c.radius = r;
    c.delta = Angle::radians(d);
    c.arcLength = arc > 0 ? arc : r * d;
    c.distance = chord > 0 ? chord : 2 * r * std::sin(d / 2);
    return true;
}

/// Azimuth from the start of a curve to its centre. Requires a called radial.
double toCentre(const CalledCourse& called) {
    return called.radial->value + (called.radialFromCentre ? pi : 0.0);
}

/// The side, as called or as it follows; nothing when neither.
std::optional<bool> sideOf(const CalledCourse& called, std::optional<Angle> before) {
    if (called.right) return called.right;
    std::optional<Angle> direction = before;
    if (called.heading) direction = Angle::radians(*called.heading);
    if (called.azimuth) direction = Angle::radians(called.azimuth->value);
    if (called.radial && direction) return std::sin(toCentre(called) - direction->radians()) > 0;
    if (called.concave && direction) return std::sin(*called.concave - direction->radians()) > 0;
    if (called.azimuth && before)
        return (Angle::radians(called.azimuth->value) - *before).signedTurn().radians() > 0;
    return std::nullopt;
}

std::optional<Angle> leaving(const CalledCourse& called, bool right, std::optional<Angle> before) {
    if (called.startTangent) return Angle::radians(called.startTangent->value);
    if (called.radial) {
        return Angle::radians(toCentre(called) + (right ? -pi / 2 : pi / 2)).normalized();
    }
    return before;
}

double uncertaintyOf(const CalledCourse& called, const Course& c, double halfBefore) {
    const double length = called.distance ? called.distance->half
                                          : (called.radius ? called.radius->half : 0) +
                                                (called.arcLength ? called.arcLength->half : 0) +
                                                c.radius * (called.delta ? called.delta->half : 0);
    const double turn =
        called.azimuth ? called.azimuth->half : halfBefore + (called.delta ? called.delta->half : 0);
    return length + c.distance * turn;
}

DrawnCourse drawn(const CalledCourse& called, std::optional<Angle> before, double& half) {
    DrawnCourse out;
    Course& c = out.course;
    c.isCurve = called.isCurve;
    if (!called.isCurve) {
        if (!called.azimuth || !called.distance) return out;
        c.azimuth = Angle::radians(called.azimuth->value);
        c.distance = called.distance->value;
        out.in = out.out = c.azimuth;
    } else {
        if (!solveCurve(called, c)) return out;
        const auto right = sideOf(called, before);
        if (!right) return out;
        c.right = *right;
        const Angle halfTurn = Angle::radians((c.right ? 1 : -1) * c.delta.radians() / 2);
        if (called.azimuth) {
            c.azimuth = Angle::radians(called.azimuth->value);
        } else {
            const auto start = leaving(called, c.right, before);
            if (!start) return out;
            c.azimuth = (*start + halfTurn).normalized();
        }
        out.in = (c.azimuth - halfTurn).normalized();
        out.out = (c.azimuth + halfTurn).normalized();
    }
    out.uncertainty = uncertaintyOf(called, c, half);
    half = called.azimuth ? called.azimuth->half : half;
    out.drawn = true;
    return out;
}

Vec2 middleOf(const Course& c) {
    // The rise of the arc over its chord, to the left of a curve to the right.
    const double rise = c.distance / 2 * std::tan(c.delta.radians() / 4);
    const Angle across = c.azimuth + Angle::radians(c.right ? -pi / 2 : pi / 2);
    return (c.start + c.end) * 0.5 + along(across, rise);
}

}  // namespace

std::vector<DrawnCourse> drawnCourses(const ReadDescription& read) {
    std::vector<DrawnCourse> out;
    out.reserve(read.courses.size());
    std::optional<Angle> before;
    double half = 0;
    if (!read.courses.empty()) {
        // The first may be tangent to the last.
        const DrawnCourse last = drawn(read.courses.back(), std::nullopt, half);
        if (last.drawn) before = last.out;
    }
    Vec2 at;
    for (const auto& called : read.courses) {
        DrawnCourse next = drawn(called, before, half);
        if (next.drawn) {
            next.course.start = at;
            at = at + along(next.course.azimuth, next.course.distance);
            next.course.end = at;
            if (before) {
                const double turn = (next.in - *before).signedTurn().degrees();
                next.course.tangent = std::abs(turn) <= 20.0 / 3600;
            }
            before = next.out;
        } else {
            before.reset();
        }
        out.push_back(next);
    }
    return out;
}

CalledShape shapeOf(const std::vector<DrawnCourse>& courses) {
    CalledShape out;
    const Path path = figureOf(courses, {}, {}, 1);
    if (path.empty()) return out;
    out.geometry = survey(path);
    // Half a unit in the sixteenth digit of a sum is no misclosure.
    out.roundingGap = 1e-9 * out.geometry.perimeter;
    for (const auto& c : courses) out.roundingGap += c.uncertainty;
    return out;
}

Path figureOf(const std::vector<DrawnCourse>& courses, Vec2 begin, Angle north, double factor) {
    Path out;
    out.reserve(courses.size());
    const double sine = std::sin(north.radians());
    const double cosine = std::cos(north.radians());
    const auto place = [&](Vec2 p) {
        return begin + Vec2{p.x * cosine + p.y * sine, p.y * cosine - p.x * sine} * factor;
    };
    for (const auto& c : courses) {
        if (!c.drawn) continue;
        geometry::Segment segment{place(c.course.start), place(c.course.end), std::nullopt};
        if (!out.empty()) segment.start = out.back().end;
        if (c.course.isCurve) segment.through = place(middleOf(c.course));
        out.push_back(segment);
    }
    return out;
}

}  // namespace erdwerk::parcel
