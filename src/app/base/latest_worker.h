#pragma once
// A thread that works on the newest request only.

#include <QMetaObject>
#include <QObject>
#include <QString>
#include <atomic>
#include <condition_variable>
#include <exception>
#include <functional>
#include <mutex>
#include <optional>
#include <thread>
#include <utility>

namespace erdwerk::app {

/// Requests that come while one is being worked on replace each other; results arrive on the thread of
/// `receiver`. Requests and results are values, so nothing is shared while the work runs. Work that gives no
/// answer (it was cancelled) or throws is told as well, with the reason.
template <class Request, class Answer>
class LatestWorker {
public:
    using Work = std::function<std::optional<Answer>(const Request&, const std::atomic<bool>& cancel)>;
    using Deliver = std::function<void(Answer)>;
    using Failed = std::function<void(const QString& reason)>;  ///< empty reason: cancelled

    LatestWorker(QObject* receiver, Work work, Deliver deliver, Failed failed = {})
        : receiver_(receiver),
          work_(std::move(work)),
          deliver_(std::move(deliver)),
          failed_(std::move(failed)),
          thread_([this] { run(); }) {}
    LatestWorker(const LatestWorker&) = delete;
    LatestWorker& operator=(const LatestWorker&) = delete;
    ~LatestWorker() {
        {
            const std::lock_guard lock(mutex_);
            stopping_ = true;
            cancel_ = true;
            next_.reset();
        }
        wake_.notify_all();
        thread_.join();
    }

    void request(Request request, bool cancelRunning) {
        {
            const std::lock_guard lock(mutex_);
            next_ = std::move(request);
            cancelNext_ = false;
            if (cancelRunning) cancel_ = true;
        }
        wake_.notify_all();
    }
    /// Of what is being worked on, and of what waits.
    void cancel() {
        const std::lock_guard lock(mutex_);
        cancel_ = true;
        cancelNext_ = next_.has_value();
    }
    /// Nothing is being worked on or waiting.
    [[nodiscard]] bool idle() const {
        const std::lock_guard lock(mutex_);
        return !busy_ && !next_;
    }

private:
    void run() {
        std::unique_lock lock(mutex_);
        while (true) {
            wake_.wait(lock, [this] { return stopping_ || next_; });
            if (stopping_) return;
            Request request = std::move(*next_);
            next_.reset();
            busy_ = true;
            cancel_ = std::exchange(cancelNext_, false);
            lock.unlock();
            std::optional<Answer> answer;
            QString reason;
            try {
                answer = work_(request, cancel_);
            } catch (const std::exception& e) {
                reason = QString::fromUtf8(e.what());
            }
            if (!answer && failed_) {
                QMetaObject::invokeMethod(
                    receiver_, [this, reason] { failed_(reason); }, Qt::QueuedConnection);
            }
            if (answer) {
                // Delivered before the worker counts as idle, so that waiting for idle means having the
                // answer queued.
                QMetaObject::invokeMethod(
                    receiver_,
                    [this, a = std::make_shared<Answer>(std::move(*answer))]() mutable {
                        deliver_(std::move(*a));
                    },
                    Qt::QueuedConnection);
            }
            lock.lock();
            busy_ = false;
        }
    }

    QObject* receiver_;
    Work work_;
    Deliver deliver_;
    Failed failed_;
    mutable std::mutex mutex_;
    std::condition_variable wake_;
    std::optional<Request> next_;
    bool cancelNext_ = false;
    bool busy_ = false;
    bool stopping_ = false;
    std::atomic<bool> cancel_{false};
    std::thread thread_;
};

}  // namespace erdwerk::app
