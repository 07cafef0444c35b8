#pragma once
// Keeps the open project safe: its lock, its journal, and what is known of both. What it cannot do becomes a
// state with a reason, never a failure to open or to edit.

#include <optional>
#include <string>
#include <vector>

#include "core/format/journal.h"
#include "core/format/project_lock.h"

namespace erdwerk::format {

/// What was found beside a project when it was opened.
struct Recovery {
    std::vector<std::string> what;              ///< of each change brought back
    std::vector<document::Document> documents;  ///< the document after each
    std::vector<JournalEntry> entries;          ///< all lines, for looking at
    std::string problem;                        ///< why not all of them; empty when all
    std::string keptAs;  ///< where the journal with the rest is kept; empty: nothing is left
};

/// Requires to be told of every change of the document, in order, by keep(). Not for several threads.
class Keeper {
public:
    enum class State {
        Closed,    ///< no project
        Kept,      ///< edits are on the disk before they are shown
        NotKept,   ///< edits can be made, but `reason` keeps them from the disk
        ReadOnly,  ///< somebody else has the project open
    };
    struct Opened {
        document::Document document;  ///< as saved
        Recovery recovery;
    };

    /// Opens a saved project: takes its lock, brings back what the journal beside it holds, clears away what
    /// killed saves left. With a holder who is there it is ReadOnly and nothing beside it is touched. On an
    /// Error this keeper is as it was.
    Result<Opened> open(const std::string& path);
    /// An unnamed project that starts with `document`; `base` is a path for what stands beside it.
    void startUnnamed(const std::string& base, const document::Document& document);
    /// Unnamed projects in a folder whose process is gone: the bases of startUnnamed.
    static std::vector<std::string> lostIn(const std::string& folder);
    /// What a lost unnamed project held; the files are removed by dropLost.
    static Replayed readLost(const std::string& base);
    static void dropLost(const std::string& base);

    /// Keeps a change. Also tries again what could not be kept before.
    void keep(const std::string& what, const document::Document& document);
    /// Looks whether the lock is still held, or is free now; to be called every ProjectLock::beatSeconds.
    void beat();

    /// Before saving under a path: takes its lock when it is another path. Busy when somebody has it open.
    Result<void> prepareSave(const std::string& path);
    /// What the saved file is to say of the journal (follows and heldChanges) when all up to now is saved.
    [[nodiscard]] SaveMark markForSave(const std::string& path) const;
    /// After saving: from now on the project is at `path`, `saved` is in it, `current` is what is open.
    void saved(const std::string& path, const std::string& stamp, const document::Document& saved,
               const document::Document& current);

    /// Ends. The journal goes with its changes when `discard`; else it stays for the next start.
    void close(bool discard);

    [[nodiscard]] State state() const { return state_; }
    /// Why edits are not being kept, or who has the project open: words in a sentence.
    [[nodiscard]] const std::string& reason() const { return reason_; }
    /// ReadOnly, and the one who had it is gone now: opening again takes over.
    [[nodiscard]] bool canTakeOver() const { return canTakeOver_; }
    /// Absolute, links followed; empty when unnamed.
    [[nodiscard]] const std::string& path() const { return path_; }

private:
    void startJournal(const document::Document& current, const Replayed* replayed);
    Result<void> setOldAside(std::string* keptAs);

    State state_ = State::Closed;
    std::string reason_;
    bool canTakeOver_ = false;
    std::string path_;
    std::string base_;   ///< path_, or that of the unnamed project
    std::string stamp_;  ///< of the save that `saved_` is
    document::Document saved_;
    std::optional<ProjectLock> lock_;
    std::optional<ProjectLock> nextLock_;  ///< of the path that is being saved to
    std::string nextPath_;
    std::optional<Journal> journal_;
    bool oldJournalStays_ = false;  ///< what stands beside must be kept under another name first
};

}  // namespace erdwerk::format
