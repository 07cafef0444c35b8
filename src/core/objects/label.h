#pragma once
// A label.

#include "core/annotate/label_style.h"
#include "core/geometry/vec.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

/// Anchored to a part of an object, or to a place on it; goes when that goes.
struct Label {
    /// What it holds on to: a side of a line or an element of an alignment; a vertex of a line or a point of
    /// a set; all of a parcel; a place on a surface, or a distance along an alignment with an offset to the
    /// right.
    enum class On { Side, Vertex, Whole, Place };
    ObjectId target;
    std::size_t part = 0;
    ObjectId style;
    On on = On::Side;
    geometry::Vec2 at{};  ///< for On::Place: easting and northing, or distance and offset
    /// Moved by hand: from what it is about to the middle of its texts, in project units.
    std::optional<geometry::Vec2> moved = {};
    std::optional<annotate::LabelStyle> own = {};  ///< changed by hand: written so, whatever its style says
    std::string words = {};                        ///< typed by hand, with fields in braces; empty: none
    [[nodiscard]] bool byHand() const { return moved || own || !words.empty(); }
    friend bool operator==(const Label&, const Label&) = default;
};
/// "side", "vertex", "whole", "place": as stored in files.
std::string_view labelOnName(Label::On on);

template <>
struct Kind<Label> {
    static constexpr std::string_view name = "label";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Label& object, const Visit& visit);
    static std::optional<Label> without(const Label& object, ObjectId gone);
    static std::optional<Label> carried(Label object, const Carry& carry, std::vector<std::string>* lost);
};

}  // namespace erdwerk::objects
