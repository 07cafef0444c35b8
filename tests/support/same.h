#pragma once
// Documents compared field by field.

#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "core/document/document.h"
#include "core/format/object_json.h"

namespace erdwerk::test {

inline void expectSame(const document::Document& a, const document::Document& b) {
    ASSERT_EQ(a.objects().size(), b.objects().size());
    EXPECT_EQ(a.settings(), b.settings());
    EXPECT_EQ(a.shown(), b.shown());
    for (const auto& [id, object] : a.objects()) {
        const auto other = b.find(id);
        ASSERT_TRUE(other) << "object " << id.value << " is missing";
        EXPECT_EQ(format::toJson(*object), format::toJson(*other));
    }
}

}  // namespace erdwerk::test
