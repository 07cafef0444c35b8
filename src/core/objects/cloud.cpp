#include "core/objects/cloud.h"

namespace erdwerk::objects {

std::string_view colouringName(CloudColouring colouring) {
    static constexpr std::array<std::string_view, 4> names{"height", "class", "intensity", "colour"};
    return names[static_cast<std::size_t>(colouring)];
}

}  // namespace erdwerk::objects
