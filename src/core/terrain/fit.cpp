#include "core/terrain/fit.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <limits>

namespace erdwerk::terrain {

Result<std::vector<std::optional<double>>> deviationsOf(const TinLocator& surface,
                                                        const std::vector<Vec3>& points,
                                                        const Context& context) {
    std::vector<std::optional<double>> out(points.size());
    std::atomic<std::size_t> done{0};
    tbb::parallel_for(tbb::blocked_range<std::size_t>(0, points.size(), 16384), [&](const auto& range) {
        if (context.isCancelled()) return;
        for (std::size_t i = range.begin(); i != range.end(); ++i)
            if (const auto h = surface.heightAt(points[i].plan())) out[i] = points[i].z - *h;
        done += range.size();
        context.report(static_cast<double>(done) / static_cast<double>(points.size()));
    });
    if (context.isCancelled()) return cancelled();
    return out;
}

FitFigures figuresOf(const std::vector<std::optional<double>>& deviations, double tolerance,
                     std::size_t bins) {
    FitFigures f;
    f.range = 2 * tolerance;
    f.histogram.assign(bins, 0);
    std::vector<double> absolute;
    absolute.reserve(deviations.size());
    double sum = 0;
    double squares = 0;
    for (const auto& d : deviations) {
        if (!d) {
            ++f.outside;
            continue;
        }
        sum += *d;
        squares += *d * *d;
        f.largestUp = std::max(f.largestUp, *d);
        f.largestDown = std::min(f.largestDown, *d);
        if (std::abs(*d) <= tolerance) ++f.within;
        absolute.push_back(std::abs(*d));
        if (f.range > 0 && bins > 0) {
            const double place = (*d + f.range) / (2 * f.range) * static_cast<double>(bins);
            ++f.histogram[static_cast<std::size_t>(std::clamp(place, 0.0, static_cast<double>(bins - 1)))];
        }
    }
    f.points = absolute.size();
    if (f.points == 0) return f;
    const auto n = static_cast<double>(f.points);
    f.mean = sum / n;
    f.rms = std::sqrt(squares / n);
    const auto rank = static_cast<std::size_t>(std::ceil(0.95 * n)) - 1;
    std::nth_element(absolute.begin(), absolute.begin() + static_cast<std::ptrdiff_t>(rank), absolute.end());
    f.p95 = absolute[rank];
    return f;
}

DeviationMap deviationMap(const std::vector<Vec3>& points,
                          const std::vector<std::optional<double>>& deviations, double leastCell,
                          std::size_t most) {
    Box box;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (deviations[i]) box.add(points[i].plan());
    DeviationMap map;
    if (box.empty()) return map;
    map.origin = {box.minX, box.minY};
    map.cell = std::max({leastCell, std::sqrt(box.width() * box.height() / static_cast<double>(most)), 1e-9,
                         std::max(box.width(), box.height()) / static_cast<double>(most)});
    map.columns = static_cast<int>(box.width() / map.cell) + 1;
    map.rows = static_cast<int>(box.height() / map.cell) + 1;
    map.worst.assign(static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows),
                     std::numeric_limits<float>::quiet_NaN());
    for (std::size_t i = 0; i < points.size(); ++i) {
        if (!deviations[i]) continue;
        const auto column = static_cast<std::size_t>((points[i].x - box.minX) / map.cell);
        const auto row = static_cast<std::size_t>((points[i].y - box.minY) / map.cell);
        float& worst = map.worst[row * static_cast<std::size_t>(map.columns) + column];
        if (std::isnan(worst) || std::abs(*deviations[i]) > std::abs(static_cast<double>(worst)))
            worst = static_cast<float>(*deviations[i]);
    }
    return map;
}

std::vector<WorstPlace> worstPlaces(const std::vector<Vec3>& points,
                                    const std::vector<std::optional<double>>& deviations, double tolerance,
                                    double apart, std::size_t most) {
    std::vector<WorstPlace> all;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (deviations[i] && std::abs(*deviations[i]) > tolerance) all.push_back({i, *deviations[i]});
    std::sort(all.begin(), all.end(), [](const WorstPlace& a, const WorstPlace& b) {
        return std::abs(a.deviation) != std::abs(b.deviation) ? std::abs(a.deviation) > std::abs(b.deviation)
                                                              : a.point < b.point;
    });
    std::vector<WorstPlace> out;
    for (const WorstPlace& w : all) {
        if (out.size() >= most) break;
        const auto near = [&](const WorstPlace& other) {
            return geometry::distance(points[w.point].plan(), points[other.point].plan()) < apart;
        };
        if (std::none_of(out.begin(), out.end(), near)) out.push_back(w);
    }
    return out;
}

}  // namespace erdwerk::terrain
