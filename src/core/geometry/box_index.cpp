#include "core/geometry/box_index.h"

#include <boost/geometry.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <utility>
#include <vector>

namespace erdwerk::geometry {

namespace bg = boost::geometry;
using Point = bg::model::d2::point_xy<double>;
using BgBox = bg::model::box<Point>;
using Entry = std::pair<BgBox, std::uint32_t>;

struct BoxIndex::Tree {
    bg::index::rtree<Entry, bg::index::rstar<16>> tree;
};

namespace {
BgBox toBg(const Box& b) {
    return {{b.minX, b.minY}, {b.maxX, b.maxY}};
}
}  // namespace

BoxIndex::BoxIndex() : tree_(std::make_shared<Tree>()) {}

BoxIndex::BoxIndex(std::span<const Box> boxes) {
    std::vector<Entry> entries;
    entries.reserve(boxes.size());
    for (std::size_t i = 0; i < boxes.size(); ++i)
        if (!boxes[i].empty()) entries.emplace_back(toBg(boxes[i]), static_cast<std::uint32_t>(i));
    tree_ = std::make_shared<Tree>(Tree{decltype(Tree::tree)(entries.begin(), entries.end())});
}

void BoxIndex::query(const Box& window, const std::function<bool(std::uint32_t)>& visit) const {
    if (window.empty()) return;
    for (auto it = tree_->tree.qbegin(bg::index::intersects(toBg(window))); it != tree_->tree.qend(); ++it)
        if (!visit(it->second)) return;
}

}  // namespace erdwerk::geometry
