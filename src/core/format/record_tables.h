#pragma once
// Tables of the record: what leaves the office, row by row, from the results of a project.

#include <string_view>

#include "core/derive/model.h"
#include "core/format/table_file.h"

namespace erdwerk::format {

enum class RecordTable { Courses, Curves, Points, Stations, Areas, Volumes };
/// "courses", "curves", "points", "stations", "areas", "volumes".
std::string_view tableName(RecordTable table);
std::optional<RecordTable> tableFromName(std::string_view name);

/// A text, or a figure with the text that the display gives it; both absent in an empty cell.
struct RecordCell {
    std::string text;
    std::optional<double> figure;
    int decimals = 0;  ///< of the figure, as shown
};

struct RecordRows {
    std::string name;
    std::vector<std::string> header;
    std::vector<std::vector<RecordCell>> rows;
};

/// The columns, the object's name first:
///   courses: parcel, course (L1, C1 …), kind, direction, distance, radius, delta, arc, side
///   curves: object (parcel or alignment), curve, radius, delta, arc, chord direction, chord, tangent, side
///   points: set, number, easting, northing, height, code, note
///   stations: alignment, point (BP, PC …), station, easting, northing, direction
///   areas: parcel, area, hectares or acres, perimeter, misclosure
///   volumes: earthwork, cut, fill, net
/// Directions, angles and stations are texts in the display's style; figures have its decimals.
RecordRows recordRows(const derive::Derived& derived, RecordTable table);

/// Only these columns, in this order. BadInput names a column that is not there, and those that are.
Result<RecordRows> withColumns(RecordRows rows, const std::vector<std::string>& columns);

std::string toCsv(const RecordRows& rows);
/// By the ending: .csv, or .xlsx with the same texts and, for figures, numbers that are shown alike.
Result<void> writeRecord(const std::string& path, const RecordRows& rows);

}  // namespace erdwerk::format
