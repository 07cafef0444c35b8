#include "core/document/object.h"

namespace erdwerk::document {

std::string_view roleName(Role role) {
    switch (role) {
        case Role::Breakline:
            return "breakline";
        case Role::Edge:
            return "edge";
        case Role::Points:
            break;
    }
    return "points";
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
    static constexpr std::array<std::string_view, 10> names{"points",  "line",   "surface",     "alignment",
                                                            "profile", "parcel", "label-style", "label",
                                                            "sheet",   "group"};
    static_assert(names.size() == std::variant_size_v<Payload>);
    return names[payload.index()];
}

}  // namespace erdwerk::document
