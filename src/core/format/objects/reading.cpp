#include "core/objects/reading.h"
#include "core/format/objects/json_kind.h"
#include "core/parcel/called_figures.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Reading>::write(const Reading& r, const JsonContext<Reading>&) {
    return {{"text", r.text},
            {"at", place(r.at)},
            {"north", r.north.radians()},
            {"parcel", r.parcel.value},
            {"unit", parcel::unitName(r.unit)}};
}

template <>
Reading Json<Reading>::read(const json& j, const JsonContext<Reading>&) {
    Reading out;
    out.text = word(j.at("text"));
    out.at = place(j.at("at"));
    out.north = Angle::radians(figure(j.at("north")));
    out.parcel = idFrom(j, "parcel");
    const std::string unit = word(j.at("unit"));
    const auto known = parcel::calledUnitFrom(unit);
    if (!known) throw std::runtime_error("unknown unit '" + unit + "'");
    out.unit = *known;
    return out;
}

}  // namespace erdwerk::format
