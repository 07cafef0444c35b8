#include "core/route/marking.h"

#include <filesystem>
#include <fstream>

#include "core/format/marking_file.h"
#include "core/route/pis.h"
#include "core/route/profile_rows.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;
using testing::ElementsAre;
using testing::HasSubstr;

std::vector<std::string> textsOf(const std::vector<Mark>& marks, MarkKind kind) {
    std::vector<std::string> out;
    for (const auto& m : marks)
        if (m.kind == kind) out.push_back(m.text);
    return out;
}

TEST(MarkingSettings, TicksStandAtWhatIsReadAndLongOnesCarryIt) {
    const auto line =
        alignmentOn({{{0, 0}, {130, 0}, {}}}, valueOf(Stationing::withEquations(990, {{1040, 1100}})));
    MarkingSettings marking;
    marking.small = 10;
    marking.large = 50;
    marking.points = false;
    const auto marks = marksOf(line, marking, {{30, 40}, {500, 60}}, {});
    // 990 to 1040, then 1100 to 1180: long ones at 1000, 1040 reads 1100, 1150.
    EXPECT_THAT(textsOf(marks, MarkKind::LargeTick), ElementsAre("1+000", "1+100", "1+150"));
    EXPECT_EQ(textsOf(marks, MarkKind::SmallTick).size(), 14U - 3U);
    EXPECT_THAT(textsOf(marks, MarkKind::Equation), ElementsAre("1+040.00 = 1+100.00"));
    EXPECT_THAT(textsOf(marks, MarkKind::Speed), ElementsAre("40"));  // 500 lies beyond the end
    EXPECT_TRUE(textsOf(marks, MarkKind::Point).empty());
    for (const auto& m : marks) EXPECT_NEAR(m.place.x, m.distance, 1e-9);
}

TEST(MarkingSettings, SaysPointsOfChangeAndCurves) {
    const auto line = alignmentOn(valueOf(pathOf({{{0, 0}}, {{100, 0}, 40}, {{100, 100}}})), 0);
    MarkingSettings marking;
    marking.small = marking.large = 0;
    marking.curves = true;
    const auto marks = marksOf(line, marking, {}, {});
    // A quarter circle of radius 40: tangents 40, length 20 pi.
    EXPECT_THAT(textsOf(marks, MarkKind::Point),
                ElementsAre("BP 0+000.00", "PC 0+060.00", "PT 0+122.83", "EP 0+182.83"));
    EXPECT_THAT(textsOf(marks, MarkKind::Curve), ElementsAre("R 40.00  L 62.83  Δ 90°00'00\""));
    const auto spiral = alignmentOn(valueOf(pathOf({{{0, 0}}, {{200, 0}, 90, 40, 40}, {{200, 200}}})), 0);
    // A² = R L.
    EXPECT_EQ(textsOf(marksOf(spiral, marking, {}, {}), MarkKind::Curve).front(), "A 60.00  L 40.00");
    EXPECT_TRUE(marksOf({}, marking, {}, {}).empty());
}

TEST(MarkingSettings, RefusesWhatCannotBe) {
    const auto why = [](const auto& change) {
        MarkingSettings m;
        change(m);
        const auto valid = validate(m);
        return valid ? std::string() : valid.error().text;
    };
    EXPECT_EQ(why([](MarkingSettings&) {}), "");
    EXPECT_THAT(why([](MarkingSettings& m) { m.small = -1; }), HasSubstr("0 (none) or more"));
    EXPECT_THAT(why([](MarkingSettings& m) { m.large = 5; }), HasSubstr("farther apart"));
    EXPECT_THAT(why([](MarkingSettings& m) { m.height = 0; }), HasSubstr("0.5 to 20 mm"));
    // Too many ticks are none.
    const auto line = alignmentOn({{{0, 0}, {5e6, 0}, {}}}, 0);
    MarkingSettings fine;
    fine.small = 0.01;
    fine.large = 0;
    EXPECT_TRUE(textsOf(marksOf(line, fine, {}, {}), MarkKind::SmallTick).empty());
}

TEST(MarkingSettings, TravelsAsAFile) {
    const test::Folder folder;
    const std::string path = folder / "lane.json";
    const MarkingSettings marking{25, 100, false, true, false, true, true, 3};
    ASSERT_TRUE(format::writeMarking(path, "Lane", marking));
    const auto back = valueOf(format::readMarking(path));
    EXPECT_EQ(back.first, "Lane");
    EXPECT_EQ(back.second, marking);
    const auto refused = [&](const std::string& text) {
        std::ofstream(path) << text;
        const auto read = format::readMarking(path);
        return read ? std::string("read") : read.error().message();
    };
    EXPECT_THAT(refused("{\"name\": \"a\",\n \"small\": }"), HasSubstr("lane.json:2"));
    EXPECT_THAT(refused("{\"ticks\": 5}"), HasSubstr("unknown key 'ticks'"));
    EXPECT_THAT(refused("{\"side\": \"up\"}"), HasSubstr("'up' is no side"));
    EXPECT_THAT(refused("{\"small\": 50, \"large\": 20}"), HasSubstr("farther apart"));
    EXPECT_THAT(refused("{\"small\": \"20\"}"), HasSubstr("lane.json"));
    EXPECT_EQ(refused("{}"), "read");
    EXPECT_FALSE(format::readMarking(folder / "nothing.json"));
}

TEST(ProfileRows, StandAtMultiplesAndWhereTheDesignTurns) {
    const auto line = alignmentOn({{{0, 0}, {100, 0}, {}}}, 1000);
    const std::vector<ProfilePoint> ground{{1000, {0, 0}, 10.0}, {1100, {100, 0}, 12.0}};
    const std::vector<Pvi> design{{1000, 10, 0}, {1040, 12, 20}, {1100, 9, 0}};
    const auto places = profilePlaces(line, ground, design, 50);
    std::vector<double> stations;
    for (const auto& p : places) stations.push_back(p.station);
    // The curve from 1030 to 1050: 5 % to -5 %, its top in the middle.
    EXPECT_THAT(stations, ElementsAre(1000, 1030, 1040, 1050, 1100));
    EXPECT_NEAR(*places[2].design, 12 - 0.1 * 20 / 8, 1e-12);
    EXPECT_NEAR(*places[2].ground, 10.8, 1e-12);
    EXPECT_NEAR(*places[2].fill, 0.95, 1e-12);
    EXPECT_EQ(*places[2].cut, 0);
    EXPECT_NEAR(*places[4].cut, 3, 1e-12);
    EXPECT_NEAR(places[0].grade->percent(), 5, 1e-9);
    EXPECT_EQ(cellText(places[2], ProfileRow::Station, {}), "1+040.00");
    EXPECT_EQ(cellText(places[2], ProfileRow::Distance, {}), "40.00");
    EXPECT_EQ(cellText(places[2], ProfileRow::Cut, {}), "");
    EXPECT_EQ(cellText(places[2], ProfileRow::Fill, {}), "0.95");
    EXPECT_TRUE(profilePlaces(line, ground, design, 0).empty());
    EXPECT_TRUE(profilePlaces(line, ground, design, 1e-4).empty());
    const auto stretches = designStretches(design);
    ASSERT_EQ(stretches.size(), 3U);
    EXPECT_FALSE(stretches[0].isCurve());
    EXPECT_EQ(stretches[1].from, 1030);
    EXPECT_NEAR(*stretches[1].k, 2, 1e-12);
    EXPECT_TRUE(stretches[1].crest);
    EXPECT_NEAR(stretches[2].grade.percent(), -5, 1e-9);
    for (int i = 0; i < profileRowCount; ++i)
        EXPECT_EQ(rowFromName(rowName(static_cast<ProfileRow>(i))), static_cast<ProfileRow>(i));
    EXPECT_FALSE(rowFromName("height"));
}

}  // namespace
}  // namespace erdwerk::route
