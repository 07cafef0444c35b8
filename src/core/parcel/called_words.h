#pragma once
// The words, numbers and signs of a description, with their places in the text.

#include <string>
#include <string_view>
#include <vector>

namespace erdwerk::parcel {

/// Words of a text: code points from 0, `to` excluded.
struct TextRange {
    std::size_t from = 0;
    std::size_t to = 0;
    friend bool operator==(const TextRange&, const TextRange&) = default;
};

struct CalledWord {
    enum class Sort { Number, Word, Sign };
    Sort sort = Sort::Sign;
    std::string text;         ///< of a word in lower case; of a sign one of . , ; : ( ) / = ' " - ° ² …
    double value = 0;         ///< of a number
    int decimals = 0;         ///< that it is written with
    bool spelled = false;     ///< a number in words: "forty-five"
    bool startsLine = false;  ///< nothing but space stands before it on its line
    bool glued = false;       ///< no space between the one before and this
    TextRange place;

    [[nodiscard]] bool isNumber() const { return sort == Sort::Number; }
    [[nodiscard]] bool is(std::string_view word) const { return sort != Sort::Number && text == word; }
};

/// All of a text in UTF-8 (a damaged byte counts as a sign of its own). The quotes, primes, degree signs and
/// dashes that word processors make are taken as plain ones; "1,234.5" is one number and so is "35,20" (a
/// decimal comma: not three digits behind it); "Δ" is the word "delta"; "one hundred twenty" is a number.
std::vector<CalledWord> wordsOf(std::string_view text);

/// The words of a range.
std::string cutOut(std::string_view text, TextRange range);
/// Code points of a text in UTF-8.
std::size_t codePoints(std::string_view text);

}  // namespace erdwerk::parcel
