#include "core/linework/smooth.h"

#include "core/linework/edit.h"
#include "core/linework/smooth_side.h"

namespace erdwerk::linework {

namespace {

/// The line as it becomes, and where on the old one each vertex was; nothing for a joint.
struct Smoothing {
    Line3D line;
    std::vector<std::optional<double>> came;

    /// The joint of a side, and its grade points on the two arcs.
    void addSide(const Line3D& old, const std::vector<double>& at, std::size_t start, std::size_t end,
                 const Biarc& arcs) {
        line.vertices.back().through = arcs.first.through;
        const double share = arcs.share();
        bool joined = false;
        const auto join = [&] {
            LineVertex v;
            v.joint = true;
            v.place = arcs.second.start;
            v.through = arcs.second.through;
            if (!std::holds_alternative<NoHeight>(old.vertices[start].rule)) v.rule = Interpolated{};
            line.vertices.push_back(v);
            came.emplace_back();
            joined = true;
        };
        for (std::size_t i = start + 1; i < end; ++i) {
            LineVertex v = old.vertices[i];
            if (!joined && v.fraction >= share) join();
            v.fraction = joined ? (v.fraction - share) / (1 - share) : v.fraction / share;
            if (!(v.fraction > 0)) v.fraction = 1e-9;
            line.vertices.push_back(v);
            came.emplace_back(at[i]);
        }
        if (!joined) join();
    }
};

/// The line with straights for its smooth sides, and where on the given one each vertex is.
struct Stripped {
    Line3D line;
    std::vector<double> came;
};

Result<Stripped> stripped(const Line3D& given) {
    Stripped out{given, {}};
    dropLooseJoints(out.line);
    // A joint with a height of its own is a corner to go through, like the first of a ring.
    for (auto& v : out.line.vertices) v.joint = v.joint && !isControl(v.rule);
    if (!out.line.vertices.empty()) out.line.vertices.front().joint = false;
    const auto at = placed(given);
    for (std::size_t i = 0; i < given.vertices.size(); ++i)
        if (!out.line.vertices[i].joint) out.came.push_back(at.vertices[i].distance);
    for (std::size_t i = given.vertices.size(); i-- > 0;) {
        if (!out.line.vertices[i].joint) continue;
        auto next = withoutVertex(out.line, i);
        if (!next) return tl::unexpected(next.error());
        out.line = std::move(*next);
    }
    return out;
}

Result<Smoothing> smoothing(const Line3D& given) {
    // What is smooth already is smoothed anew, through the same corners.
    const auto bare = stripped(given);
    if (!bare) return tl::unexpected(bare.error());
    const Line3D& line = bare->line;
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    if (n < 3) return badInput("a smooth line goes through at least three corners");
    std::vector<Vec2> places;
    places.reserve(n);
    for (const std::size_t i : corners) places.push_back(line.vertices[i].place);
    const auto tangents = smoothTangents(places, line.closed);
    if (!tangents) return badInput("the line turns back on itself");
    Smoothing next;
    next.line.closed = line.closed;
    for (std::size_t k = 0; k < n; ++k) {
        next.line.vertices.push_back(line.vertices[corners[k]]);
        next.came.emplace_back(bare->came[corners[k]]);
        if (!line.closed && k + 1 == n) break;
        const std::size_t other = (k + 1) % n;
        const auto arcs = biarc(places[k], places[other], (*tangents)[k], (*tangents)[other]);
        if (!arcs) return badInput("the line turns back on itself");
        next.addSide(line, bare->came, corners[k], other == 0 ? line.vertices.size() : corners[other], *arcs);
    }
    if (auto problem = validate(next.line)) return badInput(std::move(*problem));
    return next;
}

}  // namespace

Result<Line3D> smoothShape(const Line3D& line) {
    auto smooth = smoothing(line);
    if (!smooth) return tl::unexpected(smooth.error());
    return std::move(smooth->line);
}

Result<Reshaped> smoothed(const Line3D& line, const ResolvedLine& resolved, const Surroundings& around) {
    auto smooth = smoothing(line);
    if (!smooth) return tl::unexpected(smooth.error());
    return keepHeights(
        std::move(smooth->line),
        [&](std::size_t vertex, double) -> std::optional<Wanted> {
            if (!smooth->came[vertex]) return std::nullopt;
            return wantedFrom(resolved, *smooth->came[vertex]);
        },
        around);
}

}  // namespace erdwerk::linework
