#pragma once
// Strokes downhill from the top of a batter, as plans have them.

#include "core/earthwork/batter.h"

namespace erdwerk::earthwork {

struct Hachure {
    Vec2 from;  ///< on the upper edge of the faces
    Vec2 to;    ///< downhill, on the faces
};

/// Every `spacing` along the edge where faces fall from it, along the daylight where they rise to it; long
/// (`longest`, or to the foot) and half as long in turn. `faces` are those of the batter.
std::vector<Hachure> hachures(const Batter& batter, const terrain::TinLocator& faces, double spacing,
                              double longest);

}  // namespace erdwerk::earthwork
