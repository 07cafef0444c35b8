#pragma once
// Expected failures as values. A broken contract is an assertion; bad data is an Error with a code, a text
// and a place; a cancelled operation is an Error with its own code.

#include <string>
#include <tl/expected.hpp>
#include <utility>

namespace erdwerk {

enum class ErrorCode { BadInput, NotFound, Unsupported, Io, Busy, Degenerate, Circular, Cancelled };

/// What went wrong, where, and (in the text) what to do about it.
struct Error {
    ErrorCode code = ErrorCode::BadInput;
    std::string text;
    std::string file;  ///< empty when no file is involved
    long line = 0;     ///< 1-based; 0 when no line applies

    /// "FILE:LINE: text", leaving out what is not known.
    [[nodiscard]] std::string message() const {
        std::string out = file;
        if (!file.empty() && line > 0) out += ":" + std::to_string(line);
        if (!out.empty()) out += ": ";
        return out + text;
    }
};

template <class T>
using Result = tl::expected<T, Error>;

inline tl::unexpected<Error> fail(ErrorCode code, std::string text, std::string file = {}, long line = 0) {
    return tl::unexpected<Error>(Error{code, std::move(text), std::move(file), line});
}

inline tl::unexpected<Error> badInput(std::string text, std::string file = {}, long line = 0) {
    return fail(ErrorCode::BadInput, std::move(text), std::move(file), line);
}

inline tl::unexpected<Error> cancelled() {
    return fail(ErrorCode::Cancelled, "cancelled");
}

}  // namespace erdwerk
