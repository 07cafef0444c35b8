#pragma once
// A full disk, as far as a process can have one of its own.

#include <sys/resource.h>

#include <csignal>
#include <cstddef>

namespace erdwerk::test {

/// Files may not grow beyond this while it lives; writing further fails as on a full disk.
class FileLimit {
public:
    explicit FileLimit(std::size_t bytes) {
        ::getrlimit(RLIMIT_FSIZE, &before_);
        before_handler_ = std::signal(SIGXFSZ, SIG_IGN);
        const rlimit limit{bytes, before_.rlim_max};
        ::setrlimit(RLIMIT_FSIZE, &limit);
    }
    FileLimit(const FileLimit&) = delete;
    FileLimit& operator=(const FileLimit&) = delete;
    ~FileLimit() {
        ::setrlimit(RLIMIT_FSIZE, &before_);
        std::signal(SIGXFSZ, before_handler_);
    }

private:
    rlimit before_{};
    void (*before_handler_)(int) = nullptr;
};

}  // namespace erdwerk::test
