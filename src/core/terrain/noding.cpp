#include "core/terrain/noding.h"

#include <oneapi/tbb/enumerable_thread_specific.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>

#include "core/geometry/box_index.h"
#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

namespace {

using geometry::Meeting;

struct Side {
    std::uint32_t from;
    std::uint32_t to;
    std::uint32_t line;
};

struct Pair {
    std::uint32_t first;
    std::uint32_t second;
    Meeting meeting;
};

std::vector<Pair> meetingSides(const std::vector<Side>& sides, const std::vector<Vec3>& vertices) {
    std::vector<Box> boxes(sides.size());
    for (std::size_t i = 0; i < sides.size(); ++i) {
        boxes[i].add(vertices[sides[i].from].plan());
        boxes[i].add(vertices[sides[i].to].plan());
    }
    const geometry::BoxIndex index(boxes);
    tbb::enumerable_thread_specific<std::vector<Pair>> found;
    tbb::parallel_for(std::size_t{0}, sides.size(), [&](std::size_t i) {
        const Vec2 a = vertices[sides[i].from].plan();
        const Vec2 b = vertices[sides[i].to].plan();
        index.query(boxes[i], [&](std::uint32_t j) {
            if (j <= i) return true;
            const Meeting m =
                geometry::meeting(a, b, vertices[sides[j].from].plan(), vertices[sides[j].to].plan());
            if (m == Meeting::Crossing || m == Meeting::Touching)
                found.local().push_back({static_cast<std::uint32_t>(i), j, m});
            return true;
        });
    });
    std::vector<Pair> all;
    for (const auto& local : found) all.insert(all.end(), local.begin(), local.end());
    std::sort(all.begin(), all.end(), [](const Pair& a, const Pair& b) {
        return a.first != b.first ? a.first < b.first : a.second < b.second;
    });
    return all;
}

/// Height of a side at a place known to lie on it.
double heightOn(const Vec3& a, const Vec3& b, Vec2 p) {
    const double whole = geometry::distance(a.plan(), b.plan());
    const double t = whole == 0 ? 0 : std::clamp(geometry::distance(a.plan(), p) / whole, 0.0, 1.0);
    return a.z + (b.z - a.z) * t;
}

class Noder {
public:
    Noder(const std::vector<Breakline>& lines, CrossingRule rule) : rule_(rule) {
        for (std::size_t l = 0; l < lines.size(); ++l) addLine(lines[l], static_cast<std::uint32_t>(l));
        original_ = out_.vertices;
        out_.corners = out_.vertices.size();
        cuts_.resize(sides_.size());
    }

    NodedLines run() {
        for (const Pair& pair : meetingSides(sides_, original_)) {
            if (pair.meeting == Meeting::Crossing)
                cross(pair.first, pair.second);
            else
                touch(pair.first, pair.second);
        }
        cutSides();
        return std::move(out_);
    }

private:
    void addLine(const Breakline& line, std::uint32_t l) {
        const auto base = static_cast<std::uint32_t>(out_.vertices.size());
        const auto n = static_cast<std::uint32_t>(line.corners.size());
        out_.vertices.insert(out_.vertices.end(), line.corners.begin(), line.corners.end());
        decidedBy_.insert(decidedBy_.end(), n, l);
        for (std::uint32_t i = 0; i + 1 < n; ++i) sides_.push_back({base + i, base + i + 1, l});
        if (line.closed && n > 2) sides_.push_back({base + n - 1, base, l});
    }

    void cross(std::uint32_t i, std::uint32_t j) {
        const Vec3& a = original_[sides_[i].from];
        const Vec3& b = original_[sides_[i].to];
        const Vec3& c = original_[sides_[j].from];
        const Vec3& d = original_[sides_[j].to];
        const double t = geometry::crossingFraction(a.plan(), b.plan(), c.plan(), d.plan());
        const Vec2 place = geometry::lerp(a.plan(), b.plan(), t);
        // Sides come in the order of the lines, so i belongs to the first.
        const double first = a.z + (b.z - a.z) * t;
        const double second = heightOn(c, d, place);
        out_.crossings.push_back({place, sides_[i].line, sides_[j].line, first, second});
        const auto vertex = static_cast<std::uint32_t>(out_.vertices.size());
        out_.vertices.push_back({place.x, place.y, heightBy(rule_, first, second)});
        cuts_[i].push_back(vertex);
        cuts_[j].push_back(vertex);
    }

    void touch(std::uint32_t i, std::uint32_t j) {
        const std::array<std::uint32_t, 4> ends{sides_[i].from, sides_[i].to, sides_[j].from, sides_[j].to};
        for (std::size_t k = 0; k < 4; ++k) {
            const Side& other = k < 2 ? sides_[j] : sides_[i];
            const Vec2 p = original_[ends[k]].plan();
            const Vec3& a = original_[other.from];
            const Vec3& b = original_[other.to];
            if (p == a.plan() || p == b.plan() || geometry::orientation(a.plan(), b.plan(), p) != 0) continue;
            if (geometry::meeting(a.plan(), b.plan(), p, p) == Meeting::None) continue;
            (k < 2 ? cuts_[j] : cuts_[i]).push_back(ends[k]);
            if (sides_[i].line == sides_[j].line) continue;
            const double onSide = heightOn(a, b, p);
            const double atEnd = original_[ends[k]].z;
            const double first = k < 2 ? atEnd : onSide;
            const double second = k < 2 ? onSide : atEnd;
            settle(ends[k], onSide, k < 2 ? sides_[j].line : sides_[i].line);
            if (std::abs(first - second) > 1e-9 && !alreadyReported(p, sides_[i].line, sides_[j].line))
                out_.crossings.push_back({p, sides_[i].line, sides_[j].line, first, second});
        }
    }

    /// The height of a corner that lies on the side of another line.
    void settle(std::uint32_t corner, double onSide, std::uint32_t line) {
        double& z = out_.vertices[corner].z;
        if (rule_ != CrossingRule::First) {
            z = heightBy(rule_, z, onSide);
        } else if (line < decidedBy_[corner]) {
            decidedBy_[corner] = line;
            z = onSide;
        }
    }

    [[nodiscard]] bool alreadyReported(Vec2 p, std::size_t first, std::size_t second) const {
        // A corner in mid-line is the end of two sides; both are found, next to each other.
        const std::size_t from = out_.crossings.size() > 8 ? out_.crossings.size() - 8 : 0;
        for (std::size_t k = from; k < out_.crossings.size(); ++k)
            if (out_.crossings[k].place == p && out_.crossings[k].first == first &&
                out_.crossings[k].second == second)
                return true;
        return false;
    }

    void cutSides() {
        for (std::size_t i = 0; i < sides_.size(); ++i) {
            auto& cuts = cuts_[i];
            const Vec2 start = out_.vertices[sides_[i].from].plan();
            std::sort(cuts.begin(), cuts.end(), [&](std::uint32_t a, std::uint32_t b) {
                return geometry::distance(start, out_.vertices[a].plan()) <
                       geometry::distance(start, out_.vertices[b].plan());
            });
            std::uint32_t at = sides_[i].from;
            for (const std::uint32_t cut : cuts) {
                out_.sides.push_back({at, cut});
                at = cut;
            }
            out_.sides.push_back({at, sides_[i].to});
        }
    }

    CrossingRule rule_;
    NodedLines out_;
    std::vector<Vec3> original_;
    std::vector<std::uint32_t> decidedBy_;  ///< per corner: the line whose height it has
    std::vector<Side> sides_;
    std::vector<std::vector<std::uint32_t>> cuts_;
};

}  // namespace

double heightBy(CrossingRule rule, double first, double second) {
    switch (rule) {
        case CrossingRule::Higher:
            return std::max(first, second);
        case CrossingRule::Lower:
            return std::min(first, second);
        case CrossingRule::Mean:
            return (first + second) / 2;
        case CrossingRule::First:
            break;
    }
    return first;
}

NodedLines nodeLines(const std::vector<Breakline>& lines, CrossingRule rule) {
    return Noder(lines, rule).run();
}

}  // namespace erdwerk::terrain
