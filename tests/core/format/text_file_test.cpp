#include "core/format/text_file.h"

#include <gtest/gtest.h>

namespace erdwerk::format {
namespace {

/// Longer than what is looked at in one go, with a character of two or three bytes at every place of the
/// seam.
TEST(TextFile, CharactersAcrossTheSeamsOfALongTextAreKept) {
    for (const std::string character : {"\xC3\xA4", "\xE2\x82\xAC", "\xF0\x9F\x97\xBB"})
        for (std::size_t shift = 0; shift < character.size(); ++shift) {
            std::string text(shift, 'x');
            while (text.size() < (std::size_t{1} << 20) + 100) text += character;
            const auto read = asText(text, "long.txt");
            ASSERT_TRUE(read);
            EXPECT_TRUE(*read == text) << character << " " << shift;
        }
}

TEST(TextFile, ALongLatin1TextBecomesUtf8) {
    const std::size_t count = (std::size_t{1} << 20) + 17;
    const auto read = asText(std::string(count, '\xE4'), "long.txt");
    ASSERT_TRUE(read);
    ASSERT_EQ(read->size(), 2 * count);
    for (std::size_t i = 0; i < count; ++i) ASSERT_EQ(read->compare(2 * i, 2, "\xC3\xA4"), 0) << i;
}

TEST(TextFile, OneByteThatIsNoUtf8MakesItLatin1) {
    EXPECT_EQ(asText("a\xE4z", "a.txt").value_or(""), "a\xC3\xA4z");
    EXPECT_EQ(asText("a\xC3\xA4z", "a.txt").value_or(""), "a\xC3\xA4z");
    // Cut in the middle of a character.
    EXPECT_EQ(asText("a\xC3", "a.txt").value_or(""), "a\xC3\x83");
}

}  // namespace
}  // namespace erdwerk::format
