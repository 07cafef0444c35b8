#pragma once
// Alignments, profiles, parcels, labels and sheets, as edits.

#include "core/operations/lines.h"

namespace erdwerk::operations {

Edit makeAlignment(ObjectId line);
Edit reverseAlignment(ObjectId alignment);
/// BadInput for a line of fewer than three corners.
Edit makeParcel(ObjectId line);
/// Of a survey point (`part`: its place in the set), or of the side of a line, alignment or parcel that
/// follows `segment` of its own path. The style is the first of its kind, or a plain one that is made.
Edit makeLabel(ObjectId target, std::optional<std::size_t> part, std::size_t segment);
/// The document with at least one label style of each kind.
Edit addLabelStyles();

/// The surface that covers most of an alignment, the upper one of two that cover the same; none when none
/// covers any of it.
ObjectId surfaceUnder(const Derived& derived, ObjectId alignment);
/// Parcels of which any part lies in a box.
std::vector<ObjectId> parcelsIn(const Derived& derived, const geometry::Box& box);
Edit newProfile(ObjectId alignment, ObjectId ground);
/// The ends of the alignment on the ground when there is no design yet; else a PVI in the middle of the
/// longest stretch, on the design as it is.
Edit addPvi(const Results& seen, ObjectId profile);
/// A PVI at this station and height, rounded as movePvi does; BadInput off the alignment or at the station of
/// another. The first one also makes the ends of the alignment on the ground, when there is no design yet.
Edit addPviAt(const Results& seen, ObjectId profile, double station, double height);
Edit removePvi(ObjectId profile, std::size_t pvi);
/// Between its neighbours, rounded to centimetres of station and millimetres of height.
Edit movePvi(ObjectId profile, std::size_t pvi, double station, double height);
enum class PviFigure { Station, Height, GradeIn, CurveLength };
/// Typed: stations as the display has them; heights, rises, grades and ratios from the PVI before; in GradeIn
/// a bare figure is per cent.
Edit typePvi(ObjectId profile, std::size_t pvi, PviFigure figure, const std::string& text);

struct NewSheet {
    geometry::Vec2 centre;
    double width = 0;  ///< of what the plan shows, in project units
    ObjectId parcel;   ///< whose table and description it shows; may be none
    std::string date;
};
/// The next round scale at which that width fits the paper.
Edit newSheet(NewSheet options);

}  // namespace erdwerk::operations
