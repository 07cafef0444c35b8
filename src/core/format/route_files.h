#pragma once
// Files of the route: PIs, PVIs, stations and offsets as tables with a header row; criteria as JSON.

#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/base/result.h"
#include "core/route/criteria.h"
#include "core/route/pis.h"
#include "core/route/station_finder.h"

namespace erdwerk::format {

/// `easting,northing,radius,spiralIn,spiralOut`; the last three may be missing or empty. Errors name file,
/// line and reason.
Result<std::vector<route::Pi>> readPis(const std::string& path);
Result<std::vector<route::Pi>> parsePis(std::string_view bytes, const std::string& file);

/// A PVI as it is written: its station as it is read on the line, a curve by length or by K, or none.
struct WrittenPvi {
    double station = 0;
    double height = 0;
    std::optional<double> length;
    std::optional<double> k;
    long line = 0;
};
/// `station,height,curve`: a curve is a length, or `K12`. Stations plain or as 2+750, 27+50.
Result<std::vector<WrittenPvi>> readPvis(const std::string& path);
Result<std::vector<WrittenPvi>> parsePvis(std::string_view bytes, const std::string& file);
/// On an alignment: running stations, lengths. BadInput names the line: a station that is not on the line,
/// one that is not beyond the one before, a curve at an end. Curves that overlap are left to
/// `route::overlaps`.
Result<std::vector<route::Pvi>> pvisOn(const route::AlignmentGeometry& alignment,
                                       const std::vector<WrittenPvi>& written, const std::string& file);

using StationRow = route::StationedPoint;
/// `name,station,offset,height,code`, offsets positive to the right; height and code may be missing.
Result<std::vector<StationRow>> readStationRows(const std::string& path);
Result<std::vector<StationRow>> parseStationRows(std::string_view bytes, const std::string& file);

/// See route::Criteria; the keys are those of its fields, `unit` is m or ft. BadInput names the key or value
/// that is unknown, missing or of a wrong kind.
Result<route::Criteria> readCriteria(const std::string& path);
Result<route::Criteria> parseCriteria(const std::string& text, const std::string& file);
std::string criteriaText(const route::Criteria& criteria);

}  // namespace erdwerk::format
