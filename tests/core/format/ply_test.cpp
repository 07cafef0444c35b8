#include "core/format/ply.h"

#include <limits>

#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

terrain::Tin sample() {
    terrain::BuildInput input;
    std::mt19937 random(1);
    input.points = test::scattered(random, 50, 10, [](double x, double y) { return x / 3 + y; });
    return valueOf(terrain::build(input)).tin;
}

TEST(Ply, RoundTripIsExact) {
    const Folder folder;
    const auto tin = sample();
    ASSERT_TRUE(writePly(folder / "a.ply", tin));
    const auto back = valueOf(readPly(folder / "a.ply"));
    EXPECT_TRUE(std::equal(tin.vertices().begin(), tin.vertices().end(), back.vertices().begin(),
                           back.vertices().end()));
    EXPECT_TRUE(
        std::equal(tin.corners().begin(), tin.corners().end(), back.corners().begin(), back.corners().end()));
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) EXPECT_EQ(tin.neighbour(t, i), back.neighbour(t, i));
}

TEST(Ply, TruncationAtAnyByteIsAnErrorNotACrash) {
    const Folder folder;
    ASSERT_TRUE(writePly(folder / "a.ply", sample()));
    const std::string whole = test::contentOf(folder / "a.ply");
    for (std::size_t n = 0; n < whole.size(); n += 37)
        EXPECT_FALSE(readPly(folder.file("cut.ply", whole.substr(0, n)))) << n;
}

TEST(Ply, RefusesWhatIsNotASurface) {
    const Folder folder;
    EXPECT_FALSE(readPly(folder.file("x.ply", "hello")));
    EXPECT_EQ(readPly(folder.file("t.ply", "ply\nformat ascii 1.0\nend_header\n")).error().code,
              ErrorCode::Unsupported);
    EXPECT_FALSE(surfaceFromTriangles(test::places3("0 0 0, 1 0 0, 0 1 0"), {0, 1, 5}, "f"));
    EXPECT_THAT(surfaceFromTriangles(test::places3("0 0 0, 1 0 0, 2 0 5"), {0, 1, 2}, "f").error().text,
                testing::HasSubstr("no area"));
    EXPECT_THAT(
        surfaceFromTriangles(test::places3("0 0 0, 1 0 0, 0 1 0"), {0, 1, 2, 0, 1, 2}, "f").error().text,
        testing::HasSubstr("overlap"));
    EXPECT_FALSE(surfaceFromTriangles({{0, 0, 0}, {1, 0, std::nan("")}, {0, 1, 0}}, {0, 1, 2}, "f"));
}

TEST(Ply, TurnsClockwiseTrianglesRound) {
    const auto tin = valueOf(surfaceFromTriangles(test::places3("0 0 0, 1 0 0, 0 1 0"), {0, 2, 1}, "f"));
    EXPECT_EQ(tin.corner(0, 1), 1U);
}

/// Found by random bytes: a list whose length is a float that is no number.
TEST(Ply, AListLengthThatIsNoNumberIsRefused) {
    const Folder folder;
    std::string bytes =
        "ply\nformat binary_little_endian 1.0\nelement vertex 0\nproperty double x\nproperty double y\n"
        "property double z\nelement face 1\nproperty list float int vertex_indices\nend_header\n";
    const float nothing = std::numeric_limits<float>::quiet_NaN();
    bytes.append(reinterpret_cast<const char*>(&nothing), sizeof nothing);
    bytes.append(12, '\0');
    const auto r = readPly(folder.file("a.ply", bytes));
    ASSERT_FALSE(r);
    EXPECT_THAT(r.error().text, testing::HasSubstr("length"));
}

}  // namespace
}  // namespace erdwerk::format
