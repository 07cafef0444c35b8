#include "core/route/criteria.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <sstream>

#include "core/base/display.h"

namespace erdwerk::route {

namespace {

constexpr double degree = std::numbers::pi / 180;
/// A value that is its limit but for rounding keeps it.
constexpr double hair = 1e-9;

bool below(double value, double limit) {
    return value < limit - hair * std::max(1.0, std::abs(limit));
}

class Checker {
public:
    Checker(const AlignmentGeometry& alignment, const std::vector<Pvi>& pvis, const Criteria& criteria)
        : alignment_(alignment), pvis_(pvis), criteria_(criteria) {}

    Result<void> setSpeeds(const std::vector<SpeedFrom>& speeds) {
        for (std::size_t k = 0; k < speeds.size(); ++k) {
            const auto limits = limitsAt(criteria_, speeds[k].speed);
            if (!limits) return tl::unexpected(limits.error());
            const double to = k + 1 < speeds.size() ? speeds[k + 1].distance : alignment_.length;
            if (*limits != nullptr) stretches_.push_back({speeds[k].distance, to, *limits});
        }
        return {};
    }

    std::vector<DesignFinding> run() {
        for (std::size_t i = 0; i < alignment_.path.size(); ++i) element(i);
        joints();
        for (std::size_t i = 0; i < pvis_.size(); ++i) vertical(i);
        grades();
        std::stable_sort(out_.begin(), out_.end(),
                         [](const DesignFinding& a, const DesignFinding& b) { return a.from < b.from; });
        return std::move(out_);
    }

private:
    struct Stretch {
        double from;
        double to;
        const SpeedLimits* limits;
    };

    [[nodiscard]] double end(std::size_t i) const {
        return i + 1 < alignment_.starts.size() ? alignment_.starts[i + 1] : alignment_.length;
    }

    /// What depends on speed, by the stretches that a range lies in.
    void atSpeeds(DesignFault fault, double from, double to, double value,
                  std::optional<double> SpeedLimits::*limit) {
        for (const Stretch& s : stretches_) {
            const double first = std::max(from, s.from);
            const double last = std::min(to, s.to);
            // A place counts where it lies, a range where it has length.
            const bool meets = from == to
                                   ? from >= s.from - hair && (from < s.to || s.to >= alignment_.length)
                                   : last > first + hair;
            if (!meets || !(s.limits->*limit) || !below(value, *(s.limits->*limit))) continue;
            out_.push_back({fault, first, last, value, *(s.limits->*limit)});
        }
    }

    void element(std::size_t i) {
        const double from = alignment_.starts[i];
        const double to = end(i);
        const auto arc = arcOf(alignment_.path[i]);
        const bool curveBefore = i > 0 && isCurved(alignment_.path[i - 1]);
        const bool curveAfter = i + 1 < alignment_.path.size() && isCurved(alignment_.path[i + 1]);
        if (arc) {
            atSpeeds(DesignFault::Radius, from, to, arc->radius, &SpeedLimits::minRadius);
            if (criteria_.minCurveLength && below(arc->length(), *criteria_.minCurveLength))
                out_.push_back(
                    {DesignFault::CurveLength, from, to, arc->length(), *criteria_.minCurveLength});
            // A curve that goes straight over into a straight has a spiral of no length.
            if (i > 0 && !curveBefore) atSpeeds(DesignFault::Spiral, from, from, 0, &SpeedLimits::minSpiral);
            if (i + 1 < alignment_.path.size() && !curveAfter)
                atSpeeds(DesignFault::Spiral, to, to, 0, &SpeedLimits::minSpiral);
        } else if (clothoidOf(alignment_.path[i])) {
            atSpeeds(DesignFault::Spiral, from, to, to - from, &SpeedLimits::minSpiral);
        } else if (curveBefore && curveAfter && criteria_.minTangent &&
                   below(to - from, *criteria_.minTangent)) {
            out_.push_back({DesignFault::TangentLength, from, to, to - from, *criteria_.minTangent});
        }
    }

    void joints() {
        for (const Break& b : alignment_.breaks) {
            const double turn = std::abs(b.turn.degrees());
            const bool straights =
                !isCurved(alignment_.path[b.segment]) && !isCurved(alignment_.path[b.segment + 1]);
            if (!straights)
                out_.push_back({DesignFault::NotTangent, b.distance, b.distance, turn,
                                tangencyTolerance.radians() / degree});
            else if (criteria_.maxDeflection && below(*criteria_.maxDeflection, turn))
                out_.push_back(
                    {DesignFault::Deflection, b.distance, b.distance, turn, *criteria_.maxDeflection});
        }
    }

    void vertical(std::size_t i) {
        const auto figs = figures(pvis_);
        if (!figs[i].gradeIn || !figs[i].gradeOut || pvis_[i].onGround || pvis_[i - 1].onGround) return;
        const double change = figs[i].gradeOut->percent() - figs[i].gradeIn->percent();
        if (std::abs(change) < hair) return;
        const double at = pvis_[i].station - alignment_.startStation;
        const double half = pvis_[i].curveLength / 2;
        const bool crest = change < 0;
        atSpeeds(crest ? DesignFault::Crest : DesignFault::Sag, at - half, at + half, figs[i].k.value_or(0),
                 crest ? &SpeedLimits::minCrestK : &SpeedLimits::minSagK);
    }

    void grades() {
        const auto figs = figures(pvis_);
        for (std::size_t i = 0; i + 1 < pvis_.size(); ++i) {
            if (!figs[i].gradeOut || pvis_[i].onGround) continue;
            const double grade = figs[i].gradeOut->percent();
            const double from = pvis_[i].station + pvis_[i].curveLength / 2 - alignment_.startStation;
            const double to = pvis_[i + 1].station - pvis_[i + 1].curveLength / 2 - alignment_.startStation;
            if (criteria_.maxGrade && below(*criteria_.maxGrade, std::abs(grade)))
                out_.push_back({DesignFault::Grade, from, std::max(from, to), grade, *criteria_.maxGrade});
            if (criteria_.minGrade && below(std::abs(grade), *criteria_.minGrade))
                out_.push_back({DesignFault::Grade, from, std::max(from, to), grade, *criteria_.minGrade});
        }
    }

    const AlignmentGeometry& alignment_;
    const std::vector<Pvi>& pvis_;
    const Criteria& criteria_;
    std::vector<Stretch> stretches_;
    std::vector<DesignFinding> out_;
};

}  // namespace

std::string_view faultName(DesignFault fault) {
    static constexpr std::array<std::string_view, 9> names{
        "radius",       "spiral",         "crest",      "sag",        "grade",
        "curve-length", "tangent-length", "deflection", "not-tangent"};
    return names[static_cast<std::size_t>(fault)];
}

Result<void> validate(const Criteria& criteria) {
    const auto plain = [](const std::optional<double>& v) { return !v || (*v > 0 && std::isfinite(*v)); };
    for (std::size_t k = 0; k < criteria.bySpeed.size(); ++k) {
        const SpeedLimits& s = criteria.bySpeed[k];
        if (!(s.speed > 0) || !std::isfinite(s.speed)) return badInput("a speed must be above 0");
        if (k > 0 && !(s.speed > criteria.bySpeed[k - 1].speed))
            return badInput("speeds must rise: " + formatExact(s.speed) + " after " +
                            formatExact(criteria.bySpeed[k - 1].speed));
        if (!plain(s.minRadius) || !plain(s.minSpiral) || !plain(s.minCrestK) || !plain(s.minSagK))
            return badInput("at speed " + formatExact(s.speed) + ": a limit must be above 0");
    }
    if (!plain(criteria.maxGrade) || !plain(criteria.minGrade) || !plain(criteria.minCurveLength) ||
        !plain(criteria.minTangent) || !plain(criteria.maxDeflection))
        return badInput("a limit must be above 0");
    if (criteria.maxGrade && criteria.minGrade && *criteria.maxGrade < *criteria.minGrade)
        return badInput("the steepest grade is less than the flattest");
    return {};
}

Criteria inUnit(Criteria criteria, LengthUnit unit) {
    const double by = metresPer(criteria.unit) / metresPer(unit);
    const auto scale = [by](std::optional<double>& v) {
        if (v) *v *= by;
    };
    for (SpeedLimits& s : criteria.bySpeed) {
        scale(s.minRadius);
        scale(s.minSpiral);
        scale(s.minCrestK);
        scale(s.minSagK);
    }
    scale(criteria.minCurveLength);
    scale(criteria.minTangent);
    criteria.unit = unit;
    return criteria;
}

Result<const SpeedLimits*> limitsAt(const Criteria& criteria, double speed) {
    for (const SpeedLimits& s : criteria.bySpeed)
        if (s.speed >= speed - hair) return &s;
    return badInput("the criteria go up to speed " +
                    (criteria.bySpeed.empty() ? "none" : formatExact(criteria.bySpeed.back().speed)) + "; " +
                    formatExact(speed) + " is beyond them");
}

namespace {

struct LimitWord {
    const char* word;
    std::optional<double> SpeedLimits::*field;
};
constexpr std::array<LimitWord, 4> limitWords{{{"radius", &SpeedLimits::minRadius},
                                               {"spiral", &SpeedLimits::minSpiral},
                                               {"crest", &SpeedLimits::minCrestK},
                                               {"sag", &SpeedLimits::minSagK}}};

}  // namespace

std::string limitsText(const SpeedLimits& limits) {
    std::string out;
    for (const auto& [word, field] : limitWords)
        if (limits.*field)
            out += (out.empty() ? "" : "  ") + std::string(word) + " " + formatExact(*(limits.*field));
    return out;
}

Result<SpeedLimits> parseLimits(double speed, const std::string& text) {
    SpeedLimits out;
    out.speed = speed;
    std::istringstream words(text);
    std::string word;
    while (words >> word) {
        const auto known = std::find_if(limitWords.begin(), limitWords.end(),
                                        [&](const LimitWord& w) { return word == w.word; });
        double value = 0;
        if (known == limitWords.end() || !(words >> value) || !(value > 0))
            return badInput("write limits as: radius 60 spiral 20 crest 9 sag 8");
        out.*(known->field) = value;
    }
    return out;
}

Result<std::vector<DesignFinding>> checkDesign(const AlignmentGeometry& alignment,
                                               const std::vector<Pvi>& pvis, const Criteria& criteria,
                                               const std::vector<SpeedFrom>& speeds) {
    Checker checker(alignment, pvis, criteria);
    if (auto set = checker.setSpeeds(speeds); !set) return tl::unexpected(set.error());
    return checker.run();
}

}  // namespace erdwerk::route
