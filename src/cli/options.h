#pragma once
// The options of a command as data: names, what kind of value, which values are taken, help. options.cpp
// hands them to the parser; commands read them by name from Arguments.

#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/progress.h"

namespace CLI {
class App;
}

namespace erdwerk::cli {

enum class OptionKind { Text, Texts, Number, Whole, Wholes, Flag };

struct Option {
    std::string names;  ///< "-o,--output"; without dashes: what stands without a name ("surface")
    OptionKind kind = OptionKind::Text;
    std::string help;
    bool isNeeded = false;
    /// How many values it takes; most below 0: any number. None: as many as its kind takes.
    std::optional<std::pair<int, int>> counts = {};
    bool takesAll = false;  ///< given more than once, all values count
    char separator = '\0';  ///< between values in one word
    enum class Range { Any, Positive, NotNegative, Between };
    Range range = Range::Any;
    double least = 0;
    double most = 0;
    std::vector<std::string> words = {};  ///< the only values it takes; empty: any
    std::optional<double> otherwise = {};
    std::string otherwiseText = {};

    Option& needed();
    Option& count(int values);
    Option& count(int fewest, int greatest);
    Option& all();
    Option& separatedBy(char sign);
    Option& positive();
    Option& notNegative();
    Option& between(double from, double to);
    Option& among(std::vector<std::string> values);
    Option& defaultsTo(double value);
    Option& defaultsTo(std::string value);

    /// "output" of "-o,--output"; "inputs" of what stands without a name.
    [[nodiscard]] std::string key() const;
};

/// Those of one command, in the order of its help.
class Options {
public:
    Option& inputs(std::string name, std::string help);
    Option& text(std::string names, std::string help);
    Option& texts(std::string names, std::string help);
    Option& number(std::string names, std::string help);
    Option& whole(std::string names, std::string help);
    Option& wholes(std::string names, std::string help);
    Option& flag(std::string names, std::string help);
    [[nodiscard]] const std::vector<Option>& all() const { return options_; }

private:
    Option& add(std::string names, OptionKind kind, std::string help);
    std::vector<Option> options_;
};

/// What was given, by the option's name without dashes. Asking for an option that the command does not have
/// is a broken contract and throws std::logic_error.
class Arguments {
public:
    [[nodiscard]] const std::vector<std::string>& inputs() const { return texts("inputs"); }
    [[nodiscard]] const std::string& text(const std::string& key) const;
    [[nodiscard]] const std::vector<std::string>& texts(const std::string& key) const;
    /// What was given, else what is meant then, else 0.
    [[nodiscard]] double number(const std::string& key) const;
    [[nodiscard]] int whole(const std::string& key) const;
    /// Nothing when it was not given.
    [[nodiscard]] std::optional<double> numberIf(const std::string& key) const;
    [[nodiscard]] const std::vector<int>& wholes(const std::string& key) const;
    [[nodiscard]] bool flag(const std::string& key) const;
    /// Every text that was given to any option.
    [[nodiscard]] std::vector<std::string> allTexts() const;

    Context context;  ///< progress on a terminal, Ctrl+C
    bool withJournal = false;

    /// Declares the options to a command of the parser, which writes what it is given into these arguments.
    /// They must stay where they are until it has parsed.
    void declare(CLI::App& command, const Options& options);

private:
    struct Value {
        std::string text;
        std::vector<std::string> texts;
        std::optional<double> number;
        int whole = 0;
        std::vector<int> wholes;
        bool flag = false;
    };
    [[nodiscard]] const Value& value(const std::string& key) const;
    std::map<std::string, Value> values_;
};

}  // namespace erdwerk::cli
