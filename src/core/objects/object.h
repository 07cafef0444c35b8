#pragma once
// An object of a project: who it is, and what, as an opaque payload. What is said of every kind alike.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/id.h"
#include "core/objects/payload.h"
#include "core/objects/role.h"

namespace erdwerk::objects {

class Carry;

struct Object {
    ObjectId id;
    std::string name;
    ObjectId group;  ///< may be none
    Payload payload;
};

/// "points", "line", "surface" …: the kind as stored in files.
std::string_view kindName(const Payload& payload);
/// What it can be to a surface; nothing when it is no source of one.
std::optional<Role> sourceRole(const Payload& payload);
/// Objects that a payload names, groups not among them; one may come twice.
std::vector<ObjectId> references(const Payload& payload);
/// A payload after an object that it names went; nothing when it goes too.
std::optional<Payload> without(const Payload& payload, ObjectId gone);
/// What becomes of a payload when the parts it names are carried along.
struct Carried {
    enum class State { Same, Changed, Gone };
    State state = State::Same;
    std::optional<Payload> payload;  ///< when it changed
};
/// `lost` gets words for what is lost of it ("point of beginning").
Carried carried(const Payload& payload, const Carry& carry, std::vector<std::string>* lost);

}  // namespace erdwerk::objects
