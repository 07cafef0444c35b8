#pragma once
// What stands where on sheets: worked out from frames and results, for whoever paints or checks them.

#include <map>

#include "core/derive/model.h"
#include "core/objects/sheet.h"

namespace erdwerk::operations {

using derive::Derived;

/// The room of the plan and a panel beside it, as a sheet has them at first.
struct SheetStart {
    std::array<double, 2> paper = {420, 297};
    objects::PlanFrame plan;
    ObjectId parcel;                  ///< its courses and description; may be none
    ObjectId profile;                 ///< under the plan; may be none
    objects::SectionsFrame sections;  ///< in place of the plan, when it has an alignment
    std::vector<ObjectId> tables;
};
objects::Sheet startedSheet(const SheetStart& start);
/// Of the plan of such a sheet, in millimetres.
paper::Room startedPlanRoom(const std::array<double, 2>& paper, bool withProfile);

/// Where a plan goes on on another sheet.
struct MatchLine {
    geometry::Vec2 at;    ///< on the alignment
    geometry::Vec2 left;  ///< ends across it
    geometry::Vec2 right;
    double station = 0;  ///< as read on the line
    std::string sheet;   ///< where it goes on; empty: on none
    bool ahead = false;  ///< in the direction of the alignment
};
/// A plan frame as it lies now.
struct PlanOnPaper {
    geometry::Vec2 centre;
    double scale = 500;
    Angle up;
    std::vector<MatchLine> matchLines;
    /// Its corners on the ground, from the upper left clockwise.
    std::array<geometry::Vec2, 4> corners;
};
/// An alignment that gives no line leaves it where it lay last.
PlanOnPaper planOnPaper(const Derived& derived, const objects::PlanFrame& frame, const paper::Room& room);

/// Plan frames of all sheets, in their order.
struct FrameOutline {
    ObjectId sheet;
    std::size_t frame = 0;
    std::array<geometry::Vec2, 4> corners;
};
std::vector<FrameOutline> planOutlines(const Derived& derived);

/// What the fields of its title block say: those that are computed and those that are typed.
std::map<std::string, std::string> titleValues(const document::Document& document, ObjectId sheet);
/// The typed fields that its title block asks for, in their order; those of the shipped one without any.
std::vector<std::string> typedFields(const document::Document& document, const objects::Sheet& sheet);

/// "Plan 2": its kind, with a number where the sheet has several of it.
std::string frameName(const objects::Sheet& sheet, std::size_t frame);
/// The same with what it shows: "Table Courses of Plot Q-4".
std::string frameTitle(const document::Document& document, const objects::Sheet& sheet, std::size_t frame);

}  // namespace erdwerk::operations
