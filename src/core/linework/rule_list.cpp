#include "core/linework/rule_list.h"

#include <algorithm>

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

Result<TypedControl> parseControl(const std::string& text, const RuleNames& names) {
    const auto parts = parseCurve(text);
    if (!parts) return tl::unexpected(parts.error());
    auto rule = parseRule(parts->first, names);
    if (!rule) return tl::unexpected(rule.error());
    if (parts->second && std::holds_alternative<NoHeight>(*rule))
        return badInput("a vertical curve stands behind a height, grade or rise: 2% curve 40");
    TypedControl out;
    out.rule = std::move(*rule);
    out.curve = parts->second;
    return out;
}

std::string controlText(const LineVertex& vertex, const RuleNames& names) {
    return ruleText(vertex.rule, names) + (vertex.curve ? " " + curveText(*vertex.curve) : std::string());
}

namespace {

/// Entries between semicolons; a quoted name may hold some.
std::vector<std::string> entriesOf(const std::string& rules) {
    std::vector<std::string> out(1);
    bool quoted = false;
    for (const char c : rules) {
        if (c == '"') quoted = !quoted;
        if (c == ';' && !quoted)
            out.emplace_back();
        else
            out.back() += c;
    }
    for (auto& entry : out) entry = trimmed(entry);
    return out;
}

tl::unexpected<Error> inEntry(std::size_t number, const std::string& text,
                              ErrorCode code = ErrorCode::BadInput) {
    return fail(code, "entry " + std::to_string(number) + " of its rules: " + text);
}

struct GradeEntry {
    std::size_t number = 0;  ///< among the entries, from 1
    std::optional<double> distance;
    LineVertex vertex;
};

Result<TypedControl> parseEntry(const std::string& text, const RuleNames& names) {
    return text.empty() ? Result<TypedControl>(TypedControl()) : parseControl(text, names);
}

Result<GradeEntry> parseGrade(const std::string& entry, const RuleNames& names) {
    const auto space = std::min(entry.find(' '), entry.size());
    GradeEntry out;
    if (space > 1) {
        out.distance = parseNumber(std::string_view(entry).substr(1, space - 1));
        if (!out.distance)
            return badInput("'" + entry.substr(1, space - 1) + "' is no distance from the start of the line");
    }
    auto control = parseEntry(std::string(trimmed(std::string_view(entry).substr(space))), names);
    if (!control) return tl::unexpected(control.error());
    if (!out.distance && standing(control->rule) == Standing::Own)
        return badInput("a grade point needs its distance from the start of the line, like @25 2%");
    out.vertex.isCorner = false;
    out.vertex.rule = std::move(control->rule);
    out.vertex.curve = control->curve;
    if (auto* crossing = std::get_if<CrossingLine>(&out.vertex.rule))
        crossing->nearestHere = out.distance.has_value();
    return out;
}

/// The grade points of one side, put between its corners: what has a distance there, the rest evenly between.
Result<void> placeOnSide(std::vector<GradeEntry>& side, double from, double length) {
    std::vector<double> known;
    double last = 0;
    for (auto& g : side) {
        if (!g.distance) continue;
        const double fraction = length > 0 ? (*g.distance - from) / length : 0;
        const bool finds = standing(g.vertex.rule) != Standing::Own;
        if (!finds && (!(fraction > last) || !(fraction < 1)))
            return inEntry(g.number, "a grade point at " + formatExact(*g.distance) +
                                         " does not stand between its neighbours");
        g.vertex.fraction = fraction;
        if (fraction > last && fraction < 1) last = fraction;
    }
    last = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        double& at = side[i].vertex.fraction;
        if (side[i].distance && at > last && at < 1) {
            last = at;
            continue;
        }
        double next = 1;
        std::size_t gaps = 1;
        for (std::size_t k = i; k < side.size(); ++k, ++gaps)
            if (side[k].distance && side[k].vertex.fraction > last && side[k].vertex.fraction < 1) {
                next = side[k].vertex.fraction;
                break;
            }
        last = at = last + (next - last) / static_cast<double>(gaps);
    }
    return {};
}

}  // namespace

Result<Line3D> withRules(Line3D line, const std::string& rules, const RuleNames& names) {
    const auto entries = entriesOf(rules);
    const auto path = planPath(line);
    const std::size_t corners = line.vertices.size();
    Line3D out;
    out.closed = line.closed;
    std::size_t corner = 0;
    double base = 0;
    std::vector<GradeEntry> side;
    const auto endSide = [&]() -> Result<void> {
        const double length = corner > 0 && corner - 1 < path.size() ? lengthOf(path[corner - 1]) : 0;
        if (!side.empty() && (corner == 0 || corner - 1 >= path.size()))
            return inEntry(side.front().number, "a grade point stands between two corners");
        if (auto done = placeOnSide(side, base, length); !done) return done;
        for (auto& g : side) out.vertices.push_back(std::move(g.vertex));
        side.clear();
        base += length;
        return {};
    };
    for (std::size_t i = 0; i < entries.size(); ++i) {
        if (!entries[i].empty() && entries[i].front() == '@') {
            auto grade = parseGrade(entries[i], names);
            if (!grade) return inEntry(i + 1, grade.error().text, grade.error().code);
            grade->number = i + 1;
            side.push_back(std::move(*grade));
            continue;
        }
        auto control = parseEntry(entries[i], names);
        if (!control) return inEntry(i + 1, control.error().text, control.error().code);
        if (standing(control->rule) != Standing::Own)
            return inEntry(i + 1, "a grade point's entry begins with @");
        if (auto done = endSide(); !done) return tl::unexpected(done.error());
        if (corner == corners) {
            ++corner;
            break;
        }
        LineVertex v = line.vertices[corner++];
        v.rule = std::move(control->rule);
        v.curve = control->curve;
        out.vertices.push_back(std::move(v));
    }
    const auto given = static_cast<std::size_t>(std::count_if(
        entries.begin(), entries.end(), [](const auto& e) { return e.empty() || e.front() != '@'; }));
    if (given != corners)
        return badInput("its rules have " + std::to_string(given) +
                        " entries for corners, but the line has " + std::to_string(corners) + " corners");
    if (auto done = endSide(); !done) return tl::unexpected(done.error());
    return out;
}

std::string rulesText(const Line3D& line, const RuleNames& names) {
    std::string out;
    const auto at = placed(line);
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const LineVertex& v = line.vertices[i];
        if (i > 0) out += "; ";
        if (!v.isCorner) {
            const auto* crossing = std::get_if<CrossingLine>(&v.rule);
            const bool said = crossing != nullptr ? crossing->nearestHere : standing(v.rule) == Standing::Own;
            out += "@" + (said ? formatExact(at.vertices[i].distance) : std::string()) + " ";
        }
        if (std::holds_alternative<NoHeight>(v.rule)) continue;
        std::string text = controlText(v, names);
        if (std::holds_alternative<Interpolated>(v.rule))
            text = "~" + text.substr(std::string("interpolated").size());
        out += text;
    }
    return out;
}

}  // namespace erdwerk::linework
