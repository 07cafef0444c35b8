#pragma once
// Writes sheets on a worker: the window goes on, says how far it is, and can stop it.

#include <QObject>
#include <QTimer>
#include <atomic>
#include <future>
#include <memory>

#include "app/base/snapshot.h"
#include "app/sheet/sheet_output.h"

namespace erdwerk::app {

class SheetBatch : public QObject {
    Q_OBJECT
public:
    SheetBatch(QString path, SnapshotPointer snapshot, std::vector<ObjectId> sheets,
               QObject* parent = nullptr);
    /// Stops and waits.
    ~SheetBatch() override;
    [[nodiscard]] int count() const { return count_; }
    void stop() { shared_->stop = true; }

Q_SIGNALS:
    void progressed(int done);
    /// `reason` is empty when all is written.
    void finished(const QString& path, const QString& reason);

private:
    void poll();
    struct Shared {
        std::atomic<int> done{0};
        std::atomic<bool> stop{false};
    };
    QString path_;
    int count_;
    int told_ = -1;
    std::shared_ptr<Shared> shared_ = std::make_shared<Shared>();
    std::future<Result<QStringList>> work_;
    QTimer timer_;
};

}  // namespace erdwerk::app
