#include "core/objects/parcel.h"

#include <algorithm>

#include "core/linework/line3d.h"

namespace erdwerk::objects {

std::string_view passageName(Passage::Of of) {
    switch (of) {
        case Passage::Of::Opening:
            return "opening";
        case Passage::Of::Beginning:
            return "beginning";
        case Passage::Of::ListOpening:
            return "list-opening";
        case Passage::Of::Area:
            return "area";
        case Passage::Of::Course:
            break;
    }
    return "course";
}

std::size_t Parcel::sideOf(std::size_t course, std::size_t sides, bool closed) const {
    if (sides == 0) return 0;
    const std::size_t at = closed ? (course + begin) % sides : course;
    return reversed ? sides - 1 - at : at;
}

std::size_t Parcel::cornerAfter(std::size_t course, std::size_t sides, bool closed) const {
    const std::size_t side = sideOf(course, sides, closed);
    if (reversed) return side;
    return closed && side + 1 == sides ? 0 : side + 1;
}

void Kind<Parcel>::references(const Parcel& object, const Visit& visit) {
    visit(object.line);
    if (object.wording) visit(object.wording);
    if (object.tie) visit(object.tie);
}

std::optional<Parcel> Kind<Parcel>::without(Parcel object, ObjectId gone) {
    if (object.line == gone) return std::nullopt;
    if (object.wording == gone) object.wording = {};
    if (object.tie == gone) object.tie = {};
    return object;
}

namespace {

/// A corner of the line as a corner of the path that the parcel follows, or back again.
std::size_t turned(const Parcel& parcel, std::size_t corner, std::size_t count, bool closed) {
    if (!parcel.reversed) return corner;
    return closed ? (count - corner) % count : count - 1 - corner;
}

}  // namespace

namespace {

void carryBeginning(Parcel& object, const Carry& carry, const linework::Line3D& before,
                    const linework::Line3D& after, std::vector<std::string>* lost) {
    const auto corners = cornersOf(before);
    if (object.begin >= corners.size()) return;
    const std::size_t corner = turned(object, object.begin, corners.size(), before.closed);
    const auto now = carry.vertex({object.line, corners[corner]});
    if (!now || now->object != object.line) {
        object.begin = 0;
        object.beginning.clear();
        if (lost != nullptr) lost->push_back("point of beginning");
        return;
    }
    const auto cornersNow = cornersOf(after);
    const auto at = std::find(cornersNow.begin(), cornersNow.end(), now->index) - cornersNow.begin();
    object.begin = turned(object, static_cast<std::size_t>(at), cornersNow.size(), after.closed);
}

void carrySides(Parcel& object, const Carry& carry, std::vector<std::string>* lost) {
    const auto sideNow = [&](std::size_t side) {
        const auto now = carry.side({object.line, side});
        return now && now->object == object.line ? std::optional(now->index) : std::nullopt;
    };
    std::erase_if(object.adjoiners, [&](Parcel::Named& named) {
        const auto now = sideNow(named.part);
        if (now) named.part = *now;
        if (!now && lost != nullptr) lost->push_back("name of a side, " + named.name);
        return !now;
    });
    std::erase_if(object.passages, [&](Passage& passage) {
        if (passage.of != Passage::Of::Course) return false;
        const auto now = sideNow(passage.side);
        if (now) passage.side = *now;
        if (!now && lost != nullptr) lost->push_back("passage changed by hand");
        return !now;
    });
}

void carryThings(Parcel& object, const Carry& carry, const linework::Line3D& before,
                 const linework::Line3D& after, std::vector<std::string>* lost) {
    const auto corners = cornersOf(before);
    const auto cornersNow = cornersOf(after);
    std::erase_if(object.things, [&](Parcel::Named& named) {
        if (named.part >= corners.size()) return true;
        const auto now = carry.vertex({object.line, corners[named.part]});
        const auto at = now && now->object == object.line
                            ? std::find(cornersNow.begin(), cornersNow.end(), now->index)
                            : cornersNow.end();
        if (at == cornersNow.end()) {
            if (lost != nullptr) lost->push_back("name of a corner, " + named.name);
            return true;
        }
        named.part = static_cast<std::size_t>(at - cornersNow.begin());
        return false;
    });
}

}  // namespace

std::optional<Parcel> Kind<Parcel>::carried(Parcel object, const Carry& carry,
                                            std::vector<std::string>* lost) {
    const auto* before = carry.lineBefore(object.line);
    const auto* after = carry.lineAfter(object.line);
    if (before == nullptr || after == nullptr || *before == *after) return object;
    carryBeginning(object, carry, *before, *after, lost);
    carrySides(object, carry, lost);
    carryThings(object, carry, *before, *after, lost);
    return object;
}

}  // namespace erdwerk::objects
