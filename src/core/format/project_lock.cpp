#include "core/format/project_lock.h"

#include <fcntl.h>
#include <fmt/format.h>
#include <pwd.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <nlohmann/json.hpp>
#include <random>

#include "core/format/output.h"

namespace erdwerk::format {

using nlohmann::json;

std::string lockPath(const std::string& projectPath) {
    return projectPath + "-lock";
}

std::string LockHolder::text() const {
    return user + " on " + host + " since " + since;
}

struct ProjectLock::File {
    std::string path;
    std::string token;
    ~File();
};

namespace {

std::string hostName() {
    char name[256] = {};
    return ::gethostname(name, sizeof name - 1) == 0 ? name : "this machine";
}

std::string userName() {
    const auto* entry = ::getpwuid(::getuid());  // NOLINT(concurrency-mt-unsafe)
    return entry != nullptr ? entry->pw_name : "somebody";
}

/// Of this start of the machine: a process number means nothing after the next one.
std::string bootId() {
    const auto text = readFile("/proc/sys/kernel/random/boot_id");
    return text ? text->substr(0, 36) : std::string();
}

/// When a process was started, in the kernel's ticks; empty when there is no such process.
std::string startOf(long pid) {
    const auto text = readFile("/proc/" + std::to_string(pid) + "/stat");
    if (!text) return {};
    // The name in brackets may hold spaces; the start is the 20th field after it.
    std::size_t at = text->rfind(')');
    for (int i = 0; i < 20 && at != std::string::npos; ++i) at = text->find(' ', at + 1);
    if (at == std::string::npos) return {};
    return text->substr(at + 1, text->find(' ', at + 1) - at - 1);
}

std::string localTime() {
    const auto time = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::tm local{};
    ::localtime_r(&time, &local);
    return fmt::format("{:02}:{:02}", local.tm_hour, local.tm_min);
}

std::string freshToken() {
    std::random_device device;
    return fmt::format("{:08x}{:08x}", device(), device());
}

/// Writes a new file of our own; its time of change is the file server's now.
Result<void> writeOwn(const std::string& path, const std::string& token) {
    const long pid = ::getpid();
    const json content{{"erdwerk-lock", 1},  {"token", token},      {"host", hostName()},
                       {"boot", bootId()},   {"pid", pid},          {"start", startOf(pid)},
                       {"user", userName()}, {"since", localTime()}};
    const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0644);
    if (fd < 0) return fail(ErrorCode::Io, reasonOf(errno), path);
    const std::string text = content.dump() + "\n";
    const bool wrote = ::write(fd, text.data(), text.size()) == static_cast<ssize_t>(text.size());
    const int error = errno;
    ::close(fd);
    if (wrote) return {};
    ::unlink(path.c_str());
    return fail(ErrorCode::Io, reasonOf(error), path);
}

json contentOf(const std::string& path) {
    const auto text = readFile(path);
    json content = text ? json::parse(*text, nullptr, false) : json();
    return content.is_object() ? content : json::object();
}

std::string tokenOf(const json& content) {
    const auto it = content.find("token");
    return it != content.end() && it->is_string() ? it->get<std::string>() : std::string();
}

std::string word(const json& content, const char* key) {
    const auto it = content.find(key);
    return it != content.end() && it->is_string() ? it->get<std::string>() : std::string();
}

/// How long ago a file was touched, by the clock of the disk it is on.
double secondsSince(const std::string& path, const std::string& fresh) {
    struct stat then {};
    struct stat now {};
    if (::stat(path.c_str(), &then) != 0 || ::stat(fresh.c_str(), &now) != 0) return 0;
    return static_cast<double>(now.st_mtime - then.st_mtime);
}

/// Whoever wrote this is gone. `fresh` is a file made just now in the same folder.
bool isGone(const json& content, const std::string& path, const std::string& fresh) {
    const auto pid = content.find("pid");
    if (pid == content.end() || !pid->is_number_integer())
        return secondsSince(path, fresh) > ProjectLock::patienceSeconds;
    if (word(content, "host") == hostName())
        return word(content, "boot") != bootId() || startOf(pid->get<long>()) != word(content, "start");
    return secondsSince(path, fresh) > ProjectLock::patienceSeconds;
}

LockHolder holderFrom(const json& content) {
    const auto pid = content.find("pid");
    return {word(content, "host"), word(content, "user"), word(content, "since"),
            pid != content.end() && pid->is_number_integer() ? pid->get<long>() : 0};
}

/// Puts `own` where the lock is, unless something is there. Some disks have no links; then it is made there.
bool putInPlace(const std::string& own, const std::string& path, const std::string& token, int& error) {
    if (::link(own.c_str(), path.c_str()) == 0) return true;
    error = errno;
    if (error == EEXIST) return false;
    if (writeOwn(path, token)) return true;
    error = errno;
    return false;
}

}  // namespace

ProjectLock::File::~File() {
    if (tokenOf(contentOf(path)) == token) ::unlink(path.c_str());
}

ProjectLock::ProjectLock(std::unique_ptr<File> file) : file_(std::move(file)) {}
ProjectLock::ProjectLock(ProjectLock&&) noexcept = default;
ProjectLock& ProjectLock::operator=(ProjectLock&&) noexcept = default;
ProjectLock::~ProjectLock() = default;

Result<ProjectLock> ProjectLock::take(const std::string& projectPath) {
    const std::string path = lockPath(projectPath);
    const std::string token = freshToken();
    const std::string own = path + "." + token;
    if (auto done = writeOwn(own, token); !done) return tl::unexpected(done.error());
    const auto finish = [&](Result<ProjectLock> result) {
        ::unlink(own.c_str());
        return result;
    };
    for (int attempt = 0; attempt < 20; ++attempt) {
        int error = 0;
        if (putInPlace(own, path, token, error)) {
            auto file = std::make_unique<File>();
            file->path = path;
            file->token = token;
            return finish(ProjectLock(std::move(file)));
        }
        if (error != EEXIST) return finish(fail(ErrorCode::Io, reasonOf(error), path));
        const json there = contentOf(path);
        if (!isGone(there, path, own))
            return finish(fail(ErrorCode::Busy, "is open: " + holderFrom(there).text(), projectPath));
        // The one that is gone makes room; when somebody else was quicker, theirs is put back.
        const std::string old = own + ".old";
        if (std::rename(path.c_str(), old.c_str()) != 0) continue;
        if (tokenOf(contentOf(old)) != tokenOf(there)) (void)!::link(old.c_str(), path.c_str());
        ::unlink(old.c_str());
    }
    return finish(fail(ErrorCode::Busy, "is being opened by others", projectPath));
}

bool ProjectLock::beat() const {
    if (tokenOf(contentOf(file_->path)) != file_->token) return false;
    return ::utimensat(AT_FDCWD, file_->path.c_str(), nullptr, 0) == 0 || errno != ENOENT;
}

std::optional<LockHolder> lockHolder(const std::string& projectPath) {
    const std::string path = lockPath(projectPath);
    const json there = contentOf(path);
    if (there.empty()) return std::nullopt;
    // A folder that cannot be written has no fresh file to compare with; then the holder counts as there.
    const std::string own = path + "." + freshToken();
    const bool made = writeOwn(own, "").has_value();
    const bool gone = isGone(there, path, made ? own : path);
    if (made) ::unlink(own.c_str());
    return gone ? std::nullopt : std::optional(holderFrom(there));
}

}  // namespace erdwerk::format
