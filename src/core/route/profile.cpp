#include "core/route/profile.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <string>

#include "core/terrain/trace.h"

namespace erdwerk::route {

namespace {

std::vector<ProfilePoint> groundUnder(const geometry::Segment& segment, const terrain::TinLocator& surface) {
    std::vector<ProfilePoint> out;
    const double size = lengthOf(segment);
    const bool curved = isCurved(segment);
    const auto element = elementOf(segment);
    const auto curvature = [&](double t) {
        return std::visit([t](const auto& e) { return e.curvature(t); }, element);
    };
    for (const auto& p : terrain::trace(surface, segment)) {
        ProfilePoint point{p.fraction * size, p.place, p.height};
        if (curved && p.triangleAfter && p.fraction < 1)
            point.bow =
                Bow{terrain::gradientOf(surface.tin(), *p.triangleAfter), tangentAt(segment, p.fraction),
                    curvature(p.fraction), (curvature(1) - curvature(0)) / size};
        out.push_back(point);
    }
    return out;
}

}  // namespace

Vec2 Bow::way(double distance) const {
    if (!(distance > 0)) return {0, 0};
    const geometry::Spiral shape{curvature, curvature + change * distance, distance};
    return geometry::Clothoid{{}, {}, direction, shape}.turned(shape.way(0, 1));
}

GroundPieces groundPieces(const Path& path, std::shared_ptr<const terrain::TinLocator> surface,
                          const GroundPieces* before) {
    GroundPieces out{path, std::move(surface), {}};
    out.pieces.resize(path.size());
    if (before != nullptr && before->surface == out.surface) {
        // From both ends, up to where something differs.
        const std::size_t most = std::min(path.size(), before->path.size());
        std::size_t same = 0;
        while (same < most && path[same] == before->path[same]) {
            out.pieces[same] = before->pieces[same];
            ++same;
        }
        for (std::size_t k = 1;
             k + same <= most && path[path.size() - k] == before->path[before->path.size() - k]; ++k)
            out.pieces[path.size() - k] = before->pieces[before->path.size() - k];
    }
    tbb::parallel_for(std::size_t{0}, path.size(), [&](std::size_t i) {
        if (!out.pieces[i])
            out.pieces[i] =
                std::make_shared<const std::vector<ProfilePoint>>(groundUnder(path[i], *out.surface));
    });
    return out;
}

std::vector<ProfilePoint> joined(const GroundPieces& pieces, const AlignmentGeometry& alignment) {
    std::vector<ProfilePoint> out;
    std::size_t count = 0;
    for (const auto& piece : pieces.pieces) count += piece->size();
    out.reserve(count);
    for (std::size_t i = 0; i < pieces.pieces.size(); ++i) {
        const auto& piece = *pieces.pieces[i];
        if (!out.empty() && !piece.empty()) out.back().bow = piece.front().bow;
        for (std::size_t k = out.empty() ? 0 : 1; k < piece.size(); ++k) {
            out.push_back(piece[k]);
            out.back().station += alignment.running(alignment.starts[i]);
        }
    }
    return out;
}

std::vector<ProfilePoint> groundProfile(const AlignmentGeometry& alignment,
                                        const terrain::TinLocator& surface) {
    // A pointer that owns nothing: the surface outlives this.
    const std::shared_ptr<const terrain::TinLocator> there(std::shared_ptr<const void>(), &surface);
    return joined(groundPieces(alignment.path, there), alignment);
}

std::optional<double> heightAt(const std::vector<ProfilePoint>& profile, double station) {
    const auto after = std::lower_bound(profile.begin(), profile.end(), station,
                                        [](const ProfilePoint& p, double s) { return p.station < s; });
    if (after == profile.end()) return std::nullopt;
    if (after->station == station || after == profile.begin()) {
        return after->station == station ? after->height : std::nullopt;
    }
    const auto before = after - 1;
    if (!before->height || !after->height) return std::nullopt;
    if (before->bow) return *before->height + before->bow->rise(station - before->station);
    const double t = (station - before->station) / (after->station - before->station);
    return *before->height + t * (*after->height - *before->height);
}

std::vector<ProfilePoint> straightened(const std::vector<ProfilePoint>& profile, double tolerance) {
    constexpr double most = 10'000;
    std::vector<ProfilePoint> out;
    for (std::size_t k = 0; k < profile.size(); ++k) {
        out.push_back(profile[k]);
        out.back().bow.reset();
        if (k + 1 == profile.size() || !profile[k].bow || !profile[k].height || !profile[k + 1].height)
            continue;
        // A chord of length c is off by c² / 8 times the second derivative: at most gradient times curvature.
        const Bow& bow = *profile[k].bow;
        const double gap = profile[k + 1].station - profile[k].station;
        const double bend = geometry::length(bow.gradient) *
                            std::max(std::abs(bow.curvature), std::abs(bow.curvature + bow.change * gap));
        const double pieces = std::ceil(std::min(most, gap * std::sqrt(bend / (8 * tolerance))));
        for (double c = 1; c < pieces; ++c) {
            const Vec2 way = bow.way(gap * c / pieces);
            out.push_back({profile[k].station + gap * c / pieces, profile[k].place + way,
                           *profile[k].height + geometry::dot(bow.gradient, way)});
        }
    }
    return out;
}

Result<void> validate(const std::vector<Pvi>& pvis) {
    if (pvis.size() < 2) return badInput("a design profile needs at least two PVIs");
    for (std::size_t i = 0; i < pvis.size(); ++i) {
        const Pvi& p = pvis[i];
        const std::string name = "PVI " + std::to_string(i + 1);
        if (!std::isfinite(p.station) || !std::isfinite(p.height) || !std::isfinite(p.curveLength))
            return badInput(name + ": a value is not a finite number");
        if (p.curveLength < 0) return badInput(name + ": the curve length cannot be negative");
        if (i > 0 && !(p.station > pvis[i - 1].station)) return badInput(name + ": stations must rise");
        const bool end = i == 0 || i + 1 == pvis.size();
        if (end && p.curveLength > 0) return badInput(name + ": an end PVI has no curve");
        if (i > 0 && (p.curveLength + pvis[i - 1].curveLength) / 2 > p.station - pvis[i - 1].station + 1e-9)
            return badInput(name + ": its curve overlaps the one before");
    }
    return {};
}

std::vector<PviFigures> figures(const std::vector<Pvi>& pvis) {
    std::vector<PviFigures> out(pvis.size());
    for (std::size_t i = 0; i + 1 < pvis.size(); ++i) {
        const double run = pvis[i + 1].station - pvis[i].station;
        if (!(run > 0)) continue;
        out[i].gradeOut = out[i + 1].gradeIn =
            Grade::riseOverRun((pvis[i + 1].height - pvis[i].height) / run);
    }
    for (std::size_t i = 0; i < pvis.size(); ++i) {
        if (!out[i].gradeIn || !out[i].gradeOut) continue;
        const double change = out[i].gradeOut->percent() - out[i].gradeIn->percent();
        out[i].crest = change < 0;
        if (pvis[i].curveLength > 0 && change != 0) out[i].k = pvis[i].curveLength / std::abs(change);
    }
    return out;
}

std::optional<DesignPoint> designAt(const std::vector<Pvi>& pvis, double station) {
    if (pvis.size() < 2 || !(station >= pvis.front().station) || station > pvis.back().station)
        return std::nullopt;
    const auto after = std::upper_bound(pvis.begin(), pvis.end(), station,
                                        [](double s, const Pvi& p) { return s < p.station; });
    const auto at = std::min(static_cast<std::size_t>(after - pvis.begin()), pvis.size() - 1) - 1;
    const auto gradeOf = [&](std::size_t k) {
        return (pvis[k + 1].height - pvis[k].height) / (pvis[k + 1].station - pvis[k].station);
    };
    // Only the curves at both ends of the straight can reach the place.
    for (const std::size_t i : {at, at + 1}) {
        const double half = pvis[i].curveLength / 2;
        if (i == 0 || i + 1 == pvis.size() || half <= 0 || std::abs(station - pvis[i].station) > half)
            continue;
        const double g1 = gradeOf(i - 1);
        const double g2 = gradeOf(i);
        const double x = station - (pvis[i].station - half);
        const double start = pvis[i].height - g1 * half;
        return DesignPoint{start + g1 * x + (g2 - g1) * x * x / (2 * pvis[i].curveLength),
                           Grade::riseOverRun(g1 + (g2 - g1) * x / pvis[i].curveLength)};
    }
    const double g = gradeOf(at);
    return DesignPoint{pvis[at].height + g * (station - pvis[at].station), Grade::riseOverRun(g)};
}

std::optional<double> fillDepth(const std::vector<Pvi>& design, const std::vector<ProfilePoint>& ground,
                                double station) {
    const auto d = designAt(design, station);
    const auto g = heightAt(ground, station);
    if (!d || !g) return std::nullopt;
    return d->height - *g;
}

}  // namespace erdwerk::route
