#include "core/format/formats.h"

#include <gtest/gtest.h>

#include <set>

#include "core/format/output.h"
#include "support/geometry.h"
#include "support/places.h"

namespace erdwerk::format {
namespace {

TEST(Formats, EachHasANameAndEndingsAndGoesAtLeastOneWay) {
    std::set<std::string_view> names;
    for (const Format& format : formats()) {
        EXPECT_TRUE(names.insert(format.name).second) << format.name;
        ASSERT_FALSE(format.endings.empty()) << format.name;
        for (const auto ending : format.endings) {
            ASSERT_GT(ending.size(), 1U) << format.name;
            EXPECT_EQ(ending.front(), '.') << format.name;
            EXPECT_EQ(endingOf("x" + std::string(ending)), ending) << "endings are small letters";
        }
        // The ending that is written is its own.
        EXPECT_EQ(formatOf("/data/A" + std::string(format.endings.front()))->name, format.name);
        EXPECT_TRUE(format.read != nullptr || format.write != nullptr || format.writeSurface != nullptr)
            << format.name;
    }
}

TEST(Formats, AreFoundByTheirEndingWhateverItsLetters) {
    EXPECT_EQ(formatOf("/data/Survey.CSV")->name, "CSV of points");
    EXPECT_EQ(formatOf("a.geojson")->name, "GeoJSON");
    EXPECT_EQ(formatOf("a.JPEG")->sort, FileSort::Raster);
    EXPECT_EQ(formatOf("a.b.las")->sort, FileSort::Cloud);
    EXPECT_EQ(formatOf("a.nothing"), nullptr);
    EXPECT_EQ(formatOf("csv"), nullptr);
    // Text is a table of points unless somebody says that it is a cloud.
    EXPECT_EQ(sortOf("a.txt"), FileSort::Points);
    EXPECT_EQ(sortOf("a.erdwerk"), FileSort::Project);
    EXPECT_EQ(sortOf("a.obj"), FileSort::Lines);
    EXPECT_EQ(sortOf("unknown"), FileSort::Lines);
}

TEST(Formats, AWrongEndingIsToldThoseThatThereAre) {
    const test::Folder folder;
    const auto derived = test::valueOf(derive::evaluate({}));
    const auto done = exportFile(folder / "a.las", derived);
    ASSERT_FALSE(done);
    EXPECT_EQ(done.error().text, "the ending must be .erdwerk, .xml, .gpkg, .geojson, .csv, .obj or .glb");
    EXPECT_EQ(endingsThat([](const Format& f) { return f.writeSurface != nullptr; }),
              ".xml, .ply, .obj, .glb or .tif");
    EXPECT_EQ(endingsThat([](const Format& f) { return f.readSurface != nullptr; }), ".xml, .ply or .obj");
}

TEST(Formats, ThePageOfFormatsSpeaksOfEach) {
    const auto page = readFile(std::string(test::sourceFolder) + "/docs/formats.md");
    ASSERT_TRUE(page);
    for (const Format& format : formats())
        for (const auto ending : format.endings)
            EXPECT_NE(page->find("`" + std::string(ending) + "`"), std::string::npos)
                << format.name << ", " << ending;
}

}  // namespace
}  // namespace erdwerk::format
