// Descriptions that disagree with geometry: their own, and those that are read back.

#include <algorithm>

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/objects/reading.h"
#include "core/operations/descriptions.h"

namespace erdwerk::check {

using derive::Derived;
using document::Document;

namespace {

Finding about(const Document& document, ObjectId id, const FindingKind& kind, std::string text,
              std::optional<geometry::Vec2> at) {
    Finding f;
    f.kind = kind;
    f.severity = Severity::LookAt;
    f.text = std::move(text);
    f.at = at;
    f.objects = {id};
    f.names = {document.nameOf(id)};
    return f;
}

std::optional<geometry::Vec2> startOf(const parcel::ParcelGeometry& geometry, std::size_t course) {
    if (course >= geometry.courses.size()) return std::nullopt;
    return geometry.courses[course].start;
}

void passages(const Derived& derived, ObjectId id, const derive::ParcelResult& parcel,
              std::vector<Finding>& out) {
    for (const auto& passage : parcel.passages) {
        if (!passage.stale) continue;
        auto f = about(derived.document, id, kinds::passageBehind,
                       derived.document.nameOf(id) +
                           ": a passage changed by hand no longer says what is there: \"" +
                           passage.part.text + "\"; it would be \"" + passage.instead + "\"",
                       startOf(parcel.geometry, passage.part.course));
        f.fixes.push_back(
            {"Write it anew",
             [edit = operations::typePassage(id, passage, {})](const Document& d) { return edit(d); },
             "Write it anew", "write passages anew"});
        out.push_back(std::move(f));
    }
}

/// Where in the plan a difference is: the start of its course, of a missing one the parcel's.
std::optional<geometry::Vec2> placeOf(const Derived& derived, const objects::Reading& reading,
                                      const derive::ReadingResult& result, const parcel::TextDifference& d) {
    if (d.what == parcel::Disagreement::Missing) {
        const auto* parcel = Derived::in(derived.parcels, reading.parcel);
        return parcel == nullptr || d.course == 0 ? std::nullopt : startOf(parcel->geometry, d.course - 1);
    }
    if (d.course == 0) return reading.at;
    return operations::middleOfCourse(result, d.course - 1).value_or(reading.at);
}

void reading(const Derived& derived, ObjectId id, const derive::ReadingResult& result,
             std::vector<Finding>& out) {
    const auto& of = *derived.document.get<objects::Reading>(id);
    const std::string name = derived.document.nameOf(id);
    if (!result.problem.empty())
        out.push_back(about(derived.document, id, kinds::nothingRead, name + ": " + result.problem, of.at));
    for (const auto& d : result.differences)
        out.push_back(about(derived.document, id, kinds::descriptionDiffers,
                            name + ", " + operations::differenceWords(derived, id, d),
                            placeOf(derived, of, result, d)));
    for (const auto& range : result.read.unread)
        out.push_back(about(derived.document, id, kinds::notRead,
                            name + ": could not be read: \"" + parcel::cutOut(of.text, range) + "\"", of.at));
    if (!result.path.empty() && !result.shape.gapExplained())
        out.push_back(
            about(derived.document, id, kinds::descriptionOpen,
                  name + " leaves a gap of " + formatFixed(result.shape.geometry.closure.distance, 3) + " " +
                      std::string(parcel::unitName(result.read.unit)) + " that rounding does not explain",
                  of.at));
}

}  // namespace

void descriptions(const Derived& derived, std::vector<Finding>& out) {
    for (const auto& [id, parcel] : derived.parcels) {
        passages(derived, id, *parcel, out);
        if (!parcel->wordingProblem.empty())
            out.push_back(
                about(derived.document, id, kinds::wordingNotValid,
                      derived.document.nameOf(id) +
                          ": its wording cannot be used, the plain one stands in: " + parcel->wordingProblem,
                      startOf(parcel->geometry, 0)));
        const double limit = operations::closingLimit(derived.document.settings().display.unit);
        if (parcel->geometry.closure.closes(derived.document.settings().display.unit) &&
            parcel->rounded.distance > limit)
            out.push_back(about(
                derived.document, id, kinds::calledCoursesOpen,
                derived.document.nameOf(id) + ": the courses as the description calls them leave a gap of " +
                    formatFixed(parcel->rounded.distance, 3) + "; more decimals in its wording close it",
                startOf(parcel->geometry, 0)));
    }
    for (const auto& [id, result] : derived.readings) reading(derived, id, *result, out);
}

}  // namespace erdwerk::check
