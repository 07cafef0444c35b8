#include "core/route/profile_rows.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace erdwerk::route {

namespace {

constexpr std::array<std::string_view, profileRowCount> names{"station", "distance", "ground", "design",
                                                              "cut",     "fill",     "grade",  "curve"};

}  // namespace

std::string_view rowName(ProfileRow row) {
    return names[static_cast<std::size_t>(row)];
}

std::optional<ProfileRow> rowFromName(std::string_view name) {
    const auto at = std::find(names.begin(), names.end(), name);
    if (at == names.end()) return std::nullopt;
    return static_cast<ProfileRow>(at - names.begin());
}

std::vector<ProfilePlace> profilePlaces(const AlignmentGeometry& alignment,
                                        const std::vector<ProfilePoint>& ground,
                                        const std::vector<Pvi>& design, double interval) {
    constexpr double most = 20'000;
    if (!(interval > 0) || alignment.length / interval > most || alignment.path.empty()) return {};
    std::vector<double> at = designStations(alignment, design, 0);
    for (const double distance : multiplesAlong(alignment, interval))
        at.push_back(alignment.running(distance));
    at.push_back(alignment.startStation);
    at.push_back(alignment.running(alignment.length));
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end(), [](double a, double b) { return b - a < 1e-6; }), at.end());
    std::vector<ProfilePlace> out;
    out.reserve(at.size());
    for (const double running : at) {
        ProfilePlace p;
        p.running = running;
        p.distance = running - alignment.startStation;
        if (p.distance < -1e-9 || p.distance > alignment.length + 1e-9) continue;
        p.station = alignment.read(running);
        p.place = placeAt(alignment, running);
        p.ground = heightAt(ground, running);
        if (const auto d = designAt(design, running)) {
            p.design = d->height;
            // At a break the grade that follows.
            const auto ahead = designAt(design, std::min(running + 1e-6, design.back().station));
            p.grade = ahead ? ahead->grade : d->grade;
        }
        if (p.ground && p.design) {
            const double up = *p.design - *p.ground;
            p.fill = std::max(0.0, up);
            p.cut = std::max(0.0, -up);
        }
        out.push_back(p);
    }
    return out;
}

std::string cellText(const ProfilePlace& place, ProfileRow row, const DisplaySettings& display) {
    const auto height = [&](const std::optional<double>& h) {
        return h ? formatHeight(h, display) : std::string();
    };
    switch (row) {
        case ProfileRow::Station:
            return formatStation(place.station, display);
        case ProfileRow::Distance:
            return formatFixed(place.distance, display.lengthDecimals);
        case ProfileRow::Ground:
            return height(place.ground);
        case ProfileRow::Design:
            return height(place.design);
        case ProfileRow::Cut:
            return place.cut && *place.cut > 0 ? height(place.cut) : std::string();
        case ProfileRow::Fill:
            return place.fill && *place.fill > 0 ? height(place.fill) : std::string();
        case ProfileRow::Grade:
            return place.grade ? formatGrade(*place.grade, display) : std::string();
        case ProfileRow::Curve:
            break;
    }
    return {};
}

std::vector<DesignStretch> designStretches(const std::vector<Pvi>& design) {
    std::vector<DesignStretch> out;
    const auto figs = figures(design);
    for (std::size_t i = 0; i + 1 < design.size(); ++i) {
        if (!figs[i].gradeOut) continue;
        const double from = design[i].station + design[i].curveLength / 2;
        const double to = design[i + 1].station - design[i + 1].curveLength / 2;
        if (to - from > 1e-6) out.push_back({from, to, *figs[i].gradeOut, {}, {}, false});
        const Pvi& next = design[i + 1];
        if (next.curveLength > 0)
            out.push_back({next.station - next.curveLength / 2, next.station + next.curveLength / 2,
                           *figs[i].gradeOut, next.curveLength, figs[i + 1].k, figs[i + 1].crest});
    }
    return out;
}

}  // namespace erdwerk::route
