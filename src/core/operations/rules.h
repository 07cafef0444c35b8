#pragma once
// Height rules of many points at once.

#include <optional>
#include <utility>
#include <vector>

#include "core/operations/lines.h"

namespace erdwerk::operations {

/// A line, or one of its vertices; several vertices make a stretch.
using LinePart = std::pair<ObjectId, std::optional<std::size_t>>;

/// The lines among them, each once.
std::vector<ObjectId> linesOf(const std::vector<LinePart>& parts);

/// Rules become the heights they give now; places that were solved stay. Of a whole line all controls, of
/// single vertices interpolated ones too. BadInput when nothing changes.
Edit freeze(const Results& seen, const std::vector<LinePart>& parts);
/// Takes heights away, vertical curves too: others look past these points. BadInput when nothing changes.
Edit freeHeights(const std::vector<LinePart>& parts);
/// What a line takes from one object it takes from another, of the same kind.
Edit measureFrom(ObjectId line, ObjectId from, ObjectId other);
/// Heights for vertices whose own can no longer be asked for.
Edit keepHeights(ObjectId line, const std::vector<std::pair<std::size_t, double>>& heights);

}  // namespace erdwerk::operations
