#include "core/linework/reach.h"

#include <algorithm>
#include <cmath>

#include "core/linework/edit.h"
#include "core/linework/path_crossings.h"
#include "core/linework/pieces.h"
#include "core/linework/to_next.h"

namespace erdwerk::linework {

namespace {

using geometry::directionOf;

/// How the last side of a line goes on: far enough to meet anything of the target.
geometry::Segment goesOn(const geometry::Segment& last, const Path& target) {
    if (const auto arc = geometry::arcOf(last)) {
        const double share = std::abs(arc->sweep.radians()) / (2 * M_PI);
        // All of the rest of the circle but a hair.
        const auto at = [&](double turns) {
            const double azimuth =
                arc->startAzimuth.radians() + arc->sweep.radians() * (1 + (1 / share - 1) * turns);
            return arc->centre + directionOf(Angle::radians(azimuth)) * arc->radius;
        };
        return {last.end, at(1 - 1e-6), at(0.5)};
    }
    auto box = boundsOf(target);
    box.add(last.end);
    const double far = box.width() + box.height() + 1;
    return {last.end, last.end + directionOf(tangentAt(last, 1)) * far, std::nullopt};
}

/// The grade at which the line arrives at its end, without the noise of its last digits.
std::optional<Grade> lastGrade(const ResolvedLine& resolved) {
    const std::size_t n = resolved.vertices.size();
    const auto grade = n < 2 ? std::nullopt : resolved.gradeAhead(resolved.ordered(n - 2));
    if (!grade) return std::nullopt;
    constexpr double digits = 1e11;
    return Grade::riseOverRun(std::round(grade->riseOverRun() * digits) / digits);
}

/// Goes on at the end of an open line to the first place of the target.
Result<Reach> goOn(const Line3D& line, const ResolvedLine& resolved, const Path& target,
                   const Surroundings& around) {
    const auto ahead = goesOn(resolved.path.back(), target);
    const double size = lengthOf(ahead);
    std::optional<double> first;
    for (const auto& side : target)
        for (const auto& [d, other] : pathCrossings({ahead}, {side}))
            if (d > pathsTouch && (!first || d < *first)) first = d;
    if (!first) return fail(ErrorCode::NotFound, "the line does not reach it, on its way ahead");
    const auto more = part(ahead, 0, *first / size);
    Line3D next = line;
    auto& end = next.vertices.back();
    const double old = lengthOf(resolved.path.back());
    const double share = old / (old + *first);
    const std::size_t corner = cornersOf(line)[resolved.path.size() - 1];
    // The old end becomes a grade point of the longer side, when it says something about the height.
    for (std::size_t i = corner + 1; i + 1 < next.vertices.size(); ++i) next.vertices[i].fraction *= share;
    LineVertex last;
    last.place = more.end;
    last.rule = NoHeight{};
    const auto grade = lastGrade(resolved);
    if (const auto* typed = std::get_if<GradeFromPrevious>(&end.rule))
        last.rule = *typed;
    else if (grade)
        last.rule = GradeFromPrevious{*grade};
    if (isCurved(ahead)) {
        const auto whole = geometry::arcOf(resolved.path.back());
        const double turn = whole->sweep.radians() / share / 2;
        next.vertices[corner].through =
            whole->centre + directionOf(Angle::radians(whole->startAzimuth.radians() + turn)) * whole->radius;
    }
    const bool goes = std::holds_alternative<GradeFromPrevious>(end.rule) && !end.curve;
    if (goes || !isControl(end.rule)) {
        end = std::move(last);
    } else {
        end.isCorner = false;
        end.fraction = share;
        end.through.reset();
        next.vertices.push_back(std::move(last));
    }
    if (auto problem = validate(next)) return badInput(std::move(*problem));
    auto kept = keepHeights(
        std::move(next),
        [&](std::size_t, double d) -> std::optional<Wanted> {
            if (d > resolved.length + cutsMeet) return std::nullopt;
            return wantedFrom(resolved, std::min(d, resolved.length));
        },
        around);
    return Reach{std::move(kept), *first};
}

}  // namespace

Result<Reach> reachTo(const Line3D& line, const ResolvedLine& resolved, double picked, const Path& target,
                      const Surroundings& around) {
    std::vector<double> cuts;
    for (const auto& [d, other] : pathCrossings(resolved.path, target))
        if (line.closed || (d > cutsMeet && d < resolved.length - cutsMeet)) cuts.push_back(d);
    if (!cuts.empty()) {
        const auto after = std::upper_bound(cuts.begin(), cuts.end(), picked);
        if (line.closed && cuts.size() < 2)
            return badInput("a closed line is trimmed where it is crossed twice");
        double from = after == cuts.begin() ? 0 : *std::prev(after);
        double to = after == cuts.end() ? resolved.length : *after;
        if (line.closed && after == cuts.begin()) from = cuts.back();
        if (line.closed && after == cuts.end()) to = cuts.front();
        auto piece = pieceOf(line, resolved, from, to, around);
        if (!piece) return tl::unexpected(piece.error());
        const double length = placed(piece->line).length;
        return Reach{std::move(*piece), length - resolved.length};
    }
    if (line.closed) return fail(ErrorCode::NotFound, "it does not cross the closed line");
    if (picked > resolved.length / 2) return goOn(line, resolved, target, around);
    const Line3D turned = reversed(line);
    auto reached = goOn(turned, resolve(turned, around), target, around);
    if (reached) reached->reshaped.line = reversed(reached->reshaped.line);
    return reached;
}

}  // namespace erdwerk::linework
