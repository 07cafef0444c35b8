#pragma once
// What every kind of object says of itself: its name in files, what it is to a surface when it can be one of
// its sources, what it names, what becomes of it when that goes, and how the parts it names are carried
// through an edit. A kind that says nothing of one of these does not compile.

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/id.h"
#include "core/objects/role.h"

namespace erdwerk::linework {
struct Line3D;
}

namespace erdwerk::objects {

/// A part by the object that has it and its position there: a vertex or a side (segment of the plan path) of
/// a line, a point of a set.
struct Part {
    ObjectId object;
    std::size_t index = 0;
    friend bool operator==(const Part&, const Part&) = default;
};

/// What an edit did to parts of other objects.
class Carry {
public:
    Carry() = default;
    Carry(const Carry&) = default;
    Carry& operator=(const Carry&) = default;
    virtual ~Carry() = default;
    /// Where a vertex of a line, or a point of a set, is now; nothing when it is gone.
    [[nodiscard]] virtual std::optional<Part> vertex(Part before) const = 0;
    [[nodiscard]] virtual std::optional<Part> side(Part before) const = 0;
    [[nodiscard]] virtual bool isPoints(ObjectId before) const = 0;
    /// A line before and after; null when it is none.
    [[nodiscard]] virtual const linework::Line3D* lineBefore(ObjectId id) const = 0;
    [[nodiscard]] virtual const linework::Line3D* lineAfter(ObjectId id) const = 0;
};

using Visit = std::function<void(ObjectId)>;

template <class T>
struct Kind;

/// For kinds that name no parts of other objects.
template <class T>
struct HasNoParts {
    static std::optional<T> carried(T object, const Carry&, std::vector<std::string>*) { return object; }
};

/// For kinds that name no other objects.
template <class T>
struct StandsAlone : HasNoParts<T> {
    static void references(const T&, const Visit&) {}
    static std::optional<T> without(T object, ObjectId) { return object; }
};

}  // namespace erdwerk::objects
