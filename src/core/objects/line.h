#pragma once
// A 3D line.

#include <memory>
#include <variant>

#include "core/linework/grade_limits.h"
#include "core/linework/line3d.h"
#include "core/linework/meet.h"
#include "core/linework/offset.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

/// How a line is drawn: a crest has hachures on its downhill side, a toe is dashed.
enum class LineStyle { Plain, Crest, Toe };
std::string_view styleName(LineStyle style);

/// A row that runs beside another line.
struct RowOf {
    ObjectId line;
    linework::OffsetRow row;
    linework::OffsetOptions options;  ///< `chained` says nothing here: a chained row is a row of a row
    ObjectId surface;                 ///< of a row that lies on one
    friend bool operator==(const RowOf&, const RowOf&) = default;
};

/// Where the slopes from two lines meet.
struct MeetingOf {
    ObjectId first;
    ObjectId second;
    linework::MeetOptions options;
    std::size_t part = 0;  ///< of the stretches that they meet along
    friend bool operator==(const MeetingOf&, const MeetingOf&) = default;
};

/// The design of a profile in its place, or a row beside it.
struct DesignOf {
    ObjectId profile;
    linework::OffsetRow row;  ///< from the design; a run of 0 is the design itself
    linework::OffsetOptions options;
    friend bool operator==(const DesignOf&, const DesignOf&) = default;
};

/// The closed figure that lines make round a place.
struct FigureOf {
    std::vector<ObjectId> lines;
    geometry::Vec2 inside;
    friend bool operator==(const FigureOf&, const FigureOf&) = default;
};

using Follows = std::variant<RowOf, MeetingOf, DesignOf, FigureOf>;
/// A line that follows the figure of others; null for any other line.
const FigureOf* figureOf(const struct Line& line);

struct Line {
    /// Of a line that follows others: its shape in plan as the last edit left it, without heights; results
    /// have the line itself.
    linework::Line3D line;
    LineStyle style = LineStyle::Plain;
    /// What it is made of, when it follows other lines; shared because most lines follow nothing.
    std::shared_ptr<const Follows> follows = {};
    linework::GradeLimits limits = {};
};

bool sameFollows(const Line& a, const Line& b);

template <>
struct Kind<Line> : HasNoParts<Line> {
    static constexpr std::string_view name = "line";
    static constexpr std::optional<Role> sourceRole = Role::Breakline;
    static void references(const Line& object, const Visit& visit);
    static std::optional<Line> without(Line object, ObjectId gone);
};

}  // namespace erdwerk::objects
