// Heights for flat lines.

#include <algorithm>
#include <set>

#include "core/geometry/box_index.h"
#include "core/linework/grade_limits.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/operations/shape.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

bool isFlat(const Derived& seen, ObjectId line, const linework::GiveOptions& options) {
    const auto resolved = seen.lines.find(line);
    if (resolved == seen.lines.end()) return false;
    const auto& vertices = resolved->second->vertices;
    if (std::none_of(vertices.begin(), vertices.end(), [](const auto& v) { return v.height.has_value(); }))
        return true;
    const auto* definition = seen.definition(line);
    return options.flat && definition != nullptr && linework::isLevelAt(*definition, *options.flat);
}

namespace {

/// Points without height that say something.
std::vector<linework::GivingText> textsIn(const Document& document, const std::string& prefix) {
    std::vector<linework::GivingText> out;
    for (const ObjectId id : document.all<objects::Points>()) {
        const auto& set = document.get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) {
            const auto& p = set[i];
            if (p.height) continue;
            // A note may be meant as a height whatever it says; a code only when it is one.
            if (!p.note.empty())
                out.push_back({p.note, p.plan});
            else if (linework::heightOfText(p.code, prefix))
                out.push_back({p.code, p.plan});
        }
    }
    return out;
}

/// Flat lines that begin or end at a text.
std::set<ObjectId> leadersIn(const Derived& seen, const linework::GiveOptions& options) {
    const double tolerance = options.tolerance;
    std::vector<geometry::Box> boxes;
    const auto texts = textsIn(seen.document, {});
    boxes.reserve(texts.size());
    for (const auto& t : texts) boxes.push_back({t.place.x, t.place.y, t.place.x, t.place.y});
    const geometry::BoxIndex index(boxes);
    const auto atText = [&](geometry::Vec2 end) {
        bool found = false;
        index.query(geometry::Box{end.x, end.y, end.x, end.y}.grown(tolerance), [&](std::uint32_t i) {
            found = geometry::distance(end, texts[i].place) <= tolerance;
            return !found;
        });
        return found;
    };
    std::set<ObjectId> out;
    for (const auto& [id, line] : seen.lines)
        if (!line->closed && !line->path.empty() && isFlat(seen, id, options) &&
            (atText(line->path.front().start) || atText(line->path.back().end)))
            out.insert(id);
    return out;
}

}  // namespace

std::vector<ObjectId> flatLines(const Derived& seen, const linework::GiveOptions& options) {
    const auto leaders = leadersIn(seen, options);
    std::set<ObjectId> needed;
    for (const ObjectId id : seen.document.all<objects::Parcel>())
        needed.insert(seen.document.get<objects::Parcel>(id)->line);
    for (const ObjectId id : seen.document.all<objects::Alignment>())
        needed.insert(seen.document.get<objects::Alignment>(id)->line);
    std::vector<ObjectId> out;
    for (const auto& [id, line] : seen.lines)
        if (isFlat(seen, id, options) && leaders.count(id) == 0 && needed.count(id) == 0 &&
            seen.followed.count(id) == 0)
            out.push_back(id);
    return out;
}

linework::HeightGivers giversFor(const Derived& seen, const HeightsAsked& asked) {
    linework::HeightGivers out;
    const auto& document = seen.document;
    for (const ObjectId id : asked.giving) {
        const auto line = seen.lines.find(id);
        if (line != seen.lines.end() &&
            std::find(asked.lines.begin(), asked.lines.end(), id) == asked.lines.end())
            out.lines.push_back({document.nameOf(id), *line->second});
    }
    for (const ObjectId id : document.all<objects::Points>()) {
        const auto& set = document.get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i)
            if (const auto& p = set[i]; p.height) out.points.push_back({p.number, p.plan, *p.height});
    }
    out.texts = textsIn(document, asked.prefix);
    out.prefix = asked.prefix;
    for (const ObjectId id : leadersIn(seen, asked.options)) out.leaders.push_back(seen.lines.at(id)->path);
    return out;
}

Result<linework::HeightsGiven> heightsFor(const Derived& seen, const HeightsAsked& asked,
                                          const Context& context) {
    std::vector<linework::FlatLine> flat;
    for (const ObjectId id : asked.lines) {
        const auto* line = seen.definition(id);
        if (line == nullptr) return badInput("a line is gone");
        flat.push_back({seen.document.nameOf(id), *line});
    }
    if (flat.empty()) return badInput("there is no line without heights");
    return linework::giveHeights(flat, giversFor(seen, asked), asked.options, context);
}

std::vector<SteepStretch> tooSteep(const Derived& seen, const std::vector<ObjectId>& lines,
                                   const linework::HeightsGiven& found) {
    std::vector<SteepStretch> out;
    const auto around = surroundings(seen);
    for (std::size_t i = 0; i < std::min(lines.size(), found.lines.size()); ++i) {
        const auto* line = seen.document.get<objects::Line>(lines[i]);
        linework::GradeLimits limits;
        if (line != nullptr) limits.steepest = line->limits.steepest;
        if (!limits.steepest && seen.document.settings().checks.steepest > 0)
            limits.steepest = seen.document.settings().checks.steepest;
        if (!limits.steepest) continue;
        const auto resolved = linework::resolve(found.lines[i], around);
        for (const auto& beyond : linework::gradesBeyond(found.lines[i], resolved, limits))
            out.push_back({i, beyond.from, beyond.to, beyond.grade});
    }
    return out;
}

Edit levelAt(const std::vector<ObjectId>& lines, double height) {
    return [=](const Document& document) -> Result<Edited> {
        Document d = document;
        for (const ObjectId id : lines) {
            const auto own = ownLine(d, id);
            if (!own) return tl::unexpected(own.error());
            linework::Line3D line = (*own)->line;
            for (auto& v : line.vertices)
                if (v.isCorner) v.rule = linework::FixedHeight{height};
            d = withLine(d, id, std::move(line));
        }
        return d;
    };
}

Edit giveHeights(const Results& seen, const std::vector<ObjectId>& lines,
                 const linework::HeightsGiven& found) {
    return document::onlyWhileSame(seen->document, lines, [=](const Document& document) -> Result<Edited> {
        Document d = document;
        for (std::size_t i = 0; i < lines.size(); ++i) d = withLine(d, lines[i], found.lines[i]);
        if (found.given.empty()) return badInput("nothing gives these lines a height");
        return Edited(
            d, "Give heights to " + std::to_string(lines.size()) + (lines.size() == 1 ? " line" : " lines"));
    });
}

}  // namespace erdwerk::operations
