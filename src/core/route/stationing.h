#pragma once
// Stations of an alignment: where the numbering starts, and where it jumps.

#include <optional>
#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/base/result.h"

namespace erdwerk::route {

/// Where the numbering reaches `back` it goes on at `ahead`: a gap when that is more, stations that occur
/// twice when it is less.
struct StationEquation {
    double back = 0;
    double ahead = 0;
    friend bool operator==(const StationEquation&, const StationEquation&) = default;
};

/// Stations in project units; distances are from the start of the line and unique.
class Stationing {
public:
    Stationing() = default;
    explicit Stationing(double start) : start_(start) {}
    /// BadInput when the numbering never reaches a `back`: equations come in order along the line, each
    /// beyond the one before.
    static Result<Stationing> withEquations(double start, std::vector<StationEquation> equations);

    [[nodiscard]] double start() const { return start_; }
    [[nodiscard]] const std::vector<StationEquation>& equations() const { return equations_; }
    /// Where an equation stands.
    [[nodiscard]] double distanceOf(std::size_t equation) const { return distances_[equation]; }
    /// What is read at a distance; at an equation the station ahead.
    [[nodiscard]] double stationAt(double distance) const;
    /// The first place on a line of this length that has the station, ends included; nothing in a gap and
    /// beyond the ends.
    [[nodiscard]] std::optional<double> distanceAt(double station, double length) const;
    /// Equations within a length only.
    [[nodiscard]] Stationing upTo(double length) const;
    friend bool operator==(const Stationing&, const Stationing&) = default;

private:
    double start_ = 0;
    std::vector<StationEquation> equations_;
    std::vector<double> distances_;  ///< of the equations, rising
};

/// "2+750=2+800".
Result<StationEquation> parseEquation(const std::string& text, const DisplaySettings& settings);

}  // namespace erdwerk::route
