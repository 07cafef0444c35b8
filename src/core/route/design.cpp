#include "core/route/design.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::route {

std::optional<HighLow> highLowAt(const std::vector<Pvi>& pvis, std::size_t pvi) {
    const auto figs = figures(pvis);
    if (pvi >= pvis.size() || pvis[pvi].curveLength <= 0 || !figs[pvi].gradeIn || !figs[pvi].gradeOut)
        return std::nullopt;
    const double in = figs[pvi].gradeIn->riseOverRun();
    const double out = figs[pvi].gradeOut->riseOverRun();
    if (in * out >= 0) return std::nullopt;
    // The grade is 0 where it has changed by as much as it began with.
    const double length = pvis[pvi].curveLength;
    const double x = length * in / (in - out);
    return HighLow{pvis[pvi].station - length / 2 + x, pvis[pvi].height - in * length / 2 + in * x / 2};
}

std::optional<double> curveLengthByK(const std::vector<Pvi>& pvis, std::size_t pvi, double k) {
    const auto figs = figures(pvis);
    if (pvi >= pvis.size() || !figs[pvi].gradeIn || !figs[pvi].gradeOut) return std::nullopt;
    return k * std::abs(figs[pvi].gradeOut->percent() - figs[pvi].gradeIn->percent());
}

std::optional<double> curveLengthThrough(const std::vector<Pvi>& pvis, std::size_t pvi, double station,
                                         double height) {
    const auto figs = figures(pvis);
    if (pvi >= pvis.size() || !figs[pvi].gradeIn || !figs[pvi].gradeOut) return std::nullopt;
    const double in = figs[pvi].gradeIn->riseOverRun();
    const double out = figs[pvi].gradeOut->riseOverRun();
    const double change = out - in;
    const double w = station - pvis[pvi].station;
    const double tangent = pvis[pvi].height + (w < 0 ? in : out) * w;
    if (change == 0) return std::nullopt;
    // y - tangent = change (L/2 - |w|)^2 / (2 L); with q = 2 (y - tangent) / change this is L^2/4 - L (|w| +
    // q) + w^2 = 0.
    const double q = 2 * (height - tangent) / change;
    if (!(q > 0)) return std::nullopt;
    const double half = std::abs(w) + q;
    return 2 * (half + std::sqrt(half * half - w * w));
}

std::vector<CurveOverlap> overlaps(const std::vector<Pvi>& pvis) {
    std::vector<CurveOverlap> out;
    for (std::size_t i = 1; i < pvis.size(); ++i) {
        const double shared =
            (pvis[i].curveLength + pvis[i - 1].curveLength) / 2 - (pvis[i].station - pvis[i - 1].station);
        if (shared > 1e-9) out.push_back({i, shared});
    }
    return out;
}

std::vector<double> designStations(const AlignmentGeometry& alignment, const std::vector<Pvi>& pvis,
                                   double interval) {
    std::vector<double> out;
    if (pvis.empty()) return out;
    const double from = pvis.front().station;
    const double to = pvis.back().station;
    const auto add = [&](double running) {
        if (running >= from - 1e-9 && running <= to + 1e-9) out.push_back(std::clamp(running, from, to));
    };
    for (std::size_t i = 0; i < pvis.size(); ++i) {
        add(pvis[i].station);
        if (pvis[i].curveLength <= 0) continue;
        add(pvis[i].station - pvis[i].curveLength / 2);
        add(pvis[i].station + pvis[i].curveLength / 2);
        if (const auto turning = highLowAt(pvis, i)) add(turning->station);
    }
    if (interval > 0)
        for (const double distance : multiplesAlong(alignment, interval)) add(alignment.running(distance));
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end(), [](double a, double b) { return b - a < 1e-9; }),
              out.end());
    return out;
}

std::vector<ProfilePoint> profileAcross(const AlignmentGeometry& axis, const std::vector<AcrossLine>& lines) {
    std::vector<ProfilePoint> out;
    std::vector<geometry::Box> boxes;
    boxes.reserve(axis.path.size());
    for (const auto& element : axis.path) boxes.push_back(boundsOf(element));
    for (const AcrossLine& line : lines) {
        double base = 0;
        for (const auto& side : line.path) {
            const auto box = boundsOf(side);
            const double length = lengthOf(side);
            for (std::size_t i = 0; i < axis.path.size(); ++i) {
                if (!boxes[i].meets(box)) continue;
                const double size = lengthOf(axis.path[i]);
                for (const auto& c : crossings(axis.path[i], side))
                    out.push_back({axis.running(axis.starts[i] + c.first * size), c.place,
                                   line.heightAt(base + c.second * length)});
                // Corners and ends that lie on the axis itself.
                for (const double end : {0.0, 1.0}) {
                    const Vec2 corner = end == 0 ? side.start : side.end;
                    const double t = nearestFraction(axis.path[i], corner);
                    if (geometry::distance(pointAt(axis.path[i], t), corner) < 1e-9)
                        out.push_back({axis.running(axis.starts[i] + t * size), corner,
                                       line.heightAt(base + end * length)});
                }
            }
            base += length;
        }
    }
    std::sort(out.begin(), out.end(),
              [](const ProfilePoint& a, const ProfilePoint& b) { return a.station < b.station; });
    // A corner on the axis belongs to both of its sides.
    const auto same = [](const ProfilePoint& a, const ProfilePoint& b) {
        return b.station - a.station < 1e-9 && a.height.has_value() == b.height.has_value() &&
               (!a.height || std::abs(*a.height - *b.height) < 1e-9);
    };
    out.erase(std::unique(out.begin(), out.end(), same), out.end());
    return out;
}

}  // namespace erdwerk::route
