#pragma once
// Lines that follow other lines, and points that follow alignments, through an edit.

#include "core/base/result.h"
#include "core/document/document.h"
#include "core/route/alignment.h"

namespace erdwerk::document {

/// Rows beside lines that the edit changed, and boundaries round the figure of lines, get their new shape in
/// plan, one after the other, so that what names their sides is carried along. A figure that is not closed
/// any more stays as it was, unless other lines make the same one now (a line of it was cut in two, or
/// exchanged). Heights, and lines that follow in other ways, are left to the results.
Document withShapesFollowing(const Document& before, Document after);

/// Points that stand by station and offset go along with their alignment; one that the edit moved itself
/// gets the station and offset of its new place, one that it renamed keeps them. A point whose station is no
/// longer on the alignment stays where it is.
Document withPointsTied(const Document& before, Document after);
/// An alignment from the document alone, on the plan of the line it follows; empty where it has none.
route::AlignmentGeometry alignmentIn(const Document& document, ObjectId alignment);

/// A line that follows others cannot be given another shape or other heights by an edit; then an Error that
/// names it.
Result<void> checkFollowing(const Document& before, const Document& after);

}  // namespace erdwerk::document
