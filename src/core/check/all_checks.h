#pragma once
// The one list of checks, in the order in which they run. A check is a function in a file of its own that
// appends what it finds; CHECK_OF_POINTS is one that looks at nothing but survey points and the settings, so
// that what it found is kept as long as they are the same.

#include <vector>

#include "core/check/finding.h"

#define ERDWERK_CHECKS(CHECK, CHECK_OF_POINTS) \
    CHECK(surfaceFailed)                       \
    CHECK(boundaries)                          \
    CHECK(missingFiles)                        \
    CHECK(crossingBreaklines)                  \
    CHECK_OF_POINTS(samePlace)                 \
    CHECK_OF_POINTS(nearDuplicates)            \
    CHECK_OF_POINTS(sameNumber)                \
    CHECK(nearlyTouching)                      \
    CHECK(drawnAsChords)                       \
    CHECK(withoutHeight)                       \
    CHECK(heightRules)                         \
    CHECK(earthworks)                          \
    CHECK(nonTangent)                          \
    CHECK(designs)                             \
    CHECK(tiedPoints)                          \
    CHECK(parcelClosure)                       \
    CHECK(silentLabels)                        \
    CHECK(lostDimensions)                      \
    CHECK(descriptions)                        \
    CHECK(sheets)                              \
    CHECK(designProfile)                       \
    CHECK(ownEdits)                            \
    CHECK(fitOfSurfaces)                       \
    CHECK(pointsOutsideEdge)

namespace erdwerk::check {

#define ERDWERK_DECLARE(name) void name(const derive::Derived& derived, std::vector<Finding>& out);
ERDWERK_CHECKS(ERDWERK_DECLARE, ERDWERK_DECLARE)
#undef ERDWERK_DECLARE

/// Spikes, flat triangles and rim needles of one surface; costs about as much as looking at each triangle.
/// Ends early when cancelled.
void triangleFaults(const derive::Derived& derived, ObjectId surface, std::vector<Finding>& out,
                    const Context& context = {});

}  // namespace erdwerk::check
