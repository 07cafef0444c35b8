#pragma once
// Who has a project open: a file beside it, NAME.erdwerk-lock, that says so to other windows and machines.

#include <memory>
#include <optional>
#include <string>

#include "core/base/result.h"

namespace erdwerk::format {

/// NAME.erdwerk-lock
std::string lockPath(const std::string& projectPath);

struct LockHolder {
    std::string host;
    std::string user;
    std::string since;  ///< local time, "12:04"
    long pid = 0;
    /// "anna on host moor since 12:04"
    [[nodiscard]] std::string text() const;
};

/// Held for as long as the object lives. A holder on this machine counts as gone when its process is; one on
/// another machine when it did not touch the file for `patience`.
class ProjectLock {
public:
    static constexpr int patienceSeconds = 150;
    static constexpr int beatSeconds = 30;

    /// Busy (the text names the holder) when somebody has it; Io when the file cannot be made.
    static Result<ProjectLock> take(const std::string& projectPath);
    ProjectLock(ProjectLock&&) noexcept;
    ProjectLock& operator=(ProjectLock&&) noexcept;
    ~ProjectLock();

    /// Tells others that this holder is there. False when another one took over meanwhile.
    [[nodiscard]] bool beat() const;

private:
    struct File;
    explicit ProjectLock(std::unique_ptr<File> file);
    std::unique_ptr<File> file_;
};

/// Who holds the lock now, if anybody who is there does.
std::optional<LockHolder> lockHolder(const std::string& projectPath);

}  // namespace erdwerk::format
