#include "core/objects/group.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Group>::write(const Group& p, const JsonContext<Group>&) {
    return {{"colour", p.colour}};
}

template <>
Group Json<Group>::read(const json& j, const JsonContext<Group>&) {
    return Group{word(j.at("colour"))};
}

}  // namespace erdwerk::format
