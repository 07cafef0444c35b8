// One fuzz target per reader, chosen when it is built (FUZZ_READER): whatever bytes come, the reader answers.
// Run by tools/fuzz.sh.

#include <sys/mman.h>
#include <unistd.h>

#include <cstdint>
#include <string>
#include <string_view>

#include "core/derive/model.h"
#include "core/format/cloud_file.h"
#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/mesh_file.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"

namespace {

/// The bytes as a file that never touches a disk.
class MemoryFile {
public:
    MemoryFile(const std::uint8_t* data, std::size_t size) : fd_(::memfd_create("fuzz", 0)) {
        if (::write(fd_, data, size) != static_cast<ssize_t>(size)) ::_exit(1);
    }
    MemoryFile(const MemoryFile&) = delete;
    MemoryFile& operator=(const MemoryFile&) = delete;
    ~MemoryFile() { ::close(fd_); }
    [[nodiscard]] std::string path() const { return "/proc/self/fd/" + std::to_string(fd_); }

private:
    int fd_;
};

void check(bool holds) {
    if (!holds) __builtin_trap();
}

void readOne(const std::uint8_t* data, std::size_t size) {
    using namespace erdwerk;
    const std::string reader = FUZZ_READER;
    if (reader == "csv") {
        const std::string_view bytes(reinterpret_cast<const char*>(data), size);
        const auto layout = format::proposeLayout(bytes, "f.csv");
        if (!layout) return;
        const auto points = format::readPoints(bytes, *layout, LengthUnit::Metre, "f.csv");
        if (!points) return;
        for (const auto& p : points->points) check(std::isfinite(p.plan.x) && std::isfinite(p.plan.y));
        return;
    }
    const MemoryFile file(data, size);
    if (reader == "las") {
        const auto cloud = format::readLas(file.path());
        if (!cloud) return;
        for (std::size_t i = 0; i < std::min<std::size_t>(cloud->size(), 1000); ++i)
            check(std::isfinite(cloud->place(i).x) && std::isfinite(cloud->place(i).z));
    } else if (reader == "ply") {
        const auto tin = format::readPly(file.path());
        if (tin) check(tin->triangleCount() > 0);
        const auto points = format::readPlyPoints(file.path());
        if (points)
            for (const auto& p : *points) check(std::isfinite(p.x) && std::isfinite(p.y));
    } else if (reader == "landxml") {
        const auto content = format::readLandXml(file.path());
        if (!content) return;
        const auto imported = format::addLandXml({}, "f.xml", *content);
        if (imported) check(derive::evaluate(imported->document).has_value());
    } else if (reader == "project") {
        const auto opened = format::openProject(file.path());
        if (opened) check(derive::evaluate(opened->document).has_value());
    }
}

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    readOne(data, size);
    return 0;
}
