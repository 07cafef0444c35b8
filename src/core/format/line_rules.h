#pragma once
// Height rules in vector files: lines with the attribute `rules` (see linework/rule_list.h) that speak of
// each other by name.

#include <memory>
#include <string>
#include <vector>

#include "core/format/vector_file.h"
#include "core/linework/height_solver.h"
#include "core/terrain/locator.h"

namespace erdwerk::format {

/// Lines of files with their rules. The line at i goes by the id i + 1; behind the lines come the surfaces,
/// and behind those what is named and not there.
struct LinkedLines {
    std::vector<VectorLine> lines;
    std::vector<std::string> others;  ///< names of surfaces, and of what is not there
    [[nodiscard]] std::string nameOf(ObjectId id) const;
    [[nodiscard]] linework::RuleNames names() const;
};

/// Lines without rules keep the heights of their coordinates. Of lines with one name the first is meant.
/// BadInput names file, feature and entry of what cannot be read.
Result<LinkedLines> linkedLines(std::vector<VectorLine> lines, const std::vector<std::string>& surfaces = {});

/// All lines, worked out; `surfaces` are those of linkedLines, in that order.
std::vector<linework::ResolvedLine> solved(
    const LinkedLines& linked, const std::vector<std::shared_ptr<const terrain::TinLocator>>& surfaces = {});

/// A line for a file: corners and grade points are vertices of what is drawn, arcs chords unless `arcs`, and
/// `rules` says what they are.
struct RuledGeometry {
    linework::Line3D line;               ///< of corners: what is drawn
    std::vector<geometry::Vec3> places;  ///< of its corners
    bool flat = false;                   ///< heights are missing; they stand in the rules
    std::string rules;                   ///< empty when the coordinates say it all
};
RuledGeometry ruledGeometry(const linework::Line3D& line, const linework::ResolvedLine& resolved,
                            const linework::RuleNames& names, bool arcs);

}  // namespace erdwerk::format
