#pragma once
// Made-up descriptions in twelve wordings, each of a figure that is known, with a mistake planted or none.

#include <random>
#include <string>
#include <vector>

#include "core/parcel/parcel.h"

namespace erdwerk::parcel {

enum class Plant {
    None,
    Bearing,
    Distance,
    LeftOut,
    Twice,
    Side,
    Radius,
    ArcLength,
    Tangent,
    Area,
    HalfBearing,
    Smudged
};
inline constexpr int plants = 12;
inline constexpr int wordings = 12;

struct MadeUp {
    std::string text;
    ParcelGeometry figure;   ///< in the text's unit and called north
    std::string unit;        ///< "m", "ft", "chain"
    bool planted = false;    ///< this figure and wording have a place for the mistake
    std::size_t course = 0;  ///< from 1: in the text; of one left out in the figure
    std::string words;       ///< that the mistake stands in; empty where it has none
};

/// A closed figure of straights with corners rounded (tangent), some not quite (not tangent).
Path madeUpFigure(std::mt19937& random, double size);
/// North 60, east 80, then a tangent half circle to the right of radius 30, back west 80: 60 x 80 + 450 pi.
inline Path racetrack() {
    return {{{0, 0}, {0, 60}, {}},
            {{0, 60}, {80, 60}, {}},
            {{80, 60}, {80, 0}, Vec2{110, 30}},
            {{80, 0}, {0, 0}, {}}};
}

MadeUp madeUp(int wording, Plant plant, std::mt19937& random);

}  // namespace erdwerk::parcel
