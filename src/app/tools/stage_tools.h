#pragma once
// The pick tools of all stages, as data.

#include <QHash>

#include "app/tools/pick_tool.h"

namespace erdwerk::app {

/// By action id: "drape", "split", "alignment" …
PickSpec pickSpec(const QString& id);

/// A pick from a typed "E, N" or "E, N, height".
Result<Snap> typedPlace(const Session& session, const QString& text);
/// The picked line as a source of the current surface.
Result<document::Document> addRole(const Session& session, const Snap& pick, document::Role role);

/// The style a new label of this kind gets: the first in the project, or a default one that is added to the
/// document.
ObjectId labelStyle(document::Document& document, annotate::LabelKind kind);

}  // namespace erdwerk::app
