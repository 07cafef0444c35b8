#pragma once
// Labels and their styles, as edits.

#include "core/annotate/label_style.h"
#include "core/base/id.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

/// Of a survey point (`part`: its place in the set), or of the side of a line, alignment or parcel that
/// follows `segment` of its own path. The style is the first of its kind, or a plain one that is made.
Edit makeLabel(ObjectId target, std::optional<std::size_t> part, std::size_t segment);
/// Of a vertex of a 3D line.
Edit labelControl(ObjectId line, std::size_t vertex);
/// Of a whole parcel.
Edit labelArea(ObjectId parcel);
/// Of a place on a surface: Contour, Spot or Slope.
Edit labelPlace(ObjectId surface, annotate::LabelKind kind, geometry::Vec2 at);
/// Of the station of an alignment at this distance, so far to the right of it.
Edit labelStation(ObjectId alignment, double distance, double offset);

/// The surface drawn on top at a place; none where there is none.
ObjectId surfaceAt(const Derived& derived, geometry::Vec2 place);
/// A place as a distance along an alignment, and to the right of it.
struct StationUnder {
    ObjectId alignment;
    double distance = 0;
    double offset = 0;
};
/// Of this alignment, or the nearest when it is none; nothing where there is none. Within `touch` it counts
/// as on it.
std::optional<StationUnder> stationUnder(const Derived& derived, ObjectId alignment, geometry::Vec2 place,
                                         double touch);

/// What of many things is labelled in one go.
struct LabelMany {
    bool sides = true;  ///< of lines and parcels, elements of alignments
    bool points = true;
    bool controls = false;
    bool areas = true;
    std::optional<geometry::Box> within = {};  ///< only what has its middle in there
};
/// Every side, point, control and area of these objects that has no label of its kind yet; a group stands for
/// its members. BadInput when there is nothing left to label.
Edit labelMany(std::vector<ObjectId> targets, LabelMany what);
/// What labelMany would make; for asking before.
std::size_t countToLabel(const Document& document, const std::vector<ObjectId>& targets, LabelMany what);
/// Labels of these objects as if they were made anew: what has none gets one, a side that became a curve gets
/// the style of curves. Those changed by hand stay as they are, and are counted in what the edit says.
Edit relabel(std::vector<ObjectId> targets);

/// The labels of an object, in their order.
std::vector<ObjectId> labelsOf(const Document& document, ObjectId target);

/// The document with at least one label style of each kind.
Edit addLabelStyles();
/// Another style of a kind, as the plain one; `name` is made the only one.
Edit newLabelStyle(annotate::LabelKind kind);
using ChangeStyle = std::function<void(annotate::LabelStyle&)>;
/// Refused with what is wrong when the style is not valid afterwards.
Edit changeLabelStyle(ObjectId style, ChangeStyle change);
/// One label gets a style of its own, from then on whatever its style says.
Edit changeLabelByHand(ObjectId label, ChangeStyle change);
/// What a label is about, in plan, from the document alone; nothing where it is not there (a contour, which
/// results have).
std::optional<geometry::Vec2> labelPlaceIn(const Document& document, ObjectId label);
/// What dragging its texts to a place does: they are put there by hand; of a contour, the label goes along to
/// the contour that is nearest there.
Edit dragLabel(ObjectId label, geometry::Vec2 place);
/// Where its texts stand, from what it is about; nothing lets it be placed again.
Edit moveLabel(ObjectId label, std::optional<geometry::Vec2> moved);
/// Words typed by hand, with fields in braces; empty: what its style says.
Edit typeLabelWords(ObjectId label, std::string words);
/// Nothing by hand is left.
Edit labelAsStyled(ObjectId label);
/// Another style for labels of its kind; those of other kinds are passed over, BadInput when all are.
Edit setLabelStyle(std::vector<ObjectId> labels, ObjectId style);

}  // namespace erdwerk::operations
