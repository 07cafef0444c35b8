#include "core/route/stationing.h"

#include <cmath>

#include "core/base/notation.h"

namespace erdwerk::route {

namespace {
/// Stations are figures of tenths of a millimetre at best.
constexpr double tiny = 1e-9;
}  // namespace

Result<Stationing> Stationing::withEquations(double start, std::vector<StationEquation> equations) {
    Stationing out(start);
    double at = 0;
    double from = start;
    for (const StationEquation& e : equations) {
        if (!std::isfinite(e.back) || !std::isfinite(e.ahead)) return badInput("an equation has no figures");
        if (e.back < from - tiny)
            return badInput("the numbering is at " + formatExact(from) + " already and never reaches " +
                            formatExact(e.back) + ": equations stand in order along the line");
        at += e.back - from;
        from = e.ahead;
        out.distances_.push_back(at);
    }
    out.equations_ = std::move(equations);
    return out;
}

double Stationing::stationAt(double distance) const {
    double from = 0;
    double station = start_;
    for (std::size_t k = 0; k < equations_.size() && distances_[k] <= distance + tiny; ++k) {
        from = distances_[k];
        station = equations_[k].ahead;
    }
    return station + (distance - from);
}

std::optional<double> Stationing::distanceAt(double station, double length) const {
    double from = 0;
    double first = start_;
    for (std::size_t k = 0; k <= equations_.size(); ++k) {
        const double to = k < equations_.size() ? std::min(distances_[k], length) : length;
        const double along = from + (station - first);
        if (along >= from - tiny && along <= to + tiny) return std::clamp(along, from, to);
        if (k == equations_.size() || distances_[k] >= length) break;
        from = distances_[k];
        first = equations_[k].ahead;
    }
    return std::nullopt;
}

Stationing Stationing::upTo(double length) const {
    Stationing out(start_);
    for (std::size_t k = 0; k < equations_.size() && distances_[k] <= length; ++k) {
        out.equations_.push_back(equations_[k]);
        out.distances_.push_back(distances_[k]);
    }
    return out;
}

Result<StationEquation> parseEquation(const std::string& text, const DisplaySettings& settings) {
    const auto equals = text.find('=');
    if (equals == std::string::npos)
        return badInput("'" + text + "' is no equation: BACK=AHEAD, as 2+750=2+800");
    const auto back = parseStation(text.substr(0, equals), settings);
    if (!back) return tl::unexpected(back.error());
    const auto ahead = parseStation(text.substr(equals + 1), settings);
    if (!ahead) return tl::unexpected(ahead.error());
    return StationEquation{*back, *ahead};
}

}  // namespace erdwerk::route
