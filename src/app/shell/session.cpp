#include "app/shell/session.h"

#include <QCoreApplication>
#include <QDir>
#include <QEventLoop>
#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>
#include <QThread>
#include <algorithm>

#include "app/shell/aside.h"
#include "core/format/project_file.h"

namespace erdwerk::app {

using document::Document;

Session::Session(QObject* parent) : QObject(parent) {
    auto work = [this](const Document& document,
                       const std::atomic<bool>& cancel) -> std::optional<SnapshotPointer> {
        Context context;
        context.cancelFlag = &cancel;
        workDone_ = 0;
        context.progress = [this](double share) { workDone_ = static_cast<int>(share * 100); };
        auto derived = model_.evaluate(document, context);
        if (!derived) return std::nullopt;
        auto next = std::make_shared<Snapshot>();
        next->derived = std::move(*derived);
        next->findings = check::run(next->derived, &checks_);
        for (const auto& [id, surface] : next->derived.surfaces) {
            if (!surface->locator) continue;
            const bool same = workerLast_ && workerLast_->derived.surfaces.count(id) != 0 &&
                              workerLast_->derived.surfaces.at(id) == surface;
            next->shadings[id] = same ? workerLast_->shadings.at(id)
                                      : std::make_shared<const terrain::Shading>(surface->locator);
        }
        workerLast_ = next;
        return next;
    };
    worker_ = std::make_unique<LatestWorker<Document, SnapshotPointer>>(this, std::move(work),
                                                                        [this](SnapshotPointer snapshot) {
                                                                            snapshot_ = std::move(snapshot);
                                                                            Q_EMIT resultsChanged();
                                                                            if (!isWorking())
                                                                                Q_EMIT workingChanged(false);
                                                                        });
}

Session::~Session() {
    worker_.reset();
}

bool Session::isChanged() const {
    return history_.position() != savedStep_;
}
bool Session::isWorking() const {
    return !worker_->idle();
}

void Session::evaluate(bool cancelRunning) {
    worker_->request(document(), cancelRunning);
    Q_EMIT workingChanged(true);
}

void Session::changed(const QString& what, const Document& before) {
    preview_.reset();
    if (journal_) {
        if (auto done = journal_->append(what.toStdString(), before, history_.current()); !done)
            Q_EMIT message(QString::fromStdString(done.error().message()), true);
    }
    dropLostSelection();
    Q_EMIT documentChanged();
    evaluate(true);
}

void Session::apply(const QString& what, const Document& next) {
    if (difference(history_.current(), next).empty()) {
        if (preview_) endPreview();
        return;
    }
    const Document before = history_.current();
    history_.apply(what.toStdString(), next);
    if (savedStep_ >= history_.position())
        savedStep_ = SIZE_MAX;  // what was saved can no longer be reached by redo
    changed(what, before);
}

void Session::preview(const Document& next) {
    preview_ = next;
    Q_EMIT documentChanged();
    // A drag shows each result that gets finished; only edits stop what runs.
    evaluate(false);
}

void Session::endPreview() {
    if (!preview_) return;
    preview_.reset();
    Q_EMIT documentChanged();
    evaluate(true);
}

void Session::goTo(std::size_t step) {
    if (step >= history_.steps().size() || step == history_.position()) return;
    const Document before = history_.current();
    history_.goTo(step);
    changed(tr("Go to step %1").arg(step), before);
}

void Session::undo() {
    if (history_.canUndo()) goTo(history_.position() - 1);
}

void Session::redo() {
    if (history_.canRedo()) goTo(history_.position() + 1);
}

void Session::startJournal(const std::string& stamp) {
    QString base = path_;
    if (base.isEmpty()) {
        const QString folder = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
        QDir().mkpath(folder);
        base = folder + QStringLiteral("/unnamed-%1").arg(QCoreApplication::applicationPid());
    }
    journalOf_ = base;
    auto journal = format::Journal::start(format::journalPath(base.toStdString()), stamp);
    if (journal)
        journal_ = std::move(*journal);
    else
        Q_EMIT message(QString::fromStdString(journal.error().message()), true);
}

void Session::startNew(const Document& document) {
    close(true);
    history_ = document::History(document);
    savedStep_ = 0;
    path_.clear();
    open_ = true;
    startJournal("unnamed");
    // An unnamed project has no file to fall back on: its journal begins with everything it holds.
    if (journal_) (void)journal_->append("Start", {}, document);
    Q_EMIT documentChanged();
    Q_EMIT opened();
    evaluate(true);
}

Result<QString> Session::open(const QString& path) {
    auto project = format::openProject(path.toStdString());
    if (!project) return tl::unexpected(project.error());
    const std::string journal = format::journalPath(path.toStdString());
    auto replayed = format::replay(journal, project->stamp, project->document);
    if (!replayed && replayed.error().code != ErrorCode::NotFound) return tl::unexpected(replayed.error());
    close(true);
    path_ = path;
    open_ = true;
    QString recovered;
    history_ = document::History(project->document);
    savedStep_ = 0;
    if (replayed && replayed->changes > 0) {
        history_.apply("Recovered " + std::to_string(replayed->changes) + " changes", replayed->document);
        recovered = tr("%1 unsaved changes were recovered; the last was \"%2\". Undo takes them back.")
                        .arg(replayed->changes)
                        .arg(QString::fromStdString(replayed->last));
        journalOf_ = path;
        if (auto resumed = format::Journal::resume(journal)) journal_ = std::move(*resumed);
    } else {
        startJournal(project->stamp);
    }
    Q_EMIT documentChanged();
    Q_EMIT opened();
    evaluate(true);
    return recovered;
}

Result<void> Session::openCopy(const QString& path) {
    auto project = format::openProject(path.toStdString());
    if (!project) return tl::unexpected(project.error());
    startNew(project->document);
    return {};
}

QStringList Session::lostProjects() {
    QStringList out;
    const QDir folder(QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation));
    for (const QString& name :
         folder.entryList({QStringLiteral("unnamed-*-journal.jsonl")}, QDir::Files, QDir::Time)) {
        // A journal whose process still runs belongs to another window.
        const QString pid = name.section(QLatin1Char('-'), 1, 1);
        if (!QFileInfo::exists(QStringLiteral("/proc/%1").arg(pid))) out << folder.filePath(name);
    }
    return out;
}

Result<void> Session::recoverLost(const QString& journal) {
    auto replayed = format::replay(journal.toStdString(), "unnamed", {});
    if (!replayed) return tl::unexpected(replayed.error());
    startNew(replayed->document);
    savedStep_ = SIZE_MAX;
    QFile::remove(journal);
    return {};
}

Result<void> Session::saveAs(const QString& path) {
    // The layers for other software come from the results of the very document that is saved.
    waitForResults();
    auto snapshot = snapshot_;
    if (!difference(snapshot->derived.document, history_.current()).empty()) {
        auto derived = aside([document = history_.current()] { return document::derive(document); });
        if (!derived) return tl::unexpected(derived.error());
        auto made = std::make_shared<Snapshot>();
        made->derived = std::move(*derived);
        snapshot = made;
    }
    auto stamp = aside([&] { return format::saveProject(path.toStdString(), snapshot->derived); });
    if (!stamp) return tl::unexpected(stamp.error());
    if (journal_) journal_->remove();
    journal_.reset();
    path_ = path;
    savedStep_ = history_.position();
    startJournal(*stamp);
    Q_EMIT documentChanged();
    return {};
}

void Session::close(bool discardChanges) {
    if (journal_ && (discardChanges || !isChanged())) journal_->remove();
    journal_.reset();
    preview_.reset();
    selection_.clear();
    hover_.reset();
}

void Session::select(std::vector<Ref> refs) {
    if (refs == selection_) return;
    selection_ = std::move(refs);
    Q_EMIT selectionChanged();
}

bool Session::isSelected(ObjectId id) const {
    return std::any_of(selection_.begin(), selection_.end(), [&](const Ref& r) { return r.object == id; });
}

void Session::dropLostSelection() {
    const auto size = selection_.size();
    std::erase_if(selection_, [&](const Ref& r) {
        if (!document().find(r.object)) return true;
        if (const auto* points = document().get<document::Points>(r.object); points != nullptr && r.part)
            return *r.part >= points->set.size();
        if (const auto* line = document().get<document::Line>(r.object); line != nullptr && r.part)
            return *r.part >= line->line.vertices.size();
        return false;
    });
    if (selection_.size() != size) Q_EMIT selectionChanged();
}

void Session::setHover(const std::optional<Hover>& hover) {
    hover_ = hover;
    Q_EMIT hoverChanged();
}

void Session::cancelWork() {
    worker_->cancel();
}

void Session::waitForResults() {
    while (isWorking()) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        QThread::msleep(1);
    }
    QCoreApplication::processEvents();
}

}  // namespace erdwerk::app
