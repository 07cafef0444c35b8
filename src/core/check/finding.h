#pragma once
// The running checks: what is wrong or worth a look in a project, where, why, and what would mend it.

#include <functional>
#include <string>
#include <vector>

#include "core/document/model.h"

namespace erdwerk::check {

enum class Severity { MustFix, LookAt, Note };
/// "must-fix", "look-at" or "note".
std::string_view severityName(Severity severity);

/// A way to mend a finding: an edit like any other, so it can be taken back.
struct Fix {
    std::string label;  ///< what the button says
    std::function<document::Document(const document::Document&)> apply;
};

struct Finding {
    std::string kind;  ///< "crossing-breaklines", "same-place", "without-height", …
    Severity severity = Severity::Note;
    std::string text;
    geometry::Vec2 at;
    std::vector<double> heights;
    std::vector<ObjectId> objects;
    std::vector<std::string> names;  ///< of the objects, with the point or vertex
    std::vector<Fix> fixes;
};

/// All checks, most serious first, then by kind and place.
std::vector<Finding> run(const document::Derived& derived);

// One file per check; each appends to the list.
void crossingBreaklines(const document::Derived& derived, std::vector<Finding>& out);
void samePlace(const document::Derived& derived, std::vector<Finding>& out);
void withoutHeight(const document::Derived& derived, std::vector<Finding>& out);
void sameNumber(const document::Derived& derived, std::vector<Finding>& out);
void heightRules(const document::Derived& derived, std::vector<Finding>& out);
void nonTangent(const document::Derived& derived, std::vector<Finding>& out);
void parcelClosure(const document::Derived& derived, std::vector<Finding>& out);
void surfaceFailed(const document::Derived& derived, std::vector<Finding>& out);
void designProfile(const document::Derived& derived, std::vector<Finding>& out);

}  // namespace erdwerk::check
