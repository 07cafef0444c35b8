#include "core/objects/surface.h"

namespace erdwerk::objects {

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

std::string_view bandsName(Bands bands) {
    static constexpr std::array<std::string_view, 4> names{"none", "height", "slope", "direction"};
    return names[static_cast<std::size_t>(bands)];
}

std::string_view editName(terrain::EditKind kind) {
    static constexpr std::array<std::string_view, 7> names{
        "flip-side", "remove-triangle", "remove-point", "add-point", "move-point", "raise", "take-over"};
    return names[static_cast<std::size_t>(kind)];
}

void Kind<Surface>::references(const Surface& object, const Visit& visit) {
    visit(object.fit.source);
    visit(object.definition->base);
    for (const Source& s : object.definition->sources) visit(s.object);
    for (const SurfaceEdit& e : object.definition->edits) visit(e.surface);
}

std::optional<Surface> Kind<Surface>::without(Surface object, ObjectId gone) {
    SurfaceDefinition definition = *object.definition;
    std::erase_if(definition.sources, [&](const Source& s) { return s.object == gone; });
    std::erase_if(definition.edits, [&](const SurfaceEdit& e) { return e.surface == gone; });
    if (definition.base == gone) definition.base = {};
    object.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
    if (object.fit.source == gone) object.fit.source = {};
    return object;
}

}  // namespace erdwerk::objects
