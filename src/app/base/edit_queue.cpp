#include "app/base/edit_queue.h"

#include <QCoreApplication>
#include <QEventLoop>

namespace erdwerk::app {

using document::Document;
using document::Performed;

EditQueue::EditQueue(Newest newest, Settle settle, QObject* parent)
    : QObject(parent), newest_(std::move(newest)), settle_(std::move(settle)) {
    worker_ = std::make_unique<LatestWorker<Request, Answer>>(
        this,
        [this](const Request& request, const std::atomic<bool>& cancel) -> std::optional<Answer> {
            Context context;
            context.cancelFlag = &cancel;
            context.progress = [this](double share) { done_ = static_cast<int>(share * 100); };
            const auto edit = [&](const Document& document) { return request.edit(document, context); };
            return std::make_shared<Result<Performed>>(
                document::perform(request.what, edit, request.document));
        },
        [this](const Answer& answer) { end(std::move(*answer)); },
        [this](const QString& reason) { end(fail(ErrorCode::BadInput, reason.toStdString())); });
}

EditQueue::~EditQueue() {
    worker_.reset();
}

void EditQueue::ask(const QString& what, document::LongEdit edit, Then then) {
    asked_.push_back({what, std::move(edit), std::move(then)});
    if (asked_.size() == 1 && !settling_) next();
}

QString EditQueue::what() const {
    return asked_.empty() ? QString() : asked_.front().what;
}

void EditQueue::next() {
    done_ = 0;
    // One that was stopped while it waited is not begun.
    while (!asked_.empty() && asked_.front().stopped) settleFirst(cancelled());
    if (!asked_.empty())
        worker_->request({asked_.front().what.toStdString(), asked_.front().edit, newest_()}, false);
}

void EditQueue::settleFirst(Result<Performed> performed) {
    const Asked asked = std::move(asked_.front());
    asked_.pop_front();
    // What follows from it may ask for edits of its own: they do not wait for one that is there.
    settling_ = true;
    const auto outcome = settle_(asked.stopped ? Result<Performed>(cancelled()) : std::move(performed));
    if (asked.then) asked.then(outcome);
    settling_ = false;
}

void EditQueue::end(Result<Performed> performed) {
    if (held_) {
        ready_ = std::move(performed);
        return;
    }
    settleFirst(std::move(performed));
    next();
}

void EditQueue::stopLast() {
    for (auto it = asked_.rbegin(); it != asked_.rend(); ++it) {
        if (it->stopped) continue;
        it->stopped = true;
        break;
    }
    if (!asked_.empty() && asked_.front().stopped) worker_->cancel();
}

void EditQueue::stopAll() {
    for (Asked& asked : asked_) asked.stopped = true;
    if (!asked_.empty()) worker_->cancel();
}

void EditQueue::letGo() {
    held_ = false;
    if (!ready_) return;
    auto performed = std::move(*ready_);
    ready_.reset();
    end(std::move(performed));
}

void EditQueue::wait() {
    while (!idle()) QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents, 15);
}

}  // namespace erdwerk::app

#include "moc_edit_queue.cpp"
