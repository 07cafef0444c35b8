#include "core/format/attached.h"

#include <filesystem>

#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/project_file.h"
#include "core/format/raster_file.h"
#include "core/objects/cloud.h"
#include "core/objects/height_raster.h"
#include "core/operations/edit.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using document::Document;
using objects::Cloud;
using test::Folder;
using test::valueOf;

survey::PointCloud grid(int side) {
    std::vector<geometry::Vec3> places;
    for (int y = 0; y < side; ++y)
        for (int x = 0; x < side; ++x) places.push_back({x * 1.0, y * 1.0, 5});
    return survey::cloudFrom(places);
}

TEST(Attached, PackingComesBack) {
    std::vector<std::uint8_t> bytes(100'000);
    for (std::size_t i = 0; i < bytes.size(); ++i) bytes[i] = static_cast<std::uint8_t>(i * i % 251);
    EXPECT_EQ(valueOf(unpacked(packed(bytes), bytes.size())), bytes);
    EXPECT_EQ(valueOf(unpacked(packed({}), 0)).size(), 0U);
    EXPECT_FALSE(unpacked(packed(bytes), bytes.size() + 1));
    EXPECT_FALSE(unpacked("not base 64!", 10));
}

TEST(Attached, AFileIsReadOnceAndAgainWhenItChanges) {
    const Folder folder;
    ASSERT_TRUE(writeLas(folder / "a.las", grid(10)));
    const auto first = valueOf(attachedCloud(folder / "a.las"));
    EXPECT_EQ(first, valueOf(attachedCloud(folder / "a.las")));
    ASSERT_TRUE(writeLas(folder / "a.las", grid(12)));
    const auto second = valueOf(attachedCloud(folder / "a.las"));
    EXPECT_NE(first, second);
    EXPECT_EQ(second->size(), 144U);
}

TEST(Attached, CloudRasterAndClassesComeBackWithTheProject) {
    const Folder folder;
    ASSERT_TRUE(writeLas(folder / "flight.las", grid(10)));
    survey::Raster raster;
    raster.columns = 4;
    raster.rows = 3;
    raster.transform = {0, 1, 0, 3, 0, -1};
    raster.heights.assign(12, 2);
    raster.present.assign(12, true);
    ASSERT_TRUE(writeRaster(folder / "dem.tif", raster, {}));
    Document d = valueOf(importFile({}, folder / "flight.las", {})).document;
    d = valueOf(importFile(d, folder / "dem.tif", {})).document;
    const ObjectId cloud = d.all<Cloud>().front();
    d = document::changed<Cloud>(d, cloud, [](Cloud& c) {
        auto classes = std::shared_ptr<std::uint8_t[]>(new std::uint8_t[100]);
        for (int i = 0; i < 100; ++i) classes[i] = static_cast<std::uint8_t>(i % 7);
        c.cloud = std::make_shared<const survey::PointCloud>(c.cloud->withClasses(classes));
        c.classified = true;
        c.filter.classes = {2, 3};
        c.spacing = 2.5;
        c.colouring = objects::CloudColouring::Class;
    });
    ASSERT_TRUE(saveProject(folder / "p.erdwerk", valueOf(derive::evaluate(d))));
    // The folder is moved as a whole: files are named relative to the project.
    const std::string moved = folder / "moved";
    std::filesystem::create_directory(moved);
    for (const char* name : {"p.erdwerk", "flight.las", "dem.tif"})
        std::filesystem::rename(folder / name, moved + "/" + name);
    const auto back = valueOf(openProject(moved + "/p.erdwerk")).document;
    const auto* c = back.get<Cloud>(cloud);
    ASSERT_NE(c, nullptr);
    ASSERT_TRUE(c->cloud) << c->problem;
    EXPECT_EQ(c->cloud->classOf(9), 2);
    EXPECT_EQ(c->filter.classes, (std::vector<std::uint8_t>{2, 3}));
    EXPECT_EQ(c->spacing, 2.5);
    EXPECT_EQ(c->colouring, objects::CloudColouring::Class);
    const auto* r = back.get<objects::HeightRaster>(back.all<objects::HeightRaster>().front());
    ASSERT_TRUE(r->raster) << r->problem;
    EXPECT_EQ(r->raster->heights.size(), 12U);
}

TEST(Attached, AMissingFileIsAProblemNotAFailure) {
    const Folder folder;
    ASSERT_TRUE(writeLas(folder / "flight.las", grid(10)));
    const Document d = valueOf(importFile({}, folder / "flight.las", {})).document;
    ASSERT_TRUE(saveProject(folder / "p.erdwerk", valueOf(derive::evaluate(d))));
    std::filesystem::remove(folder / "flight.las");
    const auto back = valueOf(openProject(folder / "p.erdwerk")).document;
    const auto* c = back.get<Cloud>(back.all<Cloud>().front());
    EXPECT_FALSE(c->cloud);
    EXPECT_THAT(c->problem, testing::HasSubstr("No such file"));
    // Saving again loses nothing: with the file back, the cloud is back.
    ASSERT_TRUE(saveProject(folder / "p.erdwerk", valueOf(derive::evaluate(back))));
    ASSERT_TRUE(writeLas(folder / "flight.las", grid(10)));
    const auto again = valueOf(openProject(folder / "p.erdwerk")).document;
    EXPECT_TRUE(again.get<Cloud>(again.all<Cloud>().front())->cloud);
}

}  // namespace
}  // namespace erdwerk::format
