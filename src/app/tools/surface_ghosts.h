#pragma once
// What the tools of a surface's own edits would change, drawn before it is done.

#include "app/tools/pick_tool.h"

namespace erdwerk::app::tools {

/// The two triangles beside a side, and the side they would share.
void ghostFlip(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);
void ghostTriangle(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);
/// The nearest vertex, and where it would go.
void ghostVertex(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);
/// The way of the water, and how it ends.
void ghostRunoff(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);

}  // namespace erdwerk::app::tools
