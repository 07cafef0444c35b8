#include "core/parcel/description.h"

#include <algorithm>
#include <array>
#include <functional>

#include "core/parcel/sentence.h"

namespace erdwerk::parcel {

namespace {

constexpr std::string_view courseFields = "direction bearing azimuth distance along to";
constexpr std::string_view curveFields =
    "side radius delta arcLength chord chordDirection chordBearing chordAzimuth along to";

bool listed(std::string_view list, std::string_view word) {
    for (std::size_t at = 0; at < list.size();) {
        const std::size_t end = std::min(list.find(' ', at), list.size());
        if (list.substr(at, end - at) == word) return true;
        at = end + 1;
    }
    return false;
}

Result<SentenceField> fieldOf(const std::string& inside) {
    SentenceField out;
    const auto colon = inside.find(':');
    out.name = inside.substr(0, colon);
    if (colon == std::string::npos) return out;
    for (std::size_t at = colon + 1; at < inside.size();) {
        const std::size_t end = std::min(inside.find(' ', at), inside.size());
        const std::string word = inside.substr(at, end - at);
        at = end + 1;
        if (word.empty()) continue;
        if (word.size() == 1 && word[0] >= '0' && word[0] <= '9')
            out.decimals = word[0] - '0';
        else if (const auto unit = unitFromSymbol(word))
            out.unit = unit;
        else if (word == "zeros")
            out.zeros = true;
        else if (word == "words")
            out.words = true;
        else
            return badInput("'" + word + "' in {" + inside +
                            "} is none of decimals from 0 to 9, m, ft, ftUS, zeros, words");
    }
    return out;
}

DescriptionTemplate plainWords(const std::string& name,
                               const std::function<std::string(const std::string&)>& length) {
    DescriptionTemplate t;
    t.name = name;
    t.opening = "{name}: a parcel of land, described as follows.";
    t.commence =
        "Commencing at {from}; {tie}, to {beginning} (E {easting:2}  N {northing:2}), the point of beginning";
    t.commence = "Commencing at {from}; {tie}, to {beginning} ({position:2}), the point of beginning";
    t.beginning = "Beginning at {beginning} ({position:2}), the point of beginning";
    t.line = "{along}{direction}, a distance of " + length("distance") + "{to}";
    const auto curve = [&](const std::string& kind) {
        return "{along}along a " + kind + " curve to the {side}, having a radius of " + length("radius") +
               " and a central angle of {delta}, the chord of which bears {chordDirection} and measures " +
               length("chord") + ", an arc length of " + length("arcLength") + "{to}";
    };
    t.curveTangent = curve("tangent");
    t.curveNonTangent = curve("non-tangent");
    t.along = "along {along}, ";
    t.leaving = "leaving {leaving}, ";
    t.to = ", to {to}";
    t.closing = ", to the point of beginning";
    t.area = "Containing {area}, more or less.";
    return t;
}

DescriptionTemplate numbered(DescriptionTemplate t, const std::string& name) {
    t.name = name;
    t.listOpening = "the following {countWords} ({count}) courses:";
    return t;
}

}  // namespace

Result<std::vector<SentencePiece>> piecesOf(const std::string& sentence) {
    std::vector<SentencePiece> out;
    for (std::size_t at = 0; at < sentence.size();) {
        const std::size_t open = sentence.find_first_of("{}", at);
        if (open > at) out.push_back({sentence.substr(at, open - at), {}});
        if (open == std::string::npos) break;
        const std::size_t close = sentence.find_first_of("{}", open + 1);
        if (sentence[open] == '}' || close == std::string::npos || sentence[close] == '{')
            return badInput("a brace stands without its other");
        auto field = fieldOf(sentence.substr(open + 1, close - open - 1));
        if (!field) return tl::unexpected(field.error());
        out.push_back({{}, std::move(*field)});
        at = close + 1;
    }
    return out;
}

/// The pieces of a sentence that was found valid.
std::vector<SentencePiece> validPieces(const std::string& sentence) {
    return piecesOf(sentence).value_or(std::vector<SentencePiece>{});
}

std::span<const SentenceKey> sentenceKeys() {
    using T = DescriptionTemplate;
    static constexpr std::array<SentenceKey, 12> keys{
        {{"opening", &T::opening, "name"},
         {"commence", &T::commence, "from tie beginning position easting northing"},
         {"beginning", &T::beginning, "beginning position easting northing"},
         {"line", &T::line, courseFields},
         {"curveTangent", &T::curveTangent, curveFields},
         {"curveNonTangent", &T::curveNonTangent, curveFields},
         {"along", &T::along, "along"},
         {"leaving", &T::leaving, "leaving along"},
         {"to", &T::to, "to"},
         {"listOpening", &T::listOpening, "count countWords"},
         {"closing", &T::closing, "beginning"},
         {"area", &T::area, "area"}}};
    return keys;
}

Result<void> validate(const DescriptionTemplate& wording) {
    for (const auto& [key, sentence, fields] : sentenceKeys()) {
        const auto pieces = piecesOf(wording.*sentence);
        if (!pieces) return badInput("\"" + std::string(key) + "\": " + pieces.error().text);
        for (const auto& piece : *pieces) {
            if (!piece.field || listed(fields, piece.field->name)) continue;
            std::string known;
            for (const char c : fields) known += c == ' ' ? ", " : std::string(1, c);
            return badInput("\"" + std::string(key) + "\" has no field {" + piece.field->name +
                            "}: " + known);
        }
    }
    for (const auto* needed : {&wording.line, &wording.curveTangent, &wording.curveNonTangent})
        if (needed->empty())
            return badInput("the sentences line, curveTangent and curveNonTangent are needed");
    return {};
}

std::span<const DescriptionTemplate> shippedTemplates() {
    static const std::array<DescriptionTemplate, 4> all = [] {
        const auto metric = [](const std::string& f) { return "{" + f + ":m} metres"; };
        const auto feet = [](const std::string& f) { return "{" + f + ":ft} feet"; };
        const DescriptionTemplate plain = plainWords("Plain, metres", metric);
        const DescriptionTemplate plainFeet = plainWords("Plain, feet", feet);
        return std::array<DescriptionTemplate, 4>{plain, plainFeet, numbered(plain, "Numbered list, metres"),
                                                  numbered(plainFeet, "Numbered list, feet")};
    }();
    return all;
}

const DescriptionTemplate& plainTemplate(LengthUnit unit) {
    const auto fixed = [](const std::string& word) {
        auto t = plainWords("Plain", [&](const std::string& f) { return "{" + f + ":2} " + word; });
        for (auto* sentence : {&t.line, &t.curveTangent, &t.curveNonTangent}) {
            const auto put = [&](const std::string& from, const std::string& to) {
                if (const auto at = sentence->find(from); at != std::string::npos)
                    sentence->replace(at, from.size(), to);
            };
            put("{direction}", "{bearing:0}");
            put("{chordDirection}", "{chordBearing:0}");
            put("{delta}", "{delta:0}");
        }
        return t;
    };
    static const DescriptionTemplate metres = fixed("metres");
    static const DescriptionTemplate feet = fixed("feet");
    return unit == LengthUnit::Metre ? metres : feet;
}

std::optional<std::string> areaWords(double squareUnits, LengthUnit unit, std::string_view areaUnit) {
    // Feet of the project are what square feet and acres are made of.
    const double foot = metresPer(unit == LengthUnit::UsSurveyFoot ? unit : LengthUnit::InternationalFoot);
    const double metres = squareUnits * metresPer(unit) * metresPer(unit);
    if (areaUnit == "m2") return formatFixed(metres, 2) + " square metres";
    if (areaUnit == "ha") return formatFixed(metres / 10000, 4) + " hectares";
    if (areaUnit == "ft2") return formatFixed(metres / (foot * foot), 0) + " square feet";
    if (areaUnit == "acre") return formatFixed(metres / (43560 * foot * foot), 4) + " acres";
    return std::nullopt;
}

std::string countWords(std::size_t count) {
    static constexpr std::array small{"zero",    "one",     "two",       "three",    "four",
                                      "five",    "six",     "seven",     "eight",    "nine",
                                      "ten",     "eleven",  "twelve",    "thirteen", "fourteen",
                                      "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"};
    static constexpr std::array tens{"",      "",      "twenty",  "thirty", "forty",
                                     "fifty", "sixty", "seventy", "eighty", "ninety"};
    if (count < 20) return small[count];
    if (count < 100) return tens[count / 10] + (count % 10 ? "-" + countWords(count % 10) : std::string());
    if (count < 1000)
        return countWords(count / 100) + " hundred" +
               (count % 100 ? " " + countWords(count % 100) : std::string());
    return std::to_string(count);
}

}  // namespace erdwerk::parcel
