#pragma once
// Tables of the record: what leaves the office, row by row, from the results of a project.

#include "core/derive/model.h"
#include "core/objects/table.h"

namespace erdwerk::operations {

/// A text, or a figure with the text that the display gives it; both absent in an empty cell.
struct RecordCell {
    std::string text;
    std::optional<double> figure;
    int decimals = 0;  ///< of the figure, as shown
};

struct RecordRow {
    std::vector<RecordCell> cells;
    ObjectId of;                      ///< what it is about
    std::optional<std::size_t> part;  ///< a point of it, a vertex of a line
};

struct RecordRows {
    std::string name;
    std::vector<std::string> header;
    std::vector<RecordRow> rows;
};

/// The columns of each sort of table, the object's name first:
///   courses: parcel, course (L1, C1 …), kind, direction, distance, radius, delta, arc, side; where they are
///   chosen: latitude, departure (how far it runs north and east), rounded latitude, rounded departure (of
///   the direction and distance as they are written)
///   curves: object (parcel or alignment), curve, radius, delta, arc, chord direction, chord, tangent, side
///   points: set, number, easting, northing, height, code, note
///   stations: alignment, point (BP, PC …), station, easting, northing, direction
///   areas: parcel, area, hectares or acres, perimeter, misclosure; where they are chosen: ratio (perimeter
///   for one of misclosure), rounded misclosure, rounded ratio (of the courses as the description calls them)
///   volumes: earthwork, cut, fill, net
///   controls: line, control, distance, easting, northing, height, rule, to next
///   stages: pond, height, area, volume
///   tags: object, tag, direction, distance, radius, delta, arc
std::vector<std::string> columnsOf(objects::TableSort sort, LengthUnit unit);

/// All rows of the objects that the table names, in its order, with its columns and in its unit. Directions,
/// angles and stations are texts in the display's style; figures have its decimals. BadInput names a column
/// that is not there, and those that are.
Result<RecordRows> recordRows(const derive::Derived& derived, const objects::Table& table);

}  // namespace erdwerk::operations
