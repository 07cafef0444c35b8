#pragma once
// Work that somebody waits for, off the interface thread: the window goes on painting, input waits.

#include <QCoreApplication>
#include <QEventLoop>
#include <chrono>
#include <future>

namespace erdwerk::app {

template <class Work>
auto aside(const Work& work) {
    auto answer = std::async(std::launch::async, work);
    while (answer.wait_for(std::chrono::milliseconds(15)) != std::future_status::ready)
        QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
    return answer.get();
}

}  // namespace erdwerk::app
