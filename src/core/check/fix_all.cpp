// Many findings mended in one go.

#include <algorithm>

#include "core/check/finding.h"
#include "core/operations/edit.h"

namespace erdwerk::check {

std::vector<std::pair<std::string, std::size_t>> waysToFixAll(const std::vector<Finding>& findings,
                                                              const std::string& kind) {
    std::vector<std::pair<std::string, std::size_t>> out;
    for (const Finding& f : findings) {
        if (f.kind != kind) continue;
        for (const Fix& fix : f.fixes) {
            if (fix.way.empty()) continue;
            const auto known =
                std::find_if(out.begin(), out.end(), [&](const auto& w) { return w.first == fix.way; });
            if (known == out.end())
                out.emplace_back(fix.way, 1);
            else
                ++known->second;
        }
    }
    return out;
}

document::Edit fixAll(const std::vector<Finding>& findings, const std::string& kind, const std::string& way) {
    std::vector<Fix> fixes;
    for (const Finding& f : findings)
        for (const Fix& fix : f.fixes)
            if (f.kind == kind && fix.way == way) fixes.push_back(fix);
    return [fixes = std::move(fixes)](const document::Document& given) -> Result<document::Edited> {
        document::Document d = given;
        // Points are known by their place in the set: they go together, after everything else.
        std::vector<objects::PointRef> removes;
        for (const Fix& fix : fixes) {
            if (fix.removes.empty())
                d = fix.apply(d);
            else
                removes.insert(removes.end(), fix.removes.begin(), fix.removes.end());
        }
        return removes.empty() ? d : operations::removePoints(d, removes);
    };
}

}  // namespace erdwerk::check
