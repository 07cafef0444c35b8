#pragma once
// What an object is, whatever its kind: an opaque value. Copying shares it; nobody changes it in place.

#include <array>
#include <memory>
#include <utility>

#include "core/objects/kinds.h"

namespace erdwerk::objects {

/// Holds a value of one kind. Only making one and looking into it asks for the header of the kind.
class Payload {
public:
    template <IsKind T>
    Payload(T value)  // NOLINT(google-explicit-constructor): a line is a payload
        : value_(std::make_shared<const T>(std::move(value))), index_(kindIndex<T>) {}

    /// Its position in the list of kinds.
    [[nodiscard]] std::size_t index() const { return index_; }
    template <IsKind T>
    [[nodiscard]] bool is() const {
        return index_ == kindIndex<T>;
    }
    /// The value, when it is of this kind; else null.
    template <IsKind T>
    [[nodiscard]] const T* as() const {
        return is<T>() ? static_cast<const T*>(value_.get()) : nullptr;
    }

private:
    template <class Result, class F>
    friend Result visit(const Payload& payload, F&& function);

    std::shared_ptr<const void> value_;
    std::size_t index_;
};

/// Calls function(const T&) with the value as what it is. No kind need be known here: for the tables of rooms
/// that do something for every kind.
template <class Result, class F>
Result visit(const Payload& payload, F&& function) {
    using Call = Result (*)(const void*, F&);
    static constexpr auto calls = []<class... T>(KindList<T...>) {
        return std::array<Call, kindCount>{
            [](const void* value, F& f) -> Result { return f(*static_cast<const T*>(value)); }...};
    }(Kinds{});
    return calls[payload.index_](payload.value_.get(), function);
}

}  // namespace erdwerk::objects
