// Projects.

#include "core/format/formats.h"
#include "core/format/output.h"
#include "core/format/project_file.h"
#include "core/format/project_lock.h"
#include "core/objects/points.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path,
                      const ImportOptions& options, const Context&) {
    auto opened = openProjectWithJournal(path, options.withJournal);
    if (!opened) return tl::unexpected(opened.error());
    if (!document.objects().empty())
        return fail(ErrorCode::Unsupported, "a project must be the first input", path);
    Imported out;
    out.document = std::move(opened->document);
    for (const auto id : out.document.all<objects::Points>())
        out.points += out.document.get<objects::Points>(id)->set.size();
    out.lines = out.document.all<objects::Line>().size();
    return out;
}

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    if (const auto holder = lockHolder(canonicalPath(path)))
        return fail(ErrorCode::Busy, "is open: " + holder->text() + "; write to another name", path);
    auto stamp = saveProject(path, derived);
    if (!stamp) return tl::unexpected(stamp.error());
    return std::vector<std::string>{};
}

}  // namespace

Format project() {
    return {.name = "Erdwerk project",
            .endings = {".erdwerk"},
            .sort = FileSort::Project,
            .read = read,
            .write = write};
}

}  // namespace erdwerk::format
