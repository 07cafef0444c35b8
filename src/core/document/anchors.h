#pragma once
// Where the anchors of dimensions hold on, from the document alone.

#include <optional>

#include "core/document/document.h"
#include "core/geometry/element.h"
#include "core/objects/anchor.h"

namespace erdwerk::document {

/// Where an anchor holds on now; nothing when that is gone. Lines are as they were drawn, which is the same
/// as in the results but for those that follow designs and slopes.
std::optional<geometry::Vec2> anchorPlace(const Document& document, const objects::Anchor& anchor);
/// The side that it lies on; nothing when it is on none.
std::optional<geometry::Segment> anchorSide(const Document& document, const objects::Anchor& anchor);

/// Ends of dimensions that lost in an edit what they held on to stay where that was.
Document withLostAnchors(const Document& before, Document after);

}  // namespace erdwerk::document
