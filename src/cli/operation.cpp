#include "cli/operation.h"

#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <filesystem>
#include <iostream>
#include <set>

#include "core/derive/edge.h"
#include "core/derive/surface_result.h"
#include "core/format/formats.h"
#include "core/format/line_rules.h"
#include "core/format/mesh_file.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/linework/edit.h"
#include "core/terrain/clip.h"

namespace erdwerk::cli {

const std::vector<Operation>& operations() {
    static const std::vector<Operation> all = [] {
        std::vector<Operation> out;
        for (auto group :
             {surfaceOperations(), cloudOperations(), denseOperations(), extractOperations(),
              lineOperations(), derivedLineOperations(), earthworkOperations(), routeOperations(),
              parcelOperations(), descriptionOperations(), projectOperations()})
            for (auto& operation : group) out.push_back(std::move(operation));
        return out;
    }();
    return all;
}

Result<std::vector<format::VectorLine>> readRuledLines(const std::vector<std::string>& files) {
    std::vector<format::VectorLine> out;
    for (const auto& file : files) {
        auto content = format::readVectorFile(file);
        if (!content) return tl::unexpected(content.error());
        for (const auto& left : content->left) say(file + ": left out " + left);
        std::move(content->lines.begin(), content->lines.end(), std::back_inserter(out));
    }
    return out;
}

Result<std::vector<format::VectorLine>> readLines(const std::vector<std::string>& files) {
    auto lines = readRuledLines(files);
    if (!lines || std::all_of(lines->begin(), lines->end(), [](const auto& l) { return l.rules.empty(); }))
        return lines;
    auto linked = format::linkedLines(std::move(*lines));
    if (!linked) return tl::unexpected(linked.error());
    const auto solved = format::solved(*linked);
    for (std::size_t i = 0; i < solved.size(); ++i) {
        auto& line = linked->lines[i];
        if (line.rules.empty()) continue;
        std::vector<bool> marked;
        for (std::size_t k = 0; k < line.line.vertices.size(); ++k) {
            const auto& rule = line.line.vertices[k].rule;
            marked.push_back(linework::isControl(rule));
            if (marked.back() && !solved[i].vertices[k].height)
                say("line " + line.name + ": point " + std::to_string(k + 1) +
                    " has no height: " + solved[i].vertices[k].problem);
        }
        line.line = linework::frozen(line.line, solved[i], marked);
    }
    return std::move(linked->lines);
}

Result<format::VectorLine> readOneLine(const std::string& file, const std::string& what) {
    auto lines = readLines({file});
    if (!lines) return tl::unexpected(lines.error());
    if (lines->size() != 1)
        return badInput("holds " + std::to_string(lines->size()) + " lines; " + what + " needs exactly one",
                        file, 1);
    return std::move(lines->front());
}

Result<format::VectorLine> readNamedLine(const std::string& spec, const std::string& what) {
    std::error_code ignored;
    const auto mark = spec.rfind(':');
    if (mark == std::string::npos || std::filesystem::exists(spec, ignored)) return readOneLine(spec, what);
    const std::string file = spec.substr(0, mark);
    auto lines = readLines({file});
    if (!lines) return tl::unexpected(lines.error());
    for (auto& line : *lines)
        if (line.name == spec.substr(mark + 1)) return std::move(line);
    return fail(ErrorCode::NotFound, "has no line named " + spec.substr(mark + 1), file);
}

linework::ResolvedLine resolved(const linework::Line3D& line) {
    return linework::resolve(line, [](ObjectId, geometry::Vec2) -> Result<std::optional<double>> {
        return std::optional<double>{};
    });
}

Result<terrain::Boundary> readBoundary(const std::string& file) {
    const auto line = readOneLine(file, "a boundary");
    if (!line) return tl::unexpected(line.error());
    if (!line->line.closed) return badInput("the boundary is not closed", file, 1);
    auto boundary = derive::boundaryAlong(resolved(line->line), derive::breaklineSagitta);
    if (auto valid = terrain::validate(boundary); !valid) return badInput(valid.error().text, file, 1);
    return boundary;
}

void linesArgument(Options& options) {
    options.inputs("lines", "vector files").needed();
}

void outputOption(Options& options, const std::string& what) {
    options.text("-o,--output", what).needed();
}

void csvOptions(Options& options) {
    options.text(
        "--columns",
        "one letter a column of a CSV: P number, N northing, E easting, Z height, D code, - ignored");
    options.flag("--skip-bad-rows", "count rows that cannot be read instead of stopping");
}

format::ImportOptions csvOptionsOf(const Arguments& arguments) {
    return {arguments.text("columns"), arguments.flag("skip-bad-rows"), arguments.withJournal};
}

Result<void> writeSurface(const std::string& path, const terrain::Tin& tin, LengthUnit unit) {
    return format::writeSurface(path, {.name = format::stemOf(path), .tin = tin, .unit = unit});
}

Result<std::vector<terrain::Breakline>> readBreaklines(const std::vector<std::string>& files) {
    const auto lines = readLines(files);
    if (!lines) return tl::unexpected(lines.error());
    std::vector<terrain::Breakline> out;
    for (const auto& line : *lines) {
        const auto value = resolved(line.line);
        if (!value.complete()) say("line " + line.name + ": stretches without height take no part");
        for (auto& run : runsWithHeights(value, derive::breaklineSagitta))
            out.push_back({std::move(run), false});
    }
    return out;
}

Result<std::vector<terrain::Boundary>> readRings(const std::string& file) {
    const auto lines = readLines({file});
    if (!lines) return tl::unexpected(lines.error());
    std::vector<terrain::Boundary> out;
    for (const auto& line : *lines) {
        if (!line.line.closed) return badInput("line " + line.name + " is not closed", file, 1);
        out.push_back(derive::boundaryAlong(resolved(line.line), derive::breaklineSagitta));
        if (auto valid = terrain::validate(out.back()); !valid) return badInput(valid.error().text, file, 1);
    }
    if (out.empty()) return badInput("holds no closed line", file, 1);
    return out;
}

survey::CloudFilter classFilter(const Arguments& arguments) {
    survey::CloudFilter filter;
    for (const int c : arguments.wholes("classes")) filter.classes.push_back(static_cast<std::uint8_t>(c));
    return filter;
}

void surfaceArgument(Options& options) {
    options.inputs("surface", "a surface: .xml, .ply or PROJECT.erdwerk:NAME").needed().count(1);
}

void denseArgument(Options& options) {
    options.inputs("source", "a cloud (.las, .ply, text x y z), raster (.tif, .asc) or surface")
        .needed()
        .count(1);
}

void classesOption(Options& options) {
    options.wholes("--classes", "classes of a cloud that take part (all)").separatedBy(',').between(0, 255);
}

Result<std::string> applicationBeside() {
    std::error_code ignored;
    const auto self = std::filesystem::read_symlink("/proc/self/exe", ignored);
    std::string application = (self.parent_path() / "erdwerk").string();
    if (::access(application.c_str(), X_OK) != 0)
        return fail(ErrorCode::NotFound, "the application is not beside erdwerk-cli", application);
    return application;
}

Result<void> writeText(const std::string& path, const std::string& text) {
    const std::string ending = format::endingOf(path);
    if (ending == ".txt") return format::replaceFile(path, text);
    if (ending != ".odt" && ending != ".pdf")
        return fail(ErrorCode::Unsupported, "a description is written as .txt, .odt or .pdf", path);
    auto application = applicationBeside();
    if (!application) return tl::unexpected(application.error());
    // The application takes the text from a file beside the one that it writes.
    const std::string plain = path + ".part.txt";
    if (auto written = format::replaceFile(plain, text); !written) return written;
    std::string flag = "--text";
    std::string from = plain;
    std::string dash = "-o";
    std::string to = path;
    std::array<char*, 6> words{application->data(), flag.data(), from.data(),
                               dash.data(),         to.data(),   nullptr};
    pid_t child = 0;
    int status = 0;
    const int started = ::posix_spawn(&child, application->c_str(), nullptr, nullptr, words.data(), environ);
    const bool done = started == 0 && ::waitpid(child, &status, 0) == child;
    std::error_code ignored;
    std::filesystem::remove(plain, ignored);
    if (!done) return fail(ErrorCode::Io, "the application could not be started", *application);
    if (!WIFEXITED(status) || WEXITSTATUS(status) != 0)
        return fail(ErrorCode::Io, "the application could not write it", path);
    return {};
}

void say(const std::string& message) {
    std::cerr << "erdwerk-cli: " << message << "\n";
}

void sayUnsaved(const Arguments& a) {
    std::set<std::string> said;
    for (const auto& word : a.allTexts()) {
        const auto mark = word.find(".erdwerk");
        if (mark == std::string::npos) continue;
        const std::string path = word.substr(0, mark + 8);
        std::error_code ignored;
        if (!std::filesystem::exists(format::journalPath(format::canonicalPath(path)), ignored) ||
            !said.insert(path).second)
            continue;
        const auto project = format::openProjectWithJournal(path, false);
        if (!project) continue;
        if (project->unsaved > 0)
            say(path + ": " + std::to_string(project->unsaved) +
                (project->unsaved == 1 ? " unsaved change" : " unsaved changes") + " beside it, the last \"" +
                project->lastUnsaved +
                (a.withJournal ? "\": taken along" : "\": left out; --with-journal takes them along"));
        if (!project->journalProblem.empty())
            say(path + ": a part of what is unsaved cannot be read: " + project->journalProblem);
    }
}

}  // namespace erdwerk::cli
