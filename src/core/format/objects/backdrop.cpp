#include "core/format/attached.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Backdrop>::write(const Backdrop& p, const JsonContext<Backdrop>& c) {
    return {{"file", inFolder(p.file, c.folder)}};
}

template <>
Backdrop Json<Backdrop>::read(const json& j, const JsonContext<Backdrop>& c) {
    Backdrop out;
    out.file = fromFolder(word(j.at("file")), c.folder);
    if (auto picture = attachedPicture(out.file))
        out.picture = std::move(*picture);
    else
        out.problem = picture.error().text;
    return out;
}

}  // namespace erdwerk::format
