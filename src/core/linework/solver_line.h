#pragma once
// A line among those that ask each other, while it is being worked out.

#include <map>
#include <optional>
#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct SolverLine {
    enum class Progress { Open, Busy, Done };

    ObjectId id;
    const Line3D* line = nullptr;
    ResolvedLine out;
    std::vector<Progress> progress;
    /// By vertex: its distance, or where a place that is solved stands in the order of the others.
    std::vector<double> key;
    std::vector<std::size_t> all;                   ///< vertices by key
    std::vector<std::size_t> controls;              ///< controls by key
    std::vector<std::size_t> rank;                  ///< of a control among them
    std::map<std::size_t, Result<double>> crossed;  ///< by vertex: distance along the line that is crossed
    std::map<std::size_t, std::optional<ResolvedCurve>> curves;  ///< by vertex, as far as it was asked

    /// Puts vertices in their order, once those that cross other lines have their places.
    void arrange();
};

}  // namespace erdwerk::linework
