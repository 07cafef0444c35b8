#pragma once
// Long-sections through several surfaces at once.

#include <optional>
#include <string>
#include <vector>

#include "core/terrain/trace.h"

namespace erdwerk::terrain {

struct SectionRow {
    double station = 0;  ///< distance along the path
    Vec2 place;
    std::vector<std::optional<double>> heights;  ///< one per surface; nothing off it
};

struct SectionOptions {
    double interval = 0;  ///< rows at multiples of it; 0: at every triangle edge of every surface
};

/// Rows at the path's start, its end and where its elements meet and, without an interval, wherever a
/// triangle edge of any of the surfaces is crossed; then on curves as many more as straights within 1 cm of
/// them need. All of them lie on the path itself. Requires a path that has a length.
std::vector<SectionRow> sectionThrough(const std::vector<const TinLocator*>& surfaces,
                                       const geometry::Path& path, const SectionOptions& options);

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
