#pragma once
// Parcels that lie beside each other: a corner that several have is one corner, a side that two have is one
// side.

#include "core/operations/lines.h"

namespace erdwerk::operations {

/// Corners of other parcels' lines at the place of a corner of a parcel's line, to a micrometre of a metre.
/// None when the line is no parcel's.
struct LineCorner {
    ObjectId line;
    std::size_t vertex = 0;
    friend bool operator==(const LineCorner&, const LineCorner&) = default;
};
std::vector<LineCorner> cornersShared(const Document& document, ObjectId line, std::size_t vertex);

/// Corners, at that place, of the lines whose figure a boundary follows. None when it follows no figure, or
/// where its corner is a crossing of two lines.
std::vector<LineCorner> cornersUnder(const Document& document, ObjectId boundary, std::size_t vertex);

/// The side of another parcel that runs between the same corners, with the same arc; in either direction.
struct SharedSide {
    ObjectId parcel;
    std::size_t side = 0;  ///< of its line
    bool sameWay = false;  ///< both lines run along it in one direction
    friend bool operator==(const SharedSide&, const SharedSide&) = default;
};
std::optional<SharedSide> sideShared(const Document& document, ObjectId parcel, std::size_t side);

/// The same place on the lines of other parcels that have this side of a parcel's line.
std::vector<LinePlace> placesShared(const Document& document, const LinePlace& at);
/// Corners of other parcels' lines that stand between two sides which they have in common with this line:
/// what is taken out of one is taken out of them.
std::vector<LineCorner> cornersBetweenShared(const Document& document, ObjectId line, std::size_t vertex);

/// All of them, with the side of the parcel's line.
std::vector<std::pair<std::size_t, SharedSide>> sidesShared(const Document& document, ObjectId parcel);

/// Names the neighbours as adjoiners of the sides that they share; sides that have a name keep it. BadInput
/// when there is no neighbour.
Edit nameNeighbours(ObjectId parcel);

}  // namespace erdwerk::operations
