#include "app/sheet/sheet_batch.h"

#include <chrono>

namespace erdwerk::app {

SheetBatch::SheetBatch(QString path, SnapshotPointer snapshot, std::vector<ObjectId> sheets, QObject* parent)
    : QObject(parent), path_(std::move(path)), count_(static_cast<int>(sheets.size())) {
    work_ = std::async(std::launch::async,
                       [path = path_, snapshot = std::move(snapshot), sheets = std::move(sheets),
                        shared = shared_]() -> Result<QStringList> {
                           // What a worker throws becomes a message.
                           try {
                               return writeSheets(path, *snapshot, sheets,
                                                  [&shared](std::size_t done, const QString&) {
                                                      shared->done = static_cast<int>(done);
                                                      return !shared->stop.load();
                                                  });
                           } catch (const std::exception& e) {
                               return fail(ErrorCode::Io, e.what());
                           }
                       });
    connect(&timer_, &QTimer::timeout, this, &SheetBatch::poll);
    timer_.start(40);
}

SheetBatch::~SheetBatch() {
    stop();
    if (work_.valid()) work_.wait();
}

void SheetBatch::poll() {
    if (const int done = shared_->done; done != told_) {
        told_ = done;
        Q_EMIT progressed(done);
    }
    if (!work_.valid() || work_.wait_for(std::chrono::seconds(0)) != std::future_status::ready) return;
    timer_.stop();
    const auto result = work_.get();
    Q_EMIT progressed(count_);
    Q_EMIT finished(path_, result ? QString() : QString::fromStdString(result.error().message()));
}

}  // namespace erdwerk::app

#include "moc_sheet_batch.cpp"
