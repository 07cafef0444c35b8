#pragma once
// Pieces that pick tools are declared of: steps, typed picks, ghosts.

#include "app/tools/pick_tool.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

/// Makes the pick tool of a spec.
std::function<std::unique_ptr<Tool>(Session&)> picking(PickSpec spec);

PickStep lineStep(const QString& prompt);
PickStep placeStep(const QString& role, const QString& prompt);
PickStep typedStep(const QString& role, const QString& prompt);

/// A place on a line from a pick of one.
operations::LinePlace linePlace(const Snap& pick);
/// An edit that is refused with this reason.
document::Edit refusal(std::string reason);
document::LongEdit longRefusal(std::string reason);
/// The cloud that is selected, or the first.
ObjectId currentCloud(const Session& session);
/// A picked place with its height, or that of the surface there.
geometry::Vec3 placeOf(const Session& session, const Snap& pick);

/// A typed word or figure that is meant for the selected line; BadInput with this hint without one.
Result<Snap> typedForLine(const Session& session, const QString& text, const std::string& hint);
/// A pick from a typed "E, N" or "E, N, height".
Result<Snap> typedPlace(const Session& session, const QString& text);
Result<Snap> typedNumber(const Session& session, const QString& text);
Result<Snap> typedPositive(const Session& session, const QString& text);
Result<Snap> typedName(const Session& session, const QString& text);

void noGhost(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);
/// The picked line as it is.
void ghostLine(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks);

}  // namespace erdwerk::app::tools
