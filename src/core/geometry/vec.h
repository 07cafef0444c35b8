#pragma once
// Points and vectors in plan (easting x, northing y) and in space (height z), and axis-parallel boxes.

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/base/quantity.h"

namespace erdwerk::geometry {

struct Vec2 {
    double x = 0;
    double y = 0;
    friend bool operator==(const Vec2&, const Vec2&) = default;
};

struct Vec3 {
    double x = 0;
    double y = 0;
    double z = 0;
    [[nodiscard]] Vec2 plan() const { return {x, y}; }
    friend bool operator==(const Vec3&, const Vec3&) = default;
};

inline Vec2 operator+(Vec2 a, Vec2 b) {
    return {a.x + b.x, a.y + b.y};
}
inline Vec2 operator-(Vec2 a, Vec2 b) {
    return {a.x - b.x, a.y - b.y};
}
inline Vec2 operator*(Vec2 a, double s) {
    return {a.x * s, a.y * s};
}
inline double dot(Vec2 a, Vec2 b) {
    return a.x * b.x + a.y * b.y;
}
inline double cross(Vec2 a, Vec2 b) {
    return a.x * b.y - a.y * b.x;
}
inline double length(Vec2 a) {
    return std::hypot(a.x, a.y);
}
inline double distance(Vec2 a, Vec2 b) {
    return length(b - a);
}
/// Turned a quarter to the left.
inline Vec2 leftOf(Vec2 a) {
    return {-a.y, a.x};
}
inline Vec2 lerp(Vec2 a, Vec2 b, double t) {
    return {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t};
}

/// Azimuth of the direction from a to b, clockwise from north. Zero when the points coincide.
inline Angle azimuth(Vec2 a, Vec2 b) {
    return Angle::radians(std::atan2(b.x - a.x, b.y - a.y)).normalized();
}
inline Vec2 directionOf(Angle az) {
    return {std::sin(az.radians()), std::cos(az.radians())};
}

struct Box {
    double minX = std::numeric_limits<double>::infinity();
    double minY = std::numeric_limits<double>::infinity();
    double maxX = -std::numeric_limits<double>::infinity();
    double maxY = -std::numeric_limits<double>::infinity();

    void add(Vec2 p) {
        minX = std::min(minX, p.x);
        minY = std::min(minY, p.y);
        maxX = std::max(maxX, p.x);
        maxY = std::max(maxY, p.y);
    }
    void add(const Box& b) {
        minX = std::min(minX, b.minX);
        minY = std::min(minY, b.minY);
        maxX = std::max(maxX, b.maxX);
        maxY = std::max(maxY, b.maxY);
    }
    [[nodiscard]] bool empty() const { return minX > maxX; }
    [[nodiscard]] double width() const { return empty() ? 0 : maxX - minX; }
    [[nodiscard]] double height() const { return empty() ? 0 : maxY - minY; }
    [[nodiscard]] Vec2 centre() const { return {(minX + maxX) / 2, (minY + maxY) / 2}; }
    [[nodiscard]] bool contains(Vec2 p) const {
        return p.x >= minX && p.x <= maxX && p.y >= minY && p.y <= maxY;
    }
    [[nodiscard]] bool meets(const Box& b) const {
        return minX <= b.maxX && maxX >= b.minX && minY <= b.maxY && maxY >= b.minY;
    }
    [[nodiscard]] Box grown(double by) const { return {minX - by, minY - by, maxX + by, maxY + by}; }
};

}  // namespace erdwerk::geometry
