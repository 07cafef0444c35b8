#include "app/base/open_project.h"

#include <QCoreApplication>
#include <QDir>
#include <QEventLoop>
#include <QStandardPaths>
#include <QTimer>
#include <QUuid>
#include <future>
#include <utility>

#include "app/base/await_work.h"
#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "core/format/keeper.h"
#include "core/format/project_file.h"

namespace erdwerk::app {

using document::Document;
using format::Keeper;

struct OpenProject::Inner {
    Keeper keeper;
    format::Recovery recovery;
    std::uint64_t savedNumber = 0;
    bool neverSaved = false;  ///< what is there was brought back, not saved
    std::pair<Keeper::State, std::string> lastState{};
    QTimer beat;
    QTimer savePoll;
    struct Saving {
        QString path;
        Document document;
        std::uint64_t number = 0;
    };
    Saving savingOf;
    std::future<Result<std::string>> saving;
    Result<void> saveResult;
    QString saveNext;
};

namespace {

QString unnamedFolder() {
    const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
    QDir().mkpath(folder);
    return folder;
}

}  // namespace

OpenProject::OpenProject(Session& session) : session_(session), inner_(std::make_unique<Inner>()) {
    inner_->beat.setInterval(format::ProjectLock::beatSeconds * 1000);
    connect(&inner_->beat, &QTimer::timeout, this, &OpenProject::beat);
    inner_->savePoll.setInterval(15);
    connect(&inner_->savePoll, &QTimer::timeout, this, [this] {
        if (inner_->saving.valid() &&
            inner_->saving.wait_for(std::chrono::seconds(0)) == std::future_status::ready)
            finishSaving();
    });
}

OpenProject::~OpenProject() {
    if (inner_->saving.valid()) inner_->saving.wait();
}

QString OpenProject::path() const {
    return QString::fromStdString(inner_->keeper.path());
}

const format::Recovery& OpenProject::recovery() const {
    return inner_->recovery;
}

bool OpenProject::isSaving() const {
    return inner_->saving.valid();
}

const format::Keeper& OpenProject::keeper() const {
    return inner_->keeper;
}

bool OpenProject::isReadOnly() const {
    return inner_->keeper.state() == format::Keeper::State::ReadOnly;
}

bool OpenProject::isChanged() const {
    return session_.isOpen() && (inner_->neverSaved || session_.history().number() != inner_->savedNumber);
}

void OpenProject::tellKeeping() {
    std::pair<format::Keeper::State, std::string> now{inner_->keeper.state(), inner_->keeper.reason()};
    if (now == inner_->lastState) return;
    inner_->lastState = std::move(now);
    Q_EMIT keepingChanged();
}

void OpenProject::keep(const QString& what) {
    inner_->keeper.keep(what.toStdString(), session_.history().fresh());
    tellKeeping();
}

void OpenProject::startNew(const Document& document) {
    close(true);
    document::History history(document);
    inner_->savedNumber = history.number();
    inner_->neverSaved = false;
    inner_->keeper.startUnnamed((unnamedFolder() + QStringLiteral("/unnamed-") +
                                 QUuid::createUuid().toString(QUuid::WithoutBraces).left(13))
                                    .toStdString(),
                                document);
    inner_->beat.start();
    tellKeeping();
    session_.begin(std::move(history));
}

Result<void> OpenProject::open(const QString& path) {
    waitForSave();
    // The keeper works on another thread now; nothing may ask it meanwhile, and edits that are not done yet
    // go on when there is nothing to open.
    session_.setOpening(true);
    inner_->beat.stop();
    auto project = awaitWork([&] { return inner_->keeper.open(path.toStdString()); });
    if (!project) {
        if (session_.isOpen()) inner_->beat.start();
        session_.setOpening(false);
        return tl::unexpected(project.error());
    }
    session_.endEdits();
    document::History history(std::move(project->document));
    inner_->savedNumber = history.number();
    inner_->neverSaved = false;
    inner_->recovery = std::move(project->recovery);
    for (std::size_t i = 0; i < inner_->recovery.documents.size(); ++i)
        history.apply(inner_->recovery.what[i], inner_->recovery.documents[i]);
    inner_->recovery.documents.clear();
    inner_->beat.start();
    tellKeeping();
    session_.begin(std::move(history));
    return {};
}

Result<void> OpenProject::openCopy(const QString& path) {
    auto project = awaitWork([&] { return format::openProject(path.toStdString()); });
    if (!project) return tl::unexpected(project.error());
    startNew(project->document);
    return {};
}

/// What is open stands in no file.
void OpenProject::setNeverSaved() {
    inner_->neverSaved = true;
    Q_EMIT savingChanged();
}

void OpenProject::workOnCopy() {
    const Document now = session_.history().current();
    startNew(now);
    setNeverSaved();
}

QStringList OpenProject::lostProjects() {
    QStringList out;
    for (const auto& base : Keeper::lostIn(unnamedFolder().toStdString())) {
        const auto held = Keeper::readLost(base);
        // One that was opened and never edited holds nothing that is lost.
        if (held.documents.size() > 1 || held.incomplete())
            out << QString::fromStdString(base);
        else
            Keeper::dropLost(base);
    }
    return out;
}

Result<void> OpenProject::recoverLost(const QString& base) {
    auto held = Keeper::readLost(base.toStdString());
    if (held.documents.empty())
        return badInput(held.problem.empty() ? "nothing is left of it" : held.problem,
                        format::journalPath(base.toStdString()));
    format::Recovery recovery{std::move(held.what), {}, std::move(held.entries), std::move(held.problem), {}};
    if (!recovery.problem.empty()) {
        auto kept = format::setAside(format::journalPath(base.toStdString()));
        if (!kept) return tl::unexpected(kept.error());
        recovery.keptAs = *kept;
    }
    startNew(held.documents.back());
    inner_->recovery = std::move(recovery);
    Keeper::dropLost(base.toStdString());
    setNeverSaved();
    return {};
}

void OpenProject::close(bool discardChanges) {
    session_.endEdits();
    waitForSave();
    inner_->beat.stop();
    inner_->keeper.close(discardChanges || !isChanged());
    inner_->recovery = {};
    session_.end();
    tellKeeping();
}

void OpenProject::beat() {
    const bool couldTakeOver = inner_->keeper.canTakeOver();
    inner_->keeper.beat();
    if (inner_->keeper.canTakeOver() != couldTakeOver)
        Q_EMIT keepingChanged();
    else
        tellKeeping();
    // What could not be kept is tried again without waiting for the next edit.
    if (inner_->keeper.state() == Keeper::State::NotKept && session_.isOpen()) keep(tr("Changes so far"));
}

// ---- saving

void OpenProject::save(const QString& path) {
    if (isSaving()) {
        inner_->saveNext = path;
        return;
    }
    startSaving(path);
}

void OpenProject::startSaving(const QString& path) {
    const std::string file = path.toStdString();
    inner_->saveResult = inner_->keeper.prepareSave(file);
    if (!inner_->saveResult) {
        Q_EMIT message(tr("Not saved: %1").arg(QString::fromStdString(inner_->saveResult.error().message())),
                       true);
        return;
    }
    // The layers for other software come from the results there are; none is waited for.
    inner_->savingOf = {path, session_.history().fresh(), session_.history().number()};
    const auto mark = inner_->keeper.markForSave(file);
    inner_->saving = std::async(std::launch::async,
                                [file, mark, document = inner_->savingOf.document,
                                 snapshot = session_.snapshot()]() -> Result<std::string> {
                                    try {
                                        return format::saveProject(
                                            file, derive::resultsFor(document, snapshot->derived), mark);
                                    } catch (const std::exception& e) {
                                        return fail(ErrorCode::Io, e.what(), file);
                                    }
                                });
    inner_->savePoll.start();
    Q_EMIT savingChanged();
}

void OpenProject::finishSaving() {
    inner_->savePoll.stop();
    auto stamp = inner_->saving.get();
    if (!stamp) {
        inner_->saveResult = tl::unexpected(stamp.error());
        Q_EMIT savingChanged();
        Q_EMIT message(tr("Not saved: %1").arg(QString::fromStdString(stamp.error().message())), true);
    } else {
        inner_->saveResult = {};
        inner_->keeper.saved(inner_->savingOf.path.toStdString(), *stamp, inner_->savingOf.document,
                             session_.history().fresh());
        inner_->savedNumber = inner_->savingOf.number;
        inner_->neverSaved = false;
        tellKeeping();
        Q_EMIT savingChanged();
        Q_EMIT saved(inner_->savingOf.path);
    }
    inner_->savingOf = {};
    if (!inner_->saveNext.isEmpty()) startSaving(std::exchange(inner_->saveNext, {}));
}

void OpenProject::waitForSave() {
    while (isSaving()) {
        if (inner_->saving.wait_for(std::chrono::milliseconds(15)) == std::future_status::ready)
            finishSaving();
        else
            QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
    }
}

Result<void> OpenProject::saveAndWait(const QString& path) {
    waitForSave();
    startSaving(path);
    waitForSave();
    return inner_->saveResult;
}

}  // namespace erdwerk::app

#include "moc_open_project.cpp"
