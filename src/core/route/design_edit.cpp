#include "core/route/design_edit.h"

#include <algorithm>
#include <cmath>
#include <string>

namespace erdwerk::route {

namespace {

/// First and last of what hangs together with a PVI by locked grades.
std::pair<std::size_t, std::size_t> hanging(const std::vector<Pvi>& design, std::size_t pvi) {
    std::size_t first = pvi;
    std::size_t last = pvi;
    while (first > 0 && design[first - 1].locked) --first;
    while (last + 1 < design.size() && design[last].locked) ++last;
    return {first, last};
}

}  // namespace

void raisePvi(std::vector<Pvi>& design, std::size_t pvi, double rise) {
    const auto [first, last] = hanging(design, pvi);
    for (std::size_t k = first; k <= last; ++k) design[k].height += rise;
}

void raiseStretch(std::vector<Pvi>& design, std::size_t pvi, double rise) {
    const std::size_t first = hanging(design, pvi).first;
    const std::size_t last = hanging(design, std::min(pvi + 1, design.size() - 1)).second;
    for (std::size_t k = first; k <= last; ++k) design[k].height += rise;
}

void movePvi(std::vector<Pvi>& design, std::size_t pvi, double station, double height) {
    Pvi& p = design[pvi];
    const bool in = pvi > 0 && design[pvi - 1].locked;
    const bool out = pvi + 1 < design.size() && p.locked;
    if (in && out) return raisePvi(design, pvi, height - p.height);
    if (in || out) {
        const auto figs = figures(design);
        const auto& grade = in ? figs[pvi].gradeIn : figs[pvi].gradeOut;
        if (grade) height = p.height + grade->riseOverRun() * (station - p.station);
    }
    p.station = station;
    p.height = height;
}

Result<void> tangentsMeet(std::vector<Pvi>& design, std::size_t pvi, Grade in, Grade out) {
    if (pvi == 0 || pvi + 1 >= design.size()) return badInput("an end of a design has no two grades");
    const Pvi& a = design[pvi - 1];
    const Pvi& b = design[pvi + 1];
    const double g1 = in.riseOverRun();
    const double g2 = out.riseOverRun();
    // Counted from the one before, so that large stations do not cancel.
    const double run = b.station - a.station;
    const double x = g1 == g2 ? std::nan("") : (b.height - a.height - g2 * run) / (g1 - g2);
    if (!(x > 1e-9) || !(x < run - 1e-9))
        return badInput("with both grades as they are the PVI would not lie between its neighbours");
    design[pvi].station = a.station + x;
    design[pvi].height = a.height + g1 * x;
    return {};
}

Result<void> carryGradeOn(std::vector<Pvi>& design, std::size_t pvi) {
    if (pvi == 0 || pvi + 1 >= design.size()) return badInput("no grade leads into it, or none goes on");
    const auto in = figures(design)[pvi].gradeIn;
    if (!in) return badInput("no grade leads into it");
    Pvi& next = design[pvi + 1];
    next.height = design[pvi].height + in->riseOverRun() * (next.station - design[pvi].station);
    return {};
}

bool followsGround(const std::vector<Pvi>& design) {
    return std::any_of(design.begin(), design.end(), [](const Pvi& p) { return p.onGround.has_value(); });
}

namespace {

/// The places without which no other is farther than a tolerance in height from the straights between.
void keepFew(const std::vector<Pvi>& all, double tolerance, std::vector<Pvi>& out) {
    std::vector<bool> keep(all.size(), false);
    keep.front() = keep.back() = true;
    std::vector<std::pair<std::size_t, std::size_t>> open{{0, all.size() - 1}};
    while (!open.empty()) {
        const auto [a, b] = open.back();
        open.pop_back();
        double worst = tolerance;
        std::size_t at = 0;
        for (std::size_t k = a + 1; k < b; ++k) {
            const double t = (all[k].station - all[a].station) / (all[b].station - all[a].station);
            const double off =
                std::abs(all[k].height - (all[a].height + t * (all[b].height - all[a].height)));
            if (off > worst) {
                worst = off;
                at = k;
            }
        }
        if (at == 0) continue;
        keep[at] = true;
        open.emplace_back(a, at);
        open.emplace_back(at, b);
    }
    for (std::size_t k = 1; k + 1 < all.size(); ++k)
        if (keep[k]) out.push_back(all[k]);
}

}  // namespace

std::vector<Pvi> laidOnGround(const std::vector<Pvi>& design, const std::vector<ProfilePoint>& under) {
    constexpr double tolerance = 0.001;
    const auto ground = straightened(under, tolerance / 4);
    std::vector<Pvi> own = design;
    for (std::size_t i = 0; i < own.size(); ++i) {
        const bool ahead = i + 1 < own.size() && own[i].onGround;
        const bool behind = i > 0 && own[i - 1].onGround;
        if (!ahead && !behind) continue;
        own[i].curveLength = 0;
        if (const auto h = heightAt(ground, own[i].station))
            own[i].height = *h + (ahead ? *own[i].onGround : *own[i - 1].onGround);
    }
    std::vector<Pvi> out;
    for (std::size_t i = 0; i < own.size(); ++i) {
        out.push_back(own[i]);
        if (i + 1 == own.size() || !own[i].onGround) continue;
        std::vector<Pvi> all{own[i]};
        auto at = std::upper_bound(ground.begin(), ground.end(), own[i].station + 1e-9,
                                   [](double s, const ProfilePoint& p) { return s < p.station; });
        bool whole = true;
        for (; at != ground.end() && at->station < own[i + 1].station - 1e-9; ++at) {
            whole = whole && at->height;
            if (at->height && at->station > all.back().station + 1e-9)
                all.push_back({at->station, *at->height + *own[i].onGround});
        }
        all.push_back(own[i + 1]);
        if (whole) keepFew(all, tolerance * 3 / 4, out);
    }
    return out;
}

}  // namespace erdwerk::route
