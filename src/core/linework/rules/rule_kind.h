#pragma once
// What every height rule says of itself. A new rule is a file like those beside this one, and its name in the
// list of height_rule.h; one that says nothing of one of these does not compile.

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>

#include "core/base/id.h"
#include "core/base/quantity.h"
#include "core/base/result.h"

namespace erdwerk::linework {

/// A rule in files: figures, words and objects by name.
struct RuleFields {
    std::map<std::string, double> figures;
    std::map<std::string, std::string> words;
    std::map<std::string, ObjectId> objects;
    /// BadInput names what is missing.
    [[nodiscard]] Result<double> figure(const std::string& key) const;
    [[nodiscard]] Result<ObjectId> object(const std::string& key) const;
    [[nodiscard]] std::string word(const std::string& key) const;  ///< empty when it is not there
};

/// Names of objects, both ways.
struct RuleNames {
    std::function<std::string(ObjectId)> nameOf;
    std::function<ObjectId(const std::string&)> surfaceNamed;  ///< none when there is no such surface
};

/// What a rule may ask while the height of its point is worked out. Errors are words for people; Circular
/// when the answer would depend on this very height.
class Asking {
public:
    struct Neighbour {
        double height = 0;
        double run = 0;  ///< plan distance between it and this point, at least 0
    };
    Asking() = default;
    Asking(const Asking&) = delete;
    Asking& operator=(const Asking&) = delete;
    virtual ~Asking() = default;
    /// The nearest control against, and in, the direction of the line; round in a closed one.
    virtual Result<Neighbour> previous() = 0;
    virtual Result<Neighbour> next() = 0;
    /// The height of a surface at this point; BadInput where it does not reach.
    virtual Result<double> surface(ObjectId surface) = 0;
};

template <class Rule>
struct RuleKind;
// Each has:
//   name             the word in files
//   isControl        whether others measure from a point with it
//   looksBack, looksAhead   whether it needs the control before, or after
//   straight         a control that is put onto the straight to its neighbour changes nothing
//   references       objects it names
//   solve            the height; NotGiven (an Error without text) for a rule that gives none
//   reversed         the rule that gives the same height when the line is turned round
//   text, parse      typed form; parse gives nothing when the text is not of this rule
//   write, read      for files

/// An Error without words: no height is given, and that is no fault.
inline tl::unexpected<Error> notGiven() {
    return fail(ErrorCode::NotFound, "no height is given");
}

/// The text without spaces at its ends, in lower case.
std::string plainWord(const std::string& text);
/// "+0.15", "-0.15".
std::string signedText(double value);
/// What a typed grade or ratio becomes for the other direction: "-2%" from "2%"; a rise always shows its
/// sign.
std::string negatedText(const std::string& typed, bool showsPlus = false);

}  // namespace erdwerk::linework
