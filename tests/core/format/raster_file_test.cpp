#include "core/format/raster_file.h"

#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

TEST(RasterFile, ReadsAnAsciiGridWithItsNoDataValue) {
    const Folder folder;
    const auto path = folder.file("g.asc",
                                  "ncols 3\nnrows 2\nxllcorner 48000\nyllcorner 91000\ncellsize 0.5\n"
                                  "NODATA_value -9999\n10.25 11 12\n13 -9999 15\n");
    const auto raster = valueOf(readRaster(path));
    EXPECT_EQ(raster.columns, 3U);
    EXPECT_EQ(raster.rows, 2U);
    const auto places = raster.places();
    ASSERT_EQ(places.size(), 5U);
    EXPECT_EQ(places[0], (geometry::Vec3{48000.25, 91000.75, 10.25}));
    EXPECT_EQ(places[4], (geometry::Vec3{48001.25, 91000.25, 15}));
    EXPECT_DOUBLE_EQ(raster.cell(), 0.5);
}

TEST(RasterFile, WhatIsWrittenInDoublePrecisionReadsBackExactly) {
    const Folder folder;
    survey::Raster raster;
    raster.columns = 4;
    raster.rows = 3;
    raster.transform = {48000, 0.1, 0, 91000, 0, -0.1};
    for (int i = 0; i < 12; ++i) {
        raster.heights.push_back(312.123456789 + i / 3.0);
        raster.present.push_back(i != 5);
    }
    ASSERT_TRUE(writeRaster(folder / "g.tif", raster, {true}));
    const auto back = valueOf(readRaster(folder / "g.tif"));
    EXPECT_EQ(back.transform, raster.transform);
    EXPECT_EQ(back.present, raster.present);
    for (std::size_t i = 0; i < 12; ++i) {
        if (raster.present[i]) {
            EXPECT_EQ(back.heights[i], raster.heights[i]);
        }
    }
    ASSERT_TRUE(writeRaster(folder / "f.tif", raster, {false}));
    EXPECT_NEAR(valueOf(readRaster(folder / "f.tif")).heights[11], raster.heights[11], 3e-5);
    EXPECT_EQ(folder.entries(), 2U);
}

TEST(RasterFile, AHeightThatCannotBeIsRefusedWithTheFilesName) {
    const Folder folder;
    const auto path =
        folder.file("damaged.asc", "ncols 2\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 1\n1 2\n3 5.8e17\n");
    const auto raster = readRaster(path);
    ASSERT_FALSE(raster);
    EXPECT_EQ(raster.error().file, path);
    EXPECT_THAT(raster.error().text, testing::HasSubstr("row 2 holds a height of"));
}

TEST(RasterFile, SaysWhatIsWrong) {
    const Folder folder;
    EXPECT_EQ(readRaster(folder / "missing.tif").error().text, "No such file or directory");
    EXPECT_EQ(readRaster(folder.file("a.tif", "")).error().code, ErrorCode::BadInput);
    EXPECT_EQ(
        readRaster(folder.file("b.asc", "ncols 3\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 1\n1 2 3\n"))
            .error()
            .code,
        ErrorCode::BadInput);
    EXPECT_EQ(
        readRaster(folder.file("c.asc",
                               "ncols 1\nnrows 1\nxllcorner 0\nyllcorner 0\ncellsize 1\nNODATA_value 7\n7\n"))
            .error()
            .text,
        "no cell has a height");
    survey::Raster raster;
    raster.columns = raster.rows = 1;
    raster.heights = {1};
    raster.present = {true};
    EXPECT_FALSE(writeRaster(folder / "no/such/folder.tif", raster, {}));
}

}  // namespace
}  // namespace erdwerk::format
