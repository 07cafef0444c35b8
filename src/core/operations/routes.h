#pragma once
// Alignments with elements of their own, as edits.

#include "core/operations/lines.h"
#include "core/route/chain.h"
#include "core/route/criteria.h"
#include "core/route/pis.h"

namespace erdwerk::operations {

/// A new alignment by its PIs, named after what it serves ("Road", else "Alignment") where it has no name.
/// BadInput where the PIs give no path.
Edit addAlignment(const std::string& name, objects::Alignment made);

/// An axis of its own and a profile over the surface that covers most of it.
Edit profileThrough(const Results& seen, objects::Alignment axis);

/// What becomes of the lines that it is made from: they stay, are hidden, or go into a group "Sources" that
/// is off.
enum class SourceLines { Keep, Hide, PutAway };
struct FromLines {
    double gap = 0.01;  ///< ends nearer than this meet
    bool turned = false;
    SourceLines sources = SourceLines::Keep;
};
/// One alignment from loose lines in any order and direction, in that of the first; by PIs where they can
/// give it. BadInput names what does not chain.
Edit alignmentFromLines(const Results& seen, const std::vector<ObjectId>& lines, FromLines options = {});
/// What that would be, for a ghost.
Result<route::Chained> chainOf(const derive::Derived& seen, const std::vector<ObjectId>& lines,
                               const FromLines& options);
/// What gave way at the gaps that were closed, each with its place; empty without any.
std::string gapsText(const std::vector<route::ClosedJoint>& closed, const DisplaySettings& display);

/// The PIs that an alignment is changed by: its own, or nothing when it follows a line or has elements that
/// no PIs give.
const std::vector<route::Pi>* pisOf(const document::Document& document, ObjectId alignment);
/// With other PIs. BadInput, with the reason of `route::pathOf`, where they give no path.
Edit setPis(ObjectId alignment, std::vector<route::Pi> pis);
Edit movePi(ObjectId alignment, std::size_t pi, geometry::Vec2 place);
/// On the tangent from a PI to the next.
Edit insertPi(ObjectId alignment, std::size_t after, geometry::Vec2 place);
/// In the middle of the way to the next.
Edit insertPi(ObjectId alignment, std::size_t after);
Edit removePi(ObjectId alignment, std::size_t pi);

/// Bearing and distance are those from the PI before; a figure that changes moves this PI and all after it
/// along.
enum class PiFigure { Easting, Northing, Radius, SpiralIn, SpiralOut, Bearing, Distance };
/// Typed in the project's notation; a spiral also by its parameter, `A 80` (length = A² / R).
Edit typePi(ObjectId alignment, std::size_t pi, PiFigure figure, const std::string& text);
/// One radius at all corners that have none.
Edit roundBareCorners(ObjectId alignment, double radius);
Edit typeBareRadius(ObjectId alignment, const std::string& text);

/// The alignment no longer follows its line: its elements are its own, in the direction it ran.
Edit ownElements(const Results& seen, ObjectId alignment);
/// One joint of its own elements made tangent, see route::madeTangent. BadInput where that cannot be.
Edit makeTangent(ObjectId alignment, std::size_t element);
/// A line along it, arcs kept, spirals as chords within 1 mm.
Edit lineOfAlignment(const Results& seen, ObjectId alignment);

/// The station of its beginning, typed. BadInput for none, and where its equations no longer fit.
Edit typeStart(ObjectId alignment, const std::string& text);
/// "2+800=2+850 3+100=3+000"; empty for none.
Edit typeEquations(ObjectId alignment, const std::string& text);
std::string equationsText(const objects::Alignment& alignment, const DisplaySettings& display);

/// An arc of a radius in the joint behind an element (in the direction of its stations), see
/// route::withCurve. BadInput while it follows a line.
Edit insertCurve(ObjectId alignment, std::size_t element, double radius);
Edit typeCurveAt(ObjectId alignment, std::size_t element, const std::string& text);
/// The curve at a PI gets the radius with which its middle comes nearest to a place.
Edit bendCurve(ObjectId alignment, std::size_t pi, geometry::Vec2 through);

/// Criteria by name; the ones of that name get its limits. An alignment that is given has them from then on.
Edit saveCriteria(const std::string& name, const route::Criteria& criteria, ObjectId alignment = {});
/// "30@0+000 50@1+200": design speeds from stations on; empty for none.
Edit typeSpeeds(ObjectId alignment, const std::string& text);
std::string speedsText(const objects::Alignment& alignment, const DisplaySettings& display);

}  // namespace erdwerk::operations
