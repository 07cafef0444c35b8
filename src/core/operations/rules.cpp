#include "core/operations/rules.h"

#include <map>
#include <set>

#include "core/linework/edit.h"
#include "core/linework/rules/height_rule.h"
#include "core/linework/rules/rule_kind.h"
#include "core/objects/line.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

using linework::Line3D;

namespace {

/// Lines with the vertices that are meant: for each whether it is, and whether it was named by itself.
struct Meant {
    bool whole = false;
    std::vector<std::size_t> vertices;
};

std::map<ObjectId, Meant> byLine(const std::vector<LinePart>& parts) {
    std::map<ObjectId, Meant> out;
    for (const auto& [line, vertex] : parts) {
        if (vertex)
            out[line].vertices.push_back(*vertex);
        else
            out[line].whole = true;
    }
    return out;
}

/// Does something to each line that is meant; BadInput when none of them changes.
using OnLine = std::function<Line3D(ObjectId, const Line3D&, const std::vector<bool>&)>;
Edit ofParts(const std::vector<LinePart>& parts, const char* nothing, OnLine change) {
    return [meant = byLine(parts), nothing,
            change = std::move(change)](const Document& given) -> Result<Edited> {
        Document d = given;
        bool any = false;
        for (const auto& [id, which] : meant) {
            if (given.get<objects::Line>(id) == nullptr) continue;
            const auto own = ownLine(given, id);
            if (!own) return tl::unexpected(own.error());
            const objects::Line* line = *own;
            std::vector<bool> marked(line->line.vertices.size(), false);
            for (std::size_t i = 0; i < marked.size(); ++i)
                marked[i] = which.whole && isControl(line->line.vertices[i].rule);
            for (const std::size_t i : which.vertices)
                if (i < marked.size()) marked[i] = true;
            auto next = change(id, line->line, marked);
            if (next == line->line) continue;
            any = true;
            d = withLine(d, id, std::move(next));
        }
        if (!any) return badInput(nothing);
        return d;
    };
}

}  // namespace

std::vector<ObjectId> linesOf(const std::vector<LinePart>& parts) {
    std::set<ObjectId> out;
    for (const auto& [id, vertex] : parts) out.insert(id);
    return {out.begin(), out.end()};
}

Edit freeze(const Results& seen, const std::vector<LinePart>& parts) {
    return document::onlyWhileSame(
        seen->document, linesOf(parts),
        ofParts(parts, "these heights are fixed already",
                [seen](ObjectId id, const Line3D& line, const std::vector<bool>& marked) {
                    const auto* resolved = Derived::in(seen->lines, id);
                    return resolved == nullptr ? line : linework::frozen(line, *resolved, marked);
                }));
}

Edit freeHeights(const std::vector<LinePart>& parts) {
    return ofParts(parts, "these points have no height of their own",
                   [](ObjectId, const Line3D& line, const std::vector<bool>& marked) {
                       Line3D out = line;
                       for (std::size_t i = 0; i < marked.size(); ++i) {
                           if (!marked[i]) continue;
                           out.vertices[i].rule = linework::NoHeight{};
                           out.vertices[i].curve.reset();
                       }
                       return out;
                   });
}

namespace {

std::shared_ptr<const objects::Follows> exchanged(const objects::Follows& follows, ObjectId from,
                                                  ObjectId other) {
    objects::Follows next = follows;
    const auto exchange = [&](ObjectId& named) { named = named == from ? other : named; };
    if (auto* row = std::get_if<objects::RowOf>(&next)) {
        exchange(row->line);
        exchange(row->surface);
    } else if (auto* meeting = std::get_if<objects::MeetingOf>(&next)) {
        exchange(meeting->first);
        exchange(meeting->second);
    } else if (auto* figure = std::get_if<objects::FigureOf>(&next)) {
        for (ObjectId& line : figure->lines) exchange(line);
    } else {
        exchange(std::get<objects::DesignOf>(next).profile);
    }
    return std::make_shared<const objects::Follows>(std::move(next));
}

}  // namespace

Edit measureFrom(ObjectId line, ObjectId from, ObjectId other) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr) return badInput("the line is gone");
        if (!document.find(other)) return badInput("what it should be measured from is gone");
        objects::Line next = *on;
        if (on->follows) next.follows = exchanged(*on->follows, from, other);
        if (!on->follows)
            for (auto& v : next.line.vertices) v.rule = linework::exchanged(v.rule, from, other);
        return document.withPayload(line, std::move(next));
    };
}

Edit keepHeights(ObjectId line, const std::vector<std::pair<std::size_t, double>>& heights) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr) return badInput("the line is gone");
        Line3D next = on->line;
        for (const auto& [vertex, height] : heights)
            if (vertex < next.vertices.size()) next.vertices[vertex].rule = linework::FixedHeight{height};
        return withLine(document, line, std::move(next));
    };
}

}  // namespace erdwerk::operations
