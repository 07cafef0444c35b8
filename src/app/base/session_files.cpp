// Opening, saving, recovering: the files of a session.

#include <QCoreApplication>
#include <QDir>
#include <QEventLoop>
#include <QStandardPaths>
#include <QUuid>

#include "app/base/aside.h"
#include "app/base/session_inner.h"
#include "core/format/project_file.h"

namespace erdwerk::app {

using document::Document;
using format::Keeper;

namespace {

QString unnamedFolder() {
    const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
    QDir().mkpath(folder);
    return folder;
}

}  // namespace

void Session::startNew(const Document& document) {
    endEdits();
    waitForSave();
    close(true);
    history_ = document::History(document);
    savedNumber_ = history_.number();
    neverSaved_ = false;
    inner_->recovery = {};
    open_ = true;
    inner_->keeper.startUnnamed((unnamedFolder() + QStringLiteral("/unnamed-") +
                                 QUuid::createUuid().toString(QUuid::WithoutBraces).left(13))
                                    .toStdString(),
                                document);
    inner_->beat.start();
    tellKeeping();
    Q_EMIT documentChanged();
    Q_EMIT opened();
    evaluate(true);
}

Result<void> Session::open(const QString& path) {
    endEdits();
    waitForSave();
    // The keeper works on another thread now; nothing may ask it meanwhile.
    inner_->beat.stop();
    auto project = aside([&] { return inner_->keeper.open(path.toStdString()); });
    if (!project) {
        if (open_) inner_->beat.start();
        return tl::unexpected(project.error());
    }
    preview_.reset();
    selection_.clear();
    hover_.reset();
    open_ = true;
    history_ = document::History(std::move(project->document));
    savedNumber_ = history_.number();
    neverSaved_ = false;
    inner_->recovery = std::move(project->recovery);
    for (std::size_t i = 0; i < inner_->recovery.documents.size(); ++i)
        history_.apply(inner_->recovery.what[i], inner_->recovery.documents[i]);
    inner_->recovery.documents.clear();
    inner_->beat.start();
    tellKeeping();
    Q_EMIT selectionChanged();
    Q_EMIT documentChanged();
    Q_EMIT opened();
    evaluate(true);
    return {};
}

Result<void> Session::openCopy(const QString& path) {
    auto project = aside([&] { return format::openProject(path.toStdString()); });
    if (!project) return tl::unexpected(project.error());
    startNew(project->document);
    return {};
}

void Session::workOnCopy() {
    const Document now = history_.current();
    startNew(now);
    neverSaved_ = true;
    Q_EMIT documentChanged();
}

QStringList Session::lostProjects() {
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

Result<void> Session::recoverLost(const QString& base) {
    auto held = Keeper::readLost(base.toStdString());
    if (held.documents.empty())
        return badInput(held.problem.empty() ? "nothing is left of it" : held.problem,
                        format::journalPath(base.toStdString()));
    format::Recovery recovery{std::move(held.what), {}, std::move(held.entries), std::move(held.problem), {}};
    if (!recovery.problem.empty()) {
        auto aside = format::keepAside(format::journalPath(base.toStdString()));
        if (!aside) return tl::unexpected(aside.error());
        recovery.keptAs = *aside;
    }
    startNew(held.documents.back());
    neverSaved_ = true;
    inner_->recovery = std::move(recovery);
    Keeper::dropLost(base.toStdString());
    Q_EMIT documentChanged();
    return {};
}

/// Another project is to be there: edits that are not done yet will not be.
void Session::endEdits() {
    inner_->edits->stopAll();
    inner_->edits->wait();
}

void Session::close(bool discardChanges) {
    endEdits();
    waitForSave();
    inner_->beat.stop();
    inner_->keeper.close(discardChanges || !isChanged());
    preview_.reset();
    selection_.clear();
    hover_.reset();
    inner_->recovery = {};
    open_ = false;
    tellKeeping();
}

void Session::beat() {
    const bool couldTakeOver = inner_->keeper.canTakeOver();
    inner_->keeper.beat();
    if (inner_->keeper.canTakeOver() != couldTakeOver)
        Q_EMIT keepingChanged();
    else
        tellKeeping();
    // What could not be kept is tried again without waiting for the next edit.
    if (inner_->keeper.state() == Keeper::State::NotKept && open_) keep(tr("Changes so far"));
}

// ---- saving

void Session::save(const QString& path) {
    if (isSaving()) {
        inner_->saveNext = path;
        return;
    }
    startSaving(path);
}

void Session::startSaving(const QString& path) {
    const std::string file = path.toStdString();
    inner_->saveResult = inner_->keeper.prepareSave(file);
    if (!inner_->saveResult) {
        Q_EMIT message(tr("Not saved: %1").arg(QString::fromStdString(inner_->saveResult.error().message())),
                       true);
        return;
    }
    // The layers for other software come from the results there are; none is waited for.
    inner_->savingOf = {path, history_.fresh(), history_.number()};
    const auto mark = inner_->keeper.markForSave(file);
    inner_->saving = std::async(
        std::launch::async,
        [file, mark, document = inner_->savingOf.document, snapshot = snapshot_]() -> Result<std::string> {
            try {
                return format::saveProject(file, derive::resultsFor(document, snapshot->derived), mark);
            } catch (const std::exception& e) {
                return fail(ErrorCode::Io, e.what(), file);
            }
        });
    inner_->savePoll.start();
    Q_EMIT savingChanged();
}

void Session::finishSaving() {
    inner_->savePoll.stop();
    auto stamp = inner_->saving.get();
    if (!stamp) {
        inner_->saveResult = tl::unexpected(stamp.error());
        Q_EMIT savingChanged();
        Q_EMIT message(tr("Not saved: %1").arg(QString::fromStdString(stamp.error().message())), true);
    } else {
        inner_->saveResult = {};
        inner_->keeper.saved(inner_->savingOf.path.toStdString(), *stamp, inner_->savingOf.document,
                             history_.fresh());
        savedNumber_ = inner_->savingOf.number;
        neverSaved_ = false;
        tellKeeping();
        Q_EMIT savingChanged();
        Q_EMIT documentChanged();
        Q_EMIT saved(inner_->savingOf.path);
    }
    inner_->savingOf = {};
    if (!inner_->saveNext.isEmpty()) startSaving(std::exchange(inner_->saveNext, {}));
}

void Session::waitForSave() {
    while (isSaving()) {
        if (inner_->saving.wait_for(std::chrono::milliseconds(15)) == std::future_status::ready)
            finishSaving();
        else
            QCoreApplication::processEvents(QEventLoop::ExcludeUserInputEvents);
    }
}

Result<void> Session::saveAndWait(const QString& path) {
    waitForSave();
    startSaving(path);
    waitForSave();
    return inner_->saveResult;
}

}  // namespace erdwerk::app
