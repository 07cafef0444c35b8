#pragma once
// Grades that a line is meant to keep.

#include <optional>
#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// Rise over run, whatever the sign: neither steeper than one nor flatter than the other.
struct GradeLimits {
    std::optional<double> steepest = {};
    std::optional<double> flattest = {};
    [[nodiscard]] bool any() const { return steepest || flattest; }
    friend bool operator==(const GradeLimits&, const GradeLimits&) = default;
};

/// "8%", "flattest 0.5%", "0.5% to 8%", "12:1 to 10%": one figure is the steepest; nothing takes them away.
/// BadInput for others, and when the flattest is steeper than the steepest.
Result<GradeLimits> parseGradeLimits(const std::string& text);
/// "0.5% to 8%"; empty without limits.
std::string gradeLimitsText(const GradeLimits& limits);

/// A stretch between two controls whose grade is beyond the limits.
struct GradeBeyond {
    std::size_t control = 0;  ///< it leads to the next from here
    double from = 0;          ///< distances along the line; `to` may pass the end of a closed one
    double to = 0;
    Grade grade;
    bool steep = false;
};
std::vector<GradeBeyond> gradesBeyond(const Line3D& line, const ResolvedLine& resolved,
                                      const GradeLimits& limits);

}  // namespace erdwerk::linework
