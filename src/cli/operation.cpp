#include "cli/operation.h"

#include <iostream>

#include "core/document/edge.h"

namespace erdwerk::cli {

const std::vector<Operation>& operations() {
    static const std::vector<Operation> all = [] {
        std::vector<Operation> out;
        for (auto group : {surfaceOperations(), parcelOperations(), projectOperations()})
            for (auto& operation : group) out.push_back(std::move(operation));
        return out;
    }();
    return all;
}

Result<std::vector<format::VectorLine>> readLines(const std::vector<std::string>& files) {
    std::vector<format::VectorLine> out;
    for (const auto& file : files) {
        auto content = format::readVectorFile(file);
        if (!content) return tl::unexpected(content.error());
        for (const auto& left : content->left) say(file + ": left out " + left);
        std::move(content->lines.begin(), content->lines.end(), std::back_inserter(out));
    }
    return out;
}

Result<format::VectorLine> readOneLine(const std::string& file, const std::string& what) {
    auto lines = readLines({file});
    if (!lines) return tl::unexpected(lines.error());
    if (lines->size() != 1)
        return badInput("holds " + std::to_string(lines->size()) + " lines; " + what + " needs exactly one",
                        file, 1);
    return std::move(lines->front());
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
    return document::boundaryAlong(resolved(line->line), document::breaklineSagitta);
}

void say(const std::string& message) {
    std::cerr << "erdwerk-cli: " << message << "\n";
}

}  // namespace erdwerk::cli
