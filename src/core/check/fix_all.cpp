// Many findings mended in one go.

#include <algorithm>

#include "core/check/finding.h"
#include "core/operations/objects.h"

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

namespace {

/// An edit that changes nothing mends nothing, whatever it was meant to do.
document::Edit onlyWhenItChanges(document::Edit edit) {
    return [edit = std::move(edit)](const document::Document& d) -> Result<document::Edited> {
        auto edited = edit(d);
        if (edited && difference(d, edited->document).empty())
            return badInput("there is nothing left to mend: what it was about is no longer so");
        return edited;
    };
}

}  // namespace

document::Edit mend(const document::Document& seen, const Finding& finding, std::size_t fix) {
    return document::onlyWhileSame(seen, finding.objects, onlyWhenItChanges(finding.fixes[fix].apply));
}

document::Edit fixAll(const std::vector<Finding>& findings, const std::string& kind, const std::string& way) {
    std::vector<Fix> fixes;
    for (const Finding& f : findings)
        for (const Fix& fix : f.fixes)
            if (f.kind == kind && fix.way == way) fixes.push_back(fix);
    return onlyWhenItChanges(
        [fixes = std::move(fixes)](const document::Document& given) -> Result<document::Edited> {
            document::Document d = given;
            // Points are known by their place in the set: they go together, after everything else.
            std::vector<objects::PointRef> removes;
            for (const Fix& fix : fixes) {
                if (!fix.removes.empty()) {
                    removes.insert(removes.end(), fix.removes.begin(), fix.removes.end());
                } else if (auto edited = fix.apply(d)) {
                    d = std::move(edited->document);
                }
            }
            return operations::remove({}, std::move(removes))(d);
        });
}

}  // namespace erdwerk::check
