#include "core/parcel/read_back.h"

#include <numbers>

#include "core/parcel/compare_calls.h"
#include "core/parcel/description_corpus.h"
#include "support/geometry.h"

namespace erdwerk::parcel {
namespace {

ReadDescription reading(const std::string& text, CalledUnit unit = CalledUnit::Metre) {
    auto read = readDescription(text, unit);
    EXPECT_TRUE(read) << text;
    return read ? std::move(*read) : ReadDescription{};
}

Disagreement whatOf(Plant plant) {
    switch (plant) {
        case Plant::Bearing:
            return Disagreement::Bearing;
        case Plant::Distance:
            return Disagreement::Distance;
        case Plant::LeftOut:
            return Disagreement::Missing;
        case Plant::Twice:
            return Disagreement::Extra;
        case Plant::Side:
            return Disagreement::Side;
        case Plant::Radius:
            return Disagreement::Radius;
        case Plant::ArcLength:
            return Disagreement::ArcLength;
        case Plant::Tangent:
            return Disagreement::Tangent;
        default:
            return Disagreement::Area;
    }
}

std::string listed(const std::string& text, const std::vector<TextDifference>& differences) {
    std::string out = text;
    for (const auto& d : differences)
        out += "\n- course " + std::to_string(d.course) + " " + std::string(disagreementName(d.what)) + " '" +
               cutOut(text, d.words) + "' " + std::to_string(d.called.value_or(-1)) + " " +
               std::to_string(d.computed.value_or(-1));
    return out;
}

/// One found, and it is the planted one; nothing else is said.
void expectFound(const MadeUp& made, Plant plant) {
    const auto read = reading(made.text);
    EXPECT_EQ(unitName(read.unit), made.unit) << made.text;
    const auto found = comparedWith(read, drawnCourses(read), made.figure);
    const std::string all = listed(made.text, found);
    if (plant == Plant::HalfBearing || plant == Plant::Smudged) {
        ASSERT_EQ(read.unread.size(), 1U) << all;
        EXPECT_TRUE(cutOut(made.text, read.unread.front()).starts_with(made.words))
            << cutOut(made.text, read.unread.front()) << all;
        EXPECT_TRUE(found.empty()) << all;
        return;
    }
    EXPECT_TRUE(read.unread.empty()) << cutOut(made.text, read.unread.front()) << all;
    if (plant == Plant::Twice) {
        // Two alike: either may be the one too many.
        ASSERT_EQ(found.size(), 1U) << all;
        EXPECT_EQ(found.front().what, Disagreement::Extra) << all;
        EXPECT_NEAR(static_cast<double>(found.front().course), static_cast<double>(made.course) + 0.5, 0.5);
        return;
    }
    ASSERT_EQ(found.size(), 1U) << all;
    EXPECT_EQ(found.front().what, whatOf(plant)) << all;
    EXPECT_EQ(found.front().course, made.course) << all;
    EXPECT_THAT(cutOut(made.text, found.front().words), testing::HasSubstr(made.words)) << all;
}

TEST(ReadBack, FindsWhatIsPlantedInTwelveWordingsAndNothingElse) {
    int planted = 0;
    for (int wording = 0; wording < wordings; ++wording)
        for (int plant = 0; plant < plants; ++plant)
            for (unsigned seed = 1; seed <= 5; ++seed) {
                SCOPED_TRACE("wording " + std::to_string(wording) + " plant " + std::to_string(plant) +
                             " seed " + std::to_string(seed));
                std::mt19937 random(seed * 1000 + static_cast<unsigned>(wording * 20 + plant));
                const MadeUp made = madeUp(wording, static_cast<Plant>(plant), random);
                if (made.planted) {
                    expectFound(made, static_cast<Plant>(plant));
                    ++planted;
                    continue;
                }
                const auto read = reading(made.text);
                const auto drawn = drawnCourses(read);
                const auto found = comparedWith(read, drawn, made.figure);
                EXPECT_TRUE(read.unread.empty() && found.empty())
                    << (read.unread.empty() ? "" : cutOut(made.text, read.unread.front()))
                    << listed(made.text, found);
                EXPECT_TRUE(contradictions(read, drawn).empty())
                    << listed(made.text, contradictions(read, drawn));
                EXPECT_TRUE(shapeOf(drawn).gapExplained()) << made.text;
            }
    EXPECT_GT(planted, 500);
}

/// Courses in one line: "L 45.5 35.2; C 50 90 right" (degrees; called units; ? where nothing is called).
std::string brief(const ReadDescription& read) {
    const auto angle = [](const std::optional<CalledFigure>& f) {
        return f ? formatExact(std::round(Angle::radians(f->value).degrees() * 1e6) / 1e6) : std::string("?");
    };
    const auto length = [](const std::optional<CalledFigure>& f) {
        return f ? formatExact(std::round(f->value * 1e6) / 1e6) : std::string("?");
    };
    std::string out;
    for (const auto& c : read.courses) {
        if (!out.empty()) out += "; ";
        if (!c.isCurve) {
            out += "L " + angle(c.azimuth) + " " + length(c.distance);
            continue;
        }
        out += "C " + length(c.radius) + " " + angle(c.delta) + " " + length(c.arcLength) + " " +
               angle(c.azimuth) + " " + length(c.distance);
        if (c.right) out += *c.right ? " right" : " left";
        if (c.tangent) out += *c.tangent ? " tangent" : " not";
    }
    return out;
}

struct Wanted {
    const char* text;
    const char* courses;
};

/// One way to write it a row.
TEST(ReadBack, ReadsManyWaysToWriteACall) {
    const Wanted all[] = {
        {"thence N 45°30'20\" E 35.20 m", "L 45.505556 35.2"},
        {"THENCE N.45°30'E., 35.20 FT.", "L 45.5 35.2"},
        {"thence South 45 degrees 30 minutes 00 seconds West, a distance of 1,035.20 feet", "L 225.5 1035.2"},
        {"1) N45-30-20E, 100.00'", "L 45.505556 100"},
        {"thence N 45d30m20s W 5 m", "L 314.494444 5"},
        {"thence due South 50.0 feet", "L 180 50"},
        {"thence East, 100 feet", "L 90 100"},
        {"thence azimuth 123.4567 gon, 20.5 m", "L 111.11103 20.5"},
        {"thence on a bearing of 225°30'20\" for 100.00m", "L 225.505556 100"},
        {"thence S 89°15'30\" W along the north line of Lot 4, Block 2, 1320.55 feet to a 5/8\" rebar",
         "L 269.258333 1320.55"},
        {"thence N 45° E 12 chains 35 links", "L 45 12.35"},
        {"thence N 45° E, passing at 12.00 m an iron pin, in all 50.00 m", "L 45 50"},
        {"thence N 45° E, one hundred twenty and 50/100 (120.50) feet", "L 45 120.5"},
        {"thence N 45° E 100,50 m", "L 45 100.5"},
        {"thence N 45° E 35.20 feet (10.729 m)", "L 45 35.2"},
        {"L1 N 45°30'00\" E 35.20'\nC1 curve left R=20.00' L=10.00'\nL2: S 45° E 5.00'",
         "L 45.5 35.2; C 20 ? 10 ? ? left; L 135 5"},
        {"from A proceed North 45°30' East for one hundred feet (100'); thence proceed South 44°30' East for "
         "fifty feet (50')",
         "L 45.5 100; L 135.5 50"},
        {"in courses and distances: N 45° E, 35.20 feet to a pin; S 45° E, 50.00 feet; thence N 10° W, 5 "
         "feet",
         "L 45 35.2; L 135 50; L 350 5"},
        {"The basis of bearings: N 45° E, 35.20 feet along the lane. Thence N 10° W, 5 feet", "L 350 5"},
        {"thence along a line which bears N 20° W a distance of 35 m", "L 340 35"},
        {"N 45° E 10.0 m along the ditch, S 45° E 20.0 m, and S 45° W 10.0 m", "L 45 10; L 135 20; L 225 10"},
        {"From there it runs N 45° E for 100.0 m. Then it turns and runs S 45° E for 50.0 m.",
         "L 45 100; L 135 50"},
        {"thence 78.54 feet along a tangent curve to the right with a radius of 50.00 feet",
         "C 50 ? 78.54 ? ? right tangent"},
        {"thence along the arc of a 250.00 foot radius curve to the right, through a central angle of "
         "30°00'00\", "
         "130.90 feet, said arc being subtended by a chord which bears N 60°00'00\" E, a distance of 129.41 "
         "feet",
         "C 250 30 130.9 60 129.41 right"},
        {"thence curve left, R 50.00 m, L 78.54 m, Δ 90°00'00\", chord S 90° E 70.71 m",
         "C 50 90 78.54 90 70.71 left"},
        {"thence with a curve turning to the right with an arc length of 39.27', with a radius of 25.00', "
         "with a chord "
         "bearing of N 45°00'00\" E, with a chord length of 35.36'",
         "C 25 ? 39.27 45 35.36 right"},
        {"thence N 45°00' E 100.00 feet to the beginning of a curve, concave to the southeast, having a "
         "radius of "
         "50.00 feet; thence northeasterly along the arc of said curve 78.54 feet",
         "L 45 100; C 50 ? 78.54 ? ?"},
        {"thence along a curve to the left, radius 80.00 m, arc 40.00 m to a point of reverse curvature; "
         "thence along "
         "the arc of said curve, radius 60.00 m, delta 20°",
         "C 80 ? 40 ? ? left; C 60 20 ? ? ? right tangent"},
    };
    for (const auto& [text, courses] : all) {
        const auto read = reading(text);
        EXPECT_EQ(brief(read), courses) << text;
        EXPECT_TRUE(read.unread.empty()) << text << "\n" << cutOut(text, read.unread.front());
    }
}

TEST(ReadBack, TheWayToThePointOfBeginningIsNoCourse) {
    EXPECT_EQ(
        brief(reading(
            "Commencing at A; thence N 10° E 5 m to the point of beginning; thence N 45° E 10 m; thence "
            "S 45° E 20 m to the point of beginning")),
        "L 45 10; L 135 20");
    // Only another word for beginning.
    EXPECT_EQ(
        brief(reading("Commencing at A; thence N 45° E 10 m; thence S 45° E 20 m to the point of beginning")),
        "L 45 10; L 135 20");
    EXPECT_EQ(
        brief(reading(
            "Beginning at A (N 91020.33, E 48010.12), which lies N 20° E 250.00 m from the pillar; thence "
            "N 45° E 10 m")),
        "L 45 10");
}

TEST(ReadBack, WhatCannotBeReadIsShownAndNotGuessed) {
    const Wanted all[] = {
        {"thence N 45°30'20\", 35.20 m", "N 45°30'20\""},
        {"thence 45°30'20\" E 35.20 m; thence N 10° E 5 m", "45°30'20\" E"},
        {"thence N 45°3O'20\" E 35.20 m", "N 45°3O'20\" E"},
        {"thence S 61°75'00\" W 20 m", "S 61°75'00\" W"},
        {"thence N 95°00'00\" E 20 m", "N 95°00'00\" E"},
        {"thence N 10° E 3S.20 feet", "3S.20"},
        {"thence N 10° E to the fence", "thence N 10° E to the fence"},
        {"thence N 10° E 5 m; thence along the ditch to the point of beginning",
         "thence along the ditch to the point of beginning"},
        {"thence along a curve to the left having a radius of 50 m",
         "thence along a curve to the left having a radius of 50 m"},
        {"thence along a non-tangent curve to the left, radius 50 m, arc 20 m",
         "thence along a non-tangent curve to the left, radius 50 m, arc 20 m"},
    };
    for (const auto& [text, unread] : all) {
        const auto read = reading(text);
        ASSERT_EQ(read.unread.size(), 1U) << text;
        EXPECT_EQ(cutOut(text, read.unread.front()), unread);
    }
    for (const char* nothing :
         {"", "hello world", "All of Lot 3, bounded northerly by the lane, 100.00 feet."}) {
        const auto read = readDescription(nothing, CalledUnit::Metre);
        ASSERT_FALSE(read) << nothing;
        EXPECT_EQ(read.error().code, ErrorCode::BadInput);
    }
}

TEST(ReadBack, TakesTheUnitThatIsSaid) {
    EXPECT_EQ(reading("thence N 10° E 5.00").unit, CalledUnit::Metre);
    EXPECT_EQ(reading("thence N 10° E 5.00", CalledUnit::Chain).unit, CalledUnit::Chain);
    EXPECT_EQ(reading("thence N 10° E 5.00 ft").unit, CalledUnit::Foot);
    EXPECT_EQ(reading("thence N 10° E 5.00 feet", CalledUnit::SurveyFoot).unit, CalledUnit::SurveyFoot);
    const auto survey = reading("thence N 10° E 5.00 feet. Distances are in U.S. survey feet.");
    EXPECT_EQ(survey.unit, CalledUnit::SurveyFoot);
    EXPECT_EQ(survey.courses.front().distance->value, 5);
    // 66 ft are a chain.
    EXPECT_EQ(brief(reading("thence N 10° E 2.00 chains; thence S 10° E 132.0 feet")), "L 10 2; L 170 2");
}

TEST(ReadBack, TakesWhatAWordProcessorMakesAndSurvivesDamage) {
    EXPECT_EQ(brief(reading("thence N\u00a045º30\u203220\u2033 E \u2013 35.20 m")), "L 45.505556 35.2");
    std::mt19937 random(7);
    const std::string good =
        "thence N 45°30'20\" E 35.20 m; thence along a curve to the left, radius 5 m, arc 2 m; (3) S 1° W 2 "
        "m.";
    for (int i = 0; i < 3000; ++i) {
        std::string text = good;
        for (int k = 0; k < 1 + i % 6; ++k) text[random() % text.size()] = static_cast<char>(random() % 256);
        const auto read = readDescription(text, CalledUnit::Metre);
        if (!read) continue;
        const std::size_t end = codePoints(text);
        const auto inside = [&](TextRange r) { return r.from <= r.to && r.to <= end; };
        for (const auto& r : read->unread) ASSERT_TRUE(inside(r)) << i;
        for (const auto& c : read->courses) ASSERT_TRUE(inside(c.words)) << i;
        contradictions(*read, drawnCourses(*read));
    }
    const std::string long1(1'000'000, '1');
    EXPECT_FALSE(readDescription(long1, CalledUnit::Metre));
}

/// 90 degrees on a radius of 50: arc 78.54, chord 70.71.
TEST(Contradictions, NameTheFigureThatTheOthersDisagreeWith) {
    const auto said = [](const std::string& text) {
        const auto read = reading("thence N 45° E 100.00 m; thence along a curve to the right, " + text +
                                  "; thence S 45° E 100.00 m");
        std::string out;
        for (const auto& d : contradictions(read, drawnCourses(read)))
            out += std::to_string(d.course) + " " + std::string(disagreementName(d.what)) + " " +
                   formatFixed(d.called.value_or(0), 2) + " " + formatFixed(d.computed.value_or(0), 2) + "; ";
        return out;
    };
    EXPECT_EQ(said("radius 50.00 m, delta 90°00'00\", arc 78.54 m"), "");
    EXPECT_EQ(said("radius 50.00 m, delta 90°00'00\", arc 78.45 m"), "2 arcLength 78.45 78.54; ");
    EXPECT_EQ(said("radius 50.00 m, delta 90°00'00\", arc 78.54 m, chord N 90° E 70.71 m"), "");
    EXPECT_EQ(said("radius 50.00 m, delta 90°00'00\", arc 78.54 m, chord N 90° E 71.07 m"),
              "2 chord 71.07 70.71; ");
    EXPECT_EQ(said("radius 55.00 m, delta 90°00'00\", arc 78.54 m, chord N 90° E 70.71 m"),
              "2 radius 55.00 50.00; ");
    EXPECT_EQ(said("radius 50.00 m, delta 80°00'00\", arc 78.54 m, chord N 90° E 70.71 m"),
              "2 delta 1.40 1.57; ");
    // Within the rounding of the others.
    EXPECT_EQ(said("radius 50 m, delta 90°, arc 78 m"), "");
}

TEST(Contradictions, TangencyAndSide) {
    const auto said = [](const std::string& kind, const std::string& side, const std::string& chord) {
        const auto read =
            reading("thence N 45°00'00\" E 100.00 m; thence along a " + kind + " curve to the " + side +
                    ", radius 50.00 m, arc 78.54 m, chord " + chord + " 70.71 m");
        std::string out;
        for (const auto& d : contradictions(read, drawnCourses(read)))
            if (d.course == 2) out += std::string(disagreementName(d.what));
        return out;
    };
    EXPECT_EQ(said("tangent", "right", "N 90°00'00\" E"), "");
    EXPECT_EQ(said("tangent", "right", "N 89°00'00\" E"), "tangent");
    EXPECT_EQ(said("non-tangent", "right", "N 89°00'00\" E"), "");
    EXPECT_EQ(said("non-tangent", "right", "N 90°00'00\" E"), "tangent");
    EXPECT_EQ(said("tangent", "left", "N 90°00'00\" E"), "side");
}

/// A square of 100: 10 000.
TEST(Compared, FindsBeginningAndDirectionByItself) {
    const Path square{{{0, 0}, {0, 100}, {}},
                      {{0, 100}, {100, 100}, {}},
                      {{100, 100}, {100, 0}, {}},
                      {{100, 0}, {0, 0}, {}}};
    const auto parcel = survey(square);
    // From the second corner, the other way.
    const auto text =
        "thence South 100.00 m; thence East 100.00 m; thence North 100.00 m; thence West 100.00 m; "
        "10000 square metres, 1.0 ha, 2.471 acres";
    const auto read = reading(text);
    ASSERT_EQ(read.areas.size(), 3U);
    EXPECT_TRUE(comparedWith(read, drawnCourses(read), parcel).empty());
    const auto wrong =
        reading("thence South 100.00 m; thence East 100.01 m; thence West 100.00 m; 10000 m²; 1.1 ha");
    const auto found = comparedWith(wrong, drawnCourses(wrong), parcel);
    ASSERT_EQ(found.size(), 3U);
    EXPECT_EQ(found[0].what, Disagreement::Distance);
    EXPECT_EQ(found[0].course, 2U);
    EXPECT_NEAR(*found[0].computed, 100, 1e-9);
    EXPECT_EQ(found[1].what, Disagreement::Missing);
    EXPECT_EQ(found[1].course, 3U);
    EXPECT_EQ(found[2].what, Disagreement::Area);
    EXPECT_NEAR(*found[2].computed, 1, 1e-9);
}

TEST(CalledFigure, LiesInThePlanTurnedAndScaled) {
    const auto read = reading("thence N 90° E 10 ft; thence N 0° E 10 ft");
    const auto drawn = drawnCourses(read);
    // Called north points to azimuth 90: east is south.
    const Path path = figureOf(drawn, {100, 200}, Angle::degrees(90), 0.3048);
    ASSERT_EQ(path.size(), 2U);
    EXPECT_NEAR(path[0].end.x, 100, 1e-9);
    EXPECT_NEAR(path[0].end.y, 200 - 3.048, 1e-9);
    EXPECT_NEAR(path[1].end.x, 100 + 3.048, 1e-9);
    const auto shape = shapeOf(drawn);
    EXPECT_NEAR(shape.geometry.closure.distance, 10 * std::numbers::sqrt2, 1e-9);
    EXPECT_NEAR(shape.geometry.area, 50, 1e-9);
    EXPECT_FALSE(shapeOf(drawnCourses(reading("thence N 0°0'0\" E 10.0 m; thence S 0°0'0\" E 10.2 m")))
                     .gapExplained());
    EXPECT_TRUE(shapeOf(drawnCourses(reading("thence N 0°0'0\" E 10.0 m; thence S 0°0'0\" E 10.1 m")))
                    .gapExplained());
}

}  // namespace
}  // namespace erdwerk::parcel
