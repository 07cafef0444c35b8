#pragma once
// A surface cut into bands of height, slope or direction, with their areas.

#include <string>
#include <vector>

#include "core/terrain/tin.h"

namespace erdwerk::terrain {

enum class BandKind { Height, Slope, Direction };

struct Band {
    double from = 0;  ///< height in project units, slope as rise over run, or azimuth in radians
    double to = 0;    ///< infinity for the last of slope
    double planArea = 0;
    double surfaceArea = 0;
};

/// Limits that suit a surface: heights on round numbers, about eight of them; slopes 0, 2, 5, 10, 20, 33, 50,
/// 100 per cent; eight directions, each centred on its point of the compass.
std::vector<double> bandLimits(const Tin& tin, BandKind kind);

/// One band between each pair of limits. Height bands cut triangles exactly; slope and direction (in which
/// the ground falls) go by triangle. What is level (below a tenth of a per cent) has no direction and is in
/// no direction band. A value on a limit belongs to the band above.
std::vector<Band> bandsOf(const Tin& tin, BandKind kind, const std::vector<double>& limits);

/// Position of the band that a triangle's slope or direction falls into; -1 for none.
int bandOf(BandKind kind, const Slope& slope, const std::vector<double>& limits);

}  // namespace erdwerk::terrain
