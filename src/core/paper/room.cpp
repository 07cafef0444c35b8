#include "core/paper/room.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <vector>

namespace erdwerk::paper {

namespace {

constexpr double tolerance = 0.01;

/// How far one way a room has to go so that one of its held places lies on a guide.
struct Pull {
    double by = 0;
    double at = 0;
    bool found = false;
};

Pull nearest(std::span<const double> held, std::span<const double> guides, double reach) {
    Pull out;
    for (const double guide : guides)
        for (const double place : held)
            // Strictly nearer: of two alike the first counts.
            if (const double by = guide - place;
                std::abs(by) <= reach && (!out.found || std::abs(by) < std::abs(out.by) - 1e-9))
                out = {by, guide, true};
    return out;
}

std::vector<double> heldPlaces(double low, double size, int grip) {
    if (grip < 0) return {low};
    if (grip > 0) return {low + size};
    return {low, low + size, low + size / 2};
}

}  // namespace

bool isWithin(const Room& room, const Room& outer) {
    return room.left >= outer.left - tolerance && room.top >= outer.top - tolerance &&
           room.right() <= outer.right() + tolerance && room.bottom() <= outer.bottom() + tolerance;
}

bool overlap(const Room& a, const Room& b) {
    return a.left < b.right() - tolerance && b.left < a.right() - tolerance &&
           a.top < b.bottom() - tolerance && b.top < a.bottom() - tolerance;
}

Room broughtWithin(const Room& room, const Room& outer) {
    Room out = room;
    out.width = std::min(room.width, outer.width);
    out.height = std::min(room.height, outer.height);
    out.left = std::clamp(room.left, outer.left, outer.right() - out.width);
    out.top = std::clamp(room.top, outer.top, outer.bottom() - out.height);
    return out;
}

std::optional<Grip> gripAt(const Room& room, double x, double y, double reach) {
    if (x < room.left - reach || x > room.right() + reach || y < room.top - reach ||
        y > room.bottom() + reach)
        return std::nullopt;
    const auto side = [&](double at, double low, double high) {
        const double toLow = std::abs(at - low);
        const double toHigh = std::abs(at - high);
        if (std::min(toLow, toHigh) > reach) return 0;
        return toLow <= toHigh ? -1 : 1;
    };
    return Grip{side(x, room.left, room.right()), side(y, room.top, room.bottom())};
}

Room dragged(const Room& room, Grip grip, double dx, double dy) {
    Room out = room;
    if (grip.whole()) {
        out.left += dx;
        out.top += dy;
        return out;
    }
    const auto edge = [](double& low, double& size, int which, double by) {
        if (which < 0) {
            const double moved = std::min(by, size - leastRoom);
            low += moved;
            size -= moved;
        } else if (which > 0) {
            size = std::max(leastRoom, size + by);
        }
    };
    edge(out.left, out.width, grip.across, dx);
    edge(out.top, out.height, grip.down, dy);
    return out;
}

Guided guided(const Room& moved, Grip grip, const Room& page, std::span<const Room> others, double reach) {
    std::vector<double> xs{page.left, page.right(), page.left + page.width / 2};
    std::vector<double> ys{page.top, page.bottom(), page.top + page.height / 2};
    for (const Room& other : others) {
        for (const double x : {other.left, other.right(), other.left + other.width / 2}) xs.push_back(x);
        for (const double y : {other.top, other.bottom(), other.top + other.height / 2}) ys.push_back(y);
    }
    Guided out{moved};
    Pull x;
    Pull y;
    if (grip.whole() || grip.across != 0)
        x = nearest(heldPlaces(moved.left, moved.width, grip.across), xs, reach);
    if (grip.whole() || grip.down != 0)
        y = nearest(heldPlaces(moved.top, moved.height, grip.down), ys, reach);
    const Room pulled = dragged(moved, grip, x.by, y.by);
    // An edge that stopped short of its guide did not catch on it.
    if (x.found) out.x = x.at;
    if (y.found) out.y = y.at;
    out.room = pulled;
    return out;
}

}  // namespace erdwerk::paper
