#pragma once
// A 3D line.

#include "core/linework/line3d.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

/// How a line is drawn: a crest has hachures on its downhill side, a toe is dashed.
enum class LineStyle { Plain, Crest, Toe };
std::string_view styleName(LineStyle style);

struct Line {
    linework::Line3D line;
    LineStyle style = LineStyle::Plain;
};

template <>
struct Kind<Line> : HasNoParts<Line> {
    static constexpr std::string_view name = "line";
    static constexpr std::optional<Role> sourceRole = Role::Breakline;
    static void references(const Line& object, const Visit& visit);
    static std::optional<Line> without(Line object, ObjectId gone);
};

}  // namespace erdwerk::objects
