#include <algorithm>

#include "core/check/finding.h"

namespace erdwerk::check {

std::string_view severityName(Severity severity) {
    switch (severity) {
        case Severity::MustFix:
            return "must-fix";
        case Severity::LookAt:
            return "look-at";
        case Severity::Note:
            break;
    }
    return "note";
}

std::vector<Finding> run(const document::Derived& derived) {
    std::vector<Finding> out;
    surfaceFailed(derived, out);
    crossingBreaklines(derived, out);
    samePlace(derived, out);
    withoutHeight(derived, out);
    sameNumber(derived, out);
    heightRules(derived, out);
    nonTangent(derived, out);
    parcelClosure(derived, out);
    designProfile(derived, out);
    std::stable_sort(out.begin(), out.end(),
                     [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

}  // namespace erdwerk::check
