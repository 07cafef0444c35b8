#include "core/objects/artwork.h"
#include "core/format/attached.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Artwork>::write(const Artwork& a, const JsonContext<Artwork>& context) {
    json out{{"format", artworkFormatName(a.format)}};
    if (context.before != nullptr && context.before->bytes == a.bytes) {
        out["keeps"] = true;
        return out;
    }
    out["size"] = a.bytes->size();
    out["bytes"] = packed(std::vector<std::uint8_t>(a.bytes->begin(), a.bytes->end()));
    return out;
}

template <>
Artwork Json<Artwork>::read(const json& j, const JsonContext<Artwork>& context) {
    Artwork out;
    out.format =
        fromName(word(j.at("format")),
                 std::vector{ArtworkFormat::Svg, ArtworkFormat::Png, ArtworkFormat::Jpeg}, artworkFormatName);
    if (const auto* before = kept(j, context.before)) {
        out.bytes = before->bytes;
        return out;
    }
    const std::uint64_t size = whole(j.at("size"));
    if (size > largestArtwork) throw std::runtime_error("the picture is too large");
    const auto bytes = unpacked(word(j.at("bytes")), size);
    if (!bytes) throw std::runtime_error(bytes.error().message());
    out.bytes = std::make_shared<const std::string>(bytes->begin(), bytes->end());
    return out;
}

}  // namespace erdwerk::format
