// Dense heights against their peers, on the same data in the same run.
//   erdwerk-dense-bench FILE.las    what a view asks of this cloud
//   erdwerk-dense-bench             a line more, loading 10 000 000 points, thinning 2 000 000
// Peers: a full build; a plain CGAL triangulation of all points; reading the same file from the page cache as
// `cat` does.

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <string>

#include "compare.h"
#include "core/format/las.h"
#include "core/survey/cloud_tiles.h"
#include "core/terrain/local_edit.h"
#include "core/terrain/thin.h"
#include "demo_site/cloud.h"
#include "demo_site/site.h"

namespace {

using namespace erdwerk;
using bench::bestOf;
using bench::ratio;
using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
using Vertex = CGAL::Triangulation_vertex_base_with_info_2<double, Kernel>;
using Face = CGAL::Constrained_triangulation_face_base_2<Kernel>;
using Structure = CGAL::Triangulation_data_structure_2<Vertex, Face>;
using Cdt = CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure, CGAL::Exact_predicates_tag>;

void thinning() {
    const auto input = demo::largeInput(2'000'000, 0, 11);
    std::size_t kept = 0;
    double largest = 0;
    const double ours = bestOf(2, [&] {
        const auto thinned = terrain::thin(input.points, {0.10, 0, {}, {}});
        kept = thinned->tin.vertexCount();
        largest = thinned->largestDeviation;
    });
    const double peer = bestOf(2, [&] {
        Cdt cdt;
        std::vector<std::pair<Kernel::Point_2, double>> points;
        points.reserve(input.points.size());
        for (const auto& p : input.points) points.emplace_back(Kernel::Point_2(p.x, p.y), p.z);
        cdt.insert(points.begin(), points.end());
    });
    std::printf("thinning 2 000 000 points at 0.10: %zu kept, largest deviation %.4f\n", kept, largest);
    ratio("thinning, s", ours, peer, 10);
    ratio("points kept", static_cast<double>(kept), 2'000'000, 0.15);
}

void loading() {
    const auto folder = std::filesystem::temp_directory_path() / "erdwerk-dense-bench";
    std::filesystem::create_directories(folder);
    const std::string file = (folder / "flight.las").string();
    demo::CloudPlan plan;
    plan.area = {demo::originEast, demo::originNorth, demo::originEast + demo::siteWidth,
                 demo::originNorth + demo::siteDepth};
    plan.spacing = std::sqrt(demo::siteWidth * demo::siteDepth / 10e6);
    if (!format::writeLas(file, demo::makeCloud(plan).cloud)) std::abort();
    const std::string cat = "cat " + file + " > /dev/null";
    const double peer = bestOf(7, [&] {
        if (std::system(cat.c_str()) != 0) std::abort();  // NOLINT(cert-env33-c)
    });
    std::size_t bytes = 0;
    std::size_t points = 0;
    const double ours = bestOf(7, [&] {
        const auto cloud = format::readLas(file);
        bytes = cloud->memory();
        points = cloud->size();
    });
    std::printf("loading %zu points: %.1f bytes a point\n", points,
                static_cast<double>(bytes) / static_cast<double>(points));
    ratio("loading, s", ours, peer, 5);
    std::filesystem::remove_all(folder);
}

/// One breakline of 100 corners more in a surface of 1 000 000 points.
void localEdit() {
    const auto input = demo::largeInput(1'000'000, 20'000, 11);
    const double full = bestOf(3, [&] { (void)terrain::triangulate(input); });
    const auto before = terrain::triangulate(input);
    const terrain::TinLocator locator(std::make_shared<const terrain::Tin>(before->tin));
    terrain::Breakline line;
    for (int i = 0; i < 100; ++i) {
        const geometry::Vec2 p{demo::originEast + 100.3 + 0.9 * i, demo::originNorth + 151.7 + 0.11 * i};
        line.corners.push_back({p.x, p.y, locator.heightAt(p).value_or(0)});
    }
    bool edited = true;
    const double local =
        bestOf(7, [&] { edited = edited && terrain::withLine(*before, locator, input, line); });
    std::printf("one line more in %u triangles: %s\n", before->tin.triangleCount(),
                edited ? "local" : "FULL BUILD");
    ratio("local edit, s", local, full, 0.05);
}

/// What a view asks of a large cloud: a picture's worth of points, far and near. Target: 60 ms.
void viewing(const std::string& file) {
    const auto cloud = format::readLas(file);
    if (!cloud) {
        std::printf("%s\n", cloud.error().message().c_str());
        return;
    }
    const double making = bestOf(1, [&] { const survey::CloudTiles tiles(*cloud); });
    const survey::CloudTiles tiles(*cloud);
    std::printf("tiles of %zu points: %.2f s, %.1f bytes a point with the cloud\n", cloud->size(), making,
                static_cast<double>(tiles.memory() + cloud->memory()) / static_cast<double>(cloud->size()));
    const auto all = cloud->bounds();
    for (const double share : {1.0, 0.25, 0.05}) {
        geometry::Box window;
        const auto c = all.centre();
        window.add(geometry::Vec2{c.x - share * all.width() / 2, c.y - share * all.height() / 2});
        window.add(geometry::Vec2{c.x + share * all.width() / 2, c.y + share * all.height() / 2});
        std::size_t seen = 0;
        double sum = 0;
        const double time = bestOf(5, [&] {
            seen = 0;
            tiles.sample(window, 400'000, [&](std::uint32_t i) {
                ++seen;
                sum += cloud->place(i).z;
            });
        });
        std::printf("window of %3.0f %%: %zu points in %.1f ms\n", 100 * share, seen, 1000 * time);
        if (!std::isfinite(sum)) std::abort();
    }
}

}  // namespace

int main(int argc, char** argv) {
    if (argc == 2) {
        viewing(argv[1]);
        return 0;
    }
    localEdit();
    loading();
    thinning();
    return 0;
}
