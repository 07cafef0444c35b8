#include <unistd.h>

#include <algorithm>

#include <filesystem>

#include "cli/operation.h"
#include "core/check/finding.h"
#include "core/check/finding_kinds.h"
#include "core/format/export.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/records.h"
#include "core/operations/surfaces.h"

namespace erdwerk::cli {

namespace {

using document::Document;
using nlohmann::ordered_json;

struct Loaded {
    Document document;
    std::size_t skipped = 0;
    std::vector<std::string> left;
};

Result<Loaded> load(const Arguments& a) {
    Loaded out;
    for (const auto& file : a.inputs()) {
        auto options = csvOptionsOf(a);
        options.keepZero = a.flag("keep-zero");
        auto imported = format::importFile(out.document, file, options);
        if (!imported) {
            Error error = imported.error();
            if (error.file.empty()) error.file = file;
            return tl::unexpected(error);
        }
        out.document = std::move(imported->document);
        out.skipped += imported->skipped.size();
        for (const auto& row : imported->skipped)
            say(file + ":" + std::to_string(row.line) + ": skipped: " + row.reason);
        for (const auto& left : imported->left) out.left.push_back(file + ": " + left);
        const auto atZero = [&](std::size_t count, const char* what) {
            if (count > 0)
                out.left.push_back(file + ": height 0 of " + std::to_string(count) + what +
                                   " (--keep-zero keeps it)");
        };
        atZero(imported->flat.size(), " lines that have no other");
        atZero(imported->textsAtNothing, " texts or points");
    }
    return out;
}

/// Loose points and lines are checked as the sources of one surface.
Result<Document> withSurfaceOverAll(const Document& document) {
    if (!document.all<objects::Surface>().empty()) return document;
    std::vector<objects::Source> sources;
    for (const auto id : document.all<objects::Points>()) sources.push_back({id, objects::Role::Points});
    for (const auto id : document.all<objects::Line>()) {
        const auto* object = document.get<objects::Line>(id);
        const auto& line = object->line;
        const bool heights =
            object->follows || std::any_of(line.vertices.begin(), line.vertices.end(), [](const auto& v) {
                return !std::holds_alternative<linework::NoHeight>(v.rule);
            });
        if (heights) sources.push_back({id, objects::Role::Breakline});
    }
    if (sources.empty()) return document;
    auto with = operations::addSurface("all inputs", std::move(sources))(document);
    if (!with) return tl::unexpected(with.error());
    return std::move(with->document);
}

Result<Outcome> check(const Arguments& a) {
    const auto loaded = load(a);
    if (!loaded) return tl::unexpected(loaded.error());
    const bool loose = loaded->document.all<objects::Surface>().empty();
    const auto document = withSurfaceOverAll(loaded->document);
    if (!document) return tl::unexpected(document.error());
    const auto derived = derive::evaluate(*document);
    if (!derived) return tl::unexpected(derived.error());
    Outcome out;
    ordered_json findings = ordered_json::array();
    for (const auto& f : check::run(*derived)) {
        // A surface that nobody asked for need not exist.
        if (loose && f.kind == check::kinds::noSurface) continue;
        findings.push_back({{"kind", f.kind},
                            {"severity", check::severityName(f.severity)},
                            {"at", f.at ? ordered_json{f.at->x, f.at->y} : ordered_json(nullptr)},
                            {"heights", f.heights},
                            {"objects", f.names},
                            {"text", f.text}});
        out.text += std::string(check::severityName(f.severity)) + "  " + f.text;
        if (f.at)
            out.text += "  at " + formatPosition(f.at->x, f.at->y, derived->document.settings().display);
        out.text += "\n";
        if (f.severity == check::Severity::MustFix) out.dataIsWrong = true;
    }
    if (findings.empty()) out.text = "no findings\n";
    if (loaded->skipped > 0) out.dataIsWrong = true;
    out.json = {{"findings", findings}};
    return out;
}

Result<Outcome> convert(const Arguments& a) {
    auto loaded = load(a);
    if (!loaded) return tl::unexpected(loaded.error());
    if (a.flag("parcels")) {
        auto with = operations::parcelsFromClosedLines()(loaded->document);
        if (!with) return tl::unexpected(with.error());
        loaded->document = std::move(with->document);
    }
    const auto derived = derive::evaluate(loaded->document);
    if (!derived) return tl::unexpected(derived.error());
    const auto left = format::exportFile(a.text("output"), *derived);
    if (!left) return tl::unexpected(left.error());
    const Document& d = loaded->document;
    std::size_t points = 0;
    for (const auto id : d.all<objects::Points>()) points += d.get<objects::Points>(id)->set.size();
    std::vector<std::string> all = loaded->left;
    all.insert(all.end(), left->begin(), left->end());
    Outcome out;
    out.json = {{"points", points},
                {"lines", d.all<objects::Line>().size()},
                {"surfaces", d.all<objects::Surface>().size()},
                {"alignments", d.all<objects::Alignment>().size()},
                {"profiles", d.all<objects::Profile>().size()},
                {"parcels", d.all<objects::Parcel>().size()},
                {"left", all}};
    out.dataIsWrong = loaded->skipped > 0;
    return out;
}

/// Drawing needs the application's binary.
Result<Outcome> sheet(const Arguments& a) {
    const auto beside = applicationBeside();
    if (!beside) return tl::unexpected(beside.error());
    const std::string& application = *beside;
    std::vector<std::string> words{application};
    if (a.texts("sheet").empty()) words.insert(words.end(), {"--sheet", ""});
    for (const auto& name : a.texts("sheet")) words.insert(words.end(), {"--sheet", name});
    words.insert(words.end(), {a.inputs().front(), "-o", a.text("output")});
    std::vector<char*> argv;
    argv.reserve(words.size() + 1);
    for (auto& w : words) argv.push_back(w.data());
    argv.push_back(nullptr);
    ::execv(application.c_str(), argv.data());
    return fail(ErrorCode::Io, "the application could not be started", application);
}

}  // namespace

std::vector<Operation> projectOperations() {
    std::vector<Operation> out;
    const auto inputs = [](Options& options) {
        options.inputs("files", "points, vector files, LandXML, surfaces or a project").needed();
        csvOptions(options);
        options.flag("--keep-zero", "heights of 0 from end to end of a line, and of texts, are meant");
    };
    out.push_back({"check", "Findings in points, lines and projects.",
                   "erdwerk-cli check data/demo/survey.csv data/demo/lines.gpkg", inputs, check});
    out.push_back({"convert", "Read any mix of files and write them in one format.",
                   "erdwerk-cli convert data/demo/survey.csv data/demo/lines.gpkg -o site.erdwerk",
                   [inputs](Options& options) {
                       inputs(options);
                       outputOption(options, "file to write: .erdwerk .xml .gpkg .geojson .csv .obj or .glb");
                       options.flag("--parcels", "closed lines and polygons become parcels");
                   },
                   convert});
    out.push_back({"sheet",
                   "Draw the sheets of a project as PDF or SVG, and count texts that lie on each other.",
                   "erdwerk-cli sheet data/demo/quillmoor.erdwerk -o sheet.pdf",
                   [](Options& options) {
                       options.inputs("project", "the project").needed().count(1);
                       options.texts("--sheet", "names of sheets (all)").count(1).all();
                       outputOption(options, "file to write: .pdf or .svg");
                   },
                   sheet});
    return out;
}

}  // namespace erdwerk::cli
