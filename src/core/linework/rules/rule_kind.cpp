#include "core/linework/rules/rule_kind.h"

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

Result<double> RuleFields::figure(const std::string& key) const {
    const auto it = figures.find(key);
    if (it == figures.end()) return badInput("a height rule lacks its " + key);
    return it->second;
}

Result<ObjectId> RuleFields::object(const std::string& key) const {
    const auto it = objects.find(key);
    if (it == objects.end()) return badInput("a height rule lacks its " + key);
    return it->second;
}

std::string RuleFields::word(const std::string& key) const {
    const auto it = words.find(key);
    return it == words.end() ? std::string() : it->second;
}

std::string plainWord(const std::string& text) {
    const auto first = text.find_first_not_of(' ');
    if (first == std::string::npos) return {};
    std::string out = text.substr(first, text.find_last_not_of(' ') - first + 1);
    for (char& c : out)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return out;
}

namespace {

/// Where the amount of "NAME+0.10" begins; the text's length when it has none.
std::size_t amountIn(const std::string& text) {
    // The first sign behind which all of the rest is a figure: "Kerb-2-3" is 3 below "Kerb-2".
    for (std::size_t i = 1; i < text.size(); ++i) {
        if (text[i] != '+' && text[i] != '-') continue;
        const auto entry = parseHeightEntry(std::string_view(text).substr(i));
        if (entry &&
            (std::holds_alternative<TypedRise>(*entry) || std::holds_alternative<TypedGrade>(*entry)))
            return i;
    }
    return text.size();
}

}  // namespace

Result<NamedAmount> parseNamed(const std::string& input) {
    const std::string text(trimmed(input));
    NamedAmount out;
    if (text.empty() || text.front() != '"') {
        const std::size_t at = amountIn(text);
        out.name = trimmed(std::string_view(text).substr(0, at));
        out.amount = text.substr(at);
        if (out.name.empty()) return badInput("'" + text + "' names no surface or 3D line");
        return out;
    }
    std::size_t i = 1;
    for (; i < text.size(); ++i) {
        if (text[i] != '"') {
            out.name += text[i];
        } else if (i + 1 < text.size() && text[i + 1] == '"') {
            out.name += '"';
            ++i;
        } else {
            break;
        }
    }
    if (i >= text.size()) return badInput("a quote is missing behind " + text);
    out.amount = trimmed(std::string_view(text).substr(i + 1));
    if (out.name.empty()) return badInput("'" + text + "' names no surface or 3D line");
    if (!out.amount.empty() && (out.amount.front() == '+' || out.amount.front() == '-') &&
        amountIn("x" + out.amount) == 1)
        return out;
    return out.amount.empty() ? Result<NamedAmount>(out)
                              : badInput("'" + out.amount + "' is no amount; write it like +0.10 or -2%");
}

std::string nameText(const std::string& name) {
    const std::string word = plainWord(name);
    const auto curve = word.rfind(" curve ");
    if (amountIn(name) == name.size() && name.find_first_of("\";") == std::string::npos &&
        trimmed(name) == name && curve == std::string::npos)
        return name;
    std::string out = "\"";
    for (const char c : name) out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + "\"";
}

std::string signedText(double value) {
    return (value >= 0 ? "+" : "") + formatExact(value);
}

std::string negatedText(const std::string& typed, bool showsPlus) {
    if (typed.empty()) return {};
    if (typed.front() == '-') return (showsPlus ? "+" : "") + typed.substr(1);
    return "-" + (typed.front() == '+' ? typed.substr(1) : typed);
}

}  // namespace erdwerk::linework
