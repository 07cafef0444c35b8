#pragma once
// Long-sections through several surfaces at once.

#include <optional>
#include <string>
#include <vector>

#include "core/terrain/trace.h"

namespace erdwerk::terrain {

struct SectionRow {
    double station = 0;  ///< distance along the chain
    Vec2 place;
    std::vector<std::optional<double>> heights;  ///< one per surface; nothing off it
};

struct SectionOptions {
    double interval = 0;  ///< rows at multiples of it; 0: at every triangle edge of every surface
};

/// Rows at the chain's start, corners and end and, without an interval, wherever a triangle edge of any of
/// the surfaces is crossed. Requires a chain of at least two places.
std::vector<SectionRow> sectionThrough(const std::vector<const TinLocator*>& surfaces,
                                       const std::vector<Vec2>& chain, const SectionOptions& options);

/// What a table of a section can show. Height, Grade (to the next row) and Difference (to the first surface)
/// stand once for each surface.
enum class SectionField { Station, Easting, Northing, Height, Grade, Difference };
std::string_view fieldName(SectionField field);

/// A table as header and cells; a cell that holds a number has it, else it is empty.
struct SectionTable {
    std::vector<std::string> header;
    std::vector<std::vector<std::optional<double>>> rows;
};
SectionTable tableOf(const std::vector<SectionRow>& rows, const std::vector<std::string>& surfaceNames,
                     const std::vector<SectionField>& fields);

}  // namespace erdwerk::terrain
