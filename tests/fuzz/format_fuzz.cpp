// The fuzz target of all formats that can be read: FUZZ_ENDING says which. Whatever bytes come, its readers
// answer, and what they give can be worked out. Run by tools/fuzz.sh.

#include <unistd.h>

#include <cstdint>
#include <cstdlib>
#include <fstream>
#include <string>

#include "core/derive/model.h"
#include "core/format/formats.h"

namespace {

using namespace erdwerk;

void check(bool holds) {
    if (!holds) __builtin_trap();
}

/// The bytes as a file in memory, with the ending of the format.
class File {
public:
    File(const std::uint8_t* data, std::size_t size, const std::string& ending)
        : path_("/dev/shm/erdwerk-fuzz-" + std::to_string(::getpid()) + ending) {
        std::ofstream out(path_, std::ios::binary);
        out.write(reinterpret_cast<const char*>(data), static_cast<std::streamsize>(size));
        check(out.good());
    }
    File(const File&) = delete;
    File& operator=(const File&) = delete;
    ~File() { ::unlink(path_.c_str()); }
    [[nodiscard]] const std::string& path() const { return path_; }

private:
    std::string path_;
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    static const char* const ending = std::getenv("FUZZ_ENDING");
    static const format::Format* const format =
        ending == nullptr ? nullptr : format::formatOf(std::string("x") + ending);
    check(format != nullptr);
    const File file(data, size, ending);
    if (format->read != nullptr)
        if (const auto imported = format->read({}, file.path(), {}, {}))
            check(derive::evaluate(imported->document).has_value());
    if (format->readSurface != nullptr)
        if (const auto surface = format->readSurface(file.path())) check(surface->tin.triangleCount() > 0);
    return 0;
}
