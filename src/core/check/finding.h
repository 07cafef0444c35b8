#pragma once
// The running checks: what is wrong or worth a look in a project, where, why, and what would mend it.

#include <functional>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/derive/model.h"
#include "core/document/transaction.h"
#include "core/objects/point_ref.h"

namespace erdwerk::check {

enum class Severity { MustFix, LookAt, Note };
/// "must-fix", "look-at" or "note".
std::string_view severityName(Severity severity);

/// A way to mend a finding: an edit like any other, so it can be taken back.
struct Fix {
    std::string label;       ///< what it does, as the history will say
    document::Edit apply;    ///< refused, with the reason, where there is nothing to mend any more
    std::string brief = {};  ///< what the button says, with the figure or name it takes; empty: the label
    /// What it does, said of any finding of its kind ("give both the mean height"): all of them can be fixed
    /// so in one go. Empty: only one at a time.
    std::string way = {};
    /// When it does nothing but remove points: which. `apply` does the same.
    std::vector<objects::PointRef> removes = {};
};

/// One of the many that a finding speaks of.
struct Instance {
    std::string text;
    geometry::Vec2 at;
};

struct Finding {
    std::string kind;  ///< "crossing-breaklines", "same-place", "without-height", …
    Severity severity = Severity::Note;
    std::string text;
    std::optional<geometry::Vec2> at;  ///< nothing for what has no place
    std::vector<double> heights;
    std::vector<ObjectId> objects;
    std::vector<std::string> names;  ///< of the objects, with the point or vertex
    std::vector<Fix> fixes;
    std::vector<Instance> parts = {};  ///< when it speaks of many: each of them, or the first 200
};
inline constexpr std::size_t mostInstances = 200;

/// Findings that were found before, kept as long as what they depend on is the same. Used by one thread at a
/// time.
struct Memory {
    struct Entry {
        std::vector<std::shared_ptr<const void>> of;
        std::vector<Finding> findings;
        bool used = false;
    };
    std::map<std::string, Entry> entries;
};

/// All checks, most serious first, then by kind and place, without those that were accepted.
std::vector<Finding> run(const derive::Derived& derived, Memory* memory = nullptr);
/// The same, Cancelled when it was told to stop: what was finished by then is remembered.
Result<std::vector<Finding>> run(const derive::Derived& derived, Memory* memory, const Context& context);

/// What to keep in the project so that this finding is no longer shown.
document::Accepted acceptance(const Finding& finding, std::string reason);
/// Kind, objects and place (to a millimetre or so) are the same.
bool isAccepted(const document::Settings& settings, const Finding& finding);

/// The ways in which all findings of a kind can be fixed that can be fixed so, with how many that are.
std::vector<std::pair<std::string, std::size_t>> waysToFixAll(const std::vector<Finding>& findings,
                                                              const std::string& kind);
/// One fix of a finding of `seen`, as an edit: refused, with the reason, when what the finding speaks of
/// changed meanwhile or when it changes nothing. Requires fix < finding.fixes.size().
document::Edit mend(const document::Document& seen, const Finding& finding, std::size_t fix);
/// All fixes of that kind and way, as one edit; refused when it changes nothing. What one of them leaves
/// nothing to do for is passed over.
document::Edit fixAll(const std::vector<Finding>& findings, const std::string& kind, const std::string& way);

/// One row each: severity, kind, easting, northing, heights, names, text. RFC 4180. With `display` the
/// figures have its decimals and the headings its unit, else full precision.
std::string toCsv(const std::vector<Finding>& findings, const DisplaySettings* display = nullptr);

}  // namespace erdwerk::check
