// Random pads and batters on random ground: whatever comes out is a surface.

#include <cmath>
#include <random>
#include <set>

#include "core/check/finding.h"
#include "core/derive/earthwork_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/earthworks.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::operations {
namespace {

using test::valueOf;

double planArea(const terrain::Tin& tin) {
    double sum = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        sum += geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    }
    return sum;
}

/// Each side of a triangle is gone along once in each direction at most, and both triangles know each other.
void expectProper(const terrain::Tin& tin) {
    std::set<std::pair<std::uint32_t, std::uint32_t>> sides;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            ASSERT_TRUE(sides.insert({tin.corner(t, i), tin.corner(t, (i + 1) % 3)}).second);
            const std::uint32_t other = tin.neighbour(t, i);
            if (other == terrain::Tin::none) continue;
            bool back = false;
            for (int k = 0; k < 3; ++k) back = back || tin.neighbour(other, k) == t;
            ASSERT_TRUE(back);
        }
}

class Storm {
public:
    explicit Storm(unsigned seed) : random_(seed) {
        std::vector<survey::SurveyPoint> points;
        const double wave = 6 + 10 * unit();
        for (int i = 0; i < 250; ++i) {
            const Vec2 p{200 * unit(), 200 * unit()};
            points.push_back({std::to_string(i), p, height(p, wave), "", ""});
        }
        for (const double x : {-1.0, 201.0})
            for (const double y : {-1.0, 201.0})
                points.push_back({std::to_string(points.size()), {x, y}, height({x, y}, wave), "", ""});
        ObjectId set;
        document_ = test::afterEdit(document_, addPoints("Survey", points), &set);
        document_ = test::afterEdit(document_, addSurface("Ground", {{set, Role::Points}}), &ground_);
        ObjectId group;
        document_ = document_.added("Works", Group{"#123456"}, &group);
        for (int k = 0; k < 3; ++k) add(k < 2 ? group : ObjectId{});
    }

    void run() {
        for (int step = 0; step < 4; ++step) {
            const auto derived = valueOf(model_.evaluate(document_));
            const auto* finished = derived.surface(finishedOf(document_, ground_));
            ASSERT_NE(finished, nullptr);
            expectProper(finished->tin());
            EXPECT_NEAR(planArea(finished->tin()), 202.0 * 202.0, 0.05);
            EXPECT_TRUE(derived.surfaces.at(finishedOf(document_, ground_))->editProblems.empty());
            for (const auto& [id, made] : derived.earthworks) {
                EXPECT_EQ(made->problem, "");
                EXPECT_TRUE(made->batter.open.empty());  // the ground is wide enough for all of them
            }
            EXPECT_FALSE(derived.contours.at(finishedOf(document_, ground_))->empty());
            static_cast<void>(check::run(derived));
            // Somebody drags a corner.
            const ObjectId line = edges_[random_() % edges_.size()];
            const std::size_t vertex = random_() % 5;
            const Vec2 at = document_.get<Line>(line)->line.vertices[vertex].place;
            auto moved = document::perform(
                "move", moveVertex(line, vertex, at + Vec2{4 * unit() - 2, 4 * unit() - 2}), document_);
            if (moved) document_ = std::move(moved->document);
        }
    }

private:
    using Vec2 = geometry::Vec2;
    double unit() { return std::uniform_real_distribution<double>(0, 1)(random_); }
    double height(Vec2 p, double wave) {
        return 100 + 2 * std::sin(p.x / wave) + 2 * std::cos(p.y / wave) + 0.4 * unit();
    }
    void add(ObjectId group) {
        const Vec2 middle{60 + 80 * unit(), 60 + 80 * unit()};
        std::vector<Vec2> corners;
        std::vector<std::optional<double>> heights;
        for (int k = 0; k < 5; ++k) {
            const double a = k * 2 * M_PI / 5;
            const double r = 9 + 5 * unit();
            corners.push_back(middle + Vec2{r * std::cos(a), r * std::sin(a)});
            heights.emplace_back(100 + 2 * unit() - 1);
        }
        ObjectId line;
        document_ = document_.added("Edge " + std::to_string(edges_.size()),
                                    Line{linework::lineThrough(corners, heights, true)}, &line, group);
        edges_.push_back(line);
        Earthwork work;
        work.sort = EarthworkSort::Pad;
        work.edge = line;
        work.ground = ground_;
        work.form.cut = unit() < 0.5 ? "1:1" : "2:1";
        work.form.fill = unit() < 0.5 ? "1.5:1" : "3:1";
        if (unit() < 0.4) work.form.corners = linework::OutsideCorner::Round;
        if (unit() < 0.4) work.form.berms = {{0.8, 0.7, true}, {-0.8, 0.7, true}};
        auto made = document::perform("make", addEarthwork(work), document_);
        ASSERT_TRUE(made) << made.error().text;
        document_ = std::move(made->document);
    }

    std::mt19937 random_;
    Document document_;
    ObjectId ground_;
    std::vector<ObjectId> edges_;
    derive::Model model_;
};

TEST(EarthworksStorm, WhateverIsDraggedTheFinishedSurfaceIsWhole) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        Storm(seed).run();
    }
}

}  // namespace
}  // namespace erdwerk::operations
