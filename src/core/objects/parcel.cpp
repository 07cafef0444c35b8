#include "core/objects/parcel.h"

#include <algorithm>

namespace erdwerk::objects {

void Kind<Parcel>::references(const Parcel& object, const Visit& visit) {
    visit(object.line);
}

std::optional<Parcel> Kind<Parcel>::without(const Parcel&, ObjectId) {
    return std::nullopt;
}

namespace {

/// A corner of the line as a corner of the path that the parcel follows, or back again.
std::size_t turned(const Parcel& parcel, std::size_t corner, std::size_t count, bool closed) {
    if (!parcel.reversed) return corner;
    return closed ? (count - corner) % count : count - 1 - corner;
}

}  // namespace

std::optional<Parcel> Kind<Parcel>::carried(Parcel object, const Carry& carry,
                                            std::vector<std::string>* lost) {
    const auto* before = carry.lineBefore(object.line);
    const auto* after = carry.lineAfter(object.line);
    if (before == nullptr || after == nullptr || *before == *after) return object;
    const auto corners = cornersOf(*before);
    if (object.begin >= corners.size()) return object;
    const std::size_t corner = turned(object, object.begin, corners.size(), before->closed);
    const auto now = carry.vertex({object.line, corners[corner]});
    if (!now || now->object != object.line) {
        object.begin = 0;
        object.beginning.clear();
        if (lost != nullptr) lost->push_back("point of beginning");
        return object;
    }
    const auto cornersNow = cornersOf(*after);
    const auto at = std::find(cornersNow.begin(), cornersNow.end(), now->index) - cornersNow.begin();
    object.begin = turned(object, static_cast<std::size_t>(at), cornersNow.size(), after->closed);
    return object;
}

}  // namespace erdwerk::objects
