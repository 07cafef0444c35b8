#include "cli/options.h"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <limits>
#include <stdexcept>

#include "core/base/notation.h"

namespace erdwerk::cli {

Option& Option::needed() {
    isNeeded = true;
    return *this;
}
Option& Option::count(int values) {
    return count(values, values);
}
Option& Option::count(int fewest, int greatest) {
    counts = {fewest, greatest};
    return *this;
}
Option& Option::all() {
    takesAll = true;
    return *this;
}
Option& Option::separatedBy(char sign) {
    separator = sign;
    return *this;
}
Option& Option::positive() {
    range = Range::Positive;
    return *this;
}
Option& Option::notNegative() {
    range = Range::NotNegative;
    return *this;
}
Option& Option::between(double from, double to) {
    range = Range::Between;
    least = from;
    most = to;
    return *this;
}
Option& Option::among(std::vector<std::string> values) {
    words = std::move(values);
    return *this;
}
Option& Option::defaultsTo(double value) {
    otherwise = value;
    return *this;
}
Option& Option::defaultsTo(std::string value) {
    otherwiseText = std::move(value);
    return *this;
}

std::string Option::key() const {
    const auto dashes = names.find("--");
    return dashes == std::string::npos ? "inputs" : names.substr(dashes + 2);
}

Option& Options::add(std::string names, OptionKind kind, std::string help) {
    return options_.emplace_back(Option{std::move(names), kind, std::move(help)});
}
Option& Options::inputs(std::string name, std::string help) {
    return add(std::move(name), OptionKind::Texts, std::move(help));
}
Option& Options::text(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Text, std::move(help));
}
Option& Options::texts(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Texts, std::move(help));
}
Option& Options::number(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Number, std::move(help));
}
Option& Options::whole(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Whole, std::move(help));
}
Option& Options::wholes(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Wholes, std::move(help));
}
Option& Options::flag(std::string names, std::string help) {
    return add(std::move(names), OptionKind::Flag, std::move(help));
}

const Arguments::Value& Arguments::value(const std::string& key) const {
    const auto it = values_.find(key);
    if (it == values_.end()) throw std::logic_error("the command has no option '" + key + "'");
    return it->second;
}
const std::string& Arguments::text(const std::string& key) const {
    return value(key).text;
}
const std::vector<std::string>& Arguments::texts(const std::string& key) const {
    return value(key).texts;
}
double Arguments::number(const std::string& key) const {
    return value(key).number.value_or(0);
}
int Arguments::whole(const std::string& key) const {
    return value(key).whole;
}
std::optional<double> Arguments::numberIf(const std::string& key) const {
    return value(key).number;
}
const std::vector<int>& Arguments::wholes(const std::string& key) const {
    return value(key).wholes;
}
bool Arguments::flag(const std::string& key) const {
    return value(key).flag;
}

std::vector<std::string> Arguments::allTexts() const {
    std::vector<std::string> out;
    for (const auto& [key, value] : values_) {
        if (!value.text.empty()) out.push_back(value.text);
        out.insert(out.end(), value.texts.begin(), value.texts.end());
    }
    return out;
}

namespace {

/// A range in words, for the message and for the help.
CLI::Validator inRange(const Option& option) {
    const bool above = option.range == Option::Range::Positive;
    std::string words = above ? "above 0" : "at least 0";
    if (option.range == Option::Range::Between)
        words = fmt::format("from {} to {}", option.least, option.most);
    const double least = option.range == Option::Range::Between ? option.least : 0;
    const double most =
        option.range == Option::Range::Between ? option.most : std::numeric_limits<double>::max();
    return {[=](std::string& given) -> std::string {
                const auto value = parseNumber(given);
                if (value && (above ? *value > least : *value >= least) && *value <= most) return {};
                return "must be " + words + ", not '" + given + "'";
            },
            words};
}

/// Not "nan", not "inf"; what is no figure in other ways the parser says itself.
CLI::Validator isFinite() {
    return {[](std::string& given) -> std::string {
                if (parseNumber(given)) return {};
                return "must be a figure, not '" + given + "'";
            },
            std::string()};
}

void takeOnly(CLI::Option& to, const Option& option) {
    if (option.isNeeded) to.required();
    if (option.counts) {
        if (option.counts->first == option.counts->second)
            to.expected(option.counts->first);
        else
            to.expected(option.counts->first, option.counts->second);
    }
    if (option.takesAll) to.multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
    if (option.separator != '\0') to.delimiter(option.separator);
    if (option.range != Option::Range::Any)
        to.check(inRange(option));
    else if (option.kind == OptionKind::Number)
        to.check(isFinite());
    if (!option.words.empty()) to.check(CLI::IsMember(option.words));
}

}  // namespace

void Arguments::declare(CLI::App& command, const Options& options) {
    for (const Option& option : options.all()) {
        Value& value = values_[option.key()];
        value.text = option.otherwiseText;
        value.number = option.otherwise;
        value.whole = static_cast<int>(option.otherwise.value_or(0));
        CLI::Option* to = nullptr;
        switch (option.kind) {
            case OptionKind::Text:
                to = command.add_option(option.names, value.text, option.help);
                break;
            case OptionKind::Texts:
                to = command.add_option(option.names, value.texts, option.help);
                break;
            case OptionKind::Number:
                to = command.add_option(option.names, value.number, option.help);
                break;
            case OptionKind::Whole:
                to = command.add_option(option.names, value.whole, option.help);
                break;
            case OptionKind::Wholes:
                to = command.add_option(option.names, value.wholes, option.help);
                break;
            case OptionKind::Flag:
                to = command.add_flag(option.names, value.flag, option.help);
                break;
        }
        takeOnly(*to, option);
    }
}

}  // namespace erdwerk::cli
