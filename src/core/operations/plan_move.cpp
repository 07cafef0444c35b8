#include "core/operations/plan_move.h"

#include <algorithm>
#include <map>
#include <set>

#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/free_name.h"
#include "core/survey/points.h"

namespace erdwerk::operations {

namespace {

/// What is meant to move, in parts.
struct Moving {
    std::set<ObjectId> whole;
    std::map<ObjectId, std::set<std::size_t>> points;  ///< of sets
};

Moving movingOf(const Document& document, const std::vector<LinePart>& what) {
    Moving out;
    for (const auto& [id, part] : what) {
        if (document.get<objects::Points>(id) != nullptr && part)
            out.points[id].insert(*part);
        else
            out.whole.insert(id);
    }
    // A set that goes as a whole takes its points along.
    std::erase_if(out.points, [&](const auto& of) { return out.whole.count(of.first) != 0; });
    return out;
}

bool followsOneOf(const Document& document, ObjectId line, const std::set<ObjectId>& moved) {
    const auto named = objects::references(document.find(line)->payload);
    return std::any_of(named.begin(), named.end(), [&](ObjectId id) { return moved.count(id) != 0; });
}

survey::PointSet movedSet(const survey::PointSet& set, const std::set<std::size_t>* which,
                          const linework::PlanMove& move) {
    auto all = set.all();
    for (std::size_t i = 0; i < all.size(); ++i)
        if (which == nullptr || which->count(i) != 0) all[i].plan = move(all[i].plan);
    return survey::PointSet(std::move(all));
}

/// New survey points get numbers that are free.
Document copyPoints(const Document& document, ObjectId set, const std::set<std::size_t>& which,
                    const linework::PlanMove& move) {
    const auto& of = document.get<objects::Points>(set)->set;
    std::vector<survey::SurveyPoint> fresh;
    unsigned long long next = 1;
    for (const ObjectId id : document.all<objects::Points>())
        next = std::max(next, std::stoull(survey::nextNumber(document.get<objects::Points>(id)->set)));
    for (const std::size_t i : which) {
        if (i >= of.size()) continue;
        survey::SurveyPoint p = of[i];
        p.plan = move(p.plan);
        p.number = std::to_string(next++);
        fresh.push_back(std::move(p));
    }
    return document::changed<objects::Points>(
        document, set, [&](objects::Points& p) { p.set = of.appended(std::move(fresh)); });
}

Document copyOf(const Document& document, ObjectId id, objects::Payload payload) {
    const auto object = document.find(id);
    return document.added(copyName(document, object->name), std::move(payload), nullptr, object->group);
}

}  // namespace

Edit movePlan(std::vector<LinePart> what, const linework::PlanMove& move, bool copy) {
    return [what = std::move(what), move, copy](const Document& document) -> Result<Edited> {
        const Moving moving = movingOf(document, what);
        Document d = document;
        std::size_t count = 0;
        for (const ObjectId id : moving.whole) {
            if (const auto* line = document.get<objects::Line>(id)) {
                if (line->follows && !copy) {
                    if (followsOneOf(document, id, moving.whole)) continue;
                    return tl::unexpected(ownLine(document, id).error());
                }
                if (line->follows)
                    return badInput("'" + document.nameOf(id) +
                                    "' follows another line; loosen it to copy it");
                objects::Line next = *line;
                next.line = linework::moved(line->line, move);
                d = copy ? copyOf(d, id, std::move(next)) : d.withPayload(id, std::move(next));
            } else if (const auto* points = document.get<objects::Points>(id)) {
                objects::Points next{movedSet(points->set, nullptr, move), copy ? nullptr : points->tie};
                d = copy ? copyOf(d, id, std::move(next)) : d.withPayload(id, std::move(next));
            } else {
                continue;  // it goes with what it stands on
            }
            ++count;
        }
        for (const auto& [id, which] : moving.points) {
            const auto& set = document.get<objects::Points>(id)->set;
            d = copy ? copyPoints(d, id, which, move)
                     : document::changed<objects::Points>(
                           d, id, [&, of = &which](objects::Points& p) { p.set = movedSet(set, of, move); });
            ++count;
        }
        if (count == 0)
            return badInput("select lines or survey points; other things go with those they stand on");
        return d;
    };
}

}  // namespace erdwerk::operations
