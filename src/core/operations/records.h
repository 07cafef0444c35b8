#pragma once
// Alignments, profiles and parcels, as edits.

#include "core/operations/lines.h"

namespace erdwerk::operations {

Edit makeAlignment(ObjectId line);
Edit reverseAlignment(ObjectId alignment);
/// BadInput for a line of fewer than three corners.
Edit makeParcel(ObjectId line);
/// A parcel on each closed line that has none, by its name.
Edit parcelsFromClosedLines();
/// The surface that covers most of an alignment, the upper one of two that cover the same; none when none
/// covers any of it.
ObjectId surfaceUnder(const Derived& derived, ObjectId alignment);
ObjectId surfaceUnder(const Derived& derived, const geometry::Path& path);
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
/// The straight from a PVI to the next goes up, and what hangs on both by locked grades with it.
Edit raisePviStretch(ObjectId profile, std::size_t pvi, double rise);
/// The grade from a PVI to the next stays when either of them moves.
Edit lockGrade(ObjectId profile, std::size_t pvi, bool locked);
/// The next PVI comes to lie on the grade that leads into this one.
Edit carryGradeOn(ObjectId profile, std::size_t pvi);
enum class PviFigure { Station, Height, GradeIn, CurveLength };
/// Typed: stations as the display has them; heights, rises, grades and ratios from the PVI before. In GradeIn
/// a bare figure is per cent; "2% locked" or "locked" keeps it, "free" lets it go; "=+0.10" lays the stretch
/// before on the ground, that much above it; where the grade behind is locked the PVI moves to where both
/// meet. A curve by its length, "K12", or "through 0+120 345.2".
Edit typePvi(ObjectId profile, std::size_t pvi, PviFigure figure, const std::string& text);

}  // namespace erdwerk::operations
