#include "core/earthwork/hachures.h"

namespace erdwerk::earthwork {

namespace {

class Strokes {
public:
    Strokes(const terrain::TinLocator& faces, double spacing, double longest)
        : faces_(faces), spacing_(spacing), longest_(longest) {}

    void along(const std::vector<Vec3>& chain) {
        double next = spacing_ / 2;
        for (std::size_t k = 0; k + 1 < chain.size(); ++k) {
            const Vec2 a = chain[k].plan();
            const Vec2 b = chain[k + 1].plan();
            const double size = geometry::distance(a, b);
            for (; next < size; next += spacing_, ++count_) {
                const Vec2 p = geometry::lerp(a, b, next / size);
                const Vec2 side = geometry::leftOf((b - a) * (1 / size));
                for (const Vec2 way : {side, side * -1.0}) stroke(p, way);
            }
            next -= size;
        }
    }
    std::vector<Hachure> out;

private:
    /// When the face to this side falls away from the place.
    void stroke(Vec2 p, Vec2 way) {
        constexpr double inside = 1e-4;
        const auto t = faces_.triangleAt(p + way * inside);
        if (!t) return;
        const auto slope = terrain::slopeOf(faces_.tin().triangle(*t));
        const Vec2 downhill = geometry::directionOf(slope.downhill);
        if (slope.grade < 1e-6 || geometry::dot(downhill, way) <= 0) return;
        // Halved until it stays on the faces.
        double size = count_ % 2 == 0 ? longest_ : longest_ / 2;
        for (int i = 0; i < 6 && !faces_.triangleAt(p + downhill * size); ++i) size /= 1.5;
        if (faces_.triangleAt(p + downhill * size)) out.push_back({p, p + downhill * size});
    }

    const terrain::TinLocator& faces_;
    double spacing_;
    double longest_;
    int count_ = 0;
};

}  // namespace

std::vector<Hachure> hachures(const Batter& batter, const terrain::TinLocator& faces, double spacing,
                              double longest) {
    Strokes strokes(faces, spacing, longest);
    std::vector<Vec3> edge = batter.edge;
    if (batter.closed && !edge.empty()) edge.push_back(edge.front());
    strokes.along(edge);
    for (const auto& chain : batter.daylight) strokes.along(chain);
    return std::move(strokes.out);
}

}  // namespace erdwerk::earthwork
