#include "core/parcel/called_figures.h"

#include <array>
#include <cmath>

namespace erdwerk::parcel {

namespace {

double halfDigit(const CalledWord& number) {
    return 0.5 * std::pow(10.0, -number.decimals);
}

bool isAt(Words words, std::size_t at, std::string_view list) {
    return at < words.size() && oneOf(words[at], list);
}

/// Past a full stop that belongs to an abbreviation.
std::size_t pastStop(Words words, std::size_t at) {
    return at < words.size() && words[at].is(".") && words[at].glued ? at + 1 : at;
}

constexpr std::string_view metreWords = "m metre metres meter meters";
constexpr std::string_view footWords = "ft foot feet f";
constexpr std::string_view chainWords = "ch chs chain chains";
constexpr std::string_view linkWords = "link links lk lks l";

struct FoundUnit {
    CalledUnit unit;
    std::size_t end;
    bool links = false;
};

/// "U.S. survey", "US survey", "survey", "international": which foot it is.
std::optional<FoundUnit> unitAt(Words words, std::size_t at) {
    if (at < words.size() && words[at].is("-") && words[at].glued) ++at;  // "a 50.00-foot radius"
    std::size_t i = at;
    bool survey = false;
    if (isAt(words, i, "u") && isAt(words, i + 1, ".") && isAt(words, i + 2, "s"))
        i = pastStop(words, i + 3);
    else if (isAt(words, i, "us"))
        ++i;
    if (isAt(words, i, "survey")) {
        survey = true;
        ++i;
    } else if (isAt(words, i, "international")) {
        ++i;
    }
    if (isAt(words, i, footWords))
        return FoundUnit{survey ? CalledUnit::SurveyFoot : CalledUnit::Foot, pastStop(words, i + 1)};
    if (i != at) return std::nullopt;
    if (isAt(words, i, "'")) {
        if (isAt(words, i + 1, "'")) return std::nullopt;  // inches
        return FoundUnit{CalledUnit::Foot, i + 1};
    }
    if (isAt(words, i, metreWords)) {
        if (isAt(words, i + 1, "²")) return std::nullopt;
        return FoundUnit{CalledUnit::Metre, i + 1};
    }
    if (isAt(words, i, chainWords)) return FoundUnit{CalledUnit::Chain, pastStop(words, i + 1)};
    if (isAt(words, i, linkWords)) return FoundUnit{CalledUnit::Chain, pastStop(words, i + 1), true};
    return std::nullopt;
}

/// A part of an angle after its degrees, 30' or 30 minutes, with its value in units of that part.
struct AnglePart {
    double value = 0;
    int decimals = 0;
    std::size_t end = 0;
};

std::optional<AnglePart> partAt(Words words, std::size_t at, std::string_view names, std::string_view sign) {
    std::size_t i = at;
    while (i < words.size() && (words[i].is(",") || words[i].is("and"))) ++i;
    if (i >= words.size() || !words[i].isNumber()) return std::nullopt;
    const CalledWord& number = words[i];
    const AnglePart part{number.value, number.decimals, i + 1};
    if (sign == "\"" && isAt(words, i + 1, "'") && isAt(words, i + 2, "'"))
        return AnglePart{part.value, part.decimals, i + 3};
    const bool letter = number.glued && isAt(words, i + 1, names.substr(0, 1)) && words[i + 1].glued;
    if (letter || isAt(words, i + 1, names) || isAt(words, i + 1, sign))
        return AnglePart{part.value, part.decimals, pastStop(words, i + 2)};
    // Its sign was left out: only with nothing between it and the part before.
    const bool follows = i == at && number.value < 60 && !unitAt(words, i + 1);
    if (follows && (isAt(words, i + 1, "e w east west") || (number.glued && number.decimals == 0)))
        return part;
    return std::nullopt;
}

/// The first word of a number that stands in figures in brackets: "one hundred and 50/100 (100.50)".
std::size_t spelledStart(Words words, std::size_t at) {
    std::size_t i = at - 1;  // the bracket
    if (i >= 3 && words[i - 1].isNumber() && words[i - 2].is("/") && words[i - 3].isNumber()) i -= 3;
    if (i >= 1 && words[i - 1].is("and")) --i;
    return i >= 1 && words[i - 1].isNumber() && words[i - 1].spelled ? i - 1 : at;
}

FoundAngle dashed(Words words, std::size_t at) {
    FoundAngle out;
    std::array<double, 3> part{};
    std::size_t n = 0;
    std::size_t i = at;
    double half = 0;
    constexpr std::array<double, 3> size{1, 60, 3600};
    while (n < 3 && i < words.size() && words[i].isNumber()) {
        part[n] = words[i].value;
        half = halfDigit(words[i]) / size[n];
        out.figure.words.to = words[i].place.to;
        ++n;
        out.end = i + 1;
        if (!isAt(words, i + 1, "-") || !words[i + 1].glued) break;
        i += 2;
    }
    out.marked = true;
    out.figure.words.from = words[at].place.from;
    out.figure.value =
        part[1] < 60 && part[2] < 60 ? Angle::degrees(part[0] + part[1] / 60 + part[2] / 3600).radians() : -1;
    out.figure.half = Angle::degrees(half).radians();
    return out;
}

bool fits(double degrees, double most) {
    return degrees >= 0 && degrees <= most;
}

/// The last letter of a quadrant bearing, a stop before and after it taken.
std::optional<std::size_t> eastOrWest(Words words, std::size_t at, bool* west) {
    std::size_t i = pastStop(words, at);
    if (isAt(words, i, ",") && i + 1 < words.size() && isAt(words, i + 1, "east west")) ++i;
    if (!isAt(words, i, "e w east west")) return std::nullopt;
    *west = words[i].text.front() == 'w';
    return words[i].text.size() == 1 ? pastStop(words, i + 1) : i + 1;
}

std::optional<FoundDirection> quadrantAt(Words words, std::size_t at) {
    if (!isAt(words, at, "n s north south")) return std::nullopt;
    std::size_t i = pastStop(words, at + 1);
    if (isAt(words, i, ",")) return std::nullopt;
    const auto angle = angleAt(words, i);
    if (!angle) return std::nullopt;
    bool west = false;
    const auto end = eastOrWest(words, angle->end, &west);
    if (!end && !angle->marked) return std::nullopt;  // a coordinate, "North 100.00 feet"
    FoundDirection out;
    out.end = end.value_or(angle->end);
    out.words = {words[at].place.from, words[out.end - 1].place.to};
    const double degrees = Angle::radians(angle->figure.value).degrees();
    if (!end || !fits(degrees, 90)) {
        if (!angle->marked) return std::nullopt;
        return out;
    }
    const bool south = words[at].text.front() == 's';
    const double azimuth = south ? (west ? 180 + degrees : 180 - degrees) : (west ? 360 - degrees : degrees);
    out.figure = CalledFigure{Angle::degrees(azimuth).normalized().radians(), angle->figure.half, out.words};
    return out;
}

std::optional<FoundDirection> cardinalAt(Words words, std::size_t at) {
    const bool due = isAt(words, at, "due");
    const std::size_t i = due ? at + 1 : at;
    if (!isAt(words, i, due ? "n s e w north south east west" : "north south east west")) return std::nullopt;
    FoundDirection out;
    out.cardinal = true;
    out.end = words[i].text.size() == 1 ? pastStop(words, i + 1) : i + 1;
    out.words = {words[at].place.from, words[i].place.to};
    constexpr std::string_view order = "nesw";
    const double azimuth = 90.0 * static_cast<double>(order.find(words[i].text.front()));
    // It is called to no digit; a bearing to the second would be.
    out.figure =
        CalledFigure{Angle::degrees(azimuth).radians(), Angle::degrees(0.5 / 3600).radians(), out.words};
    return out;
}

FoundDirection azimuthOf(const FoundAngle& angle, TextRange range, std::size_t end) {
    FoundDirection out;
    out.end = end;
    out.words = range;
    if (fits(Angle::radians(angle.figure.value).degrees(), 360))
        out.figure =
            CalledFigure{Angle::radians(angle.figure.value).normalized().radians(), angle.figure.half, range};
    return out;
}

std::optional<FoundDirection> azimuthAt(Words words, std::size_t at) {
    if (words[at].isNumber()) {
        const auto angle = angleAt(words, at);
        if (!angle || !isAt(words, angle->end, "azimuth az")) return std::nullopt;
        return azimuthOf(*angle, {words[at].place.from, words[angle->end].place.to}, angle->end + 1);
    }
    const bool bare = oneOf(words[at], "bearing bears direction");
    if (!bare && !oneOf(words[at], "azimuth az azi")) return std::nullopt;
    std::size_t i = at + 1;
    while (isAt(words, i, ". : = of is")) ++i;
    const auto angle = angleAt(words, i);
    if (!angle || (bare && !angle->marked)) return std::nullopt;
    const std::size_t first = bare ? i : at;
    auto out = azimuthOf(*angle, {words[first].place.from, angle->figure.words.to}, angle->end);
    out.bare = bare;
    return out;
}

}  // namespace

bool oneOf(const CalledWord& word, std::string_view list) {
    if (word.isNumber() || word.text.empty()) return false;
    for (std::size_t at = list.find(word.text); at != std::string_view::npos;
         at = list.find(word.text, at + 1)) {
        const std::size_t end = at + word.text.size();
        if ((at == 0 || list[at - 1] == ' ') && (end == list.size() || list[end] == ' ')) return true;
    }
    return false;
}

std::optional<double> compassOf(std::string_view word) {
    constexpr std::array<std::string_view, 8> roses{"north", "northeast", "east", "southeast",
                                                    "south", "southwest", "west", "northwest"};
    std::optional<double> out;
    std::size_t longest = 0;
    for (std::size_t r = 0; r < roses.size(); ++r) {
        if (!word.starts_with(roses[r]) || roses[r].size() < longest) continue;
        longest = roses[r].size();
        out = Angle::degrees(45.0 * static_cast<double>(r)).radians();
    }
    return out;
}

std::string_view unitName(CalledUnit unit) {
    constexpr std::array<std::string_view, 4> names{"m", "ft", "ftUS", "chain"};
    return names[static_cast<std::size_t>(unit)];
}

std::optional<CalledUnit> calledUnitFrom(std::string_view name) {
    for (const auto unit : {CalledUnit::Metre, CalledUnit::Foot, CalledUnit::SurveyFoot, CalledUnit::Chain})
        if (unitName(unit) == name) return unit;
    return std::nullopt;
}

CalledUnit calledUnitOf(LengthUnit unit) {
    if (unit == LengthUnit::Metre) return CalledUnit::Metre;
    return unit == LengthUnit::UsSurveyFoot ? CalledUnit::SurveyFoot : CalledUnit::Foot;
}

double metresPer(CalledUnit unit) {
    switch (unit) {
        case CalledUnit::Foot:
            return metresPer(LengthUnit::InternationalFoot);
        case CalledUnit::SurveyFoot:
            return metresPer(LengthUnit::UsSurveyFoot);
        case CalledUnit::Chain:
            return 66 * metresPer(LengthUnit::InternationalFoot);
        case CalledUnit::Metre:
            break;
    }
    return 1;
}

std::optional<FoundAngle> angleAt(Words words, std::size_t at) {
    if (at >= words.size() || !words[at].isNumber()) return std::nullopt;
    const CalledWord& number = words[at];
    if (isAt(words, at + 1, "gon gons grad grads g")) {
        const double half = Angle::gon(halfDigit(number)).radians();
        const TextRange range{number.place.from, words[at + 1].place.to};
        return FoundAngle{{Angle::gon(number.value).radians(), half, range}, at + 2, true};
    }
    if (isAt(words, at + 1, "-") && words[at + 1].glued && at + 2 < words.size() &&
        words[at + 2].isNumber() && words[at + 2].glued)
        return dashed(words, at);
    double degrees = number.value;
    double half = halfDigit(number);
    std::size_t end = at + 1;
    bool good = true;
    const bool marked = isAt(words, end, "° deg degs degree degrees d");
    if (marked) {
        end = words[end].text.size() > 2 ? pastStop(words, end + 1) : end + 1;
        if (const auto minutes = partAt(words, end, "min mins minute minutes", "'")) {
            degrees += minutes->value / 60;
            half = 0.5 * std::pow(10.0, -minutes->decimals) / 60;
            good = minutes->value < 60;
            end = minutes->end;
            if (const auto seconds = partAt(words, end, "sec secs second seconds", "\"")) {
                degrees += seconds->value / 3600;
                half = 0.5 * std::pow(10.0, -seconds->decimals) / 3600;
                good = good && seconds->value < 60;
                end = seconds->end;
            }
        }
    }
    // 61 minutes are no angle: below 0, which no direction takes.
    const double value = good ? Angle::degrees(degrees).radians() : -1;
    return FoundAngle{
        {value, Angle::degrees(half).radians(), {number.place.from, words[end - 1].place.to}}, end, marked};
}

std::optional<FoundDirection> directionAt(Words words, std::size_t at) {
    if (at >= words.size()) return std::nullopt;
    if (auto found = quadrantAt(words, at)) return found;
    if (auto found = azimuthAt(words, at)) return found;
    return cardinalAt(words, at);
}

std::optional<FoundLength> lengthAt(Words words, std::size_t at) {
    if (at >= words.size() || !words[at].isNumber()) return std::nullopt;
    const CalledWord& number = words[at];
    FoundLength out{{number.value, halfDigit(number), number.place}, {}, at + 1};
    // "(120.50) feet", after the same in words.
    const bool inBrackets = at > 0 && words[at - 1].is("(") && isAt(words, at + 1, ")");
    if (inBrackets) out.figure.words.from = words[spelledStart(words, at)].place.from;
    auto unit = unitAt(words, inBrackets ? at + 2 : at + 1);
    if (!unit) return out;
    out.unit = unit->unit;
    out.end = unit->end;
    const double scale = unit->links ? 0.01 : 1;
    out.figure.value *= scale;
    out.figure.half *= scale;
    if (unit->unit == CalledUnit::Chain && !unit->links) {
        std::size_t i = out.end;
        while (isAt(words, i, ", and")) ++i;
        if (i < words.size() && words[i].isNumber()) {
            const auto links = unitAt(words, i + 1);
            if (links && links->links) {
                out.figure.value += words[i].value / 100;
                out.figure.half = halfDigit(words[i]) / 100;
                out.end = links->end;
            }
        }
    }
    out.figure.words.to = words[out.end - 1].place.to;
    return out;
}

std::optional<FoundArea> areaAt(Words words, std::size_t at) {
    if (at >= words.size() || !words[at].isNumber()) return std::nullopt;
    const CalledWord& number = words[at];
    FoundArea out{{number.value, halfDigit(number), number.place}, {}, at + 1};
    std::size_t i = at + 1;
    if (at > 0 && words[at - 1].is("(") && isAt(words, i, ")")) ++i;
    if (isAt(words, i, "acre acres ac")) {
        out.unit = "acre";
    } else if (isAt(words, i, "hectare hectares ha")) {
        out.unit = "ha";
    } else if (isAt(words, i, "m ft") && isAt(words, i + 1, "²")) {
        out.unit = words[i].is("m") ? "m2" : "ft2";
        ++i;
    } else if (isAt(words, i, "m ft") && i + 1 < words.size() && words[i + 1].isNumber() &&
               words[i + 1].glued && words[i + 1].text == "2") {
        out.unit = words[i].is("m") ? "m2" : "ft2";
        ++i;
    } else if (isAt(words, i, "square sq")) {
        i = pastStop(words, i + 1);
        if (isAt(words, i, metreWords))
            out.unit = "m2";
        else if (isAt(words, i, footWords))
            out.unit = "ft2";
        else
            return std::nullopt;
    } else {
        return std::nullopt;
    }
    out.end = pastStop(words, i + 1);
    out.figure.words.to = words[out.end - 1].place.to;
    return out;
}

}  // namespace erdwerk::parcel
