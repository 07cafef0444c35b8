#pragma once
// Tables of the route, for CSV and XLSX.

#include "core/format/table_file.h"
#include "core/operations/stationed_points.h"
#include "core/route/profile_rows.h"

namespace erdwerk::format {

/// station, distance, easting, northing, ground, design, cut, fill, grade (per cent), with the unit in the
/// headings.
Table profileTable(const std::string& name, const std::vector<route::ProfilePlace>& places, LengthUnit unit);
/// name, station, distance, offset, easting, northing, height, over design, over ground.
Table stationTable(const std::string& name, const std::vector<operations::StationRow>& rows, LengthUnit unit);

}  // namespace erdwerk::format
