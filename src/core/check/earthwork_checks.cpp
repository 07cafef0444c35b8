// Batters, pads and ponds that cannot be made, or not all round.

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/earthwork_result.h"
#include "core/objects/earthwork.h"

namespace erdwerk::check {

void earthworks(const derive::Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const auto& display = document.settings().display;
    for (const auto& [id, result] : derived.earthworks) {
        const auto* object = document.get<objects::Earthwork>(id);
        if (object == nullptr) continue;
        const std::string name = document.nameOf(id);
        if (!result->problem.empty()) {
            Finding f;
            f.kind = kinds::earthwork;
            f.severity = Severity::MustFix;
            f.text = "'" + name + "' cannot be made: " + result->problem;
            if (const auto* edge = derive::Derived::in(derived.lines, object->edge);
                edge != nullptr && !edge->vertices.empty())
                f.at = edge->vertices.front().place;
            f.objects = {id, object->edge};
            f.names = {name, document.nameOf(object->edge)};
            out.push_back(std::move(f));
        }
        if (result->batter.open.empty()) continue;
        Finding f;
        f.kind = kinds::batterOpen;
        f.severity = Severity::LookAt;
        for (const auto& stretch : result->batter.open) {
            const geometry::Vec2 middle = geometry::lerp(stretch.start.plan(), stretch.end.plan(), 0.5);
            if (!f.at) f.at = middle;
            if (f.parts.size() < mostInstances)
                f.parts.push_back({"from " + formatStation(stretch.from, display) + " to " +
                                       formatStation(stretch.to, display),
                                   middle});
        }
        f.text = "'" + name + "' does not reach its target along " +
                 formatLength(result->batter.openLength(), display) + " of '" +
                 document.nameOf(object->edge) + "', " + f.parts.front().text + "; there are no faces there";
        if (f.parts.size() == 1) f.parts.clear();
        f.objects = {id, object->edge};
        f.names = {name, document.nameOf(object->edge)};
        out.push_back(std::move(f));
    }
}

}  // namespace erdwerk::check
