#include "core/objects/artwork.h"

namespace erdwerk::objects {

std::string_view artworkFormatName(ArtworkFormat format) {
    switch (format) {
        case ArtworkFormat::Svg:
            return "svg";
        case ArtworkFormat::Png:
            return "png";
        case ArtworkFormat::Jpeg:
            break;
    }
    return "jpeg";
}

}  // namespace erdwerk::objects
