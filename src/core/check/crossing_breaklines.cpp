#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/objects/surface.h"
#include "core/operations/mend.h"
#include "core/operations/surfaces.h"

namespace erdwerk::check {

namespace {

std::string_view ruleText(const document::Document& document, ObjectId surface) {
    switch (document.get<objects::Surface>(surface)->definition->onCrossing) {
        case terrain::CrossingRule::Higher:
            return "the higher";
        case terrain::CrossingRule::Lower:
            return "the lower";
        case terrain::CrossingRule::Mean:
            return "the mean";
        case terrain::CrossingRule::First:
            break;
    }
    return "the first";
}

using State = std::shared_ptr<const derive::Derived>;

/// `state`: moving and trimming need the heights the lines have now.
void addFixes(Finding& f, ObjectId surface, const derive::SurfaceCrossing& conflict, const State& state) {
    const auto& [crossing, first, second] = conflict;
    const auto& document = state->document;
    const DisplaySettings& display = document.settings().display;
    const auto share = [first = first, second = second, at = crossing.place](double height) {
        return operations::shareCorner(first, second, at, height);
    };
    const auto heightFix = [&](const std::string& whose, double height, const std::string& way) {
        const std::string figure = formatHeight(height, display);
        f.fixes.push_back(
            {"Give both " + whose + " height, " + figure, share(height), whose + " " + figure, way});
    };
    heightFix(f.names[0] + "'s", crossing.firstHeight, "give both lines the first one's height");
    heightFix(f.names[1] + "'s", crossing.secondHeight, "give both lines the second one's height");
    heightFix("the mean", (crossing.firstHeight + crossing.secondHeight) / 2,
              "give both lines the mean height");
    f.fixes.push_back({"Move the nearest corner onto the other line",
                       operations::moveNearestCorner(state, first, second, crossing.place), "move corner",
                       "move the nearest corner onto the other line"});
    const auto firstTail = operations::overshoot(document, first, crossing.place);
    const auto secondTail = operations::overshoot(document, second, crossing.place);
    const bool ofFirst = firstTail && (!secondTail || *firstTail < *secondTail);
    const auto tail = ofFirst ? firstTail : secondTail;
    const ObjectId trimmed = ofFirst ? first : second;
    // What goes far beyond is no overshoot.
    if (tail && *tail > 1e-6 && first != second && *tail < 0.25 * state->lines.at(trimmed)->length) {
        const double height = ofFirst ? crossing.secondHeight : crossing.firstHeight;
        f.fixes.push_back({"Trim " + formatLength(*tail, display) + " of '" + document.nameOf(trimmed) + "'",
                           operations::trimOvershoot(state, trimmed, crossing.place, height),
                           "trim " + formatLength(*tail, display), "trim what overshoots"});
    }
    f.fixes.push_back({"Take '" + f.names[1] + "' out of the surface",
                       operations::removeSource(surface, second), "take out " + f.names[1]});
}

}  // namespace

void crossingBreaklines(const derive::Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    State state;
    for (const auto& [surface, result] : derived.surfaces) {
        for (const auto& [crossing, first, second] : result->crossings) {
            const double gap = std::abs(crossing.firstHeight - crossing.secondHeight);
            // Lines that meet at one height agree; the surface simply has a corner there.
            if (gap < 0.0005) continue;
            Finding f{kinds::crossingBreaklines,
                      Severity::MustFix,
                      {},
                      crossing.place,
                      {crossing.firstHeight, crossing.secondHeight},
                      {first, second},
                      {},
                      {}};
            f.names = {document.nameOf(first), document.nameOf(second)};
            f.text = "'" + f.names[0] + "' at " + formatHeight(crossing.firstHeight, display) + " and '" +
                     f.names[1] + "' at " + formatHeight(crossing.secondHeight, display) + " cross, " +
                     formatLength(gap, display) + " apart; '" + document.nameOf(surface) + "' takes " +
                     std::string(ruleText(document, surface));
            if (!state) state = std::make_shared<const derive::Derived>(derived);
            addFixes(f, surface, {crossing, first, second}, state);
            out.push_back(std::move(f));
        }
    }
}

}  // namespace erdwerk::check
