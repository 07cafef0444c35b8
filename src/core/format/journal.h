#pragma once
// The journal beside a project file: every change since the last save, so that a crash loses nothing.

#include <memory>
#include <string>

#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::format {

/// NAME.erdwerk-journal.jsonl
std::string journalPath(const std::string& projectPath);

/// One JSON object a line. The first line names the save it continues; each further line is a change: objects
/// set and removed, settings. A line that a crash cut off is ignored.
class Journal {
public:
    /// Starts an empty journal that continues the save with this stamp.
    static Result<Journal> start(const std::string& path, const std::string& stamp);
    /// Goes on with a journal that has been replayed.
    static Result<Journal> resume(const std::string& path);
    Journal(Journal&&) noexcept;
    Journal& operator=(Journal&&) noexcept;
    ~Journal();

    /// Appends what differs and sees it to the disk before returning. Nothing differs: nothing is written.
    Result<void> append(const std::string& what, const document::Document& before,
                        const document::Document& after);
    void remove();

private:
    struct File;
    explicit Journal(std::unique_ptr<File> file);
    std::unique_ptr<File> file_;
};

struct Replayed {
    document::Document document;
    std::size_t changes = 0;
    std::string last;  ///< what the last change was
};

/// The document after the journal's changes. NotFound when there is no journal, or one of another save.
Result<Replayed> replay(const std::string& path, const std::string& stamp, document::Document document);

}  // namespace erdwerk::format
