#pragma once
// The rows of figures under a profile: what each place says, by row.

#include <string>
#include <string_view>
#include <vector>

#include "core/base/display.h"
#include "core/route/design.h"

namespace erdwerk::route {

enum class ProfileRow { Station, Distance, Ground, Design, Cut, Fill, Grade, Curve };
inline constexpr int profileRowCount = 8;
/// "station", "distance", "ground", "design", "cut", "fill", "grade", "curve".
std::string_view rowName(ProfileRow row);
std::optional<ProfileRow> rowFromName(std::string_view name);

/// A place of the table, by its running station.
struct ProfilePlace {
    double running = 0;
    double station = 0;   ///< as it is read
    double distance = 0;  ///< from the start of the line
    Vec2 place;
    std::optional<double> ground;
    std::optional<double> design;
    std::optional<double> cut;   ///< above 0 where the ground lies above the design
    std::optional<double> fill;  ///< above 0 where it lies below
    std::optional<Grade> grade;  ///< of the design, ahead of the place
};

/// At the start, the end and every multiple of the interval (> 0) as it is read and, with a design, at its
/// PVIs, curve ends, high and low points; rising, on the line. At most 20 000 places: none for an interval
/// that asks for more.
std::vector<ProfilePlace> profilePlaces(const AlignmentGeometry& alignment,
                                        const std::vector<ProfilePoint>& ground,
                                        const std::vector<Pvi>& design, double interval);

/// What the table says there; empty where there is nothing to say. `Curve` is a text for a stretch and stands
/// in curveStretches.
std::string cellText(const ProfilePlace& place, ProfileRow row, const DisplaySettings& display);

/// A straight grade or a curve of a design, for rows that speak of stretches.
struct DesignStretch {
    double from = 0;  ///< running
    double to = 0;
    Grade grade;                   ///< of a straight
    std::optional<double> length;  ///< of a curve
    std::optional<double> k;       ///< of a curve
    bool crest = false;
    [[nodiscard]] bool isCurve() const { return length.has_value(); }
};
/// In order, curves between the straights that they leave; straights shorter than 1e-6 are left out.
std::vector<DesignStretch> designStretches(const std::vector<Pvi>& design);

}  // namespace erdwerk::route
