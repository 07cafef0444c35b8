#pragma once
// Facts of a surface: figures, how it is shown, its sources, own edits, thinning and fit check.

#include <QPushButton>

#include "app/kinds/facts_form.h"

namespace erdwerk::app {

/// The role that lines have in the surface that is meant, when all of them are sources of it.
void surfaceRole(FactsForm& form, const std::vector<ObjectId>& lines);
void surfaceFacts(FactsForm& form, ObjectId id);
/// Its sources, in order, and their settings.
void sourceFacts(FactsForm& form, ObjectId id);

/// A button of a few letters beside a row.
QPushButton* smallButton(const QString& label, const QString& name);

}  // namespace erdwerk::app
