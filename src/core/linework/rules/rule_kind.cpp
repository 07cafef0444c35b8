#include "core/linework/rules/rule_kind.h"

#include "core/base/display.h"

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

std::string signedText(double value) {
    return (value >= 0 ? "+" : "") + formatExact(value);
}

std::string negatedText(const std::string& typed, bool showsPlus) {
    if (typed.empty()) return {};
    if (typed.front() == '-') return (showsPlus ? "+" : "") + typed.substr(1);
    return "-" + (typed.front() == '+' ? typed.substr(1) : typed);
}

}  // namespace erdwerk::linework
