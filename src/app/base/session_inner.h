#pragma once
// What a session keeps to itself. Only its own units know it.

#include <QString>
#include <QTimer>
#include <atomic>
#include <future>
#include <memory>
#include <optional>
#include <string>
#include <utility>

#include "app/base/edit_queue.h"
#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "app/base/texts_shown.h"
#include "core/check/finding.h"
#include "core/derive/model.h"
#include "core/format/keeper.h"

namespace erdwerk::app {

struct Session::Inner {
    std::optional<SnapshotPointer> work(const document::Document& document, const std::atomic<bool>& cancel);

    format::Keeper keeper;
    format::Recovery recovery;
    std::pair<format::Keeper::State, std::string> told{};
    QTimer beat;
    QTimer savePoll;
    struct Saving {
        QString path;
        document::Document document;
        std::uint64_t number = 0;
    };
    Saving savingOf;
    std::future<Result<std::string>> saving;
    Result<void> saveResult;
    QString saveNext;
    TextsShown textsShown;
    derive::Model model;
    check::Memory checks;
    std::atomic<int> workDone{0};
    SnapshotPointer workerLast;
    std::unique_ptr<LatestWorker<document::Document, SnapshotPointer>> worker;
    std::unique_ptr<EditQueue> edits;
};

}  // namespace erdwerk::app
