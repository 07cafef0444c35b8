#include "core/objects/object.h"

namespace erdwerk::objects {

std::string_view kindName(const Payload& payload) {
    return std::visit([](const auto& p) { return Kind<std::decay_t<decltype(p)>>::name; }, payload);
}

std::optional<Role> sourceRole(const Payload& payload) {
    return std::visit([](const auto& p) { return Kind<std::decay_t<decltype(p)>>::sourceRole; }, payload);
}

std::vector<ObjectId> references(const Payload& payload) {
    std::vector<ObjectId> out;
    std::visit(
        [&](const auto& p) {
            Kind<std::decay_t<decltype(p)>>::references(p, [&](ObjectId id) {
                if (id) out.push_back(id);
            });
        },
        payload);
    return out;
}

std::optional<Payload> without(const Payload& payload, ObjectId gone) {
    return std::visit(
        [&](const auto& p) -> std::optional<Payload> {
            auto next = Kind<std::decay_t<decltype(p)>>::without(p, gone);
            return next ? std::optional<Payload>(std::move(*next)) : std::nullopt;
        },
        payload);
}

Carried carried(const Payload& payload, const Carry& carry, std::vector<std::string>* lost) {
    return std::visit(
        [&](const auto& p) -> Carried {
            using T = std::decay_t<decltype(p)>;
            if constexpr (std::is_base_of_v<HasNoParts<T>, Kind<T>>) {
                return {};
            } else {
                auto next = Kind<T>::carried(p, carry, lost);
                if (!next) return {Carried::State::Gone, std::nullopt};
                if (*next == p) return {};
                return {Carried::State::Changed, Payload(std::move(*next))};
            }
        },
        payload);
}

}  // namespace erdwerk::objects
