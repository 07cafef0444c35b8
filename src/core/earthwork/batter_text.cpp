#include "core/earthwork/batter_text.h"

#include <algorithm>
#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/height_solver.h"

namespace erdwerk::earthwork {

Result<double> parseSlope(const std::string& text) {
    const auto entry = parseHeightEntry(text);
    const auto* typed = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
    if (typed == nullptr) return badInput("'" + text + "' is no slope; write it like 2:1, 1 in 2 or 50%");
    const double slope = typed->grade.riseOverRun();
    if (!(slope > 0) || !std::isfinite(slope))
        return badInput("'" + text + "' is no slope of a batter; it is above 0 and has no sign");
    return slope;
}

Result<Berm> parseBerm(const std::string& text) {
    const auto comma = text.find(',');
    const std::string wrong = "'" + text + "' is no berm; write its height and its width, like 103,2";
    if (comma == std::string::npos) return badInput(wrong);
    const std::string_view height = trimmed(std::string_view(text).substr(0, comma));
    Berm out;
    out.fromEdge = !height.empty() && (height.front() == '+' || height.front() == '-');
    const auto h = parseNumber(!height.empty() && height.front() == '+' ? height.substr(1) : height);
    const auto width = parseNumber(trimmed(std::string_view(text).substr(comma + 1)));
    if (!h || !width) return badInput(wrong);
    if (!(*width > 0)) return badInput("'" + text + "': a berm is wider than 0");
    out.height = *h;
    out.width = *width;
    return out;
}

std::string bermText(const Berm& berm) {
    const std::string sign = berm.fromEdge && berm.height >= 0 ? "+" : "";
    return sign + formatExact(berm.height) + "," + formatExact(berm.width);
}

Result<void> setSlope(BatterForm& form, SlopeOf which, const std::string& text) {
    const std::string typed(trimmed(text));
    const bool isOne = std::holds_alternative<ToDistance>(form.target);
    if (isOne && which == SlopeOf::Both) which = form.cut.empty() ? SlopeOf::Fill : SlopeOf::Cut;
    std::string& own = which == SlopeOf::Fill ? form.fill : form.cut;
    std::string& other = which == SlopeOf::Fill ? form.cut : form.fill;
    if (typed.empty() && which != SlopeOf::Both) {
        if (!isOne) return badInput("only a batter to a distance does without one of its slopes");
        if (other.empty())
            return badInput("to a distance there is a cut slope, which rises, or a fill slope");
        own.clear();
        return {};
    }
    if (const auto slope = parseSlope(typed); !slope) return tl::unexpected(slope.error());
    own = typed;
    if (which == SlopeOf::Both) other = typed;
    if (isOne) other.clear();
    return {};
}

void setTarget(BatterForm& form, const BatterTarget& target, bool rises) {
    form.target = target;
    if (std::holds_alternative<ToDistance>(target)) {
        if (!form.cut.empty() && !form.fill.empty()) (rises ? form.fill : form.cut).clear();
    } else {
        if (form.cut.empty()) form.cut = form.fill;
        if (form.fill.empty()) form.fill = form.cut;
    }
}

Result<BatterShape> shapeOf(const BatterForm& form, bool right) {
    BatterShape out;
    for (const auto& [text, slope] : {std::pair{&form.cut, &out.cut}, {&form.fill, &out.fill}}) {
        if (text->empty()) continue;
        const auto parsed = parseSlope(*text);
        if (!parsed) return tl::unexpected(parsed.error());
        *slope = *parsed;
    }
    out.berms = form.berms;
    out.target = form.target;
    out.right = right;
    out.corners = form.corners;
    out.changes = form.changes;
    if (auto problem = validate(out)) return badInput(std::move(*problem));
    return out;
}

Result<BatterTarget> parseTarget(const std::string& text) {
    const std::string typed(trimmed(text));
    if (typed == "surface") return BatterTarget(ToSurface{});
    const auto space = std::min(typed.find(' '), typed.size());
    const std::string word = typed.substr(0, space);
    const auto figure = parseNumber(trimmed(std::string_view(typed).substr(space)));
    if (figure && word == "to") return BatterTarget(ToHeight{*figure});
    if (figure && word == "rise") return BatterTarget(ToRise{*figure});
    if (figure && word == "distance") return BatterTarget(ToDistance{*figure});
    return badInput("'" + typed + "' is no target; write surface, to 103.5, rise -3 or distance 4");
}

std::string targetText(const BatterTarget& target) {
    if (const auto* height = std::get_if<ToHeight>(&target)) return "to " + formatExact(height->height);
    if (const auto* rise = std::get_if<ToRise>(&target)) return "rise " + formatExact(rise->rise);
    if (const auto* away = std::get_if<ToDistance>(&target)) return "distance " + formatExact(away->distance);
    return "surface";
}

Result<std::vector<Berm>> parseBerms(const std::string& text) {
    std::vector<Berm> out;
    for (std::size_t at = 0; at < text.size();) {
        const auto end = std::min(text.find(';', at), text.size());
        const std::string one(trimmed(std::string_view(text).substr(at, end - at)));
        at = end + 1;
        if (one.empty()) continue;
        const auto berm = parseBerm(one);
        if (!berm) return tl::unexpected(berm.error());
        out.push_back(*berm);
    }
    return out;
}

std::string bermsText(const std::vector<Berm>& berms) {
    std::string out;
    for (const Berm& b : berms) out += (out.empty() ? "" : "; ") + bermText(b);
    return out;
}

Result<Edge> edgeOf(const linework::ResolvedLine& line) {
    for (const auto& v : line.vertices)
        if (!v.height)
            return badInput("the edge has a point without a height, at " + formatFixed(v.place.x, 2) + ", " +
                            formatFixed(v.place.y, 2));
    auto runs = runsWithHeights(line, 0.001);
    if (runs.size() != 1) return badInput("the edge is not in one piece");
    Edge out{std::move(runs.front()), line.closed};
    if (out.closed && out.corners.size() > 1) out.corners.pop_back();
    return out;
}

Result<Edge> levelEdgeOf(const linework::Line3D& line, double height) {
    linework::Line3D level = line;
    std::erase_if(level.vertices, [](const auto& v) { return !v.isCorner; });
    for (auto& v : level.vertices) {
        v.rule = linework::FixedHeight{height};
        v.curve.reset();
    }
    return edgeOf(linework::resolve(level, linework::Surroundings{}));
}

Result<Edge> stretchOf(const Edge& edge, double from, double to) {
    const std::size_t n = edge.corners.size();
    if (n < 2) return badInput("the edge has no sides");
    std::vector<double> at{0};
    for (std::size_t k = 0; k + 1 < n + (edge.closed ? 1 : 0); ++k)
        at.push_back(at.back() +
                     geometry::distance(edge.corners[k].plan(), edge.corners[(k + 1) % n].plan()));
    const double length = at.back();
    if (edge.closed && to <= from) to += length;
    from = std::max(from, 0.0);
    if (!edge.closed) to = std::min(to, length);
    if (edge.closed && to - from >= length - 1e-9) return edge;
    if (!(to - from > 1e-6)) return badInput("the stretch of the edge has no length");
    const auto placeAt = [&](double d) {
        if (d >= length && edge.closed) d -= length;
        const auto after = std::upper_bound(at.begin() + 1, at.end() - 1, d);
        const auto k = static_cast<std::size_t>(after - at.begin()) - 1;
        const Vec3& a = edge.corners[k];
        const Vec3& b = edge.corners[(k + 1) % n];
        const double f = (d - at[k]) / (at[k + 1] - at[k]);
        return Vec3{a.x + (b.x - a.x) * f, a.y + (b.y - a.y) * f, a.z + (b.z - a.z) * f};
    };
    Edge out;
    out.corners.push_back(placeAt(from));
    for (int round = 0; round < (edge.closed ? 2 : 1); ++round)
        for (std::size_t k = 0; k < n; ++k) {
            const double d = at[k] + round * length;
            if (d > from + 1e-6 && d < to - 1e-6) out.corners.push_back(edge.corners[k]);
        }
    out.corners.push_back(placeAt(to));
    return out;
}

}  // namespace erdwerk::earthwork
