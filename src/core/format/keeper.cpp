#include "core/format/keeper.h"

#include <filesystem>

#include "core/format/output.h"
#include "core/format/project_file.h"

namespace erdwerk::format {

using document::Document;

namespace {

constexpr const char* unnamedStamp = "unnamed";
constexpr std::string_view journalEnding = "-journal.jsonl";

}  // namespace

Result<void> Keeper::setOldAside(std::string* keptAs) {
    std::error_code ignored;
    if (!std::filesystem::exists(journalPath(base_), ignored)) return {};
    auto kept = setAside(journalPath(base_));
    if (!kept) return tl::unexpected(kept.error());
    if (keptAs != nullptr) *keptAs = *kept;
    return {};
}

void Keeper::startJournal(const Document& current, const Replayed* replayed) {
    Result<void> done;
    if (oldJournalStays_) done = setOldAside(nullptr);
    if (done) {
        oldJournalStays_ = false;
        auto journal =
            Journal::resume(journalPath(base_), stamp_, saved_, replayed != nullptr ? *replayed : Replayed{});
        if (journal) {
            journal_ = std::move(*journal);
            done = journal_->append("Changes so far", current);
        } else {
            done = tl::unexpected(journal.error());
        }
    }
    state_ = done ? State::Kept : State::NotKept;
    reason_ = done ? std::string() : done.error().text;
}

Result<Keeper::Opened> Keeper::open(const std::string& given) {
    const std::string path = canonicalPath(given);
    // The lock this keeper holds already serves for opening the same project again.
    const bool again = lock_ && path == path_;
    std::optional<ProjectLock> lock;
    Result<void> locked;
    if (!again) {
        auto taken = ProjectLock::take(path);
        if (taken)
            lock = std::move(*taken);
        else
            locked = tl::unexpected(taken.error());
    }
    auto project = openProject(path);
    if (!project) return tl::unexpected(project.error());
    if (again) lock = std::move(lock_);
    close(true);
    path_ = base_ = path;
    stamp_ = project->mark.stamp;
    saved_ = project->document;
    lock_ = std::move(lock);
    Opened out{project->document, {}};
    auto replayed = replay(journalPath(path), project->mark, project->document);
    const bool busy = !locked && locked.error().code == ErrorCode::Busy;
    if (lock_) removeLeftovers(path);
    if (!busy && replayed.incomplete()) {
        auto kept = setOldAside(&out.recovery.keptAs);
        oldJournalStays_ = !kept;
    }
    if (busy) {
        state_ = State::ReadOnly;
        reason_ = locked.error().text;
    } else {
        const Document current = replayed.documents.empty() ? saved_ : replayed.documents.back();
        if (oldJournalStays_) {
            state_ = State::NotKept;
            reason_ = "the damaged journal beside it could not be kept under another name";
        } else {
            startJournal(current, &replayed);
        }
    }
    out.recovery.what = std::move(replayed.what);
    out.recovery.documents = std::move(replayed.documents);
    out.recovery.entries = std::move(replayed.entries);
    out.recovery.problem = busy ? std::string() : std::move(replayed.problem);
    return out;
}

void Keeper::startUnnamed(const std::string& base, const Document& document) {
    close(true);
    base_ = base;
    path_.clear();
    stamp_ = unnamedStamp;
    saved_ = {};
    if (auto lock = ProjectLock::take(base)) lock_ = std::move(*lock);
    // An unnamed project has no file to fall back on: its journal begins with everything it holds.
    startJournal(document, nullptr);
}

std::vector<std::string> Keeper::lostIn(const std::string& folder) {
    std::vector<std::string> out;
    std::error_code error;
    for (const auto& entry : std::filesystem::directory_iterator(folder, error)) {
        const std::string name = entry.path().string();
        if (entry.path().filename().string().rfind("unnamed-", 0) != 0 ||
            name.size() <= journalEnding.size() ||
            name.substr(name.size() - journalEnding.size()) != journalEnding)
            continue;
        const std::string base = name.substr(0, name.size() - journalEnding.size());
        if (!lockHolder(base)) out.push_back(base);
    }
    return out;
}

Replayed Keeper::readLost(const std::string& base) {
    return replay(journalPath(base), {unnamedStamp, {}, 0}, {});
}

void Keeper::dropLost(const std::string& base) {
    std::error_code ignored;
    std::filesystem::remove(journalPath(base), ignored);
    std::filesystem::remove(lockPath(base), ignored);
}

void Keeper::keep(const std::string& what, const Document& document) {
    if (state_ == State::Closed || state_ == State::ReadOnly) return;
    if (!journal_) return startJournal(document, nullptr);
    const auto done = journal_->append(what, document);
    state_ = done ? State::Kept : State::NotKept;
    reason_ = done ? std::string() : done.error().text;
}

void Keeper::beat() {
    if (state_ == State::ReadOnly) {
        canTakeOver_ = !lockHolder(base_);
        return;
    }
    if (!lock_ || lock_->beat()) return;
    // Another one took over: what it writes must not be written over.
    lock_.reset();
    journal_.reset();
    state_ = State::ReadOnly;
    const auto holder = lockHolder(base_);
    reason_ = "was taken over" + (holder ? " by " + holder->text() : std::string());
}

Result<void> Keeper::prepareSave(const std::string& given) {
    const std::string path = canonicalPath(given);
    nextLock_.reset();
    nextPath_ = path;
    if (path == path_) {
        if (state_ == State::ReadOnly) return fail(ErrorCode::Busy, reason_, path);
        if (!lock_) {
            auto lock = ProjectLock::take(path);
            if (!lock && lock.error().code == ErrorCode::Busy) return tl::unexpected(lock.error());
            if (lock) lock_ = std::move(*lock);
        }
        return {};
    }
    auto lock = ProjectLock::take(path);
    if (!lock) return tl::unexpected(lock.error());
    nextLock_ = std::move(*lock);
    return {};
}

SaveMark Keeper::markForSave(const std::string& path) const {
    if (!journal_ || canonicalPath(path) != path_) return {};
    return {{}, journal_->stamp(), journal_->changes()};
}

void Keeper::saved(const std::string& given, const std::string& stamp, const Document& saved,
                   const Document& current) {
    const std::string path = canonicalPath(given);
    const bool moved = path != base_;
    if (moved) {
        // What the file before was opened with belongs to the new one now.
        if (journal_) journal_->remove();
        journal_.reset();
        lock_ = std::move(nextLock_);
        path_ = base_ = path;
        oldJournalStays_ = true;  // of whoever had a project there
    }
    nextLock_.reset();
    // Saving the same file again: the journal that is there stays good until the next one is in its place.
    auto before = std::move(journal_);
    journal_.reset();
    stamp_ = stamp;
    saved_ = saved;
    startJournal(current, nullptr);
    if (!journal_ && before) {
        journal_ = std::move(before);
        keep("Changes so far", current);
    }
}

void Keeper::close(bool discard) {
    if (journal_ && discard) journal_->remove();
    journal_.reset();
    lock_.reset();
    nextLock_.reset();
    state_ = State::Closed;
    reason_.clear();
    path_.clear();
    base_.clear();
    oldJournalStays_ = false;
    canTakeOver_ = false;
}

}  // namespace erdwerk::format
