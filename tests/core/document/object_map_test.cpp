#include "core/document/object_map.h"

#include <gtest/gtest.h>

#include <map>
#include <random>

#include "core/objects/group.h"

namespace erdwerk::document {
namespace {

using Plain = std::map<ObjectId, ObjectMap::Shared>;

ObjectMap::Shared object(std::uint64_t id) {
    return std::make_shared<const Object>(Object{{id}, "G", {}, objects::Group{}});
}

void expectEqual(const ObjectMap& map, const Plain& plain) {
    ASSERT_EQ(map.size(), plain.size());
    auto expected = plain.begin();
    for (const auto& [id, held] : map) {
        ASSERT_NE(expected, plain.end());
        EXPECT_EQ(id, expected->first);
        EXPECT_EQ(held, expected->second);
        ++expected;
    }
    EXPECT_EQ(expected, plain.end());
}

/// Id by id.
ObjectMap::Difference differenceOf(const Plain& before, const Plain& after) {
    ObjectMap::Difference out;
    for (const auto& [id, held] : after) {
        const auto was = before.find(id);
        if (was == before.end() || was->second != held) out.changed.push_back(id);
    }
    for (const auto& [id, held] : before)
        if (after.count(id) == 0) out.removed.push_back(id);
    return out;
}

TEST(ObjectMap, HoldsWhatAnOrdinaryMapHoldsAndCopiesKeepTheirs) {
    for (unsigned seed = 0; seed < 60; ++seed) {
        std::mt19937 random(seed);
        // Ids that are close together, and far apart.
        std::uniform_int_distribution<std::uint64_t> ids(1, seed % 2 == 0 ? 300 : 100'000);
        ObjectMap map;
        Plain plain;
        std::vector<std::pair<ObjectMap, Plain>> kept;
        for (int i = 0; i < 400; ++i) {
            const std::uint64_t id = ids(random);
            if (random() % 3 == 0) {
                map.erase({id});
                plain.erase({id});
            } else {
                const auto fresh = object(id);
                map.set(fresh);
                plain[{id}] = fresh;
            }
            EXPECT_EQ(map.find({id}) == map.end(), plain.count({id}) == 0) << "seed " << seed;
            if (i % 50 == 0) kept.emplace_back(map, plain);
        }
        expectEqual(map, plain);
        for (const auto& [copy, then] : kept) {
            expectEqual(copy, then);
            const auto found = ObjectMap::difference(copy, map);
            const auto expected = differenceOf(then, plain);
            EXPECT_EQ(found.changed, expected.changed) << "seed " << seed;
            EXPECT_EQ(found.removed, expected.removed) << "seed " << seed;
        }
    }
}

TEST(ObjectMap, EmptyOnesAndThoseOfTheSameObjectsAreEqual) {
    ObjectMap a;
    ObjectMap b;
    EXPECT_TRUE(a == b);
    EXPECT_EQ(a.begin(), a.end());
    EXPECT_EQ(a.find({7}), a.end());
    const auto held = object(200);
    a.set(held);
    EXPECT_FALSE(a == b);
    b.set(held);
    EXPECT_TRUE(a == b);
    b.set(object(200));
    EXPECT_FALSE(a == b);
    a.erase({200});
    EXPECT_TRUE(a.empty());
    a.erase({200});
    EXPECT_EQ(a.size(), 0U);
}

}  // namespace
}  // namespace erdwerk::document
