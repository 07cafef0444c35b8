#include "core/route/marking.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::route {

MarkingSettings defaultMarking(LengthUnit unit) {
    MarkingSettings out;
    if (unit != LengthUnit::Metre) out.small = 50;
    return out;
}

Result<void> validate(const MarkingSettings& marking) {
    for (const double interval : {marking.small, marking.large})
        if (!(interval >= 0) || !std::isfinite(interval))
            return badInput("an interval of ticks is 0 (none) or more");
    if (marking.small > 0 && marking.large > 0 && marking.large < marking.small)
        return badInput("long ticks stand farther apart than short ones");
    if (!(marking.height >= 0.5) || !(marking.height <= 20)) return badInput("texts are 0.5 to 20 mm high");
    return {};
}

std::string curveWords(const geometry::Segment& element, const DisplaySettings& display) {
    auto length = "L " + formatFixed(lengthOf(element), display.lengthDecimals);
    if (const auto arc = arcOf(element))
        return "R " + formatFixed(arc->radius, display.lengthDecimals) + "  " + length + "  Δ " +
               formatAngle(Angle::radians(std::abs(lengthOf(element) / arc->radius)), display.angleUnit);
    if (const auto spiral = clothoidOf(element)) {
        // A² = L / (change of curvature).
        const double change = std::abs(spiral->curvature(1) - spiral->curvature(0));
        if (!(change > 0)) return length;
        return "A " + formatFixed(std::sqrt(lengthOf(element) / change), display.lengthDecimals) + "  " +
               length;
    }
    return {};
}

namespace {

class Marks {
public:
    Marks(const AlignmentGeometry& alignment, const DisplaySettings& display)
        : alignment_(alignment), display_(display) {}

    void add(MarkKind kind, double distance, std::string text = {}, PointKind point = PointKind::Begin) {
        const auto at = geometry::positionAt(alignment_.path, distance);
        out.push_back({kind, distance, at.place, at.direction, std::move(text), point});
    }
    void ticks(const MarkingSettings& marking) {
        const auto every = [&](double interval) {
            constexpr double most = 100'000;
            if (!(interval > 0) || alignment_.length / interval > most) return std::vector<double>{};
            return multiplesAlong(alignment_, interval);
        };
        DisplaySettings whole = display_;
        whole.lengthDecimals = 0;
        const auto large = every(marking.large);
        for (const double d : every(marking.small)) {
            const auto near = std::lower_bound(large.begin(), large.end(), d - 1e-6);
            if (near == large.end() || *near > d + 1e-6) add(MarkKind::SmallTick, d);
        }
        for (const double d : large)
            add(MarkKind::LargeTick, d, formatStation(alignment_.stationing.stationAt(d), whole));
    }
    void points() {
        for (const KeyPoint& key : alignment_.keyPoints)
            add(MarkKind::Point, key.distance,
                std::string(shortName(key.kind)) + " " + formatStation(key.station, display_), key.kind);
    }
    void curves() {
        for (std::size_t i = 0; i < alignment_.path.size(); ++i) {
            auto words = curveWords(alignment_.path[i], display_);
            if (words.empty()) continue;
            add(MarkKind::Curve, alignment_.starts[i] + lengthOf(alignment_.path[i]) / 2, std::move(words));
        }
    }
    void equations() {
        const auto& numbering = alignment_.stationing;
        for (std::size_t k = 0; k < numbering.equations().size(); ++k) {
            const double distance = numbering.distanceOf(k);
            if (distance > alignment_.length) continue;
            const auto& e = numbering.equations()[k];
            add(MarkKind::Equation, distance,
                formatStation(e.back, display_) + " = " + formatStation(e.ahead, display_));
        }
    }
    std::vector<Mark> out;

private:
    const AlignmentGeometry& alignment_;
    const DisplaySettings& display_;
};

}  // namespace

std::vector<Mark> marksOf(const AlignmentGeometry& alignment, const MarkingSettings& marking,
                          const std::vector<SpeedMark>& speeds, const DisplaySettings& display) {
    if (alignment.path.empty()) return {};
    Marks marks(alignment, display);
    marks.ticks(marking);
    if (marking.points) marks.points();
    if (marking.curves) marks.curves();
    if (marking.speeds)
        for (const SpeedMark& s : speeds)
            if (s.distance >= 0 && s.distance <= alignment.length)
                marks.add(MarkKind::Speed, s.distance, formatExact(s.speed));
    if (marking.equations) marks.equations();
    return std::move(marks.out);
}

}  // namespace erdwerk::route
