#pragma once
// What objects are to a surface.

#include <array>
#include <string_view>

namespace erdwerk::objects {

/// What an object is to a surface. Opening: no surface inside; island: surface again inside an opening. A
/// contour is a breakline that lies on one height.
enum class Role { Points, Cloud, Raster, Breakline, Contour, Edge, Opening, Island };
inline constexpr std::array allRoles{Role::Points,  Role::Cloud, Role::Raster,  Role::Breakline,
                                     Role::Contour, Role::Edge,  Role::Opening, Role::Island};
std::string_view roleName(Role role);
/// The roles a line can have.
inline constexpr std::array lineRoles{Role::Breakline, Role::Contour, Role::Edge, Role::Opening,
                                      Role::Island};

/// Lines, and groups of them: they can have any of lineRoles.
constexpr bool isLineRole(Role role) {
    return role != Role::Points && role != Role::Cloud && role != Role::Raster;
}

/// Edge, opening and island: closed lines that say where there is surface.
constexpr bool isRing(Role role) {
    return role == Role::Edge || role == Role::Opening || role == Role::Island;
}

}  // namespace erdwerk::objects
