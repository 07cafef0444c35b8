#include "core/derive/tags.h"

#include "core/annotate/label.h"
#include "core/derive/parcel_result.h"
#include "core/linework/line3d.h"
#include "core/objects/label.h"
#include "core/objects/parcel.h"

namespace erdwerk::derive {

namespace {

/// Names of the courses of a parcel by the side of its line.
std::map<std::size_t, std::string> courseNames(const Derived& derived, ObjectId parcel) {
    std::map<std::size_t, std::string> out;
    const auto* result = Derived::in(derived.parcels, parcel);
    const auto& of = *derived.document.get<Parcel>(parcel);
    const auto* line = Derived::in(derived.lines, of.line);
    if (result == nullptr || line == nullptr) return out;
    const std::size_t count = line->path.size();
    const auto& courses = result->geometry.courses;
    for (std::size_t i = 0; i < courses.size() && i < result->table.size() && count > 0; ++i) {
        // The courses begin at a corner of the path and go round, against the line where it is reversed.
        const std::size_t along = (i + (line->closed ? of.begin : 0)) % count;
        out[of.reversed ? count - 1 - along : along] = result->table[i].name;
    }
    return out;
}

}  // namespace

std::map<ObjectId, std::string> tagsOf(const Derived& derived) {
    std::map<ObjectId, std::string> out;
    ObjectId ofParcel;
    std::map<std::size_t, std::string> reserved;
    if (const auto parcels = derived.document.all<Parcel>(); !parcels.empty()) {
        ofParcel = derived.document.get<Parcel>(parcels.front())->line;
        reserved = courseNames(derived, parcels.front());
    }
    std::size_t straights = 0;
    std::size_t curves = 0;
    for (const auto& [side, name] : reserved) ++(name.front() == 'C' ? curves : straights);
    for (const auto& [id, text] : derived.labels) {
        const bool curve = text->kind == annotate::LabelKind::Curve;
        if (!curve && text->kind != annotate::LabelKind::Segment) continue;
        const auto* label = derived.document.get<Label>(id);
        if (label == nullptr) continue;
        const auto course = label->target == ofParcel ? reserved.find(label->part) : reserved.end();
        out[id] = course != reserved.end() ? course->second
                  : curve                  ? "C" + std::to_string(++curves)
                                           : "L" + std::to_string(++straights);
    }
    return out;
}

}  // namespace erdwerk::derive
