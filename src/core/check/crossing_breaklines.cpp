#include "core/check/finding.h"
#include "core/document/edit.h"

namespace erdwerk::check {

void crossingBreaklines(const document::Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    for (const auto& [surface, result] : derived.surfaces) {
        for (const auto& [crossing, first, second] : result->crossings) {
            const double gap = std::abs(crossing.firstHeight - crossing.secondHeight);
            // Lines that meet at one height agree; the surface simply has a corner there.
            if (gap < 0.0005) continue;
            Finding f{"crossing-breaklines",
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
                     formatLength(gap, display) + " apart; '" + document.nameOf(surface) +
                     "' takes the first";
            const auto give = [place = crossing.place](ObjectId line, double height) {
                return [=](const document::Document& d) {
                    return document::setHeightOnLine(d, line, place, height);
                };
            };
            f.fixes.push_back({"Give both the first's height", give(second, crossing.firstHeight)});
            f.fixes.push_back({"Give both the second's height", give(first, crossing.secondHeight)});
            f.fixes.push_back({"Take '" + f.names[1] + "' out of the surface",
                               [surface = surface, second = second](const document::Document& d) {
                                   return document::removeSource(d, surface, second);
                               }});
            out.push_back(std::move(f));
        }
    }
}

}  // namespace erdwerk::check
