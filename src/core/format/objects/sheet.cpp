#include <cmath>

#include "core/format/objects/json_kind.h"
#include "core/operations/sheet_layout.h"

namespace erdwerk::format {

using namespace objects;

namespace {

double positive(const json& value, const char* what) {
    const double v = figure(value);
    if (!std::isfinite(v) || !(v > 0)) throw std::runtime_error(std::string(what) + " is not above 0");
    return v;
}

json idsOf(const std::set<ObjectId>& ids) {
    json out = json::array();
    for (const ObjectId id : ids) out.push_back(id.value);
    return out;
}

// ---- one pair for each kind of frame that has something to say

void write(json& j, const PlanFrame& f) {
    j["centre"] = place(f.centre);
    j["scale"] = f.scale;
    j["up"] = f.up.radians();
    if (f.along) {
        j["along"] = f.along.value;
        j["from"] = f.from;
        j["to"] = f.to;
    }
    j["off"] = toJson(f.shown.off);
    if (f.shown.hide) j["hide"] = idsOf(*f.shown.hide);
}
void read(const json& j, PlanFrame& f) {
    f.centre = place(j.at("centre"));
    f.scale = positive(j.at("scale"), "the scale of a plan");
    f.up = Angle::radians(figure(j.at("up")));
    if (j.contains("along")) {
        f.along = idFrom(j, "along");
        f.from = figure(j.at("from"));
        f.to = figure(j.at("to"));
    }
    f.shown.off = planPartsFromJson(j.at("off"));
    if (!j.contains("hide")) return;
    f.shown.hide.emplace();
    for (const json& id : j.at("hide")) f.shown.hide->insert({whole(id)});
}

void write(json& j, const ProfileFrame& f) {
    j["profile"] = f.profile.value;
    j["scale"] = f.scale;
    j["from"] = f.from;
    j["to"] = f.to;
}
void read(const json& j, ProfileFrame& f) {
    f.profile = idFrom(j, "profile");
    f.scale = positive(j.at("scale"), "the scale of a profile");
    f.from = figure(j.at("from"));
    f.to = figure(j.at("to"));
}

void write(json& j, const SectionsFrame& f) {
    j["alignment"] = f.alignment.value;
    j["interval"] = f.interval;
    j["reach"] = f.reach;
    j["scale"] = f.scale;
}
void read(const json& j, SectionsFrame& f) {
    f.alignment = idFrom(j, "alignment");
    f.interval = positive(j.at("interval"), "the interval of cross-sections");
    f.reach = positive(j.at("reach"), "the reach of cross-sections");
    f.scale = positive(j.at("scale"), "the scale of cross-sections");
}

void write(json& j, const TableFrame& f) {
    j["of"] = f.of.value;
}
void read(const json& j, TableFrame& f) {
    f.of = idFrom(j, "of");
}

void write(json& j, const DescriptionFrame& f) {
    j["parcel"] = f.parcel.value;
    j["letters"] = f.letters;
}
void read(const json& j, DescriptionFrame& f) {
    f.parcel = idFrom(j, "parcel");
    f.letters = positive(j.at("letters"), "the height of letters");
}

void write(json& j, const NotesFrame& f) {
    j["text"] = f.text;
    j["letters"] = f.letters;
}
void read(const json& j, NotesFrame& f) {
    f.text = word(j.at("text"));
    f.letters = positive(j.at("letters"), "the height of letters");
}

void write(json& j, const PictureFrame& f) {
    j["artwork"] = f.artwork.value;
}
void read(const json& j, PictureFrame& f) {
    f.artwork = idFrom(j, "artwork");
}

void write(json& j, const TitleFrame& f) {
    j["artwork"] = f.artwork.value;
}
void read(const json& j, TitleFrame& f) {
    f.artwork = idFrom(j, "artwork");
}

// What these show is all there is.
void write(json&, const LegendFrame&) {}
void read(const json&, LegendFrame&) {}
void write(json&, const KeyPlanFrame&) {}
void read(const json&, KeyPlanFrame&) {}
void write(json&, const ScaleFrame&) {}
void read(const json&, ScaleFrame&) {}

json toJson(const Frame& frame) {
    json out{{"kind", frameKind(frame.content).id},
             {"room", {frame.room.left, frame.room.top, frame.room.width, frame.room.height}}};
    std::visit([&](const auto& content) { write(out, content); }, frame.content);
    return out;
}

Frame frameFrom(const json& j) {
    const auto content = frameContent(word(j.at("kind")));
    if (!content) throw std::runtime_error("unknown kind of frame '" + word(j.at("kind")) + "'");
    const json& r = j.at("room");
    Frame out{{figure(r.at(0)), figure(r.at(1)), figure(r.at(2)), figure(r.at(3))}, *content};
    if (!std::isfinite(out.room.left) || !std::isfinite(out.room.top) ||
        !(out.room.width >= paper::leastRoom) || !(out.room.height >= paper::leastRoom) ||
        !(out.room.width < 1e5) || !(out.room.height < 1e5))
        throw std::runtime_error("a frame has no room");
    std::visit([&](auto& c) { read(j, c); }, out.content);
    return out;
}

/// Sheets of the first versions: a plan, what stands under it or in its place, and a panel.
Sheet firstSheet(const json& j) {
    operations::SheetStart start;
    for (const auto& size : paperSizes())
        if (size.name == word(j.at("paper"))) start.paper = {size.width, size.height};
    start.plan.scale = positive(j.at("scale"), "the scale of a sheet");
    start.plan.centre = place(j.at("centre"));
    start.parcel = idFrom(j, "parcel");
    if (j.contains("off")) start.plan.shown.off = planPartsFromJson(j.at("off"));
    if (j.contains("profile")) start.profile = idFrom(j, "profile");
    if (j.contains("tables"))
        for (const json& id : j.at("tables")) start.tables.push_back({whole(id)});
    if (j.contains("sections") && whole(j.at("sections").at(0)) != 0) {
        const json& s = j.at("sections");
        start.sections = {{whole(s.at(0))},
                          positive(s.at(1), "the interval of cross-sections"),
                          positive(s.at(2), "the reach of cross-sections"),
                          start.plan.scale};
    }
    Sheet out = operations::startedSheet(start);
    for (const char* field : {"project", "title", "drawnBy", "date"}) out.fields[field] = word(j.at(field));
    return out;
}

}  // namespace

template <>
json Json<Sheet>::write(const Sheet& s, const JsonContext<Sheet>&) {
    json frames = json::array();
    for (const Frame& frame : s.frames) frames.push_back(toJson(frame));
    const LineWeights& w = s.weights;
    return {{"size", s.paper},
            {"frames", std::move(frames)},
            {"fields", s.fields},
            {"weights", {w.ground, w.linework, w.routes, w.records, w.points}}};
}

template <>
Sheet Json<Sheet>::read(const json& j, const JsonContext<Sheet>&) {
    if (j.contains("paper")) return firstSheet(j);
    Sheet out;
    for (std::size_t i = 0; i < 2; ++i) {
        out.paper[i] = positive(j.at("size").at(i), "the size of the paper");
        if (out.paper[i] > 5000) throw std::runtime_error("the paper is larger than 5 m");
    }
    for (const json& frame : j.at("frames")) out.frames.push_back(frameFrom(frame));
    for (const auto& [name, text] : j.at("fields").items()) out.fields[name] = word(text);
    const json& w = j.at("weights");
    std::size_t i = 0;
    for (double* weight : {&out.weights.ground, &out.weights.linework, &out.weights.routes,
                           &out.weights.records, &out.weights.points})
        *weight = positive(w.at(i++), "a line weight");
    return out;
}

}  // namespace erdwerk::format
