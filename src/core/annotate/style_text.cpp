#include "core/annotate/style_text.h"

#include <algorithm>
#include <sstream>

namespace erdwerk::annotate {

namespace {

constexpr std::string_view between = "  ";

std::string fieldText(const StyleField& f) {
    std::string out = "{" + std::string(fieldName(f.field));
    std::string words;
    if (!f.leadingZeros) words += " bare";
    if (f.seconds == Seconds::Minutes) words += " minutes";
    if (f.seconds == Seconds::Degrees) words += " degrees";
    if (f.decimals != 2 || !words.empty()) out += ":" + std::to_string(f.decimals) + words;
    return out + "}";
}

Result<StyleField> parseField(const std::string& inside, LabelKind kind) {
    StyleField out;
    const std::size_t colon = inside.find(':');
    const std::string name = inside.substr(0, colon);
    const auto& known = fieldsOf(kind);
    const auto found =
        std::find_if(known.begin(), known.end(), [&](Field f) { return fieldName(f) == name; });
    if (found == known.end()) {
        std::string names;
        for (const Field f : known) names += (names.empty() ? "" : ", ") + std::string(fieldName(f));
        return badInput("there is no field '" + name + "' here; there are " + names);
    }
    out.field = *found;
    if (colon == std::string::npos) return out;
    std::istringstream words(inside.substr(colon + 1));
    for (std::string word; words >> word;) {
        if (word.size() == 1 && word[0] >= '0' && word[0] <= '9')
            out.decimals = word[0] - '0';
        else if (word == "bare")
            out.leadingZeros = false;
        else if (word == "minutes")
            out.seconds = Seconds::Minutes;
        else if (word == "degrees")
            out.seconds = Seconds::Degrees;
        else
            return badInput("'" + word + "' is not understood; after the colon come decimals from 0 to 9, " +
                            "then bare, minutes or degrees");
    }
    return out;
}

}  // namespace

std::string styleLineText(const StyleLine& line) {
    std::string out;
    for (const StyleField& f : line.fields)
        out += (out.empty() ? std::string() : std::string(between)) + f.prefix + fieldText(f) + f.suffix;
    return out;
}

Result<StyleLine> parseStyleLine(const std::string& text, LabelKind kind, const StyleLine& before) {
    StyleLine out = before;
    out.fields.clear();
    std::size_t at = 0;
    std::string pending;  // between the last field and the next
    const auto giveSuffix = [&](bool last) {
        if (out.fields.empty()) return;
        const std::size_t gap = pending.find(between);
        if (!last && gap == std::string::npos) return;
        out.fields.back().suffix = pending.substr(0, gap);
        pending = gap == std::string::npos ? "" : pending.substr(gap + between.size());
    };
    while (true) {
        const std::size_t open = text.find('{', at);
        pending = text.substr(at, open == std::string::npos ? std::string::npos : open - at);
        giveSuffix(open == std::string::npos);
        if (open == std::string::npos) break;
        const std::size_t close = text.find('}', open);
        if (close == std::string::npos) return badInput("a brace is not closed");
        auto field = parseField(text.substr(open + 1, close - open - 1), kind);
        if (!field) return tl::unexpected(field.error());
        field->prefix = pending;
        out.fields.push_back(std::move(*field));
        at = close + 1;
    }
    if (out.fields.empty() && !text.empty())
        return badInput("a line holds a field in braces, as {" +
                        std::string(fieldName(fieldsOf(kind).front())) + "}");
    return out;
}

}  // namespace erdwerk::annotate
