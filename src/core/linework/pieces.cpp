#include "core/linework/pieces.h"

#include <algorithm>
#include <cmath>

#include "core/linework/edit.h"
#include "core/linework/to_next.h"

namespace erdwerk::linework {

namespace {

/// Position of the vertex at a distance, when one stands there.
std::optional<std::size_t> vertexAt(const Line3D& line, double distance) {
    const auto where = placed(line);
    std::optional<std::size_t> found;
    double best = cutsMeet;
    for (std::size_t i = 0; i < where.vertices.size(); ++i) {
        double d = std::abs(where.vertices[i].distance - distance);
        if (line.closed) d = std::min(d, std::abs(where.length - d));
        if (d <= best && (!found || d < best || line.vertices[i].isCorner)) {
            best = d;
            found = i;
        }
    }
    return found;
}

struct OnSegment {
    std::size_t segment = 0;
    double fraction = 0;
};

OnSegment segmentAt(const Line3D& line, double distance) {
    const auto path = planPath(line);
    for (std::size_t s = 0; s < path.size(); ++s) {
        const double size = lengthOf(path[s]);
        if (distance <= size || s + 1 == path.size()) return {s, std::clamp(distance / size, 0.0, 1.0)};
        distance -= size;
    }
    return {};
}

double onLine(const Line3D& line, double distance, double length) {
    if (!line.closed) return distance;
    distance = std::fmod(distance, length);
    return distance < 0 ? distance + length : distance;
}

/// A part of a parabola is a parabola, about the point half way along it.
void cutCurve(Line3D& line, const ResolvedLine& resolved, const ResolvedCurve& c, double distance,
              double in) {
    const double rest = c.length - in;
    auto& old = line.vertices[c.vertex];
    old.curve.reset();
    old.rule = Interpolated{};
    if (!old.isCorner) line.vertices.erase(line.vertices.begin() + static_cast<std::ptrdiff_t>(c.vertex));
    const auto put = [&](double at, double height, std::optional<double> length) {
        auto& v = line.vertices[controlAt(line, onLine(line, at, resolved.length))];
        v.rule = FixedHeight{height};
        v.curve.reset();
        if (length) v.curve = VerticalCurve{VerticalCurve::By::Length, *length};
    };
    put(distance - in / 2, c.startHeight + c.in.riseOverRun() * in / 2, in);
    put(distance, c.height(in), {});
    put(distance + rest / 2, c.height(c.length) - c.out.riseOverRun() * rest / 2, rest);
}

}  // namespace

std::size_t controlAt(Line3D& line, double distance) {
    if (const auto there = vertexAt(line, distance)) return *there;
    const auto at = segmentAt(line, distance);
    if (auto with = insertGradePoint(line, at.segment, at.fraction)) line = std::move(*with);
    return vertexAt(line, distance).value_or(0);
}

Reshaped withPlacesFixed(const Line3D& line, const ResolvedLine& resolved,
                         const std::function<bool(double)>& lost) {
    Reshaped out{line};
    std::vector<bool> marked(line.vertices.size(), false);
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const Standing how = standing(line.vertices[i].rule);
        const auto& r = resolved.vertices[i];
        if (how == Standing::Own || !r.height) continue;
        const auto neighbourLost = [&](bool ahead) {
            const auto other = nextControl(line, resolved, i, ahead);
            return !other || lost(resolved.vertices[*other].distance);
        };
        marked[i] = segmentAt(line, r.distance).segment != segmentOf(line, i) || lost(r.distance) ||
                    (how == Standing::Solved && (neighbourLost(false) || neighbourLost(true)));
        if (marked[i] && !lost(r.distance)) out.settled.push_back({line.vertices[i].rule, r.place});
    }
    if (std::find(marked.begin(), marked.end(), true) != marked.end())
        out.line = frozen(line, resolved, marked);
    return out;
}

Reshaped withCurveCut(const Line3D& given, const ResolvedLine& resolved, double distance) {
    Reshaped out{given};
    Line3D& line = out.line;
    for (const auto& c : resolved.curves)
        for (const double turn : {0.0, resolved.length, -resolved.length}) {
            const double in = distance + turn - c.start;
            if ((turn != 0.0 && !line.closed) || in <= cutsMeet || in >= c.length - cutsMeet) continue;
            for (const bool ahead : {false, true}) {
                const auto other = nextControl(given, resolved, c.vertex, ahead);
                if (!other) continue;
                auto& rule = line.vertices[*other].rule;
                const bool rise = ahead ? std::holds_alternative<RiseFromPrevious>(rule)
                                        : std::holds_alternative<RiseToNext>(rule);
                if (!rise || !resolved.vertices[*other].height) continue;
                out.settled.push_back({rule, resolved.vertices[*other].place});
                rule = FixedHeight{*resolved.vertices[*other].height};
            }
            cutCurve(line, resolved, c, distance, in);
            return out;
        }
    return out;
}

std::size_t cornerAt(Line3D& line, double distance) {
    const auto there = vertexAt(line, distance);
    if (there && line.vertices[*there].isCorner) return *there;
    const auto at = there ? OnSegment{segmentOf(line, *there), line.vertices[*there].fraction}
                          : segmentAt(line, distance);
    if (auto with = insertCorner(line, at.segment, at.fraction)) line = std::move(*with);
    return vertexAt(line, distance).value_or(0);
}

Result<Reshaped> pieceOf(const Line3D& line, const ResolvedLine& resolved, double from, double to,
                         const Surroundings& around) {
    const double length = resolved.length;
    if (!std::isfinite(from) || !std::isfinite(to) || from < -cutsMeet || to < -cutsMeet ||
        from > length + cutsMeet || to > length + cutsMeet)
        return badInput("the place is not on the line");
    from = std::clamp(from, 0.0, length);
    to = std::clamp(to, 0.0, length);
    if (line.closed) {
        from = onLine(line, from, length);
        to = onLine(line, to, length);
    }
    double run = to - from;
    if (line.closed && run <= cutsMeet) run += length;
    if (run <= cutsMeet) return badInput("nothing of the line lies between");

    // Of a closed line none stays: it is turned round to the start of the part.
    auto found = withPlacesFixed(
        line, resolved, [&](double d) { return line.closed || d < from - cutsMeet || d > to + cutsMeet; });
    Line3D whole = std::move(found.line);
    for (const double cut : {from, to}) {
        auto next = withCurveCut(whole, whole == line ? resolved : resolve(whole, around), cut);
        whole = std::move(next.line);
        found.settled.insert(found.settled.end(), next.settled.begin(), next.settled.end());
    }
    cornerAt(whole, to);
    std::size_t first = cornerAt(whole, from);
    if (whole.closed) {
        std::rotate(whole.vertices.begin(), whole.vertices.begin() + static_cast<std::ptrdiff_t>(first),
                    whole.vertices.end());
        whole.vertices.push_back(whole.vertices.front());
        whole.closed = false;
        first = 0;
    }
    std::size_t last = whole.vertices.size() - 1;
    if (run < length - cutsMeet || !line.closed) last = cornerAt(whole, line.closed ? run : to);
    if (last <= first) return badInput("nothing of the line lies between");
    Line3D out;
    out.vertices.assign(whole.vertices.begin() + static_cast<std::ptrdiff_t>(first),
                        whole.vertices.begin() + static_cast<std::ptrdiff_t>(last) + 1);
    out.vertices.back().through.reset();
    for (auto* end : {&out.vertices.front(), &out.vertices.back()}) end->curve.reset();
    const std::vector<std::size_t> ends{0, out.vertices.size() - 1};
    auto kept = keepHeights(
        std::move(out),
        [&](std::size_t, double distance) -> std::optional<Wanted> {
            return wantedFrom(resolved, onLine(line, from + distance, length));
        },
        around, ends);
    kept.settled.insert(kept.settled.end(), found.settled.begin(), found.settled.end());
    return kept;
}

Result<std::vector<Reshaped>> cutAt(const Line3D& line, const ResolvedLine& resolved,
                                    std::vector<double> distances, const Surroundings& around) {
    std::erase_if(distances, [&](double d) {
        return !line.closed && (d <= cutsMeet || d >= resolved.length - cutsMeet);
    });
    std::sort(distances.begin(), distances.end());
    distances.erase(
        std::unique(distances.begin(), distances.end(), [](double a, double b) { return b - a <= cutsMeet; }),
        distances.end());
    if (distances.empty()) return badInput("there is nothing to cut it at inside the line");
    std::vector<std::pair<double, double>> parts;
    if (line.closed) {
        for (std::size_t i = 0; i < distances.size(); ++i)
            parts.emplace_back(distances[i], distances[(i + 1) % distances.size()]);
    } else {
        distances.insert(distances.begin(), 0);
        distances.push_back(resolved.length);
        for (std::size_t i = 0; i + 1 < distances.size(); ++i)
            parts.emplace_back(distances[i], distances[i + 1]);
    }
    std::vector<Reshaped> out;
    for (const auto& [from, to] : parts) {
        auto piece = pieceOf(line, resolved, from, to, around);
        if (!piece) return tl::unexpected(piece.error());
        out.push_back(std::move(*piece));
    }
    return out;
}

}  // namespace erdwerk::linework
