#pragma once
// Rows that are made beside a line in one go, kept by name: a kerb, a ditch, a wall.

#include "core/linework/offset.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

struct OffsetSet {
    std::vector<linework::OffsetRow> rows;
    linework::OffsetOptions options;
    friend bool operator==(const OffsetSet&, const OffsetSet&) = default;
};

template <>
struct Kind<OffsetSet> : StandsAlone<OffsetSet> {
    static constexpr std::string_view name = "offset-set";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
