#pragma once
// Cross-sections: at right angles to an alignment, through surfaces and lines, with the areas between.

#include <span>

#include "core/base/progress.h"
#include "core/route/design.h"
#include "core/terrain/locator.h"

namespace erdwerk::route {

/// A height at an offset from the alignment, positive to the right.
struct OffsetHeight {
    double offset = 0;
    std::optional<double> height;  ///< nothing off the surface
    friend bool operator==(const OffsetHeight&, const OffsetHeight&) = default;
};

/// Where a line in space crosses it.
struct CrossedLine {
    std::size_t line = 0;  ///< of those that were given
    double offset = 0;
    std::optional<double> height;
};

struct CrossSection {
    double distance = 0;  ///< along the alignment
    Vec2 place;
    Angle direction;                                  ///< of travel
    std::vector<std::vector<OffsetHeight>> surfaces;  ///< rising offsets, of each surface in its order
    std::vector<CrossedLine> lines;                   ///< by offset
    double cut = 0;   ///< area in which the first surface lies above the second
    double fill = 0;  ///< area in which it lies below
};

struct CrossSectionOptions {
    double left = 10;  ///< how far it goes to each side, > 0
    double right = 10;
};

/// At one distance (within the alignment): the surfaces with every triangle edge, exact for the triangles.
CrossSection crossSectionAt(const AlignmentGeometry& alignment, double distance,
                            std::span<const terrain::TinLocator* const> surfaces,
                            const std::vector<AcrossLine>& lines, const CrossSectionOptions& options);

/// Areas between two sections over the offsets where both have heights: cut where the first lies above.
struct AreasBetween {
    double cut = 0;
    double fill = 0;
};
AreasBetween areasBetween(const std::vector<OffsetHeight>& first, const std::vector<OffsetHeight>& second);

/// At every multiple of an interval (> 0) as it is read, and at both ends; at most 20 000, else BadInput.
Result<std::vector<CrossSection>> crossSections(const AlignmentGeometry& alignment, double interval,
                                                std::span<const terrain::TinLocator* const> surfaces,
                                                const std::vector<AcrossLine>& lines,
                                                const CrossSectionOptions& options,
                                                const Context& context = {});

/// Volumes from one section to the next by the average of their end areas (the usual rule of earthwork
/// computation): half the sum of both areas times the distance between; running sums, 0 at the first.
struct EarthSum {
    double cut = 0;
    double fill = 0;
};
std::vector<EarthSum> endAreaSums(const std::vector<CrossSection>& sections);

}  // namespace erdwerk::route
