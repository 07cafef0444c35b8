#pragma once
// Points by station and offset: tied to an alignment or loose, reported, joined to lines.

#include "core/objects/kind.h"
#include "core/operations/lines.h"
#include "core/route/station_finder.h"

namespace erdwerk::operations {

/// Where rows come to stand, one for each; nothing where the station is not on the alignment (before its
/// start, beyond its end, in a gap of its numbering).
std::vector<std::optional<geometry::Vec2>> placesOf(const Derived& seen, ObjectId alignment,
                                                    const std::vector<route::StationedPoint>& rows);

enum class StationTies { Tied, Loose };
/// A set of points from stations and offsets, named after the file they are from; heights and codes as they
/// are given. Tied ones follow the alignment. BadInput, with the row's line, for a station that is not on the
/// line, and for tied points whose numbers repeat.
Edit pointsByStation(const Results& seen, ObjectId alignment, const std::string& set,
                     std::vector<route::StationedPoint> rows, StationTies ties = StationTies::Loose);
/// The points of a set stay where they are from now on.
Edit loosenPoints(ObjectId set);
/// Points of a set (all when `members` is empty) become tied to an alignment by where they stand. BadInput
/// for those beside its ends, and numbers that repeat.
Edit tieToAlignment(const Results& seen, ObjectId set, ObjectId alignment,
                    const std::vector<std::size_t>& members = {});
/// One line for each offset at which there are two or more of the points (all when `members` is empty), in
/// the order of their stations; offsets that differ by less than `within` are one. BadInput when there is
/// none.
Edit connectByOffset(const Results& seen, ObjectId set, ObjectId alignment,
                     const std::vector<std::size_t>& members = {}, double within = 0.05);

/// Where a place stands along an alignment.
struct StationRow {
    std::string name;  ///< a point's number, or a line's name and corner
    std::string code;
    geometry::Vec2 place;
    double station = 0;   ///< as it is read
    double distance = 0;  ///< from the start
    double offset = 0;    ///< positive to the right
    bool beyond = false;  ///< beside an end
    std::optional<double> height;
    std::optional<double> overDesign;  ///< height minus that of the design there
    std::optional<double>
        overSurface;  ///< height minus that of the ground of the profile at the place itself
};
/// Of points (of sets, or single ones), corners of lines, and all of groups; in the order given. The design
/// and ground are those of the alignment's first profile.
std::vector<StationRow> stationsOf(const Derived& derived, ObjectId alignment,
                                   const std::vector<objects::Part>& parts,
                                   const std::vector<ObjectId>& whole);

}  // namespace erdwerk::operations
