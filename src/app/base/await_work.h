#pragma once
// Work that somebody waits for, off the interface thread: the window goes on painting, input waits.

#include <QCoreApplication>
#include <QEventLoop>
#include <chrono>
#include <future>

#include "core/base/result.h"

namespace erdwerk::app {

/// What it throws becomes an Error where it gives a Result, and is thrown here where it does not.
template <class Work>
auto awaitWork(const Work& work) -> decltype(work()) {
    auto answer = std::async(std::launch::async, work);
    while (answer.wait_for(std::chrono::milliseconds(15)) != std::future_status::ready)
        QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
    if constexpr (requires(decltype(work()) r) { r.error(); }) {
        try {
            return answer.get();
        } catch (const std::exception& e) {
            return badInput(e.what());
        }
    } else {
        return answer.get();
    }
}

}  // namespace erdwerk::app
