// Criteria and design speeds of alignments, as edits.

#include <sstream>

#include "core/base/notation.h"
#include "core/objects/alignment.h"
#include "core/objects/design_criteria.h"
#include "core/operations/routes.h"

namespace erdwerk::operations {

Edit saveCriteria(const std::string& name, const route::Criteria& criteria, ObjectId alignment) {
    return [=](const Document& d) -> Result<Edited> {
        if (auto valid = route::validate(criteria); !valid) return tl::unexpected(valid.error());
        ObjectId id = d.byName<objects::DesignCriteria>(name);
        Document out = d;
        if (id)
            out = document::changed<objects::DesignCriteria>(
                out, id, [&](objects::DesignCriteria& c) { c.criteria = criteria; });
        else
            out = out.added(name, objects::DesignCriteria{criteria}, &id);
        if (out.get<Alignment>(alignment) != nullptr)
            out = document::changed<Alignment>(out, alignment, [&](Alignment& a) { a.criteria = id; });
        return out;
    };
}

Edit typeSpeeds(ObjectId alignment, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<Alignment>(alignment) == nullptr) return badInput("the alignment is gone");
        std::vector<objects::DesignSpeed> speeds;
        std::istringstream words(text);
        for (std::string word; words >> word;) {
            const auto mark = word.find('@');
            const auto speed = parseNumber(std::string_view(word).substr(0, mark));
            if (!speed || !(*speed > 0))
                return badInput("write speeds as 30@0+000 50@1+200, not '" + word + "'");
            Result<double> station = d.get<Alignment>(alignment)->startStation;
            if (mark != std::string::npos)
                station = parseStation(word.substr(mark + 1), d.settings().display);
            if (!station) return tl::unexpected(station.error());
            speeds.push_back({*station, *speed});
        }
        return document::changed<Alignment>(d, alignment,
                                            [&](Alignment& a) { a.speeds = std::move(speeds); });
    };
}

std::string speedsText(const Alignment& alignment, const DisplaySettings& display) {
    std::string out;
    for (const auto& s : alignment.speeds)
        out += (out.empty() ? "" : " ") + formatExact(s.speed) + "@" + formatStation(s.station, display);
    return out;
}

}  // namespace erdwerk::operations
