#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Label>::write(const Label& p, const JsonContext<Label>&) {
    return {{"target", p.target.value}, {"part", p.part}, {"style", p.style.value}};
}

template <>
Label Json<Label>::read(const json& j, const JsonContext<Label>&) {
    return Label{idFrom(j, "target"), whole(j.at("part")), idFrom(j, "style")};
}

}  // namespace erdwerk::format
