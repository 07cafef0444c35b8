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

/// Names of objects, both ways. A surface comes before a 3D line of the same name.
struct RuleNames {
    std::function<std::string(ObjectId)> nameOf;
    std::function<ObjectId(const std::string&)> surfaceNamed;    ///< none when there is no such surface
    std::function<ObjectId(const std::string&)> lineNamed = {};  ///< none when there is no such 3D line
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
    /// Another 3D line at its place nearest to this point: its finished height, and how far that is in plan.
    virtual Result<Neighbour> nearestOf(ObjectId line) = 0;
    /// For a point that stands where its line crosses another (see Standing): the finished height of that
    /// one there.
    virtual Result<double> crossed() = 0;
    /// For a point whose place is solved: it stands this far behind its previous control.
    virtual void standAfterPrevious(double run) = 0;
};

/// How a grade point with the rule comes to its place: by its fraction of the side; where the line crosses
/// the one object that the rule names, for which the fraction says about where; or solved with the height.
enum class Standing { Own, Crossing, Solved };

template <class Rule>
struct RuleKind;
// Each has:
//   name             the word in files
//   isControl        whether others measure from a point with it
//   looksBack, looksAhead   whether it needs the control before, or after
//   standing         how a grade point with it comes to its place
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
/// What stands after "=" or "x": a name and what is added, as it was typed ("Ditch 3", "+0.10"). The sign
/// that a figure, grade or ratio follows parts the two, so a name that ends so is written in double quotes
/// (one in the name twice).
struct NamedAmount {
    std::string name;
    std::string amount;  ///< with its sign; empty when there is none
};
Result<NamedAmount> parseNamed(const std::string& text);
/// A name as parseNamed reads it, in quotes where it must be.
std::string nameText(const std::string& name);
/// "+0.15", "-0.15".
std::string signedText(double value);
/// What a typed grade or ratio becomes for the other direction: "-2%" from "2%"; a rise always shows its
/// sign.
std::string negatedText(const std::string& typed, bool showsPlus = false);

}  // namespace erdwerk::linework
