#include "core/paper/title_block.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

namespace erdwerk::paper {
namespace {

using testing::ElementsAre;
using testing::HasSubstr;
using testing::Not;

/// Each letter half as wide as the text is high.
const MeasureText half = [](const std::string& text, double size, bool) {
    return static_cast<double>(text.size()) * size / 2;
};

std::string svg(const std::string& body) {
    return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"96mm\" height=\"42mm\" viewBox=\"0 0 96 42\">" +
           body + "</svg>";
}

TEST(TitleBlock, SaysItsSizeItsFieldsAndItsFonts) {
    const auto block =
        readTitleBlock(svg("<g font-family=\"'Made Up', serif\"><text>{title} of {project}</text>"
                           "<text font-family=\"Inter\">{title}, sheet {number}</text></g>"));
    ASSERT_TRUE(block) << block.error().message();
    EXPECT_DOUBLE_EQ(block->width, 96);
    EXPECT_DOUBLE_EQ(block->height, 42);
    EXPECT_THAT(block->fields, ElementsAre("title", "project", "number"));
    EXPECT_THAT(block->families, ElementsAre("Made Up", "Inter"));
}

TEST(TitleBlock, SizesInOtherUnitsAreMillimetresOnPaper) {
    const auto width = [](const std::string& words) {
        const auto block = readTitleBlock("<svg width=\"" + words + "\" height=\"10mm\"/>");
        return block ? block->width : -1;
    };
    EXPECT_NEAR(width("2in"), 50.8, 1e-12);
    EXPECT_NEAR(width("9.6cm"), 96, 1e-12);
    EXPECT_NEAR(width("72pt"), 25.4, 1e-12);
    EXPECT_NEAR(width("96"), 25.4, 1e-12);
    EXPECT_EQ(width("100%"), -1);
    EXPECT_EQ(width("0mm"), -1);
    EXPECT_EQ(width("9000mm"), -1);
}

TEST(TitleBlock, WhatIsNoneIsRefusedWithItsLine) {
    const auto refused = [](const std::string& text) {
        const auto block = readTitleBlock(text);
        EXPECT_FALSE(block);
        return block ? std::pair(std::string(), 0L) : std::pair(block.error().text, block.error().line);
    };
    EXPECT_THAT(refused("").first, HasSubstr("no SVG"));
    EXPECT_THAT(refused("easting,northing\n1,2\n").first, HasSubstr("no SVG"));
    EXPECT_THAT(refused("<html/>").first, HasSubstr("no svg element"));
    const auto cut = refused("<svg width=\"9mm\" height=\"9mm\">\n<text>{title}\n");
    EXPECT_THAT(cut.first, HasSubstr("no SVG"));
    const auto open = refused("<svg width=\"9mm\" height=\"9mm\">\n<g>\n<text>{title</text></g></svg>");
    EXPECT_THAT(open.first, HasSubstr("{title"));
    EXPECT_EQ(open.second, 3);
    EXPECT_THAT(refused(svg("<text>{drawn by}</text>")).first, HasSubstr("letters and digits"));
}

TEST(TitleBlock, FieldsAreFilledAndWhatIsTypedIsNoMarkup) {
    const auto filled = filledTitleBlock(svg("<text>{project}: {title}</text><text>{none}</text>"),
                                         {{"project", "A & B <C>"}, {"title", "Größe \"3\""}}, half);
    ASSERT_EQ(filled.texts.size(), 2U);
    EXPECT_EQ(filled.texts[0].text, "A & B <C>: Größe \"3\"");
    EXPECT_EQ(filled.texts[1].text, "");
    EXPECT_THAT(filled.svg, Not(HasSubstr("text")));
}

TEST(TitleBlock, ATextThatIsTooWideIsMadeSmallerUntilItFits) {
    const auto sizeOf = [](const std::string& title) {
        return filledTitleBlock(svg("<text font-size=\"5\" data-width=\"50\">{title}</text>"),
                                {{"title", title}}, half)
            .texts.at(0)
            .size;
    };
    EXPECT_DOUBLE_EQ(sizeOf("twenty letters long."), 5);
    const std::string wide(40, 'x');
    EXPECT_LE(half(wide, sizeOf(wide), false), 50);
    EXPECT_GT(half(wide, sizeOf(wide), false), 46);
    EXPECT_GT(sizeOf(std::string(5000, 'x')), 0);
}

TEST(TitleBlock, LongTextsAreBrokenIntoTheLinesThatTheyMayHave) {
    const auto filled = filledTitleBlock(
        svg("<text x=\"3\" y=\"12\" font-size=\"5\" data-width=\"50\" data-lines=\"2\">{title}</text>"),
        {{"title", "plan and profile of the lane"}}, half);
    ASSERT_EQ(filled.texts.size(), 2U);
    EXPECT_EQ(filled.texts[0].text, "plan and profile of");
    EXPECT_EQ(filled.texts[1].text, "the lane");
    EXPECT_EQ(filled.texts[0].y, 12);
    EXPECT_EQ(filled.texts[1].y, 18);
}

TEST(TitleBlock, TextsAreInMillimetresWithTheStyleThatTheyInherit) {
    // 192 units for 96 mm: two to a millimetre.
    const auto filled = filledTitleBlock(
        "<svg width=\"96mm\" height=\"42mm\" viewBox=\"0 0 192 84\"><g fill=\"#B9502B\" font-weight=\"bold\" "
        "text-anchor=\"end\" font-family=\"Inter, serif\"><text x=\"20\" y=\"10\" "
        "font-size=\"8\">{title}</text></g>"
        "<g transform=\"rotate(90)\"><text>{title}</text></g><text>{title}<tspan>!</tspan></text></svg>",
        {{"title", "Lane"}}, half);
    ASSERT_EQ(filled.texts.size(), 1U);
    const auto& text = filled.texts[0];
    EXPECT_EQ(text.text, "Lane");
    EXPECT_EQ(text.x, 10);
    EXPECT_EQ(text.y, 5);
    EXPECT_EQ(text.size, 4);
    EXPECT_EQ(text.fill, "#B9502B");
    EXPECT_EQ(text.anchor, "end");
    EXPECT_EQ(text.family, "Inter");
    EXPECT_TRUE(text.strong);
    // What is turned, or of several styles, is left to the drawing; filled all the same.
    EXPECT_THAT(filled.svg, HasSubstr("Lane<tspan>!"));
    EXPECT_THAT(filled.svg, HasSubstr("<text>Lane</text>"));
}

TEST(TitleBlock, TheOneThatShipsIsOne) {
    const auto block = readTitleBlock(shippedTitleBlock());
    ASSERT_TRUE(block);
    EXPECT_DOUBLE_EQ(block->width, 96);
    EXPECT_DOUBLE_EQ(block->height, 42);
    EXPECT_THAT(block->fields, testing::UnorderedElementsAre("project", "title", "drawnBy", "date", "scale",
                                                             "number", "of", "status"));
    EXPECT_THAT(block->families, ElementsAre("Inter"));
}

}  // namespace
}  // namespace erdwerk::paper
