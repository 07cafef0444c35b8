#pragma once
// An alignment.

#include <string>
#include <vector>

#include "core/objects/kind.h"
#include "core/route/alignment.h"
#include "core/route/marking.h"
#include "core/route/pis.h"
#include "core/route/stationing.h"

namespace erdwerk::objects {

/// A design speed from a station on, as it is read on the line.
struct DesignSpeed {
    double station = 0;
    double speed = 0;
    friend bool operator==(const DesignSpeed&, const DesignSpeed&) = default;
};

/// Follows the plan of a line, or has elements of its own.
struct Alignment {
    ObjectId line;          ///< that it follows; none: its elements are its own
    bool reversed = false;  ///< against the direction of the line or the elements
    double startStation = 0;
    double tickInterval = 20;
    std::vector<route::Pi> pis = {};  ///< its own; empty: see `elements`
    geometry::Path elements = {};     ///< its own, where no PIs give them
    std::vector<route::StationEquation> equations = {};
    std::string serves = {};       ///< road, path, rail, water, cable, wall, baseline, or a word of one's own
    std::string description = {};  ///< free text
    ObjectId criteria = {};        ///< that its design is checked against; may be none
    std::vector<DesignSpeed> speeds = {};  ///< rising along it
    bool checked = true;                   ///< against the criteria
    ObjectId marking = {};                 ///< what is marked along it; none: ticks and points of change
};

/// Its geometry, on the path of the line that it follows or its own; empty where there is none.
route::AlignmentGeometry geometryOf(const Alignment& alignment, const geometry::Path& ofLine);

/// Its design speeds by distance; those whose station is not on it are left out.
std::vector<route::SpeedMark> speedMarks(const Alignment& alignment, const route::AlignmentGeometry& on);

template <>
struct Kind<Alignment> : HasNoParts<Alignment> {
    static constexpr std::string_view name = "alignment";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Alignment& object, const Visit& visit);
    static std::optional<Alignment> without(Alignment object, ObjectId gone);
};

}  // namespace erdwerk::objects
