#include "core/objects/wording.h"
#include "core/format/objects/json_kind.h"
#include "core/parcel/description.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Wording>::write(const Wording& w, const JsonContext<Wording>&) {
    json out;
    for (const auto& key : parcel::sentenceKeys()) out[std::string(key.key)] = w.wording.*(key.sentence);
    return {{"sentences", out}};
}

template <>
Wording Json<Wording>::read(const json& j, const JsonContext<Wording>&) {
    Wording out;
    const json& sentences = j.at("sentences");
    for (const auto& key : parcel::sentenceKeys())
        out.wording.*(key.sentence) = word(sentences.at(std::string(key.key)));
    return out;
}

}  // namespace erdwerk::format
