#pragma once
// An Error as an exception, for readers that give up deep inside, and the one wrapper that ends it: whatever
// is thrown in there comes out as an Error.

#include <stdexcept>
#include <utility>

#include "core/base/result.h"

namespace erdwerk {

class Thrown : public std::runtime_error {
public:
    explicit Thrown(Error error) : std::runtime_error(error.text), error_(std::move(error)) {}
    [[nodiscard]] const Error& error() const { return error_; }

private:
    Error error_;
};

/// What `work` returns (nothing, or a Result), or why it gave up. `file` is named where what was thrown names
/// none.
template <class Work>
auto caught(const Work& work, const std::string& file = {}) {
    using Answer = decltype(work());
    using Out = std::conditional_t<std::is_void_v<Answer>, Result<void>, Answer>;
    try {
        if constexpr (std::is_void_v<Answer>) {
            work();
            return Out{};
        } else {
            return Out(work());
        }
    } catch (const Thrown& e) {
        return Out(tl::unexpected(e.error()));
    } catch (const std::exception& e) {
        return Out(badInput(std::string("is damaged: ") + e.what(), file));
    }
}

}  // namespace erdwerk
