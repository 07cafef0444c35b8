// Terrain against its peers, on the same data in the same run; the ratios are printed at the end.
//   erdwerk-bench            1 000 000 points, 20 000 constraint sides
// Peers: plain CGAL insertion (range insertion of the points, then insert_constraint) and GDAL's contour
// generator on a raster of the same extent and number of samples.

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>
#include <benchmark/benchmark.h>
#include <gdal_alg.h>
#include <gdal_priv.h>
#include <malloc.h>
#include <ogrsf_frmts.h>

#include <chrono>
#include <cstdio>
#include <map>

#include "core/terrain/build.h"
#include "core/terrain/contours.h"
#include "core/terrain/locator.h"
#include "demo_site/site.h"

namespace {

using namespace erdwerk;

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
// The height stands beside the plan position, as in anything that can be used as a terrain.
using Vertex = CGAL::Triangulation_vertex_base_with_info_2<double, Kernel>;
using Face = CGAL::Constrained_triangulation_face_base_2<Kernel>;
using Structure = CGAL::Triangulation_data_structure_2<Vertex, Face>;
using Cdt = CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure, CGAL::Exact_predicates_tag>;

constexpr std::size_t pointCount = 1'000'000;
constexpr std::size_t sideCount = 20'000;
constexpr double interval = 0.5;

const terrain::BuildInput& input() {
    static const terrain::BuildInput data = demo::largeInput(pointCount, sideCount, 11);
    return data;
}

const terrain::Tin& surface() {
    static const terrain::Tin tin = std::move(terrain::build(input())->tin);
    return tin;
}

std::map<std::string, double>& figures() {
    static std::map<std::string, double> all;
    return all;
}

std::unique_ptr<Cdt> plainCgal() {
    auto cdt = std::make_unique<Cdt>();
    std::vector<std::pair<Kernel::Point_2, double>> points;
    points.reserve(input().points.size());
    for (const auto& p : input().points) points.emplace_back(Kernel::Point_2(p.x, p.y), p.z);
    cdt->insert(points.begin(), points.end());
    for (const auto& line : input().lines)
        for (std::size_t i = 0; i + 1 < line.corners.size(); ++i)
            cdt->insert_constraint(Kernel::Point_2(line.corners[i].x, line.corners[i].y),
                                   Kernel::Point_2(line.corners[i + 1].x, line.corners[i + 1].y));
    return cdt;
}

void tinBuild(benchmark::State& state) {
    (void)input();
    double best = 1e300;
    for (auto _ : state) {
        const auto start = std::chrono::steady_clock::now();
        const auto built = terrain::build(input());
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        figures()["tin bytes"] = static_cast<double>(built->tin.memory());
        state.counters["triangles"] = built->tin.triangleCount();
    }
    figures()["tin build"] = best;
}
BENCHMARK(tinBuild)->Unit(benchmark::kMillisecond)->Iterations(5);

void cgalInsertion(benchmark::State& state) {
    (void)input();
    double best = 1e300;
    for (auto _ : state) {
        ::malloc_trim(0);
        const auto start = std::chrono::steady_clock::now();
        const auto before = ::mallinfo2();
        const auto cdt = plainCgal();
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        const auto after = ::mallinfo2();
        figures()["cgal bytes"] = static_cast<double>(after.uordblks + after.hblkhd) -
                                  static_cast<double>(before.uordblks + before.hblkhd);
        state.counters["faces"] = static_cast<double>(cdt->number_of_faces());
    }
    figures()["cgal insertion"] = best;
}
BENCHMARK(cgalInsertion)->Unit(benchmark::kMillisecond)->Iterations(5);

void contourLines(benchmark::State& state) {
    (void)surface();
    double best = 1e300;
    for (auto _ : state) {
        const auto start = std::chrono::steady_clock::now();
        const auto lines = terrain::contours(surface(), {interval, false});
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        state.counters["lines"] = static_cast<double>(lines->size());
    }
    figures()["contours"] = best;
}
BENCHMARK(contourLines)->Unit(benchmark::kMillisecond)->Iterations(5);

/// 1000 x 1000 samples of the same terrain over the same extent.
GDALDataset* raster() {
    static GDALDataset* data = [] {
        GDALAllRegister();
        constexpr int size = 1000;
        auto* set =
            GetGDALDriverManager()->GetDriverByName("MEM")->Create("", size, size, 1, GDT_Float32, nullptr);
        const terrain::TinLocator locator(std::make_shared<const terrain::Tin>(surface()));
        const auto box = surface().bounds();
        std::vector<float> cells(size * size);
        for (int r = 0; r < size; ++r)
            for (int c = 0; c < size; ++c) {
                const geometry::Vec2 p{box.minX + (c + 0.5) * box.width() / size,
                                       box.maxY - (r + 0.5) * box.height() / size};
                cells[static_cast<std::size_t>(r * size + c)] =
                    static_cast<float>(locator.heightAt(p).value_or(0));
            }
        double transform[6] = {box.minX, box.width() / size, 0, box.maxY, 0, -box.height() / size};
        set->SetGeoTransform(transform);
        if (set->GetRasterBand(1)->RasterIO(GF_Write, 0, 0, size, size, cells.data(), size, size, GDT_Float32,
                                            0, 0) != CE_None)
            std::abort();
        return set;
    }();
    return data;
}

void gdalContour(benchmark::State& state) {
    GDALDataset* set = raster();
    double best = 1e300;
    for (auto _ : state) {
        auto* out =
            GetGDALDriverManager()->GetDriverByName("Memory")->Create("", 0, 0, 0, GDT_Unknown, nullptr);
        OGRLayer* layer = out->CreateLayer("contours", nullptr, wkbLineString, nullptr);
        OGRFieldDefn field("height", OFTReal);
        layer->CreateField(&field);
        const auto start = std::chrono::steady_clock::now();
        (void)GDALContourGenerate(set->GetRasterBand(1), interval, 0, 0, nullptr, FALSE, 0, layer, -1, 0,
                                  nullptr, nullptr);
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
        state.counters["lines"] = static_cast<double>(layer->GetFeatureCount());
        GDALClose(out);
    }
    figures()["gdal contour"] = best;
}
BENCHMARK(gdalContour)->Unit(benchmark::kMillisecond)->Iterations(5);

void ratio(const char* name, const char* ours, const char* peers, double target) {
    const auto& f = figures();
    if (f.count(ours) == 0 || f.count(peers) == 0) return;
    std::printf("%-28s %12.4g / %12.4g = %.3f (target at most %.2f)\n", name, f.at(ours), f.at(peers),
                f.at(ours) / f.at(peers), target);
}

}  // namespace

int main(int argc, char** argv) {
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    ratio("TIN build, s", "tin build", "cgal insertion", 1.15);
    ratio("TIN memory, bytes", "tin bytes", "cgal bytes", 0.5);
    ratio("contours at 0.5, s", "contours", "gdal contour", 1.0);
    return 0;
}
