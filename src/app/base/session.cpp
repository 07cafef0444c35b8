#include "app/base/session.h"

#include <QCoreApplication>
#include <QEventLoop>
#include <QThread>
#include <algorithm>

#include "app/base/open_project.h"
#include "app/base/session_inner.h"
#include "core/derive/surface_result.h"
#include "core/document/edit_trace.h"
#include "core/document/following.h"
#include "core/format/keeper.h"
#include "core/objects/group.h"
#include "core/terrain/shade.h"

namespace erdwerk::app {

using document::Document;
using document::EditTrace;

Session::Session(QObject* parent)
    : QObject(parent), snapshot_(std::make_shared<const Snapshot>()), inner_(std::make_unique<Inner>()) {
    inner_->worker = std::make_unique<LatestWorker<Document, SnapshotPointer>>(
        this,
        [this](const Document& document, const std::atomic<bool>& cancel) {
            return inner_->work(document, cancel);
        },
        [this](SnapshotPointer snapshot) {
            snapshot_ = std::move(snapshot);
            stopped_ = false;
            Q_EMIT resultsChanged();
            if (!isWorking()) Q_EMIT workingChanged(false);
        },
        [this](const QString& reason) {
            // Stopped, cut short or failed: what is shown is older than the document, and says so.
            stopped_ = true;
            if (!reason.isEmpty())
                Q_EMIT message(tr("The results could not be worked out: %1").arg(reason), true);
            Q_EMIT workingChanged(isWorking());
        });
    inner_->edits = std::make_unique<EditQueue>(
        [this] { return history_.fresh(); },
        [this](Result<document::Performed> performed) {
            // Somebody else may have taken the project over meanwhile.
            return !opening_ && mayEdit() ? apply(std::move(performed)) : Outcome{};
        });
    project_ = std::make_unique<OpenProject>(*this);
    connect(project_.get(), &OpenProject::message, this, &Session::message);
}

Session::~Session() {
    inner_->edits.reset();
    inner_->worker.reset();
    project_.reset();
}

std::optional<SnapshotPointer> Session::Inner::work(const Document& document,
                                                    const std::atomic<bool>& cancel) {
    Context context;
    context.cancelFlag = &cancel;
    workDone = 0;
    context.progress = [this](double share) { workDone = static_cast<int>(share * 100); };
    auto derived = model.evaluate(document, context);
    if (!derived) {
        if (derived.error().code != ErrorCode::Cancelled) throw std::runtime_error(derived.error().text);
        return std::nullopt;
    }
    auto next = std::make_shared<Snapshot>();
    next->derived = std::move(*derived);
    auto findings = check::run(next->derived, &checks, context);
    if (!findings) return std::nullopt;
    next->findings = std::move(*findings);
    for (const auto& [id, surface] : next->derived.surfaces) {
        if (!surface->locator) continue;
        const bool same = workerLast && workerLast->derived.surfaces.count(id) != 0 &&
                          workerLast->derived.surfaces.at(id) == surface;
        next->shadings[id] = same ? workerLast->shadings.at(id)
                                  : std::make_shared<const terrain::Shading>(surface->locator, context);
    }
    if (context.isCancelled()) return std::nullopt;
    workerLast = next;
    return next;
}

const derive::Derived& Session::derived() const {
    return snapshot_->derived;
}
std::shared_ptr<const derive::Derived> Session::results() const {
    return {snapshot_, &snapshot_->derived};
}
int Session::workDone() const {
    return inner_->edits->idle() ? inner_->workDone.load() : inner_->edits->done();
}
const TextsShown& Session::textsShown() const {
    return inner_->textsShown;
}
bool Session::isWorking() const {
    return !inner_->worker->idle();
}

bool Session::isStale() const {
    return stopped_ && !isWorking() && !difference(snapshot_->derived.document, document()).empty();
}

QString Session::staleText() const {
    if (!isStale()) return {};
    return tr("results of %1, before the last edit")
        .arg(snapshot_->made.toLocalTime().toString(QStringLiteral("hh:mm")));
}

void Session::evaluate(bool cancelRunning) {
    stopped_ = false;
    inner_->worker->request(document(), cancelRunning);
    Q_EMIT workingChanged(true);
}

// ---- the project

void Session::begin(document::History history) {
    preview_.reset();
    history_ = std::move(history);
    open_ = true;
    opening_ = false;
    selection_.clear();
    Q_EMIT documentChanged();
    Q_EMIT opened();
    evaluate(true);
}

void Session::end() {
    preview_.reset();
    selection_.clear();
    open_ = false;
}

void Session::endEdits() {
    inner_->edits->stopAll();
    inner_->edits->letGo();
    inner_->edits->wait();
}

void Session::setOpening(bool opening) {
    opening_ = opening;
    if (opening)
        inner_->edits->hold();
    else
        inner_->edits->letGo();
}

// ---- edits

void Session::changed(const QString& what, const EditTrace& trace) {
    preview_.reset();
    project_->keep(what);
    selection_.carry(trace, history_.current());
    Q_EMIT edited(trace);
    Q_EMIT documentChanged();
    evaluate(true);
}

bool Session::mayEdit() {
    if (opening_) {
        endPreview();
        Q_EMIT message(tr("A project is being opened"), true);
        return false;
    }
    if (!project_->isReadOnly()) return true;
    endPreview();
    Q_EMIT message(tr("The project %1; save it under another name to work on it")
                       .arg(QString::fromStdString(project_->keeper().reason())),
                   true);
    return false;
}

Outcome Session::edit(const QString& what, const document::Edit& edit) {
    if (!mayEdit()) return {};
    if (inner_->edits->idle()) return apply(document::perform(what.toStdString(), edit, history_.fresh()));
    // It was meant for what is on the screen: what it would change there must be the same when its turn
    // comes.
    const Document seen = history_.fresh();
    auto meant = document::perform(what.toStdString(), edit, seen);
    if (!meant) return apply(std::move(meant));
    std::vector<ObjectId> touched = meant->change.removed;
    for (const ObjectId id : meant->change.changed)
        if (seen.find(id)) touched.push_back(id);
    inner_->edits->wait();
    if (!mayEdit()) return {};
    return apply(document::perform(
        what.toStdString(), document::onlyWhileSame(seen, std::move(touched), edit), history_.fresh()));
}

void Session::longEdit(const QString& what, document::LongEdit edit, Then then) {
    if (mayEdit())
        inner_->edits->ask(what, std::move(edit), std::move(then));
    else if (then)
        then({});
}

QString Session::editing() const {
    return inner_->edits->what();
}

Outcome Session::apply(Result<document::Performed> performed) {
    if (!performed) {
        endPreview();
        if (performed.error().code == ErrorCode::Cancelled) {
            Q_EMIT message(tr("Stopped; nothing was changed"), false);
            return {};
        }
        const QString problem = QString::fromStdString(performed.error().message());
        Q_EMIT message(problem, true);
        return {false, {}, problem};
    }
    if (performed->change.empty()) {
        endPreview();
        return {true};
    }
    Outcome out{true};
    for (const ObjectId id : performed->change.changed)
        if (!history_.current().find(id) && performed->document.get<objects::Group>(id) == nullptr)
            out.made.push_back(id);
    const QString did = QString::fromStdString(performed->what);
    history_.apply(performed->what, std::move(performed->document));
    changed(did, *performed->trace);
    if (!performed->said.empty()) Q_EMIT message(QString::fromStdString(performed->said), false);
    return out;
}

void Session::preview(const document::Edit& edit) {
    if (opening_ || project_->isReadOnly()) return;
    auto next = edit(history_.fresh());
    // The last picture that could be stays, and why this one cannot is said at once.
    if (!next) return Q_EMIT message(QString::fromStdString(next.error().text), true);
    preview_ = document::withPointsTied(history_.fresh(), std::move(next->document));
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
    if (opening_ || project_->isReadOnly() || step >= history_.steps().size() || step == history_.position())
        return;
    inner_->edits->stopAll();
    const Document before = history_.current();
    history_.goTo(step);
    changed(tr("Go to step %1").arg(step), EditTrace(before, history_.current()));
}

void Session::undo() {
    // The last step is one that is not there yet.
    if (!inner_->edits->idle()) return inner_->edits->stopLast();
    if (history_.canUndo()) goTo(history_.position() - 1);
}

void Session::redo() {
    if (history_.canRedo()) goTo(history_.position() + 1);
}

// ---- the texts that are shown

void Session::setTextsShown(TextsShown shown) {
    const auto tags = [](const TextsShown& t) {
        std::set<ObjectId> out;
        for (const auto& [id, of] : t.shown)
            if (of.tag) out.insert(id);
        return out;
    };
    const bool differs =
        shown.leftOut != inner_->textsShown.leftOut || tags(shown) != tags(inner_->textsShown);
    inner_->textsShown = std::move(shown);
    if (differs) Q_EMIT textsShownChanged();
}

// ---- work

void Session::cancelWork() {
    if (!inner_->edits->idle()) return inner_->edits->stopLast();
    inner_->worker->cancel();
}

void Session::workOut() {
    evaluate(true);
}

void Session::waitForResults() {
    while (isWorking() || !inner_->edits->idle()) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        QThread::msleep(1);
    }
    QCoreApplication::processEvents();
}

}  // namespace erdwerk::app

#include "moc_session.cpp"
