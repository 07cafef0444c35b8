#include "core/format/line_rules.h"

#include <algorithm>
#include <cmath>

#include "core/linework/rule_list.h"

namespace erdwerk::format {

using linework::HeightRule;
using linework::Line3D;
using linework::LineVertex;

std::string LinkedLines::nameOf(ObjectId id) const {
    const std::size_t at = static_cast<std::size_t>(id.value) - 1;
    if (at < lines.size()) return lines[at].name;
    return at - lines.size() < others.size() ? others[at - lines.size()] : std::string();
}

linework::RuleNames LinkedLines::names() const {
    linework::RuleNames out;
    out.nameOf = [this](ObjectId id) { return nameOf(id); };
    return out;
}

Result<LinkedLines> linkedLines(std::vector<VectorLine> lines, const std::vector<std::string>& surfaces) {
    LinkedLines linked{std::move(lines), surfaces};
    const auto idOf = [&](const auto& list, const auto& name, std::size_t before) {
        const auto it = std::find_if(list.begin(), list.end(), name);
        return it == list.end() ? ObjectId{}
                                : ObjectId{before + static_cast<std::size_t>(it - list.begin()) + 1};
    };
    auto names = linked.names();
    names.surfaceNamed = [&](const std::string& name) {
        const auto known = idOf(
            surfaces, [&](const std::string& s) { return s == name; }, linked.lines.size());
        return known;
    };
    names.lineNamed = [&](const std::string& name) {
        if (const auto id = idOf(
                linked.lines, [&](const VectorLine& l) { return l.name == name; }, 0))
            return id;
        if (const auto id = idOf(
                linked.others, [&](const std::string& s) { return s == name; }, linked.lines.size()))
            return id;
        linked.others.push_back(name);
        return ObjectId{linked.lines.size() + linked.others.size()};
    };
    for (auto& line : linked.lines) {
        if (line.rules.empty()) continue;
        auto ruled = linework::withRules(line.line, line.rules, names);
        if (!ruled) return badInput(line.where + ": " + ruled.error().text, line.file, 1);
        line.line = std::move(*ruled);
    }
    return linked;
}

std::vector<linework::ResolvedLine> solved(
    const LinkedLines& linked, const std::vector<std::shared_ptr<const terrain::TinLocator>>& surfaces) {
    linework::AskedParts asked;
    linework::Surroundings around;
    around.surface = [&](ObjectId id, geometry::Vec2 p) -> Result<std::optional<double>> {
        const std::size_t at = static_cast<std::size_t>(id.value) - linked.lines.size() - 1;
        return surfaces.at(at)->heightAt(p);
    };
    around.line = [&](ObjectId id) -> const Line3D* {
        return id && id.value <= linked.lines.size()
                   ? &linked.lines[static_cast<std::size_t>(id.value) - 1].line
                   : nullptr;
    };
    around.nameOf = [&](ObjectId id) { return linked.nameOf(id); };
    linework::HeightSolver heights(std::move(around), asked);
    std::vector<linework::ResolvedLine> out;
    for (std::size_t i = 0; i < linked.lines.size(); ++i) out.push_back(heights.finish({i + 1}));
    return out;
}

namespace {

/// Where vertical curves are drawn: distances along the line.
std::vector<double> curvePlaces(const linework::ResolvedLine& resolved, double sagitta) {
    std::vector<double> out;
    for (const auto& c : resolved.curves) {
        const double change = std::abs(c.out.riseOverRun() - c.in.riseOverRun());
        const double pieces = std::ceil(c.length / std::sqrt(8 * sagitta * c.length / change));
        for (double i = 0; i <= pieces; ++i) {
            const double d = c.start + c.length * i / pieces;
            out.push_back(resolved.closed ? d - std::floor(d / resolved.length) * resolved.length : d);
        }
    }
    std::sort(out.begin(), out.end());
    return out;
}

/// A vertex on a side, by its fraction of it.
struct OnSide {
    OnSide(double at, const LineVertex& of) : fraction(at), vertex(of) {}
    double fraction = 0;
    LineVertex vertex;
};

/// One side with all that becomes a corner on it: grade points whose place is their own, ends of chords, cuts
/// of vertical curves. Appends to `out` what stands behind the side's first corner.
void addSide(Line3D& out, const geometry::Segment& side, std::vector<OnSide> points, bool arcs,
             double sagitta) {
    constexpr double apart = 1e-9;
    LineVertex between;
    between.rule = linework::Interpolated{};
    if (!arcs && isCurved(side)) {
        const std::size_t chords = flattened(side, sagitta).size() - 1;
        for (std::size_t k = 1; k < chords; ++k)
            points.emplace_back(static_cast<double>(k) / static_cast<double>(chords), between);
    }
    // Who has a rule of its own comes before a mere place there.
    std::stable_sort(points.begin(), points.end(),
                     [](const OnSide& a, const OnSide& b) { return a.fraction < b.fraction; });
    double last = 0;
    std::size_t corner = out.vertices.size() - 1;
    std::vector<OnSide> found;  // grade points that find their place, since the last corner
    const auto endPiece = [&](double to) {
        out.vertices[corner].through = arcs ? part(side, last, to).through : std::nullopt;
        for (auto& f : found) {
            f.vertex.fraction = std::clamp((f.fraction - last) / (to - last), apart, 1 - apart);
            out.vertices.push_back(std::move(f.vertex));
        }
        found.clear();
    };
    for (auto& p : points) {
        if (!p.vertex.isCorner && standing(p.vertex.rule) != linework::Standing::Own) {
            found.push_back(std::move(p));
            continue;
        }
        if (p.fraction - last < apart || 1 - p.fraction < apart) continue;
        endPiece(p.fraction);
        p.vertex.isCorner = true;
        p.vertex.fraction = 0;
        p.vertex.place = pointAt(side, p.fraction);
        last = p.fraction;
        corner = out.vertices.size();
        out.vertices.push_back(std::move(p.vertex));
    }
    endPiece(1);
}

/// The line with corners wherever its drawing needs one.
Line3D drawn(const Line3D& line, const linework::ResolvedLine& resolved, bool arcs) {
    constexpr double sagitta = 0.01;  // as in breaklines
    const auto cuts = curvePlaces(resolved, sagitta);
    const auto corners = cornersOf(line);
    Line3D out;
    out.closed = line.closed;
    double base = 0;
    for (std::size_t c = 0; c < corners.size(); ++c) {
        out.vertices.push_back(line.vertices[corners[c]]);
        if (c >= resolved.path.size()) continue;
        const auto& side = resolved.path[c];
        const double length = lengthOf(side);
        std::vector<OnSide> points;
        const std::size_t end = c + 1 < corners.size() ? corners[c + 1] : line.vertices.size();
        for (std::size_t i = corners[c] + 1; i < end; ++i)
            points.emplace_back(line.vertices[i].fraction, line.vertices[i]);
        LineVertex between;
        between.rule = linework::Interpolated{};
        for (auto d = std::lower_bound(cuts.begin(), cuts.end(), base); d != cuts.end() && *d < base + length;
             ++d)
            if (length > 0) points.emplace_back((*d - base) / length, between);
        addSide(out, side, std::move(points), arcs, sagitta);
        base += length;
    }
    return out;
}

bool saysItAll(const Line3D& line) {
    return std::all_of(line.vertices.begin(), line.vertices.end(), [&](const LineVertex& v) {
        return v.isCorner && !v.curve && v.rule.index() == line.vertices.front().rule.index() &&
               (std::holds_alternative<linework::FixedHeight>(v.rule) ||
                std::holds_alternative<linework::NoHeight>(v.rule));
    });
}

}  // namespace

RuledGeometry ruledGeometry(const Line3D& given, const linework::ResolvedLine& resolved,
                            const linework::RuleNames& names, bool arcs) {
    RuledGeometry out;
    const Line3D line = drawn(given, resolved, arcs);
    if (!saysItAll(line)) out.rules = rulesText(line, names);
    out.flat = !resolved.complete();
    out.line.closed = line.closed;
    const double whole = geometry::lengthOf(planPath(line));
    const auto at = placed(line);
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        if (!line.vertices[i].isCorner) continue;
        LineVertex corner;
        corner.place = line.vertices[i].place;
        corner.through = line.vertices[i].through;
        out.line.vertices.push_back(corner);
        // Chords are a little shorter than their arcs.
        const double along = whole > 0 ? at.vertices[i].distance * resolved.length / whole : 0;
        out.places.push_back({corner.place.x, corner.place.y, heightAt(resolved, along).value_or(0)});
    }
    return out;
}

}  // namespace erdwerk::format
