#pragma once
// Helpers for tests: short literals, near-equal checks that print what differs, a folder that cleans up.

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <filesystem>
#include <fstream>
#include <random>
#include <sstream>
#include <string>

#include "core/geometry/path.h"
#include "core/terrain/build.h"

namespace erdwerk::test {

using geometry::Vec2;
using geometry::Vec3;

/// "0 0, 10 0, 10 5" as places.
inline std::vector<Vec2> places(const std::string& text) {
    std::vector<Vec2> out;
    std::istringstream parts(text);
    std::string part;
    while (std::getline(parts, part, ',')) {
        std::istringstream numbers(part);
        Vec2 p;
        numbers >> p.x >> p.y;
        out.push_back(p);
    }
    return out;
}

/// "0 0 1, 10 0 2" as places with heights.
inline std::vector<Vec3> places3(const std::string& text) {
    std::vector<Vec3> out;
    std::istringstream parts(text);
    std::string part;
    while (std::getline(parts, part, ',')) {
        std::istringstream numbers(part);
        Vec3 p;
        numbers >> p.x >> p.y >> p.z;
        out.push_back(p);
    }
    return out;
}

MATCHER_P3(IsNear, x, y, tolerance, "") {
    *result_listener << "which is (" << arg.x << ", " << arg.y << ")";
    return std::abs(arg.x - x) <= tolerance && std::abs(arg.y - y) <= tolerance;
}

/// Exits the test with the error's message when there is no value.
template <class T>
T valueOf(Result<T> result) {
    if (!result) throw std::runtime_error("unexpected error: " + result.error().message());
    return std::move(*result);
}

inline Vec3 onPlane(double x, double y, double a, double b, double c) {
    return {x, y, a * x + b * y + c};
}

/// Points on a jittered grid with heights from a function.
template <class Height>
std::vector<Vec3> scattered(std::mt19937& random, int count, double size, const Height& height) {
    std::uniform_real_distribution<double> unit(0, size);
    std::vector<Vec3> out;
    for (int i = 0; i < count; ++i) {
        const double x = unit(random);
        const double y = unit(random);
        out.push_back({x, y, static_cast<double>(height(x, y))});
    }
    return out;
}

class Folder {
public:
    Folder() {
        std::string pattern = (std::filesystem::temp_directory_path() / "erdwerk-test-XXXXXX").string();
        path_ = ::mkdtemp(pattern.data());
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    ~Folder() {
        std::error_code ignored;
        std::filesystem::remove_all(path_, ignored);
    }
    [[nodiscard]] std::string operator/(const std::string& name) const { return (path_ / name).string(); }
    /// Writes a file and returns its path.
    [[nodiscard]] std::string file(const std::string& name, const std::string& text) const {
        std::ofstream(path_ / name, std::ios::binary) << text;
        return *this / name;
    }
    [[nodiscard]] std::size_t entries() const {
        return static_cast<std::size_t>(
            std::distance(std::filesystem::directory_iterator(path_), std::filesystem::directory_iterator{}));
    }

private:
    std::filesystem::path path_;
};

inline std::string contentOf(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

}  // namespace erdwerk::test
