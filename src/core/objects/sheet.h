#pragma once
// A sheet: paper and the frames on it.

#include <array>
#include <map>
#include <set>
#include <string>
#include <variant>
#include <vector>

#include "core/base/quantity.h"
#include "core/geometry/vec.h"
#include "core/objects/kind.h"
#include "core/objects/plan_part.h"
#include "core/paper/room.h"

namespace erdwerk::objects {

/// Landscape width and height of A4 … A0 in millimetres (ISO 216), the name first.
struct PaperSize {
    std::string_view name;
    double width;
    double height;
};
const std::vector<PaperSize>& paperSizes();
/// "A3", "A3 upright", or the millimetres of another.
std::string paperName(const std::array<double, 2>& paper);
/// Round the paper, in millimetres; frames may stand in it, guides do not lead there.
inline constexpr double sheetMargin = 8;

/// What of a plan is drawn besides its parts.
struct ShownInFrame {
    /// A sheet is read on paper, so the figures of single points are left out unless chosen.
    PlanPartsOff off = {PlanPart::PointNumbers, PlanPart::PointHeights};
    /// Groups, label styles and objects that it does not show; none: what the screen's plan shows.
    std::optional<std::set<ObjectId>> hide = {};
    friend bool operator==(const ShownInFrame&, const ShownInFrame&) = default;
};

/// A plan at a true scale.
struct PlanFrame {
    geometry::Vec2 centre;
    double scale = 500;   ///< 1 : scale
    Angle up;             ///< the azimuth that is up on paper; north is 0
    ObjectId along = {};  ///< an alignment that it lies along and follows, instead of centre and up
    double from = 0;      ///< distances along it; where it goes on beyond them stand match lines
    double to = 0;
    ShownInFrame shown = {};
    friend bool operator==(const PlanFrame&, const PlanFrame&) = default;
};
/// A profile with its rows.
struct ProfileFrame {
    ObjectId profile;
    double scale = 500;  ///< along; heights by the exaggeration of the profile
    double from = 0;     ///< distances along its alignment, from the left edge
    double to = 0;       ///< as far as the room goes when not above `from`
    friend bool operator==(const ProfileFrame&, const ProfileFrame&) = default;
};
/// Cross-sections of an alignment, in columns from below upwards.
struct SectionsFrame {
    ObjectId alignment;
    double interval = 20;
    double reach = 10;  ///< to each side
    double scale = 200;
    friend bool operator==(const SectionsFrame&, const SectionsFrame&) = default;
};
/// A table; of a parcel, its courses; of nothing, the sides that stand as tags in the plans of the sheet.
struct TableFrame {
    ObjectId of;
    friend bool operator==(const TableFrame&, const TableFrame&) = default;
};
struct DescriptionFrame {
    ObjectId parcel;
    double letters = 2.6;  ///< millimetres; smaller ones when the text does not fit, down to 1.7
    friend bool operator==(const DescriptionFrame&, const DescriptionFrame&) = default;
};
/// The signs of what the plans of the sheet show.
struct LegendFrame {
    friend bool operator==(const LegendFrame&, const LegendFrame&) = default;
};
/// The whole site small, with the plan frames of all sheets.
struct KeyPlanFrame {
    friend bool operator==(const KeyPlanFrame&, const KeyPlanFrame&) = default;
};
/// North arrow and scale bar of the first plan frame.
struct ScaleFrame {
    friend bool operator==(const ScaleFrame&, const ScaleFrame&) = default;
};
/// A picture, or an SVG as it is.
struct PictureFrame {
    ObjectId artwork;
    friend bool operator==(const PictureFrame&, const PictureFrame&) = default;
};
/// An SVG with its fields filled, at its own proportions.
struct TitleFrame {
    ObjectId artwork;
    friend bool operator==(const TitleFrame&, const TitleFrame&) = default;
};
struct NotesFrame {
    std::string text;
    double letters = 2.6;  ///< millimetres
    friend bool operator==(const NotesFrame&, const NotesFrame&) = default;
};

using FrameContent =
    std::variant<PlanFrame, ProfileFrame, SectionsFrame, TableFrame, DescriptionFrame, LegendFrame,
                 KeyPlanFrame, ScaleFrame, PictureFrame, TitleFrame, NotesFrame>;

/// What is said of a kind of frame, in one place.
struct FrameKind {
    std::string_view id;              ///< in files and on the command line
    std::array<double, 2> usualSize;  ///< millimetres
    const char* title;                ///< for people, to be translated in the context "FrameKind"
    const char* help;                 ///< what it shows, the same
};
/// In the order of FrameContent.
inline constexpr std::array frameKinds{
    FrameKind{"plan", {200, 150}, "Plan frame", "What the plan shows now, true to scale"},
    FrameKind{"profile", {260, 90}, "Profile frame", "A profile with its rows"},
    FrameKind{"section", {260, 190}, "Cross-sections frame", "Sections of an alignment at equal distances"},
    FrameKind{"table", {90, 60}, "Table frame", "A table, or the courses of a parcel"},
    FrameKind{"description", {90, 70}, "Description frame", "The legal description of a parcel"},
    FrameKind{"legend", {90, 60}, "Legend frame", "The signs that the sheet's plans show"},
    FrameKind{"key-plan", {70, 56}, "Key plan frame", "The site small, with the plans of all sheets"},
    FrameKind{"scale", {90, 24}, "Scale and north frame", "Scale bar and north arrow of the first plan"},
    FrameKind{"picture", {90, 70}, "Picture frame", "A picture or drawing that the project holds"},
    FrameKind{"title-block", {96, 42}, "Title block frame", "The title block with the sheet's fields"},
    FrameKind{"notes", {90, 70}, "Notes frame", "A text of your own"}};
static_assert(frameKinds.size() == std::variant_size_v<FrameContent>);

inline const FrameKind& frameKind(const FrameContent& content) {
    return frameKinds[content.index()];
}
/// A fresh one of that kind; nothing for a word that names none.
std::optional<FrameContent> frameContent(std::string_view id);

/// 1 : this, of plans, profiles and cross-sections.
std::optional<double> scaleOf(const FrameContent& content);
/// The object that a frame is of; none for those of the whole sheet. One that names none is left out.
std::vector<ObjectId> framed(const FrameContent& content);

struct Frame {
    paper::Room room;
    FrameContent content;
    friend bool operator==(const Frame&, const Frame&) = default;
};

/// The normal line of each layer of a plan, in millimetres on paper; its other lines in proportion.
struct LineWeights {
    double ground = 0.18;
    double linework = 0.35;
    double routes = 0.35;
    double records = 0.5;
    double points = 0.25;
    friend bool operator==(const LineWeights&, const LineWeights&) = default;
};

struct Sheet {
    std::array<double, 2> paper = {420, 297};        ///< width and height in millimetres
    std::vector<Frame> frames;                       ///< the later ones over the earlier
    std::map<std::string, std::string> fields = {};  ///< what is typed for the fields of its title block
    LineWeights weights = {};
    friend bool operator==(const Sheet&, const Sheet&) = default;
};
/// All of the paper.
paper::Room paperRoom(const Sheet& sheet);
/// Within the margin.
paper::Room innerRoom(const Sheet& sheet);

template <>
struct Kind<Sheet> : HasNoParts<Sheet> {
    static constexpr std::string_view name = "sheet";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Sheet& object, const Visit& visit);
    static std::optional<Sheet> without(Sheet object, ObjectId gone);
};

}  // namespace erdwerk::objects
