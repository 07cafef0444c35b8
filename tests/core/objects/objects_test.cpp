// Walks over all kinds of objects: each has JSON that comes back field by field, says what it names, and what
// becomes of it when that goes.

#include <nlohmann/json.hpp>

#include "core/document/document.h"
#include "core/format/object_json.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/samples.h"
#include "core/objects/surface.h"

namespace erdwerk::objects {
namespace {

template <class T>
class EveryKind : public testing::Test {};

template <class>
struct TypesOf;
template <class... T>
struct TypesOf<objects::KindList<T...>> {
    using Type = testing::Types<T...>;
};
using AllKinds = TypesOf<Kinds>::Type;
TYPED_TEST_SUITE(EveryKind, AllKinds);

Object objectOf(Payload payload) {
    return {{7}, "a \"name\" ü", {9}, std::move(payload)};
}

TYPED_TEST(EveryKind, ComesBackFromJsonFieldByField) {
    const Object object = objectOf(Sample<TypeParam>::make());
    // Through the text, as in a file.
    const auto j = nlohmann::json::parse(format::toJson(object).dump());
    const Object back = valueOf(format::objectFromJson(j));
    EXPECT_EQ(back.id, object.id);
    EXPECT_EQ(back.name, object.name);
    EXPECT_EQ(back.group, object.group);
    ASSERT_TRUE(back.payload.is<TypeParam>());
    EXPECT_TRUE(Sample<TypeParam>::same(*back.payload.as<TypeParam>(), *object.payload.as<TypeParam>())) << j;
}

TYPED_TEST(EveryKind, RefusesWrongTypesInItsJson) {
    const auto whole = format::toJson(objectOf(Sample<TypeParam>::make()));
    for (const auto& [key, value] : whole.items()) {
        if (key == "keeps") continue;
        auto broken = whole;
        broken[key] = value.is_boolean() ? nlohmann::json("yes") : nlohmann::json(true);
        EXPECT_FALSE(format::objectFromJson(broken)) << key;
        broken[key] = nlohmann::json::object({{"x", nullptr}});
        EXPECT_FALSE(format::objectFromJson(broken)) << key;
    }
}

TYPED_TEST(EveryKind, SaysWhatItNames) {
    EXPECT_EQ(references(Sample<TypeParam>::make()).size(), Sample<TypeParam>::names());
}

TYPED_TEST(EveryKind, NoLongerNamesWhatIsGoneOrGoesWithIt) {
    const Payload payload = Sample<TypeParam>::make();
    for (const ObjectId gone : references(payload)) {
        const auto next = without(payload, gone);
        if (!next) continue;
        for (const ObjectId id : references(*next))
            // Lines keep their rules: the checks say what is missing.
            EXPECT_TRUE(id != gone || payload.is<Line>());
    }
}

TYPED_TEST(EveryKind, HasANameOfItsOwnInFiles) {
    const auto names = []<class... T>(KindList<T...>) {
        return std::vector<std::string_view>{Kind<T>::name...};
    }(Kinds{});
    EXPECT_EQ(std::count(names.begin(), names.end(), Kind<TypeParam>::name), 1);
    EXPECT_EQ(kindName(Payload(Sample<TypeParam>::make())), Kind<TypeParam>::name);
}

TYPED_TEST(EveryKind, SaysWhatItCanBeToASurface) {
    const std::map<std::string_view, Role> roles{{"points", Role::Points},
                                                 {"line", Role::Breakline},
                                                 {"group", Role::Breakline},
                                                 {"cloud", Role::Cloud},
                                                 {"raster", Role::Raster}};
    const auto it = roles.find(Kind<TypeParam>::name);
    EXPECT_EQ(sourceRole(Payload(Sample<TypeParam>::make())),
              it == roles.end() ? std::nullopt : std::optional(it->second));
}

TEST(Roles, AreOfLinesOrOfPointsAndSomeAreRings) {
    for (const Role role : allRoles) {
        const bool listed = std::find(lineRoles.begin(), lineRoles.end(), role) != lineRoles.end();
        EXPECT_EQ(isLineRole(role), listed) << roleName(role);
        EXPECT_TRUE(!isRing(role) || listed) << roleName(role);
    }
}

}  // namespace
}  // namespace erdwerk::objects
