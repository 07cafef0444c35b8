#include "core/linework/grade_limits.h"

#include <cmath>

#include "core/base/notation.h"
#include "core/linework/to_next.h"

namespace erdwerk::linework {

namespace {

Result<double> gradeIn(std::string_view text) {
    const auto entry = parseHeightEntry(trimmed(text));
    const auto* grade = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
    if (grade == nullptr)
        return badInput("'" + std::string(trimmed(text)) + "' is no grade; write 8%, 12:1 or 0.5% to 8%");
    return std::abs(grade->grade.riseOverRun());
}

}  // namespace

Result<GradeLimits> parseGradeLimits(const std::string& text) {
    std::string typed(trimmed(text));
    if (typed.empty() || typed == "none") return GradeLimits{};
    if (typed.rfind("flattest ", 0) == 0) {
        const auto flattest = gradeIn(typed.substr(9));
        if (!flattest) return tl::unexpected(flattest.error());
        return GradeLimits{std::nullopt, *flattest};
    }
    const auto to = typed.find(" to ");
    if (to == std::string::npos) {
        const auto steepest = gradeIn(typed);
        if (!steepest) return tl::unexpected(steepest.error());
        return GradeLimits{*steepest, std::nullopt};
    }
    const auto flattest = gradeIn(typed.substr(0, to));
    const auto steepest = gradeIn(typed.substr(to + 4));
    if (!flattest || !steepest) return tl::unexpected((flattest ? steepest : flattest).error());
    if (*flattest > *steepest) return badInput("the flattest grade is steeper than the steepest");
    return GradeLimits{*steepest, *flattest};
}

std::string gradeLimitsText(const GradeLimits& limits) {
    const auto text = [](double grade) { return formatExact(grade * 100) + "%"; };
    if (limits.steepest && limits.flattest) return text(*limits.flattest) + " to " + text(*limits.steepest);
    if (limits.steepest) return text(*limits.steepest);
    return limits.flattest ? "flattest " + text(*limits.flattest) : std::string();
}

std::vector<GradeBeyond> gradesBeyond(const Line3D& line, const ResolvedLine& resolved,
                                      const GradeLimits& limits) {
    constexpr double slack = 1e-9;
    std::vector<GradeBeyond> out;
    if (!limits.any()) return out;
    for (std::size_t i = 0; i < line.vertices.size() && i < resolved.vertices.size(); ++i) {
        const auto way = toNext(line, resolved, i);
        if (!way) continue;
        const double grade = std::abs(way->grade().riseOverRun());
        const bool steep = limits.steepest && grade > *limits.steepest + slack;
        const bool flat = limits.flattest && grade < *limits.flattest - slack;
        if (!steep && !flat) continue;
        const double from = resolved.vertices[i].distance;
        out.push_back({i, from, from + way->run, way->grade(), steep});
    }
    return out;
}

}  // namespace erdwerk::linework
