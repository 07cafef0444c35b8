#pragma once
// Lines that run beside a line: rows of a run and a height, each from the line itself or from the row before.

#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// Where the height of a row comes from, at each place of the line it is measured from.
struct RowHeight {
    enum class By {
        Same,      ///< that of the line
        Rise,      ///< plus `value`
        Grade,     ///< plus `value` (rise over run) times the row's run, whatever the corner
        Constant,  ///< `value`
        Surface    ///< of a surface, at the row's own place
    };
    By by = By::Same;
    double value = 0;
    std::string typed = {};
    friend bool operator==(const RowHeight&, const RowHeight&) = default;
};

/// A run at a distance along the line that it is measured from.
struct RunAt {
    double distance = 0;
    double run = 0;
    friend bool operator==(const RunAt&, const RunAt&) = default;
};

struct OffsetRow {
    double run = 0;  ///< plan distance, at right angles to the line; >= 0
    RowHeight height;
    /// Of a row that changes along the line: by distance, each farther than the one before. The run goes
    /// straight from each to the next and stays the same before the first and after the last. `run` is the
    /// first one's then.
    std::vector<RunAt> changes = {};
    [[nodiscard]] double runAt(double distance) const;
    friend bool operator==(const OffsetRow&, const OffsetRow&) = default;
};

enum class OutsideCorner { Mitre, Round };

struct OffsetOptions {
    bool right = false;  ///< of the direction of the line
    bool chained = false;
    OutsideCorner corners = OutsideCorner::Mitre;
    friend bool operator==(const OffsetOptions&, const OffsetOptions&) = default;
};

/// One row, its heights fixed: corners and grade points of the line at right angles, arcs as arcs. Outside
/// corners are extended along the sides until they meet (their height is that of the line's corner), or
/// rounded about the corner. What an inside corner turns inside out is cut away where the row crosses
/// itself; there it has the height of the side that comes first. A row on a surface has no heights yet.
/// Where the run changes, arcs are cut to straights within 0.01.
/// BadInput when nothing is left of the row. Costs n log n of the sides, and what crossings there are.
Result<Line3D> offset(const ResolvedLine& resolved, const OffsetRow& row, const OffsetOptions& options,
                      const Context& context = {});

}  // namespace erdwerk::linework
