#include "core/format/output.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cctype>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <cstring>
#include <filesystem>

namespace erdwerk::format {

namespace {

std::string systemReason() {
    return reasonOf(errno);
}

/// ".site.part-" of "/data/site.erdwerk".
std::string temporaryStem(const std::filesystem::path& target) {
    return "." + target.stem().string() + ".part-";
}

Result<void> flushToDisk(const std::string& path) {
    const int fd = ::open(path.c_str(), O_RDONLY);
    if (fd < 0) return fail(ErrorCode::Io, systemReason(), path);
    const bool ok = ::fsync(fd) == 0;
    const std::string reason = ok ? "" : systemReason();
    ::close(fd);
    if (!ok) return fail(ErrorCode::Io, "cannot be written: " + reason, path);
    return {};
}

}  // namespace

std::string reasonOf(int error) {
    switch (error) {
        case ENOSPC:
        case EDQUOT:
            return "the disk is full";
        case EFBIG:
            return "the file may not grow any more";
        case EACCES:
        case EPERM:
            return "writing is not allowed here";
        case EROFS:
            return "the disk can only be read";
        case ENOENT:
            return "there is no such file or folder";
        default:
            return std::strerror(error);  // NOLINT(concurrency-mt-unsafe)
    }
}

std::string plainReason(const std::string& report) {
    const auto has = [&](const char* words) { return report.find(words) != std::string::npos; };
    if (has("disk is full") || has("No space left") || has("disk full")) return "the disk is full";
    if (has("File too large")) return "the file may not grow any more";
    if (has("readonly") || has("read-only") || has("Permission denied")) return "writing is not allowed here";
    if (has("disk I/O error") || has("Write error")) return "the disk is full or cannot be written";
    if (has("unable to open")) return "it cannot be made here";
    if (has("SELECT") || has("INSERT") || has("CREATE") || has("sqlite")) return "the disk refused to write";
    return report;
}

std::string canonicalPath(const std::string& path) {
    std::error_code error;
    const auto whole = std::filesystem::weakly_canonical(path, error);
    return error ? path : whole.string();
}

void removeLeftovers(const std::string& path) {
    const std::filesystem::path target(path);
    const std::string stem = temporaryStem(target);
    std::error_code error;
    const auto folder = target.parent_path().empty() ? std::filesystem::path(".") : target.parent_path();
    for (auto it = std::filesystem::directory_iterator(folder, error);
         !error && it != std::filesystem::directory_iterator(); it.increment(error)) {
        const std::string name = it->path().filename().string();
        if (name.rfind(stem, 0) != 0) continue;
        const long pid = std::atol(name.c_str() + stem.size());
        const auto age = std::filesystem::file_time_type::clock::now() - it->last_write_time(error);
        const bool gone =
            pid > 0 && pid != ::getpid() && ::kill(static_cast<pid_t>(pid), 0) != 0 && errno == ESRCH;
        if (gone || age > std::chrono::hours(24)) std::filesystem::remove(it->path(), error);
    }
}

Result<void> replaceFile(const std::string& path,
                         const std::function<Result<void>(const std::string&)>& write) {
    const std::filesystem::path target(path);
    // The ending is kept: writers choose the format by it.
    const std::string temporary =
        (target.parent_path() /
         (temporaryStem(target) + std::to_string(::getpid()) + target.extension().string()))
            .string();
    std::error_code ignored;
    std::filesystem::remove(temporary, ignored);
    auto written = write(temporary);
    if (written) written = flushToDisk(temporary);
    if (written && std::rename(temporary.c_str(), path.c_str()) != 0)
        written = fail(ErrorCode::Io, "cannot be written: " + systemReason(), path);
    if (!written) {
        std::filesystem::remove(temporary, ignored);
        Error error = written.error();
        if (error.file == temporary || error.file.empty()) error.file = path;
        return tl::unexpected(error);
    }
    return {};
}

Result<void> replaceFile(const std::string& path, const std::string& text) {
    return replaceFile(path, [&](const std::string& temporary) -> Result<void> {
        std::FILE* file = std::fopen(temporary.c_str(), "wb");
        if (file == nullptr) return fail(ErrorCode::Io, "cannot be written: " + systemReason(), path);
        const bool wrote = std::fwrite(text.data(), 1, text.size(), file) == text.size();
        const std::string reason = wrote ? "" : systemReason();
        const bool closed = std::fclose(file) == 0;
        if (!wrote) return fail(ErrorCode::Io, "cannot be written: " + reason, path);
        if (!closed) return fail(ErrorCode::Io, "cannot be written: " + systemReason(), path);
        return {};
    });
}

Result<std::string> readFile(const std::string& path) {
    struct stat info {};
    if (::stat(path.c_str(), &info) != 0) return fail(ErrorCode::Io, systemReason(), path);
    if (S_ISDIR(info.st_mode)) return fail(ErrorCode::Io, "is a folder", path);
    std::FILE* file = std::fopen(path.c_str(), "rb");
    if (file == nullptr) return fail(ErrorCode::Io, systemReason(), path);
    std::string text;
    text.reserve(static_cast<std::size_t>(info.st_size));
    char buffer[65536];
    std::size_t got = 0;
    while ((got = std::fread(buffer, 1, sizeof buffer, file)) > 0) text.append(buffer, got);
    const bool bad = std::ferror(file) != 0;
    std::fclose(file);
    if (bad) return fail(ErrorCode::Io, "cannot be read", path);
    return text;
}

std::string endingOf(const std::string& path) {
    std::string ending = std::filesystem::path(path).extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return ending;
}

}  // namespace erdwerk::format
