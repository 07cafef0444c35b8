#pragma once
// A dimension, tied to what it measures.

#include "core/annotate/dimension.h"
#include "core/objects/anchor.h"

namespace erdwerk::objects {

/// Stays when what it measures goes: a finding then says so.
struct Dimension {
    annotate::DimensionKind kind = annotate::DimensionKind::Aligned;
    std::vector<Anchor> anchors;
    annotate::DimensionLine line;
    ObjectId style;  ///< may be none: the plain one
    friend bool operator==(const Dimension&, const Dimension&) = default;
};

template <>
struct Kind<Dimension> {
    static constexpr std::string_view name = "dimension";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Dimension& object, const Visit& visit);
    static std::optional<Dimension> without(Dimension object, ObjectId gone);
    static std::optional<Dimension> carried(Dimension object, const Carry& carry,
                                            std::vector<std::string>* lost);
};

}  // namespace erdwerk::objects
