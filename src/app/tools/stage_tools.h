#pragma once
// The pick tools of all stages, as data.

#include <QHash>

#include "app/tools/pick_tool.h"

namespace erdwerk::app {

/// By action id: "drape", "split", "alignment" …
PickSpec pickSpec(const QString& id);

/// The style a new label of this kind gets: the first in the project, or a default one that is added to the
/// document.
ObjectId labelStyle(document::Document& document, annotate::LabelKind kind);

}  // namespace erdwerk::app
