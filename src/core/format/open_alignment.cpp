#include "core/format/open_alignment.h"

#include <filesystem>

#include "core/derive/model.h"
#include "core/format/import.h"
#include "core/format/landxml.h"
#include "core/format/project_file.h"
#include "core/format/route_files.h"
#include "core/format/vector_file.h"
#include "core/route/chain.h"

namespace erdwerk::format {

namespace {

struct Read {
    std::string name;
    geometry::Path path;
    route::Stationing stationing;
    std::optional<LengthUnit> unit = {};
    std::vector<route::ClosedJoint> closed = {};
};

/// FILE or FILE:NAME.
std::pair<std::string, std::string> fileAndName(const std::string& spec, const std::string& ending) {
    const auto mark = spec.find(ending + ":");
    if (mark == std::string::npos) return {spec, {}};
    return {spec.substr(0, mark + ending.size()), spec.substr(mark + ending.size() + 1)};
}

std::string quotedNames(const std::vector<std::string>& names) {
    std::string out;
    for (const auto& name : names) out += (out.empty() ? "'" : ", '") + name + "'";
    return out;
}

/// The one of that name, or the only one.
Result<std::size_t> chosen(const std::vector<std::string>& names, const std::string& name,
                           const std::string& file) {
    if (names.empty()) return badInput("holds no alignment", file, 1);
    if (name.empty() && names.size() == 1) return std::size_t{0};
    for (std::size_t i = 0; i < names.size() && !name.empty(); ++i)
        if (names[i] == name) return i;
    if (name.empty())
        return badInput("holds several alignments, say which by " + file + ":NAME: " + quotedNames(names),
                        file, 1);
    return badInput("holds no alignment named '" + name + "', but " + quotedNames(names), file, 1);
}

Result<Read> fromLandXml(const std::string& spec) {
    const auto [file, name] = fileAndName(spec, ".xml");
    auto content = readLandXml(file);
    if (!content) return tl::unexpected(content.error());
    std::vector<std::string> names;
    names.reserve(content->alignments.size());
    for (const auto& a : content->alignments) names.push_back(a.name);
    const auto which = chosen(names, name, file);
    if (!which) return tl::unexpected(which.error());
    auto& a = content->alignments[*which];
    return Read{a.name, std::move(a.path), a.stationing, content->unit};
}

Result<Read> fromProject(const std::string& spec, bool withJournal) {
    const auto [file, name] = fileAndName(spec, ".erdwerk");
    const auto opened = openProjectWithJournal(file, withJournal);
    if (!opened) return tl::unexpected(opened.error());
    std::vector<std::string> names;
    const auto all = opened->document.all<objects::Alignment>();
    names.reserve(all.size());
    for (const ObjectId id : all) names.push_back(opened->document.nameOf(id));
    const auto which = chosen(names, name, file);
    if (!which) return tl::unexpected(which.error());
    const auto derived = derive::evaluate(opened->document);
    if (!derived) return tl::unexpected(derived.error());
    const auto* a = derive::Derived::in(derived->alignments, all[*which]);
    if (a == nullptr || a->path.empty())
        return badInput("alignment '" + names[*which] + "' has no elements", file);
    return Read{names[*which], a->path, a->stationing, opened->document.settings().display.unit};
}

Result<Read> fromPis(const std::string& file) {
    const auto pis = readPis(file);
    if (!pis) return tl::unexpected(pis.error());
    auto path = route::pathOf(*pis);
    // The row of the table that a PI stands in is one more than its number.
    if (!path) return badInput(path.error().text, file, 1);
    return Read{stemOf(file), std::move(*path), {}};
}

Result<Read> fromPieces(const std::vector<std::string>& files, double gap) {
    std::vector<route::ChainPiece> pieces;
    for (const auto& file : files) {
        auto content = readVectorFile(file);
        if (!content) return tl::unexpected(content.error());
        for (const auto& line : content->lines)
            pieces.push_back({line.name.empty() ? "line " + std::to_string(pieces.size() + 1) : line.name,
                              planPath(line.line)});
    }
    auto chain = route::chained(pieces, gap);
    if (!chain) return badInput(chain.error().text, files.front(), 1);
    return Read{pieces.size() == 1 ? pieces.front().name : stemOf(files.front()),
                std::move(chain->path),
                {},
                {},
                std::move(chain->closed)};
}

}  // namespace

Result<OpenedAlignment> openAlignment(const std::vector<std::string>& specs,
                                      const AlignmentOptions& options) {
    const auto is = [](const std::string& spec, const std::string& ending) {
        return spec.find(ending + ":") != std::string::npos ||
               std::filesystem::path(spec).extension() == ending;
    };
    const std::string& first = specs.front();
    const bool alone = is(first, ".xml") || is(first, ".erdwerk") || is(first, ".csv");
    if (alone && specs.size() > 1) return badInput("holds an alignment of its own; give it alone", first, 1);
    auto read = is(first, ".xml")       ? fromLandXml(first)
                : is(first, ".erdwerk") ? fromProject(first, options.withJournal)
                : is(first, ".csv")     ? fromPis(first)
                                        : fromPieces(specs, options.gap);
    if (!read) return tl::unexpected(read.error());
    if (options.radius) {
        const auto pis = route::pisOf(read->path);
        if (!pis)
            return badInput("its joints are not tangent, so no radius can be set at its corners", first, 1);
        auto path = route::pathOf(route::withRadius(*pis, *options.radius));
        if (!path) return badInput(path.error().text, first, 1);
        read->path = std::move(*path);
    }
    if (options.reverse) read->path = geometry::reversed(read->path);
    std::vector<route::StationEquation> equations;
    // Turned round its own equations no longer say where they stand.
    if (!options.reverse && options.equations.empty()) equations = read->stationing.equations();
    for (const auto& text : options.equations) {
        const auto e = route::parseEquation(text, {});
        if (!e) return tl::unexpected(e.error());
        equations.push_back(*e);
    }
    auto stationing = route::Stationing::withEquations(options.start.value_or(read->stationing.start()),
                                                       std::move(equations));
    if (!stationing) return tl::unexpected(stationing.error());
    OpenedAlignment out{read->name, route::alignmentOn(std::move(read->path), std::move(*stationing)),
                        read->unit, std::move(read->closed)};
    const std::size_t reached = out.geometry.stationing.upTo(out.geometry.length).equations().size();
    if (reached < out.geometry.stationing.equations().size())
        return badInput("the numbering does not reach " +
                            formatExact(out.geometry.stationing.equations()[reached].back) +
                            " within the alignment",
                        first);
    return out;
}

}  // namespace erdwerk::format
