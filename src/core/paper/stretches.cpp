#include "core/paper/stretches.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace erdwerk::paper {

using geometry::Vec2;

namespace {

constexpr std::size_t most = 500;

/// The places of a stretch: dense enough for its extent, ends among them.
std::vector<Vec2> placesOf(const geometry::Path& path, double from, double to) {
    constexpr int pieces = 200;
    std::vector<Vec2> out;
    out.reserve(pieces + 1);
    for (int k = 0; k <= pieces; ++k)
        out.push_back(geometry::positionAt(path, from + (to - from) * k / pieces).place);
    return out;
}

Angle upOf(const geometry::Path& path, double from, double to) {
    const Vec2 a = geometry::positionAt(path, from).place;
    const Vec2 b = geometry::positionAt(path, to).place;
    // Left of the way that it runs; where its ends meet, of its tangent in the middle.
    const double azimuth = geometry::distance(a, b) > 1e-9
                               ? std::atan2(b.x - a.x, b.y - a.y)
                               : geometry::positionAt(path, (from + to) / 2).direction.radians();
    return Angle::radians(azimuth - M_PI / 2);
}

struct Extent {
    double minX = 1e300, maxX = -1e300, minY = 1e300, maxY = -1e300;
};

/// In the axes of the paper, about the ground's origin.
Extent extentOf(const std::vector<Vec2>& places, Angle up) {
    const double s = std::sin(up.radians());
    const double c = std::cos(up.radians());
    Extent out;
    for (const Vec2 p : places) {
        const double x = p.x * c - p.y * s;
        const double y = p.x * s + p.y * c;
        out.minX = std::min(out.minX, x);
        out.maxX = std::max(out.maxX, x);
        out.minY = std::min(out.minY, y);
        out.maxY = std::max(out.maxY, y);
    }
    return out;
}

/// Stretches of one length from the beginning; empty when one of them does not fit.
std::vector<Stretch> ofLength(const geometry::Path& path, double all, double length, double width,
                              double height) {
    std::vector<Stretch> out;
    for (double from = 0; from < all - 1e-9; from += length) {
        const double to = std::min(all, from + length);
        // A last crumb belongs to the stretch before.
        const auto [w, h] = extentAlong(path, from, to);
        if (w > width || h > height || out.size() == most) return {};
        out.push_back({from, to});
    }
    return out;
}

}  // namespace

TurnedPlace turnedAlong(const geometry::Path& path, double from, double to) {
    const Angle up = upOf(path, from, to);
    const Extent e = extentOf(placesOf(path, from, to), up);
    const double s = std::sin(up.radians());
    const double c = std::cos(up.radians());
    const double x = (e.minX + e.maxX) / 2;
    const double y = (e.minY + e.maxY) / 2;
    return {{x * c + y * s, -x * s + y * c}, up};
}

std::array<double, 2> extentAlong(const geometry::Path& path, double from, double to) {
    const Extent e = extentOf(placesOf(path, from, to), upOf(path, from, to));
    return {e.maxX - e.minX, e.maxY - e.minY};
}

Result<std::vector<Stretch>> stretchesAlong(const geometry::Path& path, double width, double height,
                                            double round) {
    if (path.empty()) return badInput("the alignment has no length");
    if (!(width > 0) || !(height > 0)) return badInput("the plan frame has no room");
    const double all = geometry::lengthOf(path);
    for (std::size_t n = std::max<std::size_t>(1, static_cast<std::size_t>(all / width)); n <= most; ++n) {
        const double exact = all / static_cast<double>(n);
        if (round > 0 && n > 1) {
            const double rounded = std::ceil(exact / round - 1e-9) * round;
            auto found = ofLength(path, all, rounded, width, height);
            if (!found.empty() && found.size() <= n) return found;
        }
        auto found = ofLength(path, all, exact, width, height);
        if (!found.empty()) {
            found.resize(std::min(found.size(), n));
            found.back().to = all;
            return found;
        }
    }
    return badInput("no " + std::to_string(most) +
                    " sheets hold the alignment at that scale; take a smaller scale or a larger frame");
}

}  // namespace erdwerk::paper
