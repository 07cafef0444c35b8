#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Alignment>::write(const Alignment& p, const JsonContext<Alignment>&) {
    return {{"line", p.line.value},
            {"reversed", p.reversed},
            {"startStation", p.startStation},
            {"tickInterval", p.tickInterval}};
}

template <>
Alignment Json<Alignment>::read(const json& j, const JsonContext<Alignment>&) {
    return Alignment{idFrom(j, "line"), flag(j.at("reversed")), figure(j.at("startStation")),
                     figure(j.at("tickInterval"))};
}

}  // namespace erdwerk::format
