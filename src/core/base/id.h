#pragma once
// Identity of objects in a document.

#include <compare>
#include <cstdint>
#include <functional>

namespace erdwerk {

/// Never reused within a project. Zero names nothing.
struct ObjectId {
    std::uint64_t value = 0;
    friend auto operator<=>(const ObjectId&, const ObjectId&) = default;
    explicit operator bool() const { return value != 0; }
};

}  // namespace erdwerk

template <>
struct std::hash<erdwerk::ObjectId> {
    std::size_t operator()(const erdwerk::ObjectId& id) const noexcept {
        return std::hash<std::uint64_t>{}(id.value);
    }
};
