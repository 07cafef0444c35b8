#include <array>

#include "core/format/objects/json_kind.h"
#include "core/objects/section.h"
#include "core/terrain/section.h"

namespace erdwerk::format {

using namespace objects;

namespace {

using terrain::SectionField;
const std::vector<SectionField> allFields{SectionField::Station,  SectionField::Easting,
                                          SectionField::Northing, SectionField::Height,
                                          SectionField::Grade,    SectionField::Difference};

}  // namespace

template <>
json Json<Section>::write(const Section& p, const JsonContext<Section>&) {
    json axis = json::array();
    for (const auto& at : p.axis) axis.push_back(place(at));
    json off = json::array();
    for (const ObjectId id : p.off) off.push_back(id.value);
    json fields = json::array();
    for (const auto field : p.fields) fields.push_back(terrain::fieldName(field));
    return {{"along", p.along.value},
            {"axis", std::move(axis)},
            {"off", std::move(off)},
            {"interval", p.interval},
            {"fields", std::move(fields)}};
}

template <>
Section Json<Section>::read(const json& j, const JsonContext<Section>&) {
    Section out;
    out.along = idFrom(j, "along");
    for (const json& at : j.at("axis")) out.axis.push_back(place(at));
    for (const json& id : j.at("off")) out.off.push_back({whole(id)});
    out.interval = figure(j.at("interval"));
    if (!(out.interval >= 0)) throw std::runtime_error("an interval is 0 or more");
    out.fields.clear();
    for (const json& field : j.at("fields"))
        out.fields.push_back(fromName(word(field), allFields, terrain::fieldName));
    return out;
}

}  // namespace erdwerk::format
