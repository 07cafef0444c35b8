#pragma once
// A label.

#include "core/objects/kind.h"

namespace erdwerk::objects {

/// Anchored to a side of a line (segment of its plan path) or a point of a set; goes when that goes.
struct Label {
    ObjectId target;
    std::size_t part = 0;
    ObjectId style;
    friend bool operator==(const Label&, const Label&) = default;
};

template <>
struct Kind<Label> {
    static constexpr std::string_view name = "label";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Label& object, const Visit& visit);
    static std::optional<Label> without(Label object, ObjectId gone);
    static std::optional<Label> carried(Label object, const Carry& carry, std::vector<std::string>* lost);
};

}  // namespace erdwerk::objects
