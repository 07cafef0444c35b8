#include "core/parcel/description.h"

#include <numbers>

#include "core/parcel/compare_calls.h"
#include "core/parcel/description_corpus.h"
#include "support/geometry.h"

namespace erdwerk::parcel {
namespace {

using testing::HasSubstr;

DescriptionOrder ordered(LengthUnit unit = LengthUnit::Metre) {
    DescriptionOrder order;
    order.name = "Plot Q-4";
    order.beginning = "the iron pin";
    order.display.unit = unit;
    return order;
}

std::string textOf(const DescriptionTemplate& wording, const DescriptionOrder& order) {
    const auto out = written(survey(racetrack()), wording, order);
    EXPECT_TRUE(out) << (out ? "" : out.error().text);
    return out ? out->text : std::string();
}

TEST(Describe, SaysEachCourseInWords) {
    const std::string text = textOf(plainTemplate(LengthUnit::Metre), ordered());
    EXPECT_EQ(
        text,
        "Plot Q-4: a parcel of land, described as follows.\n\n"
        "Beginning at the iron pin (E 0.00  N 0.00), the point of beginning;\n"
        "thence due North, a distance of 60.00 metres;\n"
        "thence due East, a distance of 80.00 metres;\n"
        "thence along a tangent curve to the right, having a radius of 30.00 metres and a central angle of "
        "180°00'00\", the chord of which bears due South and measures 60.00 metres, an arc length of 94.25 "
        "metres;\n"
        "thence due West, a distance of 80.00 metres, to the point of beginning.\n\n"
        "Containing 6213.72 square metres (0.6214 hectares), more or less.\n");
}

TEST(Describe, UsesFeetAndAcres) {
    EXPECT_THAT(textOf(plainTemplate(LengthUnit::UsSurveyFoot), ordered(LengthUnit::UsSurveyFoot)),
                HasSubstr("6214 square feet (0.1426 acres)"));
    auto order = ordered();
    order.areaUnits = {"ha", "acre"};
    // 0.6213717 ha of 0.40468564 ha.
    EXPECT_THAT(textOf(plainTemplate(LengthUnit::Metre), order), HasSubstr("0.6214 hectares (1.5354 acres)"));
}

TEST(Describe, NamesSidesAndCornersAndTheWayToTheBeginning) {
    auto order = ordered();
    order.names = {
        {"the land of Fell", "a stone"}, {"the land of Fell", ""}, {}, {"Starling Lane", "the pin"}};
    order.tie = Tie{"the trig pillar", survey({{{-30, -40}, {0, 0}, {}}}).courses};
    const std::string text = textOf(plainTemplate(LengthUnit::Metre), order);
    EXPECT_THAT(
        text,
        HasSubstr("Commencing at the trig pillar; thence N 36°52'12\" E, a distance of 50.00 metres, to the "
                  "iron pin (E 0.00  N 0.00), the point of beginning;\n"));
    EXPECT_THAT(
        text,
        HasSubstr("thence along the land of Fell, due North, a distance of 60.00 metres, to a stone;\n"));
    EXPECT_THAT(text, HasSubstr("thence leaving the land of Fell, along a tangent curve"));
    EXPECT_THAT(
        text,
        HasSubstr(
            "thence along Starling Lane, due West, a distance of 80.00 metres, to the pin, to the point "
            "of beginning."));
}

TEST(Describe, ACommenceWithoutItsTieIsFollowedByBoth) {
    auto order = ordered();
    order.tie = Tie{"the trig pillar", survey({{{0, -50}, {0, 0}, {}}}).courses};
    auto wording = plainTemplate(LengthUnit::Metre);
    wording.commence = "Commencing at {from}";
    wording.beginning = "being the point of beginning";
    wording.leaving = "leaving {along}, ";
    EXPECT_THAT(textOf(wording, order),
                HasSubstr("Commencing at the trig pillar; thence due North, a distance of 50.00 "
                          "metres; being the point of beginning;\nthence due North"));
}

TEST(Describe, ListsAreNumberedAndASingleCourseIsRunningText) {
    const auto shipped = shippedTemplates();
    ASSERT_EQ(shipped.size(), 4U);
    const std::string text = textOf(shipped[2], ordered());
    EXPECT_THAT(
        text,
        HasSubstr("the point of beginning;\nthe following four (4) courses:\n(1) due North, a distance"));
    EXPECT_THAT(text, HasSubstr(";\n(4) due West"));
    const auto single = written(survey({{{0, 0}, {0, 60}, {}}}), shipped[2], ordered());
    ASSERT_TRUE(single);
    EXPECT_THAT(single->text, testing::Not(HasSubstr("(1)")));
    EXPECT_THAT(single->text, HasSubstr("thence due North"));
    // 60 / 0.3048.
    EXPECT_THAT(textOf(shipped[1], ordered()), HasSubstr("196.85 feet"));
}

TEST(Describe, FieldsAreWrittenAsAsked) {
    auto wording = plainTemplate(LengthUnit::Metre);
    wording.line = "{bearing:words}; {azimuth:0 zeros}; {distance:3}; {distance:1 ft}";
    wording.curveTangent = "{side} {delta:0} {arcLength:1} {radius:0} {chordAzimuth:0} {chord:4}";
    const auto figure = survey({{{0, 0}, {3, 4}, {}}, {{3, 4}, {0, 0}, {}}});
    EXPECT_THAT(written(figure, wording, ordered())->text,
                HasSubstr("thence North 36 degrees 52 minutes 12 seconds East; 036°52'12\"; 5.000; 16.4;\n"));
    EXPECT_THAT(textOf(wording, ordered()),
                HasSubstr("thence right 180°00'00\" 94.2 30 180°00'00\" 60.0000;\n"));
}

TEST(Describe, SaysWhatATemplateHasWrong) {
    const auto why = [](std::string DescriptionTemplate::*sentence, const std::string& text) {
        auto wording = plainTemplate(LengthUnit::Metre);
        wording.*sentence = text;
        const auto out = written(survey(racetrack()), wording, ordered());
        return out ? std::string() : out.error().text;
    };
    EXPECT_THAT(why(&DescriptionTemplate::line, "{radius}"),
                HasSubstr("\"line\" has no field {radius}: direction"));
    EXPECT_THAT(why(&DescriptionTemplate::line, "{distance"), HasSubstr("brace"));
    EXPECT_THAT(why(&DescriptionTemplate::line, "{distance:2 furlongs}"), HasSubstr("'furlongs'"));
    EXPECT_THAT(why(&DescriptionTemplate::curveTangent, ""), HasSubstr("are needed"));
    EXPECT_EQ(why(&DescriptionTemplate::area, ""), "");
}

/// Fields without decimals get as many as it takes; with them the text says what is left open.
TEST(Describe, RoundsSoThatTheCalledCoursesClose) {
    double worst = 0;
    for (unsigned seed = 0; seed < 100; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        const auto figure = survey(madeUpFigure(random, 400));
        auto order = ordered();
        order.closeWithin = 0.002;
        const auto fixed = written(figure, plainTemplate(LengthUnit::Metre), order);
        const auto chosen = written(figure, shippedTemplates()[0], order);
        ASSERT_TRUE(fixed && chosen);
        EXPECT_LE(chosen->rounded.distance, 0.002);
        worst = std::max(worst, fixed->rounded.distance);
        // The reader has the same gap from the text itself.
        const auto read = readDescription(chosen->text, CalledUnit::Metre);
        ASSERT_TRUE(read);
        const auto drawn = drawnCourses(*read);
        EXPECT_NEAR(shapeOf(drawn).geometry.closure.distance, chosen->rounded.distance, 1e-9);
        EXPECT_TRUE(read->unread.empty());
        EXPECT_TRUE(comparedWith(*read, drawn, figure).empty());
    }
    EXPECT_GT(worst, 0.002);
}

/// All wordings that ship, in feet and metres, read back as what they were written from.
TEST(Describe, IsReadBackAsItWasWritten) {
    for (unsigned seed = 0; seed < 60; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        Path path = madeUpFigure(random, 100);
        if (seed % 2 == 1) path = geometry::reversed(path);
        const auto figure = survey(path, seed % 3);
        for (const auto& wording : shippedTemplates()) {
            auto order = ordered();
            order.names = {{"the land of Lot 7", "a 5/8 inch iron rod"}, {"the land of Lot 7", ""}};
            order.tie = Tie{"the pillar", survey({{{-30, -40}, figure.courses.front().start, {}}}).courses};
            const auto text = written(figure, wording, order);
            ASSERT_TRUE(text);
            const auto read = readDescription(text->text, CalledUnit::Metre);
            ASSERT_TRUE(read) << text->text;
            const double factor = metresPer(LengthUnit::Metre) / metresPer(read->unit);
            auto inUnit = figure;
            for (auto& c : inUnit.courses) {
                c.distance *= factor;
                c.radius *= factor;
                c.arcLength *= factor;
            }
            inUnit.area *= factor * factor;
            EXPECT_TRUE(read->unread.empty()) << text->text;
            EXPECT_TRUE(comparedWith(*read, drawnCourses(*read), inUnit).empty()) << text->text;
        }
    }
}

TEST(CountWords, AreEnglish) {
    EXPECT_EQ(countWords(7), "seven");
    EXPECT_EQ(countWords(21), "twenty-one");
    EXPECT_EQ(countWords(340), "three hundred forty");
    EXPECT_EQ(countWords(1000), "1000");
}

}  // namespace
}  // namespace erdwerk::parcel
