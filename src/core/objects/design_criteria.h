#pragma once
// Limits that designs are checked against, kept by name.

#include "core/objects/kind.h"
#include "core/route/criteria.h"

namespace erdwerk::objects {

struct DesignCriteria {
    route::Criteria criteria;
    friend bool operator==(const DesignCriteria&, const DesignCriteria&) = default;
};

template <>
struct Kind<DesignCriteria> : HasNoParts<DesignCriteria> {
    static constexpr std::string_view name = "criteria";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const DesignCriteria&, const Visit&) {}
    static std::optional<DesignCriteria> without(DesignCriteria object, ObjectId) { return object; }
};

}  // namespace erdwerk::objects
