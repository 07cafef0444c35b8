#include "core/parcel/read_back.h"

#include <algorithm>

#include "core/parcel/call_reader.h"

namespace erdwerk::parcel {

namespace {

bool isAt(Words words, std::size_t at, std::string_view list) {
    return at < words.size() && oneOf(words[at], list);
}

/// The unit of the first length that has one; "survey feet" anywhere are meant by all feet.
std::optional<CalledUnit> unitOf(Words words) {
    std::optional<CalledUnit> unit;
    bool survey = false;
    for (std::size_t i = 0; i < words.size(); ++i) {
        survey = survey || (words[i].is("survey") && isAt(words, i + 1, "foot feet ft"));
        if (unit || !words[i].isNumber() || areaAt(words, i)) continue;
        const auto length = lengthAt(words, i);
        // Minutes look like feet.
        if (i > 0 && isAt(words, i - 1, "° deg degrees degree")) continue;
        if (length && length->unit) unit = length->unit;
    }
    if (unit == CalledUnit::Foot && survey) return CalledUnit::SurveyFoot;
    return unit;
}

bool hasBearing(Words words) {
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (!oneOf(words[i], "n s north south")) continue;
        const auto found = directionAt(words, i);
        if (found && found->figure && !found->cardinal) return true;
    }
    return false;
}

/// The first word of the point of beginning that is named after a point of commencement; nothing when the
/// text begins at the point of beginning.
std::optional<std::size_t> tieEnd(Words words) {
    bool commences = false;
    for (std::size_t i = 0; i < words.size(); ++i) {
        commences = commences || oneOf(words[i], "commencing commence commences");
        const bool named =
            (isAt(words, i, "point place") && isAt(words, i + 1, "of") && isAt(words, i + 2, "beginning")) ||
            isAt(words, i, "pob tpob");
        if (commences && named) return i;
    }
    return std::nullopt;
}

std::vector<CallSpan> courseCalls(Words words) {
    auto calls = callsOf(words);
    const auto end = tieEnd(words);
    if (!end) return calls;
    const auto first =
        std::find_if(calls.begin(), calls.end(), [&](const CallSpan& c) { return c.from > *end; });
    // Nothing after it: "commencing" was only another word for beginning.
    if (first == calls.end()) return calls;
    calls.erase(calls.begin(), first);
    return calls;
}

void keepOutermost(std::vector<TextRange>& ranges) {
    std::sort(ranges.begin(), ranges.end(), [](const TextRange& a, const TextRange& b) {
        return a.from != b.from ? a.from < b.from : a.to > b.to;
    });
    std::vector<TextRange> out;
    for (const auto& r : ranges)
        if (out.empty() || r.to > out.back().to) out.push_back(r);
    ranges = std::move(out);
}

}  // namespace

double squareMetresPer(std::string_view areaUnit) {
    const double foot = metresPer(CalledUnit::Foot);
    if (areaUnit == "ha") return 10000;
    if (areaUnit == "ft2") return foot * foot;
    if (areaUnit == "acre") return 43560 * foot * foot;
    return 1;
}

Result<ReadDescription> readDescription(std::string_view text, CalledUnit unit) {
    const auto all = wordsOf(text);
    const Words words(all);
    ReadDescription out;
    out.unit = unitOf(words).value_or(unit);
    if (out.unit == CalledUnit::Foot && unit == CalledUnit::SurveyFoot) out.unit = unit;
    CallContext context;
    context.unit = out.unit;
    context.azimuths = !hasBearing(words);
    const auto calls = courseCalls(words);
    bool anything = false;
    for (const CallSpan& span : calls) {
        context.curveBefore =
            !out.courses.empty() && out.courses.back().isCurve ? &out.courses.back() : nullptr;
        CallReading call = readCall(words, span, context);
        if (call.opensList) continue;
        anything = anything || !call.nothing;
        std::move(call.unread.begin(), call.unread.end(), std::back_inserter(out.unread));
        if (!call.nothing) out.courses.push_back(call.course);
    }
    if (!anything)
        return badInput(calls.empty()
                            ? "no call stands in it: nothing begins with \"thence\", a number or a bearing"
                            : "none of its calls has a bearing, a distance or a curve");
    const std::size_t areasFrom = calls.empty() ? 0 : calls.front().from;
    for (std::size_t i = 0; i < words.size(); ++i) {
        if (!words[i].isNumber() || words[i].spelled) continue;
        if (auto area = areaAt(words, i); area && (i >= areasFrom || !calls.empty()))
            out.areas.push_back({area->figure, area->unit});
    }
    keepOutermost(out.unread);
    return out;
}

}  // namespace erdwerk::parcel
