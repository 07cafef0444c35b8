#include "core/document/object.h"

namespace erdwerk::document {

std::string_view roleName(Role role) {
    switch (role) {
        case Role::Breakline:
            return "breakline";
        case Role::Edge:
            return "edge";
        case Role::Cloud:
            return "cloud";
        case Role::Raster:
            return "raster";
        case Role::Contour:
            return "contour";
        case Role::Opening:
            return "opening";
        case Role::Island:
            return "island";
        case Role::Points:
            break;
    }
    return "points";
}

std::string_view colouringName(CloudColouring colouring) {
    static constexpr std::array<std::string_view, 4> names{"height", "class", "intensity", "colour"};
    return names[static_cast<std::size_t>(colouring)];
}

std::string_view bandsName(Bands bands) {
    static constexpr std::array<std::string_view, 4> names{"none", "height", "slope", "direction"};
    return names[static_cast<std::size_t>(bands)];
}

std::string_view editName(terrain::EditKind kind) {
    static constexpr std::array<std::string_view, 7> names{
        "flip-side", "remove-triangle", "remove-point", "add-point", "move-point", "raise", "take-over"};
    return names[static_cast<std::size_t>(kind)];
}

std::string_view styleName(LineStyle style) {
    switch (style) {
        case LineStyle::Crest:
            return "crest";
        case LineStyle::Toe:
            return "toe";
        case LineStyle::Plain:
            break;
    }
    return "plain";
}

std::array<double, 2> paperSize(Paper paper) {
    switch (paper) {
        case Paper::A4:
            return {297, 210};
        case Paper::A1:
            return {841, 594};
        case Paper::A3:
            break;
    }
    return {420, 297};
}

std::string_view paperName(Paper paper) {
    switch (paper) {
        case Paper::A4:
            return "A4";
        case Paper::A1:
            return "A1";
        case Paper::A3:
            break;
    }
    return "A3";
}

std::string_view kindName(const Payload& payload) {
    static constexpr std::array<std::string_view, 13> names{
        "points", "line",  "surface", "alignment", "profile", "parcel",  "label-style",
        "label",  "sheet", "group",   "cloud",     "raster",  "backdrop"};
    static_assert(names.size() == std::variant_size_v<Payload>);
    return names[payload.index()];
}

}  // namespace erdwerk::document
