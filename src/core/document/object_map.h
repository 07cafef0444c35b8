#pragma once
// The objects of a document, by id. Copies share what they have in common: objects stand in blocks of 64 ids,
// a copy costs a pointer for each block, a change one block, and two maps of which one came from the other
// are compared by the blocks in which they differ.

#include <array>
#include <cstddef>
#include <iterator>
#include <memory>
#include <utility>
#include <vector>

#include "core/objects/object.h"

namespace erdwerk::document {

using objects::Object;

class ObjectMap {
public:
    using Shared = std::shared_ptr<const Object>;
    using value_type = std::pair<ObjectId, Shared>;

private:
    struct Block {
        std::uint64_t number = 0;         ///< of the ids in it, divided by 64
        std::vector<value_type> objects;  ///< in the order of their ids; never empty
    };
    using Blocks = std::vector<std::shared_ptr<Block>>;

public:
    class const_iterator {
    public:
        using iterator_category = std::forward_iterator_tag;
        using value_type = ObjectMap::value_type;
        using difference_type = std::ptrdiff_t;
        using pointer = const value_type*;
        using reference = const value_type&;

        const_iterator() = default;
        reference operator*() const { return (*blocks_)[block_]->objects[at_]; }
        pointer operator->() const { return &**this; }
        const_iterator& operator++() {
            if (++at_ == (*blocks_)[block_]->objects.size()) {
                ++block_;
                at_ = 0;
            }
            return *this;
        }
        const_iterator operator++(int) {
            auto before = *this;
            ++*this;
            return before;
        }
        friend bool operator==(const const_iterator& a, const const_iterator& b) {
            return a.block_ == b.block_ && a.at_ == b.at_;
        }

    private:
        friend class ObjectMap;
        const_iterator(const Blocks& blocks, std::size_t block, std::size_t at)
            : blocks_(&blocks), block_(block), at_(at) {}
        const Blocks* blocks_ = nullptr;
        std::size_t block_ = 0;
        std::size_t at_ = 0;
    };

    [[nodiscard]] const_iterator begin() const { return {blocks_, 0, 0}; }
    [[nodiscard]] const_iterator end() const { return {blocks_, blocks_.size(), 0}; }
    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] bool empty() const { return size_ == 0; }
    /// end() when there is none; costs two binary searches.
    [[nodiscard]] const_iterator find(ObjectId id) const;
    /// Adds or replaces, by the object's id.
    void set(Shared object);
    /// Nothing when there is none.
    void erase(ObjectId id);

    /// Ids whose objects differ, in order: those that `after` has otherwise or alone, and those it has no
    /// more.
    struct Difference {
        std::vector<ObjectId> changed;
        std::vector<ObjectId> removed;
    };
    static Difference difference(const ObjectMap& before, const ObjectMap& after);
    /// The same objects themselves, not such that are equal.
    friend bool operator==(const ObjectMap& a, const ObjectMap& b);

private:
    [[nodiscard]] std::size_t blockOf(ObjectId id) const;
    Block& own(std::size_t block);

    Blocks blocks_;  ///< by number
    std::size_t size_ = 0;
};

}  // namespace erdwerk::document
