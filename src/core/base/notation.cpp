#include "core/base/notation.h"

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <map>
#include <vector>

namespace erdwerk {

std::string_view trimmed(std::string_view text) {
    const auto isSpace = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
    while (!text.empty() && isSpace(text.front())) text.remove_prefix(1);
    while (!text.empty() && isSpace(text.back())) text.remove_suffix(1);
    return text;
}

std::optional<double> parseNumber(std::string_view text, bool decimalComma) {
    text = trimmed(text);
    if (text.empty() || text.size() > 64) return std::nullopt;
    std::string plain(text);
    if (decimalComma) {
        if (plain.find('.') != std::string::npos) return std::nullopt;
        std::replace(plain.begin(), plain.end(), ',', '.');
    }
    const char* first = plain.data();
    const char* last = first + plain.size();
    if (*first == '+') ++first;
    double value = 0;
    const auto [end, error] = std::from_chars(first, last, value);
    if (error != std::errc() || end != last || !std::isfinite(value)) return std::nullopt;
    return value;
}

namespace {

/// Splits at spaces after turning degree, minute and second marks into spaces.
std::vector<std::string> words(std::string_view text) {
    std::string flat;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto c = static_cast<unsigned char>(text[i]);
        if (c == 0xC2 && i + 1 < text.size() && static_cast<unsigned char>(text[i + 1]) == 0xB0) {
            flat += ' ';
            ++i;
        } else if (c == '\'' || c == '"') {
            flat += ' ';
        } else {
            flat += static_cast<char>(c);
        }
    }
    std::vector<std::string> out;
    std::string word;
    for (const char c : flat + " ") {
        if (c == ' ' || c == '\t') {
            if (!word.empty()) out.push_back(std::move(word));
            word.clear();
        } else {
            word += c;
        }
    }
    return out;
}

std::optional<double> sexagesimal(const std::vector<std::string>& parts, std::size_t first,
                                  std::size_t last) {
    if (last <= first || last - first > 3) return std::nullopt;
    double degrees = 0;
    double scale = 1;
    for (std::size_t i = first; i < last; ++i, scale /= 60) {
        const auto value = parseNumber(parts[i]);
        if (!value || *value < 0 || (i > first && *value >= 60)) return std::nullopt;
        degrees += *value * scale;
    }
    return degrees;
}

std::optional<Grade> parseRatio(std::string_view text) {
    // The number before the colon is the run, the one after it the rise; "1 in 3" is rise in run.
    if (const auto colon = text.find(':'); colon != std::string_view::npos) {
        const auto run = parseNumber(text.substr(0, colon));
        const auto rise = parseNumber(text.substr(colon + 1));
        if (run && rise && *run != 0) return Grade::riseOverRun(*rise / *run);
        return std::nullopt;
    }
    if (const auto in = text.find(" in "); in != std::string_view::npos) {
        const auto rise = parseNumber(text.substr(0, in));
        const auto run = parseNumber(text.substr(in + 4));
        if (run && rise && *run != 0) return Grade::riseOverRun(*rise / *run);
    }
    return std::nullopt;
}

TypedSurface parseSurface(std::string_view text) {
    // The last sign that is followed by a number splits name and amount, so names may hold signs themselves.
    for (std::size_t i = text.size(); i-- > 1;) {
        if (text[i] != '+' && text[i] != '-') continue;
        if (const auto amount = parseNumber(text.substr(i + 1))) {
            return {std::string(trimmed(text.substr(0, i))), text[i] == '-' ? -*amount : *amount};
        }
        break;
    }
    return {std::string(text), 0.0};
}

}  // namespace

std::optional<Angle> parseAngle(std::string_view text) {
    const auto parts = words(text);
    if (const auto degrees = sexagesimal(parts, 0, parts.size())) return Angle::degrees(*degrees);
    return std::nullopt;
}

Result<HeightEntry> parseHeightEntry(std::string_view input) {
    const std::string_view text = trimmed(input);
    if (text.empty())
        return badInput("type a height, a rise like +0.15, a grade like 2%, a ratio like 3:1, or =Surface");
    if (text.front() == '=') {
        const TypedSurface surface = parseSurface(trimmed(text.substr(1)));
        if (surface.surface.empty()) return badInput("name the surface after =, for example =Ground+0.10");
        return HeightEntry{surface};
    }
    if (text.back() == '%') {
        const auto percent = parseNumber(text.substr(0, text.size() - 1));
        if (!percent)
            return badInput("'" + std::string(text) + "' is not a grade; write it like 2% or -1.5%");
        return HeightEntry{TypedGrade{Grade::percent(*percent)}};
    }
    if (text.find(':') != std::string_view::npos || text.find(" in ") != std::string_view::npos) {
        const auto grade = parseRatio(text);
        if (!grade)
            return badInput("'" + std::string(text) +
                            "' is not a ratio; write run to rise like 3:1, or 1 in 3");
        return HeightEntry{TypedGrade{*grade}};
    }
    const auto value = parseNumber(text);
    if (!value)
        return badInput("'" + std::string(text) + "' is not a height, rise, grade, ratio or =Surface");
    if (text.front() == '+' || text.front() == '-') return HeightEntry{TypedRise{*value}};
    return HeightEntry{TypedHeight{*value}};
}

Result<PlaceEntry> parsePlaceEntry(std::string_view input, const DisplaySettings& settings) {
    const std::string text(trimmed(input));
    if (text.find(',') != std::string::npos) {
        std::vector<double> numbers;
        std::size_t from = 0;
        while (from <= text.size()) {
            const auto comma = std::min(text.find(',', from), text.size());
            const auto value = parseNumber(std::string_view(text).substr(from, comma - from));
            if (!value)
                return badInput("'" + text +
                                "' is not a position; write two or three numbers with commas between");
            numbers.push_back(*value);
            from = comma + 1;
        }
        if (numbers.size() < 2 || numbers.size() > 3)
            return badInput("a position has two numbers, and a height if you like");
        const bool eastFirst = settings.order == CoordinateOrder::EastingNorthing;
        TypedPosition place{eastFirst ? numbers[0] : numbers[1], eastFirst ? numbers[1] : numbers[0],
                            std::nullopt};
        if (numbers.size() == 3) place.height = numbers[2];
        return PlaceEntry{place};
    }
    auto parts = words(text);
    const auto lower = [](std::string s) {
        std::transform(s.begin(), s.end(), s.begin(),
                       [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
        return s;
    };
    if (parts.size() >= 3 && lower(parts[0]) == "az") {
        const auto distance = parseNumber(parts.back());
        const auto degrees = sexagesimal(parts, 1, parts.size() - 1);
        if (distance && degrees) return PlaceEntry{TypedCourse{Angle::degrees(*degrees), *distance}};
    }
    if (parts.size() == 3 && lower(parts[0]) == "due") {
        static const std::map<std::string, double> winds{{"north", 0},  {"east", 90}, {"south", 180},
                                                         {"west", 270}, {"n", 0},     {"e", 90},
                                                         {"s", 180},    {"w", 270}};
        const auto wind = winds.find(lower(parts[1]));
        const auto distance = parseNumber(parts.back());
        if (wind != winds.end() && distance)
            return PlaceEntry{TypedCourse{Angle::degrees(wind->second), *distance}};
    }
    if (parts.size() >= 4) {
        const std::string ns = lower(parts[0]);
        const std::string ew = lower(parts[parts.size() - 2]);
        const auto distance = parseNumber(parts.back());
        const auto degrees = sexagesimal(parts, 1, parts.size() - 2);
        if ((ns == "n" || ns == "s") && (ew == "e" || ew == "w") && distance && degrees && *degrees <= 90) {
            double azimuth = ns == "n" ? *degrees : 180 - *degrees;
            if (ew == "w") azimuth = 360 - azimuth;
            return PlaceEntry{TypedCourse{Angle::degrees(azimuth).normalized(), *distance}};
        }
    }
    return badInput("'" + text +
                    "' is not a place; write E, N or a course like N 45°30'20\" E 35.20 or az 45.5056 35.20");
}

Result<double> parseStation(std::string_view input, const DisplaySettings& settings) {
    const std::string_view text = trimmed(input);
    if (const auto plus = text.find('+'); plus != std::string_view::npos && plus > 0) {
        const auto blocks = parseNumber(text.substr(0, plus));
        const auto rest = parseNumber(text.substr(plus + 1));
        if (!blocks || !rest || *rest < 0) return badInput("'" + std::string(text) + "' is not a station");
        // 2+750 and 27+50 say themselves what stands before the plus.
        const auto digits = std::min(text.find('.', plus), text.size()) - plus - 1;
        const bool hundreds = digits == 2 || (digits != 3 && settings.station == StationStyle::Hundreds);
        const double size = hundreds ? 100.0 : 1000.0;
        const bool negative = text.front() == '-';
        return *blocks * size + (negative ? -*rest : *rest);
    }
    const auto value = parseNumber(text);
    if (!value) return badInput("'" + std::string(text) + "' is not a station");
    return *value;
}

}  // namespace erdwerk
