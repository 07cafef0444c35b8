#pragma once
// What is marked along alignments, as edits.

#include "core/operations/lines.h"
#include "core/route/marking.h"

namespace erdwerk::operations {

/// A marking by name; the one of that name gets its settings. An alignment that is given has it from then on.
/// BadInput without a name, and as route::validate.
Edit saveMarking(const std::string& name, const route::MarkingSettings& marking, ObjectId alignment = {});
/// Changes what an alignment is marked with: its marking, for all alignments that have it, or a new one named
/// after the alignment where it has none.
Edit changeMarking(ObjectId alignment, std::function<Result<void>(route::MarkingSettings&)> change);
/// The same for a marking itself.
Edit changeOwnMarking(ObjectId marking, std::function<Result<void>(route::MarkingSettings&)> change);
/// What an alignment is marked with: its marking, else ticks at its own interval, each fifth a long one.
route::MarkingSettings markingOf(const document::Document& document, const objects::Alignment& alignment);

}  // namespace erdwerk::operations
