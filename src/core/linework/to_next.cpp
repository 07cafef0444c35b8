#include "core/linework/to_next.h"

namespace erdwerk::linework {

std::optional<ToNext> toNext(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex) {
    if (!isControl(line.vertices[vertex].rule)) return std::nullopt;
    const auto next = controlOf(line, vertex, true);
    if (!next) return std::nullopt;
    const ResolvedVertex& from = resolved.vertices[vertex];
    const ResolvedVertex& to = resolved.vertices[*next];
    double run = to.distance - from.distance;
    if (*next < vertex) run += resolved.length;
    if (!from.height || !to.height || !(run > 0)) return std::nullopt;
    return ToNext{*next, run, *to.height - *from.height};
}

}  // namespace erdwerk::linework
