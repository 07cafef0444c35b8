#include "core/format/las.h"

#include <cstring>

#include "core/format/cloud_file.h"
#include "core/format/dense.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::contentOf;
using test::Folder;
using test::valueOf;

/// A LAS file put together by hand from the specification's tables.
struct HandMade {
    int minor = 2;
    int format = 0;
    std::string records;
    std::uint64_t count = 0;
    std::size_t extraBytes = 0;
    geometry::Vec3 scale{0.01, 0.01, 0.001};
    geometry::Vec3 offset{48000, 91000, 300};

    template <class T>
    static void put(std::string& bytes, std::size_t at, T value) {
        std::memcpy(bytes.data() + at, &value, sizeof value);
    }
    static std::size_t length(int format) {
        constexpr std::array<std::size_t, 11> lengths{20, 28, 26, 34, 57, 63, 30, 36, 38, 59, 67};
        return lengths[static_cast<std::size_t>(format)];
    }
    void add(std::int32_t x, std::int32_t y, std::int32_t z, int cls, int number, int of, std::uint16_t red) {
        std::string r(length(format) + extraBytes, '\x5a');
        put(r, 0, x);
        put(r, 4, y);
        put(r, 8, z);
        put(r, 12, std::uint16_t{777});
        if (format >= 6) {
            put(r, 14, static_cast<std::uint8_t>(number | of << 4));
            put(r, 15, std::uint8_t{0});
            put(r, 16, static_cast<std::uint8_t>(cls));
        } else {
            put(r, 14, static_cast<std::uint8_t>(number | of << 3));
            put(r, 15, static_cast<std::uint8_t>(cls));
        }
        constexpr std::array<std::size_t, 11> colourAt{0, 0, 20, 28, 0, 28, 0, 30, 30, 0, 30};
        if (const std::size_t at = colourAt[static_cast<std::size_t>(format)]; at != 0)
            for (std::size_t k = 0; k < 3; ++k) put(r, at + 2 * k, static_cast<std::uint16_t>(red + k));
        records += r;
        ++count;
    }
    [[nodiscard]] std::string bytes() const {
        const std::size_t size = minor == 4 ? 375 : minor == 3 ? 235 : 227;
        std::string h(size + 13, '\0');  // with 13 bytes between header and points
        std::memcpy(h.data(), "LASF", 4);
        put(h, 24, std::uint8_t{1});
        put(h, 25, static_cast<std::uint8_t>(minor));
        put(h, 94, static_cast<std::uint16_t>(size));
        put(h, 96, static_cast<std::uint32_t>(size + 13));
        put(h, 104, static_cast<std::uint8_t>(format));
        put(h, 105, static_cast<std::uint16_t>(length(format) + extraBytes));
        if (format < 6) put(h, 107, static_cast<std::uint32_t>(count));
        for (const auto& [at, v] : {std::pair{131, scale}, std::pair{155, offset}}) {
            put(h, static_cast<std::size_t>(at), v.x);
            put(h, static_cast<std::size_t>(at) + 8, v.y);
            put(h, static_cast<std::size_t>(at) + 16, v.z);
        }
        if (minor == 4) put(h, 247, count);
        return h + records;
    }
};

TEST(Las, ReadsEveryPointFormatOfEveryVersionThatHasIt) {
    const Folder folder;
    for (int minor = 0; minor <= 4; ++minor)
        for (int format = 0; format <= 10; ++format) {
            if ((format >= 6 && minor < 4) || (format >= 4 && minor < 3) || (format >= 2 && minor < 2))
                continue;
            SCOPED_TRACE("1." + std::to_string(minor) + " format " + std::to_string(format));
            HandMade file;
            file.minor = minor;
            file.format = format;
            file.extraBytes = format % 2 == 0 ? 0 : 5;
            file.add(12345, -200, 6789, 5, 1, 2, 0x1200);
            file.add(1, 2, 3, 2, 2, 2, 0xff00);
            const auto path = folder.file("f.las", file.bytes());
            const auto header = valueOf(readLasHeader(path));
            EXPECT_EQ(header.version(), "1." + std::to_string(minor));
            EXPECT_EQ(header.pointFormat, format);
            const auto cloud = valueOf(readLas(path));
            ASSERT_EQ(cloud.size(), 2U);
            EXPECT_DOUBLE_EQ(cloud.place(0).x, 48123.45);
            EXPECT_DOUBLE_EQ(cloud.place(0).y, 90998.0);
            EXPECT_DOUBLE_EQ(cloud.place(0).z, 306.789);
            EXPECT_EQ(cloud.classOf(0), 5);
            EXPECT_EQ(cloud.classOf(1), 2);
            EXPECT_EQ(cloud.intensity(1), 777);
            EXPECT_EQ(cloud.returnNumber(1), 2);
            EXPECT_EQ(cloud.returnCount(0), 2);
            const bool coloured =
                format == 2 || format == 3 || format == 5 || format == 7 || format == 8 || format == 10;
            EXPECT_EQ(cloud.coloured(), coloured);
            if (coloured) {
                EXPECT_EQ(cloud.colour(0), (survey::Colour{0x12, 0x12, 0x12}));
                EXPECT_EQ(cloud.colour(1)[0], 0xff);
            }
        }
}

TEST(Las, ColoursOfEightBitsAreTakenAsTheyAre) {
    const Folder folder;
    HandMade file;
    file.format = 2;
    file.add(0, 0, 0, 1, 1, 1, 200);
    const auto cloud = valueOf(readLas(folder.file("f.las", file.bytes())));
    EXPECT_EQ(cloud.colour(0), (survey::Colour{200, 201, 202}));
}

TEST(Las, FlagsOfOldFormatsAreNoPartOfTheClass) {
    const Folder folder;
    HandMade file;
    file.add(0, 0, 0, 0x80 | 9, 1, 1, 0);  // withheld, class 9
    file.add(0, 0, 0, 0x40 | 2, 1, 1, 0);  // key point, class 2
    const auto cloud = valueOf(readLas(folder.file("f.las", file.bytes())));
    EXPECT_EQ(cloud.classOf(0), 9);
    EXPECT_TRUE(cloud.withheld(0));
    EXPECT_EQ(cloud.classOf(1), 2);
    EXPECT_FALSE(cloud.withheld(1));
    EXPECT_EQ(valueOf(readDense(folder / "f.las")).size(), 1U);
}

TEST(Las, WhatIsWrittenReadsBackTheSame) {
    const Folder folder;
    HandMade file;
    file.minor = 4;
    file.format = 7;
    for (int i = 0; i < 1000; ++i) file.add(i * 37 - 5000, i * i, 1000 - i, i % 7, 1 + i % 3, 3, 0x8080);
    const auto cloud = valueOf(readLas(folder.file("a.las", file.bytes())));
    for (const bool legacy : {false, true}) {
        ASSERT_TRUE(writeLas(folder / "b.las", cloud, legacy));
        const auto back = valueOf(readLas(folder / "b.las"));
        ASSERT_EQ(back.size(), cloud.size());
        EXPECT_EQ(valueOf(readLasHeader(folder / "b.las")).version(), legacy ? "1.2" : "1.4");
        for (std::size_t i = 0; i < cloud.size(); ++i) {
            ASSERT_EQ(back.place(i), cloud.place(i));
            ASSERT_EQ(back.classOf(i), cloud.classOf(i));
            ASSERT_EQ(back.returnNumber(i), cloud.returnNumber(i));
            ASSERT_EQ(back.colour(i), cloud.colour(i));
        }
    }
}

TEST(Las, OtherClassesChangeNothingElseInTheFile) {
    const Folder folder;
    for (const int format : {1, 6}) {
        HandMade file;
        file.minor = 4;
        file.format = format;
        file.extraBytes = 3;
        for (int i = 0; i < 5; ++i) file.add(i, i, i, format == 1 ? 0x40 | 1 : 1, 1, 1, 0);
        const auto path = folder.file("a.las", file.bytes());
        ASSERT_TRUE(writeLasWithClasses(path, folder / "b.las", {2, 1, 2, 5, 6}));
        const std::string before = contentOf(path);
        const std::string after = contentOf(folder / "b.las");
        ASSERT_EQ(before.size(), after.size());
        std::size_t differing = 0;
        for (std::size_t i = 0; i < before.size(); ++i) differing += before[i] != after[i] ? 1 : 0;
        EXPECT_EQ(differing, 4U);
        const auto cloud = valueOf(readLas(folder / "b.las"));
        EXPECT_EQ(cloud.classOf(0), 2);
        EXPECT_EQ(cloud.classOf(4), 6);
        EXPECT_EQ(cloud.flags(0), valueOf(readLas(path)).flags(0));
    }
}

TEST(Las, SaysWhatIsWrongWithAFile) {
    const Folder folder;
    HandMade file;
    for (int i = 0; i < 10; ++i) file.add(i, i, i, 1, 1, 1, 0);
    const std::string good = file.bytes();
    const auto message = [&](const std::string& bytes) {
        const auto result = readLas(folder.file("x.las", bytes));
        return result ? std::string("no error") : result.error().text;
    };
    EXPECT_EQ(message(good), "no error");
    EXPECT_EQ(message(""), "is not a LAS file");
    EXPECT_EQ(message("number,easting,northing\n"), "is not a LAS file");
    EXPECT_EQ(message(good.substr(0, 100)), "the file ends inside its header");
    EXPECT_EQ(message(good.substr(0, good.size() - 25)),
              "the file ends early: it holds 8 of the 10 points it states");
    auto bad = good;
    bad[104] = static_cast<char>(0x82);
    EXPECT_EQ(message(bad), "is a compressed LAS file; decompress it to a plain .las file first");
    bad = good;
    bad[104] = 11;
    EXPECT_EQ(message(bad), "point format 11 is not known");
    bad = good;
    bad[25] = 5;
    EXPECT_EQ(message(bad), "is LAS 1.5; versions 1.0 to 1.4 are read");
    bad = good;
    bad[105] = 19;
    EXPECT_EQ(message(bad), "a point record of 19 bytes is too short for format 0");
    bad = good;
    HandMade::put(bad, 131, std::numeric_limits<double>::quiet_NaN());
    EXPECT_EQ(message(bad), "scale or offset of the coordinates is not a usable number");
    bad = good;
    HandMade::put(bad, 107, std::uint32_t{0xffffffffU});
    EXPECT_EQ(message(bad), "the file ends early: it holds 10 of the 4294967295 points it states");
    EXPECT_FALSE(readLas(folder / "missing.las"));
    EXPECT_FALSE(readLas(folder / "."));
}

/// Found by random bytes: a scale of 1e303 made heights infinite.
TEST(Las, AScaleThatReachesBeyondAllMeasureIsRefused) {
    const Folder folder;
    ASSERT_TRUE(writeLas(folder / "a.las", survey::cloudFrom({{1, 2, 3}, {4, 5, 6}})));
    std::string bytes = contentOf(folder / "a.las");
    for (const std::size_t at : {131U, 139U, 147U, 155U}) {
        std::string bad = bytes;
        const double huge = 5.4e303;
        std::memcpy(bad.data() + at, &huge, sizeof huge);
        const auto r = readLas(folder.file("b.las", bad));
        ASSERT_FALSE(r) << at;
        EXPECT_THAT(r.error().text, testing::HasSubstr("scale or offset"));
    }
}

TEST(Las, StopsWhenAskedTo) {
    const Folder folder;
    HandMade file;
    file.add(0, 0, 0, 1, 1, 1, 0);
    const std::atomic<bool> stop{true};
    const auto result = readLas(folder.file("x.las", file.bytes()), {{}, &stop});
    ASSERT_FALSE(result);
    EXPECT_EQ(result.error().code, ErrorCode::Cancelled);
}

TEST(Xyz, ReadsTextWithAnySeparatorAndNamesTheBadLine) {
    const Folder folder;
    const auto places = valueOf(readXyzPlaces(folder.file(
        "a.xyz", "\xef\xbb\xbfx y z\r\n# comment\r\n1.5 2.5 3.5 99\r\n\r\n4;5;6\r\n7,8,9\n1\t2\t3")));
    ASSERT_EQ(places.size(), 4U);
    EXPECT_EQ(places[0], (geometry::Vec3{1.5, 2.5, 3.5}));
    EXPECT_EQ(places[3], (geometry::Vec3{1, 2, 3}));
    const auto error = [&](const std::string& text) {
        const auto result = readXyzPlaces(folder.file("b.xyz", text));
        return result ? std::string("no error") : result.error().message().substr((folder / "b.xyz").size());
    };
    EXPECT_EQ(error("1 2 3\n1 two 3\n"), ":2: expected x y z, found '1 two 3'");
    EXPECT_EQ(error("1 2 3\n1 2\n"), ":2: expected x y z, found '1 2'");
    EXPECT_EQ(error("1 2 3\n1 2 nan\n"), ":2: expected x y z, found '1 2 nan'");
    EXPECT_EQ(error("1 2 3\n1 2 1e300\n"), ":2: a coordinate is beyond anything on Earth");
    EXPECT_EQ(error(""), ":1: holds no places");
    EXPECT_EQ(error("1,5 2,5 3,5 \n" + std::string(1'000'000, 'x')).substr(0, 20), ":2: expected x y z, ");
}

}  // namespace
}  // namespace erdwerk::format
