#pragma once
// A plan sheet.

#include <array>
#include <string>

#include "core/base/quantity.h"
#include "core/geometry/vec.h"
#include "core/objects/kind.h"
#include "core/objects/plan_part.h"

namespace erdwerk::objects {

enum class Paper { A4, A3, A1 };
/// Landscape width and height in millimetres (ISO 216).
std::array<double, 2> paperSize(Paper paper);
std::string_view paperName(Paper paper);
/// Around the sheet's content, in millimetres.
inline constexpr double sheetMargin = 8;
/// Of the panel on the right with table, description and title block, in millimetres. Small paper gets a
/// narrower one.
double panelWidth(Paper paper);
/// Width and height of what shows the plan, in millimetres.
std::array<double, 2> planSize(Paper paper);

/// Cross-sections of an alignment, in rows from the left, in place of the plan.
struct SheetSections {
    ObjectId alignment;  ///< none: the plan is shown
    double interval = 20;
    double reach = 10;  ///< to each side
    friend bool operator==(const SheetSections&, const SheetSections&) = default;
};

struct Sheet {
    Paper paper = Paper::A3;
    double scale = 500;  ///< 1 : scale
    geometry::Vec2 centre;
    ObjectId parcel;  ///< whose course table and description it shows; may be none
    std::string project;
    std::string title;
    std::string drawnBy;
    std::string date;
    /// Of the plan: a sheet is read on paper, so the figures of single points are left out unless chosen.
    PlanPartsOff off = {PlanPart::PointNumbers, PlanPart::PointHeights};
    ObjectId profile = {};  ///< drawn under the plan, at its scale; may be none
    SheetSections sections = {};
    std::vector<ObjectId> tables = {};  ///< in the panel, below each other
};
/// How much of the plan's height a profile takes.
inline constexpr double profileShare = 0.42;
/// Of what shows the plan of a sheet, in millimetres: less where a profile stands under it.
std::array<double, 2> planSize(const Sheet& sheet);

/// The part of the ground that a sheet shows.
geometry::Box groundOf(const Sheet& sheet, LengthUnit unit);

template <>
struct Kind<Sheet> : HasNoParts<Sheet> {
    static constexpr std::string_view name = "sheet";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Sheet& object, const Visit& visit);
    static std::optional<Sheet> without(Sheet object, ObjectId gone);
};

}  // namespace erdwerk::objects
