#pragma once
// Lines that follow other lines, through an edit.

#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::document {

/// Rows beside lines that the edit changed get their new shape in plan, row after row, so that what names
/// their sides is carried along. Heights, and lines that follow in other ways, are left to the results.
Document withRowsFollowing(const Document& before, Document after);

/// A line that follows others cannot be given another shape or other heights by an edit; then an Error that
/// names it.
Result<void> checkFollowing(const Document& before, const Document& after);

}  // namespace erdwerk::document
