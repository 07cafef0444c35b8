// Batters, pads and ponds that cannot be made, or not all round.

#include <cmath>

#include "core/base/display.h"
#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/earthwork_result.h"
#include "core/geometry/path.h"
#include "core/objects/earthwork.h"

namespace erdwerk::check {

namespace {

/// What a pad or a pond may take.
document::CheckLimits limitsOf(const document::CheckLimits& set, const earthwork::Batter& batter) {
    document::CheckLimits out = set;
    std::vector<geometry::Vec2> ring;
    for (const auto& p : batter.edge) ring.push_back(p.plan());
    const double area = std::abs(geometry::signedArea(ring));
    const double size = std::sqrt(area);
    if (out.earth == 0) out.earth = area * size / 2;
    if (out.reach == 0) out.reach = 2 * size;
    if (out.depth == 0) out.depth = size / 2;
    return out;
}

/// "cut 41 230.0 m³ (limit 2 000.0 m³)", of what goes beyond its limit.
std::vector<std::string> beyond(const derive::EarthworkResult& result, const document::CheckLimits& limits,
                                const DisplaySettings& display) {
    std::vector<std::string> out;
    const std::string cubic = " " + std::string(unitSymbol(display.unit)) + "³";
    const auto volume = [&](double v) { return formatFixed(v, 1) + cubic; };
    const auto length = [&](double v) { return formatLength(v, display); };
    const auto add = [&](const std::string& what, double is, double limit, const auto& text) {
        if (is > limit) out.push_back(what + text(is) + " (limit " + text(limit) + ")");
    };
    add("cut ", result.volumes.cut, limits.earth, volume);
    add("fill ", result.volumes.fill, limits.earth, volume);
    add("slopes run out ", result.batter.reach, limits.reach, length);
    add("slopes are as high as ", result.batter.depth, limits.depth, length);
    return out;
}

std::string listed(const std::vector<std::string>& parts) {
    std::string out;
    for (const auto& p : parts) out += (out.empty() ? "" : ", ") + p;
    return out;
}

}  // namespace

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
        if (object->sort != objects::EarthworkSort::Batter && result->problem.empty()) {
            const auto limits = limitsOf(document.settings().checks, result->batter);
            if (const auto parts = beyond(*result, limits, display); !parts.empty()) {
                Finding f;
                f.kind = kinds::earthworkLarge;
                f.severity = Severity::LookAt;
                f.text = "'" + name + "' is large: " + listed(parts);
                f.at = result->batter.farthest;
                f.objects = {id, object->edge};
                f.names = {name, document.nameOf(object->edge)};
                out.push_back(std::move(f));
            }
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
