#include "core/terrain/ground.h"

#include "demo_site/cloud.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

struct Score {
    double groundMissed = 0;  ///< share of true ground that is not found
    double otherTaken = 0;    ///< share of the rest that is taken for ground
};

Score scoreOf(const std::vector<bool>& found, const std::vector<bool>& truth) {
    std::size_t ground = 0;
    std::size_t missed = 0;
    std::size_t taken = 0;
    for (std::size_t i = 0; i < truth.size(); ++i) {
        ground += truth[i] ? 1 : 0;
        missed += truth[i] && !found[i] ? 1 : 0;
        taken += !truth[i] && found[i] ? 1 : 0;
    }
    return {static_cast<double>(missed) / static_cast<double>(ground),
            static_cast<double>(taken) / std::max(1.0, static_cast<double>(truth.size() - ground))};
}

TEST(Ground, IsToldFromTreesAndBuildingsOnASlope) {
    for (unsigned seed = 1; seed <= 5; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> unit(0, 1);
        std::vector<geometry::Vec3> points;
        std::vector<bool> truth;
        for (int i = 0; i < 30000; ++i) {
            const double x = 100 * unit(random);
            const double y = 100 * unit(random);
            const double ground = 0.3 * x + 2 * std::sin(y / 15) + 0.02 * unit(random);
            const bool house = x > 30 && x < 44 && y > 40 && y < 52;
            const bool tree = std::hypot(x - 75, y - 30) < 5 && unit(random) < 0.8;
            points.push_back({x, y,
                              house ? 0.3 * 37 + 2 * std::sin(46 / 15.0) + 6
                                    : ground + (tree ? 2 + 5 * unit(random) : 0)});
            truth.push_back(!house && !tree);
        }
        const auto score = scoreOf(valueOf(groundPoints(points)), truth);
        EXPECT_LT(score.groundMissed, 0.02);
        EXPECT_LT(score.otherTaken, 0.02);
    }
}

TEST(Ground, OfARockWithSteepFacesStays) {
    const auto made = demo::makeCloud(demo::northKnoll());
    const auto points = valueOf(survey::placesOf(made.cloud, {}));
    const auto score = scoreOf(valueOf(groundPoints(points)), made.ground);
    std::printf("North Knoll: %.2f %% of the ground missed, %.2f %% of the rest taken\n",
                100 * score.groundMissed, 100 * score.otherTaken);
    EXPECT_LT(score.groundMissed, 0.03);
    EXPECT_LT(score.otherTaken, 0.10);
}

TEST(Ground, ALonePointFarBelowIsNotGround) {
    std::vector<geometry::Vec3> points;
    for (int x = 0; x < 40; ++x)
        for (int y = 0; y < 40; ++y) points.push_back({x * 1.0, y * 1.0, 10});
    points.push_back({20.3, 20.3, -30});
    const auto ground = valueOf(groundPoints(points));
    EXPECT_FALSE(ground.back());
    EXPECT_EQ(std::count(ground.begin(), ground.end(), true), 1600);
}

TEST(Ground, NeedsThreePlaces) {
    EXPECT_EQ(groundPoints({}).error().code, ErrorCode::Degenerate);
    EXPECT_EQ(groundPoints({{0, 0, 0}, {1, 1, 0}}).error().code, ErrorCode::Degenerate);
    EXPECT_EQ(groundPoints({{5, 5, 0}, {5, 5, 0}, {5, 5, 0}}).error().code, ErrorCode::Degenerate);
}

}  // namespace
}  // namespace erdwerk::terrain
