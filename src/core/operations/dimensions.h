#pragma once
// Dimensions and their styles, as edits.

#include "core/annotate/dimension.h"
#include "core/document/anchors.h"
#include "core/objects/anchor.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

using document::anchorPlace;
using document::anchorSide;

/// BadInput for too few anchors, and for angles, deltas and radii whose anchors are not on sides. The style
/// is the first there is, or a plain one that is made.
Edit newDimension(annotate::DimensionKind kind, std::vector<Anchor> anchors, annotate::DimensionLine line);
/// Its dimension line goes through a place.
Edit dragDimension(ObjectId dimension, geometry::Vec2 place);
/// Where its dimension line lies.
Edit moveDimension(ObjectId dimension, double offset);
/// Where an anchor holds on now; nothing when that is gone. See document/anchors.h for the same from the
/// document alone.
std::optional<geometry::Vec2> anchorPlace(const Derived& derived, const Anchor& anchor);
/// The side that it lies on; nothing when it is on none.
std::optional<geometry::Segment> anchorSide(const Derived& derived, const Anchor& anchor);
/// The offset that brings the dimension line through a place; nothing when it measures nothing.
std::optional<double> offsetThrough(const Document& document, const Dimension& dimension,
                                    geometry::Vec2 place);
/// The anchor on what lies at a place of an object: on a vertex or a point (`part`), else on the nearest
/// side.
Anchor anchorOn(const Derived& derived, ObjectId object, std::optional<std::size_t> part,
                geometry::Vec2 place);
/// Ends that lost what they held on to stay where they were, as places of their own.
Edit keepDimensionInPlace(ObjectId dimension);
Edit addDimensionStyle();
/// Refused with what is wrong when the style is not valid afterwards.
Edit changeDimensionStyle(ObjectId style, std::function<void(annotate::DimensionStyle&)> change);

}  // namespace erdwerk::operations
