// Random damage to good files: whatever comes, the readers answer and nothing falls over. Seeds are printed
// on failure.

#include <nlohmann/json.hpp>

#include "core/annotate/dimension.h"
#include "core/format/import.h"
#include "core/format/landxml.h"
#include "core/format/object_json.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/objects/line.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

/// Bytes changed, cut out, doubled or put in.
std::string damaged(const std::string& good, std::mt19937& random) {
    std::string text = good;
    for (unsigned k = 0; k < 1 + random() % 6 && !text.empty(); ++k) {
        const std::size_t at = random() % text.size();
        switch (random() % 5) {
            case 0:
                text[at] = static_cast<char>(random());
                break;
            case 1:
                text.erase(at, 1 + random() % 20);
                break;
            case 2:
                text.insert(at, text.substr(at / 2, random() % 40));
                break;
            case 3:
                text.insert(
                    at, std::string(1 + random() % 3, static_cast<char>("0\"<>,;\n\0-e."[random() % 11])));
                break;
            default:
                text.resize(at);
                break;
        }
    }
    return text;
}

/// A place that came in must be one that can be worked with.
void expectUsable(const std::vector<survey::SurveyPoint>& points) {
    for (const auto& p : points) {
        ASSERT_TRUE(std::isfinite(p.plan.x) && std::isfinite(p.plan.y));
        ASSERT_LE(std::abs(p.plan.x), 1e12);
    }
}

TEST(Damage, OfCsv) {
    const std::string good =
        "number,easting,northing,height,code\n1,48010.5,91020.25,320.1,GRND\n2,48011.5,91021,,\"a, "
        "b\"\n3,48012,91022,321,TOE1\n";
    for (unsigned seed = 0; seed < 2000; ++seed) {
        std::mt19937 random(seed);
        SCOPED_TRACE("seed " + std::to_string(seed));
        const std::string text = damaged(good, random);
        const auto layout = proposeLayout(text, "f");
        if (!layout) continue;
        if (const auto points = readPoints(text, *layout, LengthUnit::Metre, "f"))
            expectUsable(points->points);
    }
}

TEST(Damage, OfPly) {
    const Folder folder;
    terrain::BuildInput input;
    std::mt19937 first(1);
    input.points = test::scattered(first, 20, 10, [](double x, double y) { return x + y; });
    ASSERT_TRUE(writePly(folder / "good.ply", valueOf(terrain::build(input)).tin));
    const std::string good = test::contentOf(folder / "good.ply");
    for (unsigned seed = 0; seed < 500; ++seed) {
        std::mt19937 random(seed);
        SCOPED_TRACE("seed " + std::to_string(seed));
        const auto tin = readPly(folder.file("bad.ply", damaged(good, random)));
        if (!tin) {
            EXPECT_FALSE(tin.error().text.empty());
            continue;
        }
        for (const auto corner : tin->corners()) ASSERT_LT(corner, tin->vertexCount());
    }
}

TEST(Damage, OfLandXml) {
    const Folder folder;
    LandXml content;
    content.points = {{"1", {48000, 91000}, 320.0, "GRND", ""}};
    content.surfaces.push_back({"s", terrain::Tin(test::places3("0 0 1, 4 0 2, 0 4 3"), {0, 1, 2})});
    content.alignments.push_back({"a",
                                  route::Stationing(0),
                                  {{{0, 0}, {10, 0}, {}}, {{10, 0}, {20, 10}, geometry::Vec2{17, 3}}},
                                  {{"p", {{0, 1, 0}, {10, 2, 5}, {20, 1, 0}}}}});
    ASSERT_TRUE(writeLandXml(folder / "good.xml", content, "x"));
    const std::string good = test::contentOf(folder / "good.xml");
    for (unsigned seed = 0; seed < 600; ++seed) {
        std::mt19937 random(seed);
        SCOPED_TRACE("seed " + std::to_string(seed));
        const auto read = readLandXml(folder.file("bad.xml", damaged(good, random)));
        if (!read) {
            EXPECT_EQ(read.error().file, folder / "bad.xml");
            continue;
        }
        expectUsable(read->points);
        (void)addLandXml({}, "bad.xml", *read);
    }
}

TEST(Damage, OfObjects) {
    const auto demo = demo::project(demo::survey(7));
    const auto line = toJson(*demo.find(demo.byName<objects::Line>("Dome Terrace"))).dump();
    const auto label = toJson(*demo.find(demo.byName<objects::Sheet>("Plan of Plot Q-4"))).dump();
    for (unsigned seed = 0; seed < 1500; ++seed) {
        std::mt19937 random(seed);
        SCOPED_TRACE("seed " + std::to_string(seed));
        const auto json =
            nlohmann::json::parse(damaged(seed % 2 == 0 ? line : label, random), nullptr, false);
        if (json.is_discarded()) continue;
        if (const auto object = objectFromJson(json)) {
            if (const auto* l = object->payload.as<objects::Line>()) {
                EXPECT_FALSE(validate(l->line));
            }
        }
    }
}

TEST(Damage, OfProjects) {
    const Folder folder;
    valueOf(saveProject(folder / "good.erdwerk", valueOf(derive::evaluate(demo::project(demo::survey(7))))));
    const std::string good = test::contentOf(folder / "good.erdwerk");
    const auto whole = valueOf(openProject(folder / "good.erdwerk")).document.objects().size();
    for (unsigned seed = 0; seed < 40; ++seed) {
        std::mt19937 random(seed);
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::string text = good;
        for (int k = 0; k < 30; ++k) text[random() % text.size()] = static_cast<char>(random());
        // All of it or an error: never a part.
        if (const auto opened = openProject(folder.file("bad.erdwerk", text))) {
            EXPECT_EQ(opened->document.objects().size(), whole);
        }
    }
}

}  // namespace
}  // namespace erdwerk::format
