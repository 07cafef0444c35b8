#include "core/linework/vertical_curve.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

double VerticalCurve::length(Grade in, Grade out) const {
    return by == By::Length ? value : value * std::abs(out.percent() - in.percent());
}

std::string curveText(const VerticalCurve& curve) {
    return std::string("curve ") + (curve.by == VerticalCurve::By::K ? "K" : "") + formatExact(curve.value);
}

Result<std::pair<std::string, std::optional<VerticalCurve>>> parseCurve(const std::string& text) {
    const std::string word = plainWord(text);
    auto at = word.rfind("curve ");
    const bool starts = at == 0 || (at != std::string::npos && word[at - 1] == ' ');
    if (!starts || word.find('"', at) != std::string::npos)
        return std::pair{text, std::optional<VerticalCurve>{}};
    std::string figure(trimmed(std::string_view(word).substr(at + 6)));
    VerticalCurve curve;
    if (!figure.empty() && figure.front() == 'k') {
        curve.by = VerticalCurve::By::K;
        figure.erase(0, 1);
    }
    const auto value = parseNumber(figure);
    if (!value || !(*value > 0))
        return badInput("'" + word.substr(at) + "' is no vertical curve; write curve 40 or curve K12");
    curve.value = *value;
    // The rule keeps the letters it was typed in.
    const std::string rule(trimmed(std::string_view(trimmed(text)).substr(0, at)));
    if (rule.empty()) return badInput("a vertical curve stands behind a height, grade or rise: 2% curve 40");
    return std::pair{rule, std::optional(curve)};
}

double ResolvedCurve::k() const {
    return length / std::abs(out.percent() - in.percent());
}

double ResolvedCurve::height(double x) const {
    const double change = out.riseOverRun() - in.riseOverRun();
    return startHeight + in.riseOverRun() * x + change * x * x / (2 * length);
}

std::optional<double> ResolvedCurve::turn() const {
    const double a = in.riseOverRun();
    const double b = out.riseOverRun();
    if (!(a * b < 0)) return std::nullopt;
    return length * a / (a - b);
}

}  // namespace erdwerk::linework
