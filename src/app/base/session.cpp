#include "app/base/session.h"

#include <QCoreApplication>
#include <QEventLoop>
#include <QThread>
#include <algorithm>

#include "core/document/following.h"

namespace erdwerk::app {

using document::Document;
using document::EditTrace;

std::optional<Ref> carried(const Ref& ref, const EditTrace& trace, const Document& after) {
    if (!ref.part) {
        const auto object = trace.object(ref.object);
        return object && after.find(*object) ? std::optional(Ref{*object, {}}) : std::nullopt;
    }
    const auto part = trace.vertex({ref.object, *ref.part});
    if (!part || !after.find(part->object)) return std::nullopt;
    return Ref{part->object, part->index};
}

Session::Session(QObject* parent) : QObject(parent) {
    worker_ = std::make_unique<LatestWorker<Document, SnapshotPointer>>(
        this,
        [this](const Document& document, const std::atomic<bool>& cancel) { return work(document, cancel); },
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
    beat_.setInterval(format::ProjectLock::beatSeconds * 1000);
    connect(&beat_, &QTimer::timeout, this, &Session::beat);
    savePoll_.setInterval(15);
    connect(&savePoll_, &QTimer::timeout, this, [this] {
        if (saving_.valid() && saving_.wait_for(std::chrono::seconds(0)) == std::future_status::ready)
            finishSaving();
    });
}

Session::~Session() {
    worker_.reset();
    if (saving_.valid()) saving_.wait();
}

std::optional<SnapshotPointer> Session::work(const Document& document, const std::atomic<bool>& cancel) {
    Context context;
    context.cancelFlag = &cancel;
    workDone_ = 0;
    context.progress = [this](double share) { workDone_ = static_cast<int>(share * 100); };
    auto derived = model_.evaluate(document, context);
    if (!derived) {
        if (derived.error().code != ErrorCode::Cancelled) throw std::runtime_error(derived.error().text);
        return std::nullopt;
    }
    auto next = std::make_shared<Snapshot>();
    next->derived = std::move(*derived);
    next->findings = check::run(next->derived, &checks_);
    for (const auto& [id, surface] : next->derived.surfaces) {
        if (!surface->locator) continue;
        const bool same = workerLast_ && workerLast_->derived.surfaces.count(id) != 0 &&
                          workerLast_->derived.surfaces.at(id) == surface;
        next->shadings[id] =
            same ? workerLast_->shadings.at(id) : std::make_shared<const terrain::Shading>(surface->locator);
    }
    workerLast_ = next;
    return next;
}

bool Session::isChanged() const {
    return open_ && (neverSaved_ || history_.number() != savedNumber_);
}
bool Session::isWorking() const {
    return !worker_->idle();
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
    worker_->request(document(), cancelRunning);
    Q_EMIT workingChanged(true);
}

// ---- edits

void Session::tellKeeping() {
    std::pair<format::Keeper::State, std::string> now{keeper_.state(), keeper_.reason()};
    if (now == told_) return;
    told_ = std::move(now);
    Q_EMIT keepingChanged();
}

void Session::keep(const QString& what) {
    keeper_.keep(what.toStdString(), history_.fresh());
    tellKeeping();
}

void Session::changed(const QString& what, const Document& before) {
    preview_.reset();
    keep(what);
    const EditTrace trace(before, history_.current());
    carrySelection(trace);
    Q_EMIT edited(trace);
    Q_EMIT documentChanged();
    evaluate(true);
}

bool Session::edit(const QString& what, const document::Edit& edit) {
    if (isReadOnly()) {
        endPreview();
        Q_EMIT message(tr("The project %1; save it under another name to work on it")
                           .arg(QString::fromStdString(keeper_.reason())),
                       true);
        return false;
    }
    auto done = document::perform(what.toStdString(), edit, history_.fresh());
    if (!done) {
        endPreview();
        Q_EMIT message(QString::fromStdString(done.error().text), true);
        return false;
    }
    if (difference(history_.current(), done->document).empty()) {
        endPreview();
        return true;
    }
    const Document before = history_.current();
    const QString did = QString::fromStdString(done->what);
    history_.apply(done->what, std::move(done->document));
    changed(did, before);
    if (!done->said.empty()) Q_EMIT message(QString::fromStdString(done->said), false);
    return true;
}

void Session::preview(const document::Edit& edit) {
    if (isReadOnly()) return;
    auto next = edit(history_.fresh());
    // The last picture that could be stays, and why this one cannot is said at once.
    if (!next) return Q_EMIT message(QString::fromStdString(next.error().text), true);
    preview_ = document::withPointsTied(history_.fresh(), std::move(next->document));
    Q_EMIT documentChanged();
    // A drag shows each result that gets finished; only edits stop what runs.
    evaluate(false);
}

std::vector<ObjectId> Session::addedSince(const document::Document& before) const {
    std::vector<ObjectId> out;
    for (const ObjectId id : difference(before, document()).changed)
        if (!before.find(id) && document().get<objects::Group>(id) == nullptr) out.push_back(id);
    return out;
}

void Session::endPreview() {
    if (!preview_) return;
    preview_.reset();
    Q_EMIT documentChanged();
    evaluate(true);
}

void Session::goTo(std::size_t step) {
    if (isReadOnly() || step >= history_.steps().size() || step == history_.position()) return;
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

// ---- selection and hover

void Session::select(std::vector<Ref> refs) {
    if (refs == selection_) return;
    selection_ = std::move(refs);
    Q_EMIT selectionChanged();
}

bool Session::isSelected(ObjectId id) const {
    return std::any_of(selection_.begin(), selection_.end(), [&](const Ref& r) { return r.object == id; });
}

void Session::carrySelection(const EditTrace& trace) {
    std::vector<Ref> now;
    for (const Ref& r : selection_)
        if (const auto next = carried(r, trace, history_.current());
            next && std::find(now.begin(), now.end(), *next) == now.end())
            now.push_back(*next);
    select(std::move(now));
}

void Session::setTextsShown(TextsShown shown) {
    const auto tags = [](const TextsShown& t) {
        std::set<ObjectId> out;
        for (const auto& [id, of] : t.shown)
            if (of.tag) out.insert(id);
        return out;
    };
    const bool differs = shown.leftOut != textsShown_.leftOut || tags(shown) != tags(textsShown_);
    textsShown_ = std::move(shown);
    if (differs) Q_EMIT textsShownChanged();
}

void Session::setHover(const std::optional<Hover>& hover) {
    hover_ = hover;
    Q_EMIT hoverChanged();
}

// ---- work

void Session::cancelWork() {
    worker_->cancel();
}

void Session::workOut() {
    evaluate(true);
}

void Session::waitForResults() {
    while (isWorking()) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        QThread::msleep(1);
    }
    QCoreApplication::processEvents();
}

}  // namespace erdwerk::app
