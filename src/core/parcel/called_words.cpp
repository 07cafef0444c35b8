#include "core/parcel/called_words.h"

#include <algorithm>
#include <array>
#include <optional>
#include <utility>

namespace erdwerk::parcel {

namespace {

constexpr char32_t damaged = 0xFFFD;

/// One code point, and past which byte it ends.
char32_t decode(std::string_view text, std::size_t& at) {
    const auto lead = static_cast<unsigned char>(text[at++]);
    if (lead < 0x80) return lead;
    const int more = lead >= 0xF0 && lead < 0xF8 ? 3 : lead >= 0xE0 ? 2 : lead >= 0xC2 ? 1 : 0;
    if (more == 0 || lead >= 0xF8 || at + static_cast<std::size_t>(more) > text.size()) return damaged;
    char32_t out = lead & (0x3FU >> more);
    for (int i = 0; i < more; ++i) {
        const auto next = static_cast<unsigned char>(text[at + static_cast<std::size_t>(i)]);
        if ((next & 0xC0U) != 0x80U) return damaged;
        out = (out << 6U) | (next & 0x3FU);
    }
    at += static_cast<std::size_t>(more);
    return out;
}

struct Plain {
    char32_t from;
    char32_t to;
};
/// What word processors make of plain signs.
constexpr std::array plainSigns{
    Plain{U'\u2019', U'\''}, Plain{U'\u2018', U'\''},     Plain{U'\u2032', U'\''},
    Plain{U'\u00B4', U'\''}, Plain{U'\u201D', U'"'},      Plain{U'\u201C', U'"'},
    Plain{U'\u2033', U'"'},  Plain{U'\u00BA', U'\u00B0'}, Plain{U'\u02DA', U'\u00B0'},
    Plain{U'\u2013', U'-'},  Plain{U'\u2014', U'-'},      Plain{U'\u2010', U'-'},
    Plain{U'\u2011', U'-'},  Plain{U'\u2212', U'-'},      Plain{U'\u00A0', U' '},
    Plain{U'\u2009', U' '},  Plain{U'\u202F', U' '},      Plain{U'\u2206', U'\u0394'}};

char32_t plain(char32_t c) {
    for (const auto& sign : plainSigns)
        if (sign.from == c) return sign.to;
    return c;
}

bool isDigit(char32_t c) {
    return c >= U'0' && c <= U'9';
}
bool isLetter(char32_t c) {
    return (c >= U'a' && c <= U'z') || (c >= U'A' && c <= U'Z') || (c >= U'\u00C0' && c <= U'\u024F');
}
bool isSpace(char32_t c) {
    return c == U' ' || c == U'\t' || c == U'\n' || c == U'\r' || c == U'\f' || c == U'\v';
}

void appendUtf8(std::string& out, char32_t c) {
    if (c < 0x80) {
        out += static_cast<char>(c);
    } else if (c < 0x800) {
        out += static_cast<char>(0xC0U | (c >> 6U));
        out += static_cast<char>(0x80U | (c & 0x3FU));
    } else {
        out += static_cast<char>(0xE0U | ((c >> 12U) & 0x0FU));
        out += static_cast<char>(0x80U | ((c >> 6U) & 0x3FU));
        out += static_cast<char>(0x80U | (c & 0x3FU));
    }
}

class Scanner {
public:
    explicit Scanner(std::string_view text) {
        for (std::size_t at = 0; at < text.size();) points_.push_back(plain(decode(text, at)));
    }

    std::vector<CalledWord> all() {
        while (at_ < points_.size()) {
            if (isSpace(points_[at_])) {
                lineStart_ = lineStart_ || points_[at_] == U'\n';
                ++at_;
                continue;
            }
            next();
        }
        return std::move(words_);
    }

private:
    std::u32string points_;
    std::size_t at_ = 0;
    bool lineStart_ = true;
    std::vector<CalledWord> words_;

    [[nodiscard]] char32_t peek(std::size_t ahead) const {
        return at_ + ahead < points_.size() ? points_[at_ + ahead] : U'\0';
    }

    void next() {
        CalledWord word;
        word.startsLine = std::exchange(lineStart_, false);
        word.place.from = at_;
        word.glued = at_ > 0 && !isSpace(points_[at_ - 1]);
        if (isDigit(points_[at_]) || (points_[at_] == U'.' && isDigit(peek(1)) && !word.glued)) {
            number(word);
        } else if (isLetter(points_[at_])) {
            word.sort = CalledWord::Sort::Word;
            for (; at_ < points_.size() && isLetter(points_[at_]); ++at_) {
                const char32_t c = points_[at_];
                appendUtf8(word.text, c >= U'A' && c <= U'Z' ? c + (U'a' - U'A') : c);
            }
        } else if (points_[at_] == U'\u0394') {
            word.sort = CalledWord::Sort::Word;
            word.text = "delta";
            ++at_;
        } else {
            appendUtf8(word.text, points_[at_++]);
        }
        word.place.to = at_;
        words_.push_back(std::move(word));
    }

    [[nodiscard]] std::size_t digitsAt(std::size_t ahead) const {
        std::size_t n = 0;
        while (isDigit(peek(ahead + n))) ++n;
        return n;
    }

    void number(CalledWord& word) {
        word.sort = CalledWord::Sort::Number;
        std::string digits;
        const auto take = [&](std::size_t n) {
            for (std::size_t i = 0; i < n; ++i) digits += static_cast<char>(points_[at_++]);
        };
        take(digitsAt(0));
        bool grouped = false;
        while (peek(0) == U',' && digitsAt(1) == 3 && !digits.empty() && (grouped || digits.size() <= 3)) {
            ++at_;
            take(3);
            grouped = true;
        }
        const bool comma = !grouped && peek(0) == U',' && digitsAt(1) > 0 && digitsAt(1) != 3;
        if ((peek(0) == U'.' || comma) && digitsAt(1) > 0) {
            ++at_;
            digits += '.';
            word.decimals = static_cast<int>(digitsAt(0));
            take(digitsAt(0));
        }
        word.text = digits;
        // Digits and a point only, so nothing can be wrong but the size.
        word.value = digits.size() > 40 ? 1e40 : std::stod(digits);
    }
};

struct Spelled {
    std::string_view word;
    int value;
};
constexpr std::array spelledNumbers{
    Spelled{"zero", 0},      Spelled{"one", 1},        Spelled{"two", 2},       Spelled{"three", 3},
    Spelled{"four", 4},      Spelled{"five", 5},       Spelled{"six", 6},       Spelled{"seven", 7},
    Spelled{"eight", 8},     Spelled{"nine", 9},       Spelled{"ten", 10},      Spelled{"eleven", 11},
    Spelled{"twelve", 12},   Spelled{"thirteen", 13},  Spelled{"fourteen", 14}, Spelled{"fifteen", 15},
    Spelled{"sixteen", 16},  Spelled{"seventeen", 17}, Spelled{"eighteen", 18}, Spelled{"nineteen", 19},
    Spelled{"twenty", 20},   Spelled{"thirty", 30},    Spelled{"forty", 40},    Spelled{"fifty", 50},
    Spelled{"sixty", 60},    Spelled{"seventy", 70},   Spelled{"eighty", 80},   Spelled{"ninety", 90},
    Spelled{"hundred", 100}, Spelled{"thousand", 1000}};

std::optional<int> spelledValue(const CalledWord& word) {
    if (word.sort != CalledWord::Sort::Word) return std::nullopt;
    const auto found = std::find_if(spelledNumbers.begin(), spelledNumbers.end(),
                                    [&](const Spelled& s) { return s.word == word.text; });
    if (found == spelledNumbers.end()) return std::nullopt;
    return found->value;
}

/// Past the end of the number in words at `at`, and its value.
std::size_t spelledEnd(const std::vector<CalledWord>& words, std::size_t at, double& value) {
    double whole = 0;
    double part = 0;
    std::size_t end = at;
    for (std::size_t i = at; i < words.size(); ++i) {
        if (words[i].is("-") && i > at && i + 1 < words.size() && words[i].glued && words[i + 1].glued &&
            spelledValue(words[i + 1]))
            continue;
        const auto v = spelledValue(words[i]);
        if (!v) break;
        if (*v == 1000) {
            whole += std::max(part, 1.0) * 1000;
            part = 0;
        } else if (*v == 100) {
            part = std::max(part, 1.0) * 100;
        } else if (end > at && *v < 10 && static_cast<int>(part) % 10 != 0) {
            break;  // "one five" are two numbers
        } else {
            part += *v;
        }
        end = i + 1;
    }
    value = whole + part;
    return end;
}

}  // namespace

std::vector<CalledWord> wordsOf(std::string_view text) {
    auto words = Scanner(text).all();
    std::vector<CalledWord> out;
    out.reserve(words.size());
    for (std::size_t i = 0; i < words.size();) {
        double value = 0;
        const std::size_t end = spelledEnd(words, i, value);
        if (end == i) {
            out.push_back(std::move(words[i++]));
            continue;
        }
        CalledWord number = words[i];
        number.sort = CalledWord::Sort::Number;
        number.spelled = true;
        number.value = value;
        number.place.to = words[end - 1].place.to;
        out.push_back(std::move(number));
        i = end;
    }
    return out;
}

std::string cutOut(std::string_view text, TextRange range) {
    std::string out;
    std::size_t point = 0;
    for (std::size_t at = 0; at < text.size() && point < range.to; ++point) {
        const std::size_t from = at;
        decode(text, at);
        if (point >= range.from) out += text.substr(from, at - from);
    }
    return out;
}

std::size_t codePoints(std::string_view text) {
    std::size_t n = 0;
    for (std::size_t at = 0; at < text.size(); ++n) decode(text, at);
    return n;
}

}  // namespace erdwerk::parcel
