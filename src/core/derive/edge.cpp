#include "core/derive/edge.h"

namespace erdwerk::derive {

terrain::Boundary boundaryAlong(const linework::ResolvedLine& line, double sagitta) {
    terrain::Boundary out;
    const auto runs = runsWithHeights(line, sagitta);
    if (line.complete() && runs.size() == 1) {
        for (const auto& p : runs.front()) {
            out.ring.push_back(p.plan());
            out.heights.emplace_back(p.z);
        }
    } else {
        out.ring = geometry::flattened(line.path, sagitta);
        out.heights.resize(out.ring.size());
    }
    if (out.ring.size() > 1 && out.ring.front() == out.ring.back()) {
        out.ring.pop_back();
        out.heights.pop_back();
    }
    return out;
}

}  // namespace erdwerk::derive
