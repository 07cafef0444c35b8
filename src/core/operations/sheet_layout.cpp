#include "core/operations/sheet_layout.h"

#include <algorithm>
#include <cmath>

#include "core/base/display.h"
#include "core/objects/artwork.h"
#include "core/paper/stretches.h"
#include "core/paper/title_block.h"
#include "core/route/alignment.h"

namespace erdwerk::operations {

using document::Document;
using geometry::Vec2;
using namespace objects;
using paper::Room;

namespace {

constexpr double titleHeight = 42;
constexpr double scaleHeight = 24;
constexpr double profileShare = 0.42;

/// Of the panel beside the plan; small paper gets a narrower one.
double panelWidth(const std::array<double, 2>& paper) {
    return std::min(96.0, paper[0] * 0.3);
}

Vec2 onGround(Vec2 centre, Angle up, double perMillimetre, double right, double upwards) {
    const double s = std::sin(up.radians());
    const double c = std::cos(up.radians());
    return centre + Vec2{c, -s} * (right * perMillimetre) + Vec2{s, c} * (upwards * perMillimetre);
}

/// The sheet whose plan goes on where another ends; empty: none.
std::string sheetBeyond(const Document& document, ObjectId along, double distance, bool ahead) {
    for (const ObjectId id : document.all<Sheet>())
        for (const Frame& frame : document.get<Sheet>(id)->frames)
            if (const auto* plan = std::get_if<PlanFrame>(&frame.content);
                plan != nullptr && plan->along == along &&
                std::abs((ahead ? plan->from : plan->to) - distance) < 1e-6)
                return document.nameOf(id);
    return {};
}

std::vector<MatchLine> matchLines(const Derived& derived, const PlanFrame& frame,
                                  const route::AlignmentGeometry& a, double reach) {
    std::vector<MatchLine> out;
    const auto add = [&](double distance, bool ahead) {
        const auto at = geometry::positionAt(a.path, distance);
        const Vec2 right = geometry::directionOf(at.direction + Angle::degrees(90));
        out.push_back({at.place, at.place - right * reach, at.place + right * reach,
                       a.stationing.stationAt(distance),
                       sheetBeyond(derived.document, frame.along, distance, ahead), ahead});
    };
    // An alignment that became shorter goes on nowhere.
    if (frame.from > 1e-6 && frame.from < a.length) add(frame.from, false);
    if (frame.to < a.length - 1e-6) add(frame.to, true);
    return out;
}

}  // namespace

Room startedPlanRoom(const std::array<double, 2>& paper, bool withProfile) {
    const double height = paper[1] - 2 * sheetMargin;
    return {sheetMargin, sheetMargin, paper[0] - 2 * sheetMargin - panelWidth(paper),
            withProfile ? height * (1 - profileShare) : height};
}

Sheet startedSheet(const SheetStart& start) {
    Sheet out;
    out.paper = start.paper;
    const Room plan = startedPlanRoom(start.paper, static_cast<bool>(start.profile));
    if (start.sections.alignment)
        out.frames.push_back({plan, start.sections});
    else
        out.frames.push_back({plan, start.plan});
    if (start.profile)
        out.frames.push_back(
            {{plan.left, plan.bottom(), plan.width, start.paper[1] - sheetMargin - plan.bottom()},
             ProfileFrame{start.profile, start.plan.scale, 0, 0}});
    const double inset = 3;
    const double left = plan.right() + inset;
    const double width = panelWidth(start.paper) - 2 * inset;
    double y = sheetMargin + inset;
    if (!start.sections.alignment) {
        out.frames.push_back({{left, y, width, scaleHeight}, ScaleFrame{}});
        y += scaleHeight + inset;
    }
    const double bottom = start.paper[1] - sheetMargin - titleHeight;
    // What stands between shares the room: tables three parts, tags two, the description four.
    std::vector<std::pair<double, FrameContent>> between;
    if (start.parcel) between.emplace_back(3, TableFrame{start.parcel});
    for (const ObjectId table : start.tables) between.emplace_back(3, TableFrame{table});
    if (!start.sections.alignment) between.emplace_back(2, TableFrame{});
    if (start.parcel) between.emplace_back(4, DescriptionFrame{start.parcel});
    double parts = 0;
    for (const auto& [part, content] : between) parts += part;
    for (const auto& [part, content] : between) {
        const double height = (bottom - inset - y) * part / parts;
        out.frames.push_back({{left, y, width, std::max(paper::leastRoom, height - inset)}, content});
        y += height;
        parts -= part;
    }
    out.frames.push_back({{plan.right(), bottom, panelWidth(start.paper), titleHeight}, TitleFrame{}});
    return out;
}

PlanOnPaper planOnPaper(const Derived& derived, const PlanFrame& frame, const Room& room) {
    PlanOnPaper out{frame.centre, frame.scale, frame.up, {}, {}};
    const double perMillimetre = frame.scale / 1000 / metresPer(derived.document.settings().display.unit);
    const auto* a = frame.along ? Derived::in(derived.alignments, frame.along) : nullptr;
    if (a != nullptr && !a->path.empty()) {
        const double from = std::clamp(frame.from, 0.0, a->length);
        const auto lies = paper::turnedAlong(a->path, from, std::clamp(frame.to, from, a->length));
        out.centre = lies.centre;
        out.up = lies.up;
        out.matchLines = matchLines(derived, frame, *a, std::hypot(room.width, room.height) * perMillimetre);
    }
    const double w = room.width / 2;
    const double h = room.height / 2;
    out.corners = {onGround(out.centre, out.up, perMillimetre, -w, h),
                   onGround(out.centre, out.up, perMillimetre, w, h),
                   onGround(out.centre, out.up, perMillimetre, w, -h),
                   onGround(out.centre, out.up, perMillimetre, -w, -h)};
    return out;
}

std::vector<FrameOutline> planOutlines(const Derived& derived) {
    std::vector<FrameOutline> out;
    for (const ObjectId id : derived.document.all<Sheet>()) {
        const auto& frames = derived.document.get<Sheet>(id)->frames;
        for (std::size_t i = 0; i < frames.size(); ++i)
            if (const auto* plan = std::get_if<PlanFrame>(&frames[i].content))
                out.push_back({id, i, planOnPaper(derived, *plan, frames[i].room).corners});
    }
    return out;
}

std::map<std::string, std::string> titleValues(const Document& document, ObjectId id) {
    const auto& sheet = *document.get<Sheet>(id);
    std::map<std::string, std::string> out = sheet.fields;
    const auto all = document.all<Sheet>();
    out["sheet"] = document.nameOf(id);
    out["number"] = std::to_string(1 + std::distance(all.begin(), std::find(all.begin(), all.end(), id)));
    out["of"] = std::to_string(all.size());
    out["unit"] = std::string(unitSymbol(document.settings().display.unit));
    out["name"] = document.settings().name;
    std::vector<double> scales;
    for (const Frame& frame : sheet.frames) {
        const auto scale = objects::scaleOf(frame.content);
        if (scale && std::find(scales.begin(), scales.end(), *scale) == scales.end())
            scales.push_back(*scale);
    }
    std::string text;
    for (const double scale : scales) text += (text.empty() ? "1 : " : ", 1 : ") + formatExact(scale);
    out["scale"] = scales.size() > 2 ? "as shown" : text;
    return out;
}

std::vector<std::string> typedFields(const Document& document, const Sheet& sheet) {
    std::vector<std::string> out;
    for (const Frame& frame : sheet.frames) {
        const auto* title = std::get_if<TitleFrame>(&frame.content);
        if (title == nullptr) continue;
        const auto* artwork = document.get<Artwork>(title->artwork);
        const auto block = paper::readTitleBlock(artwork == nullptr ? paper::shippedTitleBlock()
                                                                    : std::string_view(*artwork->bytes));
        if (!block) continue;
        for (const auto& field : block->fields) {
            const auto& computed = paper::computedFields();
            if (std::find(computed.begin(), computed.end(), field) == computed.end() &&
                std::find(out.begin(), out.end(), field) == out.end())
                out.push_back(field);
        }
    }
    return out;
}

std::string frameName(const Sheet& sheet, std::size_t frame) {
    const auto& content = sheet.frames[frame].content;
    std::string name(frameKind(content).id);
    std::replace(name.begin(), name.end(), '-', ' ');
    name.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(name.front())));
    std::size_t same = 0;
    std::size_t number = 0;
    for (std::size_t i = 0; i < sheet.frames.size(); ++i)
        if (sheet.frames[i].content.index() == content.index()) {
            ++same;
            if (i <= frame) ++number;
        }
    return same < 2 ? name : name + " " + std::to_string(number);
}

std::string frameTitle(const Document& document, const Sheet& sheet, std::size_t frame) {
    std::string out = frameName(sheet, frame);
    std::string of;
    for (const ObjectId id : framed(sheet.frames[frame].content))
        if (document.find(id)) of = document.nameOf(id);
    if (of.empty()) return out;
    const bool courses = std::holds_alternative<TableFrame>(sheet.frames[frame].content) &&
                         document.get<Parcel>(framed(sheet.frames[frame].content).front()) != nullptr;
    return out + (courses ? ": courses of " : ": ") + of;
}

}  // namespace erdwerk::operations
