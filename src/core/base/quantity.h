#pragma once
// Quantities that are easily mixed up, as types with named makers, and the units lengths are shown in.

#include <cmath>
#include <compare>
#include <numbers>

namespace erdwerk {

/// An angle in radians. As a direction it is an azimuth: clockwise from north (grid +y).
class Angle {
public:
    constexpr Angle() = default;
    static constexpr Angle radians(double value) { return Angle(value); }
    static constexpr Angle degrees(double value) { return Angle(value * std::numbers::pi / 180.0); }
    static constexpr Angle gon(double value) { return Angle(value * std::numbers::pi / 200.0); }
    [[nodiscard]] constexpr double radians() const { return value_; }
    [[nodiscard]] constexpr double degrees() const { return value_ * 180.0 / std::numbers::pi; }
    [[nodiscard]] constexpr double gon() const { return value_ * 200.0 / std::numbers::pi; }
    /// The same direction in [0, 2π).
    [[nodiscard]] Angle normalized() const {
        constexpr double turn = 2 * std::numbers::pi;
        double v = std::fmod(value_, turn);
        if (v < 0) v += turn;
        return Angle(v >= turn ? 0.0 : v);
    }
    /// The same turn in (-π, π].
    [[nodiscard]] Angle signedTurn() const {
        const double v = normalized().value_;
        return Angle(v > std::numbers::pi ? v - 2 * std::numbers::pi : v);
    }
    friend constexpr auto operator<=>(const Angle&, const Angle&) = default;
    friend constexpr Angle operator+(Angle a, Angle b) { return Angle(a.value_ + b.value_); }
    friend constexpr Angle operator-(Angle a, Angle b) { return Angle(a.value_ - b.value_); }

private:
    explicit constexpr Angle(double value) : value_(value) {}
    double value_ = 0;
};

/// Rise over run, positive uphill in the direction of travel.
class Grade {
public:
    constexpr Grade() = default;
    static constexpr Grade riseOverRun(double value) { return Grade(value); }
    static constexpr Grade percent(double value) { return Grade(value / 100.0); }
    /// Run to rise, as in 3:1; a negative run falls. Requires run != 0.
    static constexpr Grade runToRise(double run) { return Grade(1.0 / run); }
    [[nodiscard]] constexpr double riseOverRun() const { return value_; }
    [[nodiscard]] constexpr double percent() const { return value_ * 100.0; }
    friend constexpr auto operator<=>(const Grade&, const Grade&) = default;

private:
    explicit constexpr Grade(double value) : value_(value) {}
    double value_ = 0;
};

/// Unit of the project's coordinates. The ratios are exact: 0.3048 m, and 1200/3937 m.
enum class LengthUnit { Metre, InternationalFoot, UsSurveyFoot };

constexpr double metresPer(LengthUnit unit) {
    switch (unit) {
        case LengthUnit::InternationalFoot:
            return 0.3048;
        case LengthUnit::UsSurveyFoot:
            return 1200.0 / 3937.0;
        case LengthUnit::Metre:
            break;
    }
    return 1.0;
}

constexpr double convertLength(double value, LengthUnit from, LengthUnit to) {
    return from == to ? value : value * metresPer(from) / metresPer(to);
}

}  // namespace erdwerk
