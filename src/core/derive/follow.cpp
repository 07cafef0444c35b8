#include "core/derive/follow.h"

#include "core/linework/drape.h"
#include "core/linework/enclosure.h"
#include "core/linework/height_solver.h"
#include "core/route/design_line.h"

namespace erdwerk::derive {

using linework::Line3D;
using linework::ResolvedLine;

Result<Line3D> rowBeside(const ResolvedLine& source, const linework::OffsetRow& row,
                         const linework::OffsetOptions& options, const terrain::TinLocator* ground,
                         ObjectId surface) {
    auto made = linework::offset(source, row, options);
    if (!made || row.height.by != linework::RowHeight::By::Surface) return made;
    if (ground == nullptr) return badInput("there is no surface to lay it on");
    if (auto draped = linework::drape(*made, *ground, surface)) return draped;
    return made;  // off the surface: without heights
}

Result<std::vector<Line3D>> meetingOf(const ResolvedLine& first, const ResolvedLine& second,
                                      const linework::MeetOptions& options) {
    // Each side is held against each: more than this is minutes, not a line that follows.
    constexpr std::size_t mostPairs = 10'000'000;
    std::vector<Line3D> out;
    std::size_t pairs = 0;
    for (const auto& a : runsWithHeights(first, 0.001))
        for (const auto& b : runsWithHeights(second, 0.001)) {
            pairs += a.size() * b.size();
            if (pairs > mostPairs)
                return badInput("the lines have too many sides to meet; thin one of them down");
            const auto chains = linework::meetingLine(a, b, options);
            if (!chains) continue;
            for (const auto& chain : *chains) {
                std::vector<geometry::Vec2> corners;
                std::vector<std::optional<double>> heights;
                for (const auto& p : chain) {
                    corners.push_back(p.plan());
                    heights.emplace_back(p.z);
                }
                out.push_back(linework::lineThrough(corners, heights));
            }
        }
    if (out.empty()) return fail(ErrorCode::NotFound, "the slopes never meet between the two lines");
    return out;
}

Result<Line3D> rowBesideDesign(const route::AlignmentGeometry& alignment,
                               const std::vector<route::Pvi>& design, const objects::DesignOf& of) {
    auto line = route::designLine(alignment, design);
    if (!line ||
        (of.row.run == 0 && of.row.changes.empty() && of.row.height.by == linework::RowHeight::By::Same))
        return line;
    return linework::offset(linework::resolve(*line, linework::Surroundings{}), of.row, of.options);
}

Result<Line3D> followedLine(
    const objects::Follows& follows, const std::function<std::shared_ptr<const ResolvedLine>(ObjectId)>& line,
    const std::function<std::shared_ptr<const terrain::TinLocator>(ObjectId)>& surface) {
    const auto gone = [] { return fail(ErrorCode::NotFound, "a line that it follows is no longer there"); };
    if (const auto* row = std::get_if<objects::RowOf>(&follows)) {
        const auto source = line(row->line);
        if (!source) return gone();
        const auto ground =
            row->row.height.by == linework::RowHeight::By::Surface ? surface(row->surface) : nullptr;
        return rowBeside(*source, row->row, row->options, ground.get(), row->surface);
    }
    if (const auto* figure = std::get_if<objects::FigureOf>(&follows)) {
        std::vector<geometry::Path> paths;
        for (const ObjectId id : figure->lines) {
            const auto of = line(id);
            if (!of) return gone();
            paths.push_back(of->path);
        }
        auto made = linework::figureOfAll(paths, figure->inside);
        if (!made) return tl::unexpected(made.error());
        return linework::lineRound(*made);
    }
    const auto& meeting = std::get<objects::MeetingOf>(follows);
    const auto first = line(meeting.first);
    const auto second = line(meeting.second);
    if (!first || !second) return gone();
    auto parts = meetingOf(*first, *second, meeting.options);
    if (!parts) return tl::unexpected(parts.error());
    if (meeting.part >= parts->size())
        return fail(ErrorCode::NotFound, "the slopes meet along fewer stretches than when it was made");
    return std::move((*parts)[meeting.part]);
}

}  // namespace erdwerk::derive
