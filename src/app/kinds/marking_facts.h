#pragma once
// The settings of a marking, on the sheet of the marking itself and of every alignment that has it.

#include "app/kinds/facts_form.h"
#include "core/operations/markings.h"

namespace erdwerk::app {

using MarkingChange = std::function<Result<void>(route::MarkingSettings&)>;

/// `edit` says how a change becomes an edit.
void markingFacts(FactsForm& form, const route::MarkingSettings& marking,
                  const std::function<document::Edit(MarkingChange)>& edit);

}  // namespace erdwerk::app
