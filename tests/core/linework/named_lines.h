#pragma once
// Lines that speak of each other by name, for tests.

#include <algorithm>

#include "core/linework/height_solver.h"
#include "core/linework/rule_list.h"
#include "support/geometry.h"

namespace erdwerk::linework {

using test::valueOf;

/// Lines by name; "=Ground" is the plane 50 + 0.1 E.
struct Lines {
    std::vector<std::string> names;
    std::vector<Line3D> lines;

    [[nodiscard]] ObjectId id(const std::string& name) const {
        const auto it = std::find(names.begin(), names.end(), name);
        return it == names.end() ? ObjectId{} : ObjectId{static_cast<std::uint64_t>(it - names.begin()) + 1};
    }
    [[nodiscard]] RuleNames ruleNames() const {
        return {[this](ObjectId of) { return of.value == 99 ? "Ground" : names.at(of.value - 1); },
                [](const std::string& name) { return name == "Ground" ? ObjectId{99} : ObjectId{}; },
                [this](const std::string& name) { return id(name); }};
    }
    /// Names first, so that rules may speak of lines that come later.
    void name(std::vector<std::string> all) { names = std::move(all); }
    void add(const std::vector<Vec2>& corners, const std::string& rules, bool closed = false) {
        lines.push_back(valueOf(withRules(lineThrough(corners, {}, closed), rules, ruleNames())));
    }
    [[nodiscard]] std::vector<ResolvedLine> solve() const {
        AskedParts asked;
        Surroundings around;
        around.surface = [](ObjectId of, Vec2 p) -> Result<std::optional<double>> {
            if (of.value != 99) return fail(ErrorCode::NotFound, "its surface is no longer in the project");
            return std::optional(50 + 0.1 * p.x);
        };
        around.line = [this](ObjectId of) {
            return of.value >= 1 && of.value <= lines.size() ? &lines[of.value - 1] : nullptr;
        };
        around.nameOf = [this](ObjectId of) { return names.at(of.value - 1); };
        HeightSolver web(std::move(around), asked);
        std::vector<ResolvedLine> out;
        for (std::size_t i = 0; i < lines.size(); ++i) out.push_back(web.finish({i + 1}));
        return out;
    }
};

}  // namespace erdwerk::linework
