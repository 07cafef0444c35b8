#include "core/paper/stretches.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace erdwerk::paper {

using geometry::Vec2;

namespace {

constexpr std::size_t most = 500;

/// Places along a path that say how far it reaches: the ends of straights, and many on what bends. Worked out
/// once for all the stretches that are tried on it.
class Places {
public:
    explicit Places(const geometry::Path& path) : path_(path) {
        // So many on all of it that the shortest of 500 stretches has eight.
        const double apart = geometry::lengthOf(path) / (8 * most);
        double along = 0;
        for (const auto& segment : path) {
            const double length = geometry::lengthOf(segment);
            const int pieces =
                geometry::isCurved(segment) ? std::max(64, static_cast<int>(std::ceil(length / apart))) : 1;
            for (int k = 0; k < pieces; ++k) {
                const double fraction = static_cast<double>(k) / pieces;
                at_.push_back(along + length * fraction);
                places_.push_back(geometry::pointAt(segment, fraction));
            }
            along += length;
        }
    }
    [[nodiscard]] const geometry::Path& path() const { return path_; }
    /// Calls for each place of a stretch, its ends among them.
    template <class Each>
    void each(double from, double to, const Each& each) const {
        each(geometry::positionAt(path_, from).place);
        const auto first = std::upper_bound(at_.begin(), at_.end(), from);
        for (auto i = static_cast<std::size_t>(first - at_.begin()); i < at_.size() && at_[i] < to; ++i)
            each(places_[i]);
        each(geometry::positionAt(path_, to).place);
    }

private:
    const geometry::Path& path_;
    std::vector<double> at_;
    std::vector<Vec2> places_;
};

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
Extent extentOf(const Places& places, double from, double to) {
    const Angle up = upOf(places.path(), from, to);
    const double s = std::sin(up.radians());
    const double c = std::cos(up.radians());
    Extent out;
    places.each(from, to, [&](Vec2 p) {
        const double x = p.x * c - p.y * s;
        const double y = p.x * s + p.y * c;
        out.minX = std::min(out.minX, x);
        out.maxX = std::max(out.maxX, x);
        out.minY = std::min(out.minY, y);
        out.maxY = std::max(out.maxY, y);
    });
    return out;
}

/// Stretches of one length from the beginning; empty when one of them does not fit.
std::vector<Stretch> ofLength(const Places& places, double all, double length, double width, double height) {
    std::vector<Stretch> out;
    for (double from = 0; from < all - 1e-9; from += length) {
        const double to = std::min(all, from + length);
        const Extent e = extentOf(places, from, to);
        if (e.maxX - e.minX > width || e.maxY - e.minY > height || out.size() == most) return {};
        out.push_back({from, to});
    }
    return out;
}

}  // namespace

TurnedPlace turnedAlong(const geometry::Path& path, double from, double to) {
    const Angle up = upOf(path, from, to);
    const Extent e = extentOf(Places(path), from, to);
    const double s = std::sin(up.radians());
    const double c = std::cos(up.radians());
    const double x = (e.minX + e.maxX) / 2;
    const double y = (e.minY + e.maxY) / 2;
    return {{x * c + y * s, -x * s + y * c}, up};
}

std::array<double, 2> extentAlong(const geometry::Path& path, double from, double to) {
    const Extent e = extentOf(Places(path), from, to);
    return {e.maxX - e.minX, e.maxY - e.minY};
}

Result<std::vector<Stretch>> stretchesAlong(const geometry::Path& path, double width, double height,
                                            double round) {
    if (path.empty()) return badInput("the alignment has no length");
    if (!(width > 0) || !(height > 0)) return badInput("the plan frame has no room");
    const double all = geometry::lengthOf(path);
    const Places places(path);
    for (std::size_t n = std::max<std::size_t>(1, static_cast<std::size_t>(all / width)); n <= most; ++n) {
        const double exact = all / static_cast<double>(n);
        if (round > 0 && n > 1) {
            const double rounded = std::ceil(exact / round - 1e-9) * round;
            auto found = ofLength(places, all, rounded, width, height);
            if (!found.empty() && found.size() <= n) return found;
        }
        auto found = ofLength(places, all, exact, width, height);
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
