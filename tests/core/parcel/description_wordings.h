#pragma once
// Twelve ways to word a description, for the corpus.

#include <functional>
#include <string>

#include "core/parcel/description_corpus.h"

namespace erdwerk::parcel {

/// How a wording writes figures: lengths in `unit`, angles and azimuths in degrees.
struct Style {
    std::string unit;
    std::function<std::string(double)> length;
    std::function<std::string(double)> angle;
    std::function<std::string(double)> direction;
};
Style styleOf(int wording);

/// A course as the text calls it.
struct Sayings {
    std::string direction, length, radius, delta, arc, start;
    bool right = false, tangent = false, curve = false;
    double azimuth = 0;
    double startAzimuth = 0;
};

struct Wording {
    std::string opening, closing;
    std::function<std::string(const Sayings&, std::size_t, std::size_t)> call;
};

/// For a description of `n` courses.
Wording wordingOf(int wording, std::size_t n);

std::string fixed(double value, int decimals);
/// "right" or "left".
std::string side(const Sayings& s);

}  // namespace erdwerk::parcel
