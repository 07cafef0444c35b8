#pragma once
// Edits that may take longer than a frame: each is worked out on a thread, on the document as it is by then,
// one after the other, and settled on the thread of the queue.

#include <QObject>
#include <QString>
#include <atomic>
#include <deque>
#include <functional>
#include <memory>
#include <optional>

#include "app/base/latest_worker.h"
#include "app/base/outcome.h"
#include "core/document/transaction.h"

namespace erdwerk::app {

class EditQueue : public QObject {
    Q_OBJECT
public:
    /// The document that the next edit is worked out on.
    using Newest = std::function<document::Document()>;
    /// Puts what was worked out in its place, or says why there is nothing.
    using Settle = std::function<Outcome(Result<document::Performed>)>;

    EditQueue(Newest newest, Settle settle, QObject* parent = nullptr);
    ~EditQueue() override;

    void ask(const QString& what, document::LongEdit edit, Then then);
    /// None is being worked out; what follows from one that was settled comes before the next.
    [[nodiscard]] bool idle() const { return asked_.empty() || settling_; }
    /// The edit that is being worked out; empty when idle.
    [[nodiscard]] QString what() const;
    /// Per cent; 0 while it does not say.
    [[nodiscard]] int done() const { return done_; }
    /// Stops the one that was asked for last; it changes nothing.
    void stopLast();
    void stopAll();
    /// Lets all of them end; input waits, the window goes on painting.
    void wait();
    /// What is worked out from here on is settled only when it is let go.
    void hold() { held_ = true; }
    void letGo();

private:
    struct Asked {
        QString what;
        document::LongEdit edit;
        Then then;
        bool stopped = false;
    };
    struct Request {
        std::string what;
        document::LongEdit edit;
        document::Document document;
    };
    /// Copied by the worker's delivery, so it is held by pointer.
    using Answer = std::shared_ptr<Result<document::Performed>>;

    void next();
    void settleFirst(Result<document::Performed> performed);
    void end(Result<document::Performed> performed);

    Newest newest_;
    Settle settle_;
    std::deque<Asked> asked_;  ///< the first is being worked out
    bool settling_ = false;
    bool held_ = false;
    std::optional<Result<document::Performed>> ready_;  ///< of the first, while they are held
    std::atomic<int> done_{0};
    std::unique_ptr<LatestWorker<Request, Answer>> worker_;
};

}  // namespace erdwerk::app
