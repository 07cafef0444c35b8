#include "core/document/object_map.h"

#include <algorithm>
#include <atomic>

namespace erdwerk::document {

namespace {

constexpr std::uint64_t idsInBlock = 64;

constexpr auto idBelow = [](const ObjectMap::value_type& entry, ObjectId id) { return entry.first < id; };

/// What two runs of objects, in the order of their ids, do not have in common.
template <class Run>
void compare(const Run& was, const Run& is, ObjectMap::Difference& out) {
    auto w = was.begin();
    auto i = is.begin();
    while (w != was.end() || i != is.end()) {
        if (i == is.end() || (w != was.end() && w->first < i->first)) {
            out.removed.push_back((w++)->first);
        } else if (w == was.end() || i->first < w->first) {
            out.changed.push_back((i++)->first);
        } else {
            if (w->second != i->second) out.changed.push_back(i->first);
            ++w;
            ++i;
        }
    }
}

}  // namespace

/// The block in which an id stands, or would: the first of this number or above.
std::size_t ObjectMap::blockOf(ObjectId id) const {
    const auto it = std::lower_bound(blocks_.begin(), blocks_.end(), id.value / idsInBlock,
                                     [](const auto& block, std::uint64_t n) { return block->number < n; });
    return static_cast<std::size_t>(it - blocks_.begin());
}

ObjectMap::const_iterator ObjectMap::find(ObjectId id) const {
    const std::size_t at = blockOf(id);
    if (at == blocks_.size() || blocks_[at]->number != id.value / idsInBlock) return end();
    const auto& objects = blocks_[at]->objects;
    const auto it = std::lower_bound(objects.begin(), objects.end(), id, idBelow);
    if (it == objects.end() || it->first != id) return end();
    return {blocks_, at, static_cast<std::size_t>(it - objects.begin())};
}

/// A block that nobody else has: only such a one is written to. (Whoever could share it meanwhile would have
/// to copy this map, which is being changed.)
ObjectMap::Block& ObjectMap::own(std::size_t block) {
    auto& held = blocks_[block];
    if (held.use_count() > 1) held = std::make_shared<Block>(*held);
    // What another thread read before it let go comes before what is written here.
    std::atomic_thread_fence(std::memory_order_acquire);
    return *held;
}

void ObjectMap::set(Shared object) {
    const ObjectId id = object->id;
    const std::size_t at = blockOf(id);
    const std::uint64_t number = id.value / idsInBlock;
    if (at == blocks_.size() || blocks_[at]->number != number)
        blocks_.insert(blocks_.begin() + static_cast<std::ptrdiff_t>(at),
                       std::make_shared<Block>(Block{number, {}}));
    auto& objects = own(at).objects;
    const auto it = std::lower_bound(objects.begin(), objects.end(), id, idBelow);
    if (it != objects.end() && it->first == id) {
        it->second = std::move(object);
        return;
    }
    objects.emplace(it, id, std::move(object));
    ++size_;
}

void ObjectMap::erase(ObjectId id) {
    if (find(id) == end()) return;
    const std::size_t at = blockOf(id);
    --size_;
    if (blocks_[at]->objects.size() == 1) {
        blocks_.erase(blocks_.begin() + static_cast<std::ptrdiff_t>(at));
        return;
    }
    auto& objects = own(at).objects;
    objects.erase(std::lower_bound(objects.begin(), objects.end(), id, idBelow));
}

ObjectMap::Difference ObjectMap::difference(const ObjectMap& before, const ObjectMap& after) {
    static const std::vector<value_type> none;
    Difference out;
    auto b = before.blocks_.begin();
    auto a = after.blocks_.begin();
    while (b != before.blocks_.end() || a != after.blocks_.end()) {
        if (a == after.blocks_.end() || (b != before.blocks_.end() && (*b)->number < (*a)->number)) {
            compare((*b++)->objects, none, out);
        } else if (b == before.blocks_.end() || (*a)->number < (*b)->number) {
            compare(none, (*a++)->objects, out);
        } else {
            if (*a != *b) compare((*b)->objects, (*a)->objects, out);
            ++a;
            ++b;
        }
    }
    return out;
}

bool operator==(const ObjectMap& a, const ObjectMap& b) {
    if (a.size_ != b.size_) return false;
    return std::equal(a.blocks_.begin(), a.blocks_.end(), b.blocks_.begin(), b.blocks_.end(),
                      [](const auto& x, const auto& y) { return x == y || x->objects == y->objects; });
}

}  // namespace erdwerk::document
