// Alignments: the path and stations along it.

#include <algorithm>

#include "core/derive/evaluation.h"
#include "core/derive/route_result.h"
#include "core/objects/alignment.h"
#include "core/objects/design_criteria.h"
#include "core/objects/profile.h"
#include "core/route/criteria.h"
#include "core/route/profile.h"

namespace erdwerk::derive {

std::shared_ptr<const route::AlignmentGeometry> Evaluation::alignment(ObjectId id) {
    if (const auto it = out.alignments.find(id); it != out.alignments.end()) return it->second;
    const auto* payload = document.get<Alignment>(id);
    if (payload == nullptr) return nullptr;
    std::vector<Input> inputs{document.find(id)};
    std::shared_ptr<const linework::ResolvedLine> on;
    if (payload->line) {
        on = line(payload->line);
        if (!on) return nullptr;
        inputs.push_back(on);
    }
    auto result = remembered<route::AlignmentGeometry>("alignment", id, std::move(inputs), {}, [&] {
        return objects::geometryOf(*payload, on ? on->path : geometry::Path{});
    });
    out.alignments[id] = result;
    return result;
}

namespace {

/// Speeds by what is read become speeds by distance.
Result<std::vector<route::SpeedFrom>> speedsOn(const route::AlignmentGeometry& line,
                                               const Alignment& alignment) {
    std::vector<route::SpeedFrom> out;
    for (const DesignSpeed& s : alignment.speeds) {
        const auto distance = line.stationing.distanceAt(s.station, line.length);
        if (!distance) return badInput("the station " + formatExact(s.station) + " of a speed is not on it");
        out.push_back({*distance, s.speed});
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const auto& a, const auto& b) { return a.distance < b.distance; });
    return out;
}

DesignCheck checked(const route::AlignmentGeometry& line, const Alignment& alignment,
                    const route::Criteria& criteria, const std::vector<const Profile*>& profiles) {
    DesignCheck out;
    const auto speeds = speedsOn(line, alignment);
    if (!speeds) {
        out.problem = speeds.error().text;
        return out;
    }
    // The plan once, each design over it.
    std::vector<std::vector<route::Pvi>> designs;
    for (const Profile* p : profiles)
        if (p->design.size() > 1) designs.push_back(p->design);
    if (designs.empty()) designs.emplace_back();
    for (std::size_t k = 0; k < designs.size(); ++k) {
        auto found = route::checkDesign(line, designs[k], criteria, *speeds);
        if (!found) {
            out.problem = found.error().text;
            return out;
        }
        using route::DesignFault;
        for (auto& f : *found) {
            const bool vertical =
                f.fault == DesignFault::Crest || f.fault == DesignFault::Sag || f.fault == DesignFault::Grade;
            if (k == 0 || vertical) out.findings.push_back(f);
        }
    }
    return out;
}

}  // namespace

void work(Evaluation& evaluation, ObjectId id, const Alignment& alignment) {
    const auto line = evaluation.alignment(id);
    const Document& document = evaluation.document;
    const auto* criteria = document.get<DesignCriteria>(alignment.criteria);
    if (!line || line->path.empty() || criteria == nullptr || !alignment.checked) return;
    std::vector<Input> inputs{line, document.find(id), document.find(alignment.criteria)};
    std::vector<const Profile*> profiles;
    for (const ObjectId p : document.all<Profile>())
        if (document.get<Profile>(p)->alignment == id) {
            inputs.push_back(document.find(p));
            profiles.push_back(document.get<Profile>(p));
        }
    const auto unit = document.settings().display.unit;
    evaluation.out.designs[id] = evaluation.remembered<DesignCheck>(
        "design", id, std::move(inputs), std::to_string(static_cast<int>(unit)),
        [&] { return checked(*line, alignment, route::inUnit(criteria->criteria, unit), profiles); });
}

}  // namespace erdwerk::derive
