#pragma once
// Title blocks and pictures that sheets use.

#include <memory>
#include <string>

#include "core/objects/kind.h"

namespace erdwerk::objects {

enum class ArtworkFormat { Svg, Png, Jpeg };
/// "svg", "png", "jpeg": as in files.
std::string_view artworkFormatName(ArtworkFormat format);

/// What its file held; the project keeps it. An SVG may have fields (core/paper/title_block.h).
struct Artwork {
    ArtworkFormat format = ArtworkFormat::Svg;
    std::shared_ptr<const std::string> bytes;  ///< never null
    friend bool operator==(const Artwork& a, const Artwork& b) {
        return a.format == b.format && *a.bytes == *b.bytes;
    }
};
/// Larger files are refused: they would be written again with each change of them.
inline constexpr std::size_t largestArtwork = 8U << 20U;

template <>
struct Kind<Artwork> : StandsAlone<Artwork> {
    static constexpr std::string_view name = "artwork";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
