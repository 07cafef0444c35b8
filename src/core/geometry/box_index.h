#pragma once
// Static spatial index over boxes (an R-tree packed once).

#include <cstdint>
#include <functional>
#include <memory>
#include <span>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

/// Immutable after construction, so it may be shared between threads. Building costs O(n log n), a query
/// O(log n + hits).
class BoxIndex {
public:
    BoxIndex();
    explicit BoxIndex(std::span<const Box> boxes);
    /// Calls `visit` with the position of each box that meets `window`; it returns false to stop.
    void query(const Box& window, const std::function<bool(std::uint32_t)>& visit) const;

private:
    struct Tree;
    std::shared_ptr<const Tree> tree_;
};

}  // namespace erdwerk::geometry
