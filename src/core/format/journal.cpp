#include "core/format/journal.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>

#include "core/format/journal_line.h"
#include "core/format/output.h"

namespace erdwerk::format {

using document::Document;
using nlohmann::json;

std::string journalPath(const std::string& projectPath) {
    return projectPath + "-journal.jsonl";
}

struct Journal::File {
    std::string path;
    std::string stamp;
    int handle = -1;
    off_t size = 0;  ///< of the whole lines
    std::uint64_t changes = 0;
    Document saved;  ///< what the first line continues
    Document held;
    File(std::string where, std::string of, const Document& state)
        : path(std::move(where)), stamp(std::move(of)), saved(state), held(state) {}
    File(const File&) = delete;
    File& operator=(const File&) = delete;
    ~File() { close(); }
    void close() {
        if (handle >= 0) ::close(handle);
        handle = -1;
    }

    /// An empty file with the first line.
    Result<void> begin() {
        close();
        handle = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
        if (handle < 0)
            return fail(ErrorCode::Io, "edits cannot be kept beside the project: " + reasonOf(errno), path);
        size = 0;
        changes = 0;
        held = saved;
        return put({{"erdwerk-journal", 2}, {"change", 0}, {"continues", stamp}});
    }

    /// Writes a line to its end and to the disk, or leaves the file as it was.
    Result<void> put(const json& content) {
        const std::string text = sealed(content);
        std::size_t done = 0;
        while (done < text.size()) {
            const auto wrote =
                ::pwrite(handle, text.data() + done, text.size() - done, size + static_cast<off_t>(done));
            if (wrote < 0 && errno == EINTR) continue;
            if (wrote <= 0) break;
            done += static_cast<std::size_t>(wrote);
        }
        if (done < text.size() || ::fdatasync(handle) != 0) {
            const std::string reason = reasonOf(errno);
            // Half a line would be taken for damage; a disk that is full still lets a file get shorter.
            (void)!::ftruncate(handle, size);
            return fail(ErrorCode::Io, "edits are not being kept: " + reason, path);
        }
        size += static_cast<off_t>(text.size());
        return {};
    }
};

Journal::Journal(std::unique_ptr<File> file) : file_(std::move(file)) {}
Journal::Journal(Journal&&) noexcept = default;
Journal& Journal::operator=(Journal&&) noexcept = default;
Journal::~Journal() = default;

Result<Journal> Journal::start(const std::string& path, const std::string& stamp, const Document& state) {
    auto file = std::make_unique<File>(path, stamp, state);
    if (auto done = file->begin(); !done) return tl::unexpected(done.error());
    return Journal(std::move(file));
}

Result<Journal> Journal::resume(const std::string& path, const std::string& stamp, const Document& state,
                                const Replayed& replayed) {
    const std::string beside = path + ".new";
    auto journal = start(beside, stamp, state);
    if (!journal) return journal;
    Result<void> done;
    for (std::size_t i = 0; i < replayed.documents.size() && done; ++i)
        done = journal->append(replayed.what[i], replayed.documents[i]);
    if (done && std::rename(beside.c_str(), path.c_str()) != 0)
        done = fail(ErrorCode::Io, "edits cannot be kept beside the project: " + reasonOf(errno), path);
    if (!done) {
        journal->remove();
        return tl::unexpected(done.error());
    }
    journal->file_->path = path;
    return journal;
}

Result<void> Journal::putBack() {
    struct stat info {};
    if (::fstat(file_->handle, &info) == 0 && info.st_nlink > 0 && info.st_size >= file_->size) return {};
    // Somebody took the file away or cut it: it is written again, with all that it held.
    const Document held = file_->held;
    const auto changes = file_->changes;
    if (auto done = file_->begin(); !done) return done;
    if (changes == 0) return {};
    if (auto done = file_->put(changeToJson("Changes so far", 1, file_->saved, held)); !done) return done;
    file_->changes = 1;
    file_->held = held;
    return {};
}

Result<void> Journal::append(const std::string& what, const Document& after) {
    if (document::difference(file_->held, after).empty()) return {};
    if (auto done = putBack(); !done) return done;
    if (auto done = file_->put(changeToJson(what, file_->changes + 1, file_->held, after)); !done)
        return done;
    ++file_->changes;
    file_->held = after;
    return {};
}

const Document& Journal::held() const {
    return file_->held;
}
std::uint64_t Journal::changes() const {
    return file_->changes;
}
const std::string& Journal::stamp() const {
    return file_->stamp;
}
const std::string& Journal::path() const {
    return file_->path;
}

void Journal::remove() {
    if (file_) ::unlink(file_->path.c_str());
    file_.reset();
}

}  // namespace erdwerk::format
