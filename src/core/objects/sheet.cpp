#include "core/objects/sheet.h"

#include <algorithm>
#include <cmath>

#include "core/base/display.h"

namespace erdwerk::objects {

namespace {

/// The object that a frame is of; nothing for frames of none.
struct ObjectOfFrame {
    std::optional<ObjectId> operator()(const ProfileFrame& f) const { return f.profile; }
    std::optional<ObjectId> operator()(const SectionsFrame& f) const { return f.alignment; }
    std::optional<ObjectId> operator()(const TableFrame& f) const { return f.of; }
    std::optional<ObjectId> operator()(const DescriptionFrame& f) const { return f.parcel; }
    std::optional<ObjectId> operator()(const PictureFrame& f) const { return f.artwork; }
    std::optional<ObjectId> operator()(const TitleFrame& f) const { return f.artwork; }
    std::optional<ObjectId> operator()(const PlanFrame&) const { return {}; }
    std::optional<ObjectId> operator()(const LegendFrame&) const { return {}; }
    std::optional<ObjectId> operator()(const KeyPlanFrame&) const { return {}; }
    std::optional<ObjectId> operator()(const ScaleFrame&) const { return {}; }
    std::optional<ObjectId> operator()(const NotesFrame&) const { return {}; }
};

template <std::size_t I = 0>
std::optional<FrameContent> fresh(std::string_view id) {
    if constexpr (I == std::variant_size_v<FrameContent>) {
        (void)id;
        return std::nullopt;
    } else {
        if (id == frameKinds[I].id) return FrameContent(std::in_place_index<I>);
        return fresh<I + 1>(id);
    }
}

}  // namespace

const std::vector<PaperSize>& paperSizes() {
    static const std::vector<PaperSize> all{
        {"A4", 297, 210}, {"A3", 420, 297}, {"A2", 594, 420}, {"A1", 841, 594}, {"A0", 1189, 841}};
    return all;
}

std::string paperName(const std::array<double, 2>& paper) {
    for (const auto& size : paperSizes()) {
        const auto is = [&](double w, double h) {
            return std::abs(paper[0] - w) < 0.01 && std::abs(paper[1] - h) < 0.01;
        };
        if (is(size.width, size.height)) return std::string(size.name);
        if (is(size.height, size.width)) return std::string(size.name) + " upright";
    }
    return formatExact(paper[0]) + " x " + formatExact(paper[1]);
}

std::optional<FrameContent> frameContent(std::string_view id) {
    return fresh(id);
}

std::optional<double> scaleOf(const FrameContent& content) {
    if (const auto* plan = std::get_if<PlanFrame>(&content)) return plan->scale;
    if (const auto* profile = std::get_if<ProfileFrame>(&content)) return profile->scale;
    if (const auto* sections = std::get_if<SectionsFrame>(&content)) return sections->scale;
    return std::nullopt;
}

std::vector<ObjectId> framed(const FrameContent& content) {
    const auto id = std::visit(ObjectOfFrame{}, content);
    return id && *id ? std::vector{*id} : std::vector<ObjectId>{};
}

paper::Room paperRoom(const Sheet& sheet) {
    return {0, 0, sheet.paper[0], sheet.paper[1]};
}

paper::Room innerRoom(const Sheet& sheet) {
    return {sheetMargin, sheetMargin, sheet.paper[0] - 2 * sheetMargin, sheet.paper[1] - 2 * sheetMargin};
}

void Kind<Sheet>::references(const Sheet& object, const Visit& visit) {
    for (const Frame& frame : object.frames) {
        if (const auto* plan = std::get_if<PlanFrame>(&frame.content)) {
            if (plan->along) visit(plan->along);
            if (plan->shown.hide)
                for (const ObjectId id : *plan->shown.hide) visit(id);
        } else if (const auto id = std::visit(ObjectOfFrame{}, frame.content); id && *id) {
            visit(*id);
        }
    }
}

std::optional<Sheet> Kind<Sheet>::without(Sheet object, ObjectId gone) {
    // A frame of what is gone has nothing to show.
    std::erase_if(object.frames,
                  [gone](const Frame& frame) { return std::visit(ObjectOfFrame{}, frame.content) == gone; });
    for (Frame& frame : object.frames)
        if (auto* plan = std::get_if<PlanFrame>(&frame.content)) {
            // It stays where it lay last.
            if (plan->along == gone) plan->along = {};
            if (plan->shown.hide) plan->shown.hide->erase(gone);
        }
    return object;
}

}  // namespace erdwerk::objects
