#pragma once
// What long work is handed: a way to say how far it is, and a way to be told to stop.

#include <atomic>
#include <functional>

namespace erdwerk {

/// Passed down by reference. Default-constructed it reports nowhere and is never cancelled.
struct Context {
    std::function<void(double)> progress;           ///< called with 0 to 1, from the working thread
    const std::atomic<bool>* cancelFlag = nullptr;  ///< owned by the caller

    void report(double share) const {
        if (progress) progress(share);
    }
    [[nodiscard]] bool isCancelled() const { return cancelFlag != nullptr && cancelFlag->load(); }
};

}  // namespace erdwerk
