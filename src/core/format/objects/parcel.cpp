#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Parcel>::write(const Parcel& p, const JsonContext<Parcel>&) {
    return {{"line", p.line.value}, {"reversed", p.reversed}, {"begin", p.begin}, {"beginning", p.beginning}};
}

template <>
Parcel Json<Parcel>::read(const json& j, const JsonContext<Parcel>&) {
    return Parcel{idFrom(j, "line"), flag(j.at("reversed")), whole(j.at("begin")), word(j.at("beginning"))};
}

}  // namespace erdwerk::format
