#pragma once
// A parabolic vertical curve at a control: "curve 40" by its length in plan, "curve K12" by its length for
// each per cent of change of grade. It is centred on the control, whose height is that of the point where the
// tangents meet (the equal-tangent parabola of route surveying).

#include <optional>
#include <string>
#include <utility>

#include "core/base/quantity.h"
#include "core/base/result.h"

namespace erdwerk::linework {

struct VerticalCurve {
    enum class By { Length, K };
    By by = By::Length;
    double value = 0;  ///< project units, or project units for each per cent; > 0
    /// Its length where one grade goes over into another.
    [[nodiscard]] double length(Grade in, Grade out) const;
    friend bool operator==(const VerticalCurve&, const VerticalCurve&) = default;
};

/// "curve 40", "curve K12".
std::string curveText(const VerticalCurve& curve);
/// What stands after a rule, taken off it: "2% curve 40" gives "2%" and the curve. A text without one comes
/// back as it is. BadInput for a curve that is none ("curve K0").
Result<std::pair<std::string, std::optional<VerticalCurve>>> parseCurve(const std::string& text);

/// A curve in its place: distances along the line, ends included.
struct ResolvedCurve {
    std::size_t vertex = 0;  ///< the control it belongs to
    double start = 0;        ///< may be below 0 where a closed line begins
    double length = 0;       ///< > 0
    double startHeight = 0;
    Grade in;
    Grade out;
    [[nodiscard]] double end() const { return start + length; }
    /// Project units for each per cent of change of grade.
    [[nodiscard]] double k() const;
    /// Height at a distance from `start`; requires 0 <= x <= length.
    [[nodiscard]] double height(double x) const;
    /// Distance from `start` of the highest or lowest point strictly inside; nothing when there is none.
    [[nodiscard]] std::optional<double> turn() const;
    friend bool operator==(const ResolvedCurve&, const ResolvedCurve&) = default;
};

}  // namespace erdwerk::linework
