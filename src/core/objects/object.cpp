#include "core/objects/object.h"

#include "core/objects/all.h"

namespace erdwerk::objects {

std::string_view kindName(const Payload& payload) {
    return visit<std::string_view>(payload, []<class T>(const T&) { return Kind<T>::name; });
}

std::optional<Role> sourceRole(const Payload& payload) {
    return visit<std::optional<Role>>(payload, []<class T>(const T&) { return Kind<T>::sourceRole; });
}

std::vector<ObjectId> references(const Payload& payload) {
    std::vector<ObjectId> out;
    const Visit visitor = [&](ObjectId id) {
        if (id) out.push_back(id);
    };
    visit<void>(payload, [&]<class T>(const T& p) { Kind<T>::references(p, visitor); });
    return out;
}

std::optional<Payload> without(const Payload& payload, ObjectId gone) {
    return visit<std::optional<Payload>>(payload, [&]<class T>(const T& p) -> std::optional<Payload> {
        auto next = Kind<T>::without(p, gone);
        return next ? std::optional<Payload>(std::move(*next)) : std::nullopt;
    });
}

Carried carried(const Payload& payload, const Carry& carry, std::vector<std::string>* lost) {
    return visit<Carried>(payload, [&]<class T>(const T& p) -> Carried {
        if constexpr (std::is_base_of_v<HasNoParts<T>, Kind<T>>) {
            return {};
        } else {
            auto next = Kind<T>::carried(p, carry, lost);
            if (!next) return {Carried::State::Gone, std::nullopt};
            if (*next == p) return {};
            return {Carried::State::Changed, Payload(std::move(*next))};
        }
    });
}

}  // namespace erdwerk::objects
