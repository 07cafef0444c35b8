#pragma once
// The journal beside a project file: every change since the last save, so that a crash loses nothing.

#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::format {

/// NAME.erdwerk-journal.jsonl
std::string journalPath(const std::string& projectPath);

/// What a saved file says of itself: which save it is, and up to which change of which journal it holds
/// everything already (so that a crash between saving and starting the next journal loses nothing).
struct SaveMark {
    std::string stamp;
    std::string follows;            ///< the stamp before; empty: none
    std::uint64_t heldChanges = 0;  ///< of the journal that continues `follows`
};

/// Writes one JSON object a line: {"crc": …, "change": N, …}. The checksum (CRC-32 as in ISO 3309) is that of
/// all that follows it in the line. Change 0 names the save that the journal continues; each further one
/// holds the objects set and removed, and the settings when they changed. A journal knows what it holds: when
/// a line could not be written, the next one that can holds that change too.
class Journal {
public:
    /// Starts a journal, replacing what is there, that continues the save with this stamp; `state` is what
    /// was saved.
    static Result<Journal> start(const std::string& path, const std::string& stamp,
                                 const document::Document& state);
    /// Starts a journal with all that was brought back from the one that is there, and puts it in its place.
    /// On an Error that one stays.
    static Result<Journal> resume(const std::string& path, const std::string& stamp,
                                  const document::Document& state, const struct Replayed& replayed);
    Journal(Journal&&) noexcept;
    Journal& operator=(Journal&&) noexcept;
    ~Journal();

    /// Appends what differs from what is held and sees it to the disk before returning. Nothing differs:
    /// nothing is written. On an Error the file is as it was.
    Result<void> append(const std::string& what, const document::Document& after);
    [[nodiscard]] const document::Document& held() const;
    /// Number of the last change in it.
    [[nodiscard]] std::uint64_t changes() const;
    [[nodiscard]] const std::string& stamp() const;
    [[nodiscard]] const std::string& path() const;
    /// Takes the file away; nothing can be appended after it.
    void remove();

private:
    struct File;
    explicit Journal(std::unique_ptr<File> file);
    Result<void> putBack();
    std::unique_ptr<File> file_;
};

/// One line of a journal, as a person reads it.
struct JournalEntry {
    std::uint64_t change = 0;
    std::string what;  ///< empty when it cannot be read
    std::string when;  ///< ISO 8601, UTC; empty when it does not say
    bool broughtBack = false;
    std::string reason;  ///< why it was not
};

/// What came of reading a journal. It is never an error that keeps a project from opening.
struct Replayed {
    /// None: there is no journal. Fits: it continues this save. Other: it continues another save. Damaged:
    /// its first line cannot be read.
    enum class Kind { None, Fits, Other, Damaged };
    Kind kind = Kind::None;
    std::vector<std::string> what;              ///< of each change brought back, in order …
    std::vector<document::Document> documents;  ///< … and the document after it
    std::vector<JournalEntry> entries;          ///< of all lines after the first
    std::string problem;  ///< the first line that was not brought back, and why; or empty
    [[nodiscard]] std::size_t leftBehind() const;
    /// Something in the file is not in `documents`.
    [[nodiscard]] bool incomplete() const { return !problem.empty(); }
};

/// Reads a journal up to the first line that is damaged, out of order or does not apply. The file is not
/// changed.
Replayed replay(const std::string& path, const SaveMark& save, const document::Document& document);

/// Copies the journal to another name beside it, which is returned: NAME.erdwerk-journal-kept-1.jsonl …
Result<std::string> setAside(const std::string& path);

}  // namespace erdwerk::format
