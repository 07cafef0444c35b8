#include "core/linework/to_next.h"

namespace erdwerk::linework {

std::optional<std::size_t> nextControl(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex,
                                       bool ahead) {
    const std::size_t n = line.vertices.size();
    const std::size_t at = resolved.positionOf(vertex);
    for (std::size_t step = 1; step < n; ++step) {
        if (!line.closed && (ahead ? at + step >= n : step > at)) return std::nullopt;
        const std::size_t k = resolved.ordered(ahead ? (at + step) % n : (at + n - step) % n);
        if (isControl(line.vertices[k].rule)) return k;
    }
    return std::nullopt;
}

std::optional<ToNext> toNext(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex) {
    if (!isControl(line.vertices[vertex].rule)) return std::nullopt;
    const auto next = nextControl(line, resolved, vertex);
    if (!next) return std::nullopt;
    const ResolvedVertex& from = resolved.vertices[vertex];
    const ResolvedVertex& to = resolved.vertices[*next];
    double run = to.distance - from.distance;
    if (run < 0) run += resolved.length;
    if (!from.height || !to.height || !(run > 0)) return std::nullopt;
    return ToNext{*next, run, *to.height - *from.height};
}

}  // namespace erdwerk::linework
