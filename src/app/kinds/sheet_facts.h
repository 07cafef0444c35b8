#pragma once
// The facts of a sheet and of one of its frames.

#include "app/kinds/facts_form.h"

namespace erdwerk::app {

void sheetFacts(FactsForm& form, ObjectId sheet);
void frameFacts(FactsForm& form, ObjectId sheet, std::size_t frame);

}  // namespace erdwerk::app
