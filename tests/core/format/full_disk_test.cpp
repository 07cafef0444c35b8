// Every writer on a full disk: it says so in a sentence with the file's name, the file that was there is
// whole, nothing is left beside it.

#include "core/format/export.h"
#include "core/format/las.h"
#include "core/format/raster_file.h"
#include "core/format/table_file.h"
#include "demo_site/project.h"
#include "support/file_limit.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::contentOf;
using test::FileLimit;
using test::Folder;
using test::valueOf;

const derive::Derived& site() {
    static const derive::Derived derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    return derived;
}

class FullDisk : public testing::TestWithParam<std::string> {
protected:
    template <class Write>
    void expectRefused(const Write& write) {
        const std::string path = folder / GetParam();
        // There is one already, written while there was space.
        ASSERT_TRUE(write(path));
        const std::string before = contentOf(path);
        ASSERT_GT(before.size(), 600U);
        for (const std::size_t room : {std::size_t{0}, std::size_t{400}, before.size() / 2}) {
            const FileLimit limit(room);
            const auto done = write(path);
            ASSERT_FALSE(done) << room;
            EXPECT_NE(done.error().message().find(GetParam()), std::string::npos) << done.error().message();
            for (const char* inside : {"SELECT", "INSERT", "sqlite", "GDAL", ".part-"})
                EXPECT_EQ(done.error().message().find(inside), std::string::npos) << done.error().message();
        }
        EXPECT_EQ(contentOf(path), before);
        EXPECT_EQ(folder.entries(), 1U);
    }
    Folder folder;
};

class FullDiskExport : public FullDisk {};
TEST_P(FullDiskExport, IsSaidAndNothingIsBroken) {
    expectRefused([](const std::string& path) { return exportFile(path, site()); });
}
INSTANTIATE_TEST_SUITE_P(Formats, FullDiskExport,
                         testing::Values("a.erdwerk", "a.xml", "a.gpkg", "a.geojson", "a.csv", "a.obj",
                                         "a.glb"),
                         [](const auto& of) { return of.param.substr(2); });

class FullDiskSurface : public FullDisk {};
TEST_P(FullDiskSurface, IsSaidAndNothingIsBroken) {
    const ObjectId ground = site().document.byName<objects::Surface>("Ground");
    expectRefused([&](const std::string& path) { return exportSurface(path, site(), ground); });
}
INSTANTIATE_TEST_SUITE_P(Formats, FullDiskSurface,
                         testing::Values("a.xml", "a.ply", "a.obj", "a.glb", "a.tif"),
                         [](const auto& of) { return of.param.substr(2); });

class FullDiskOther : public FullDisk {};
TEST_P(FullDiskOther, IsSaidAndNothingIsBroken) {
    Table table{"t", {"a", "b"}, {}, {}};
    std::vector<geometry::Vec3> places;
    for (int i = 0; i < 400; ++i) {
        table.rows.push_back({i / 3.0, i / 7.0});
        places.push_back({i * 1.0, i * 2.0, i / 3.0});
    }
    const auto cloud = survey::cloudFrom(places);
    expectRefused([&](const std::string& path) {
        return path.ends_with(".las") ? writeLas(path, cloud) : writeTable(path, table);
    });
}
INSTANTIATE_TEST_SUITE_P(Formats, FullDiskOther, testing::Values("a.las", "a.csv", "a.xlsx"),
                         [](const auto& of) { return of.param.substr(2); });

}  // namespace
}  // namespace erdwerk::format
