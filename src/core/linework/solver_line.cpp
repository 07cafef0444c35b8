#include "core/linework/solver_line.h"

#include <algorithm>
#include <numeric>

namespace erdwerk::linework {

void SolverLine::arrange() {
    const std::size_t n = line->vertices.size();
    key.resize(n);
    for (std::size_t i = 0; i < n; ++i) key[i] = out.vertices[i].distance;
    // A place that is solved comes behind the vertex before it in the list, as far as that stands between its
    // corners.
    for (std::size_t i = 1; i < n; ++i) {
        if (standing(line->vertices[i].rule) != Standing::Solved) continue;
        const std::size_t side = segmentOf(*line, i);
        double from = 0;
        for (std::size_t k = 0; k < side; ++k) from += lengthOf(out.path[k]);
        const double to = from + (side < out.path.size() ? lengthOf(out.path[side]) : 0.0);
        key[i] = key[i - 1] >= from && key[i - 1] <= to ? key[i - 1] : from;
    }
    all.resize(n);
    std::iota(all.begin(), all.end(), std::size_t{0});
    std::stable_sort(all.begin(), all.end(), [&](std::size_t a, std::size_t b) { return key[a] < key[b]; });
    rank.assign(n, 0);
    for (const std::size_t i : all) {
        if (!isControl(line->vertices[i].rule)) continue;
        rank[i] = controls.size();
        controls.push_back(i);
    }
}

}  // namespace erdwerk::linework
