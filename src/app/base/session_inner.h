#pragma once
// What a session keeps to itself. Only its own units know it.

#include <QString>
#include <atomic>
#include <memory>
#include <optional>

#include "app/base/edit_queue.h"
#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "app/base/texts_shown.h"
#include "core/check/finding.h"
#include "core/derive/model.h"

namespace erdwerk::app {

struct Session::Inner {
    std::optional<SnapshotPointer> work(const document::Document& document, const std::atomic<bool>& cancel);

    TextsShown textsShown;
    derive::Model model;
    check::Memory checks;
    std::atomic<int> workDone{0};
    SnapshotPointer workerLast;
    std::unique_ptr<LatestWorker<document::Document, SnapshotPointer>> worker;
    std::unique_ptr<EditQueue> edits;
};

}  // namespace erdwerk::app
