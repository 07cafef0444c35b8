#include "core/derive/cycle_solver.h"

#include <algorithm>

namespace erdwerk::derive {

namespace {

using linework::Line3D;
using linework::ResolvedLine;

/// The same but for the figures of its rules.
bool sameButFigures(const Line3D& a, const Line3D& b) {
    if (a.closed != b.closed || a.vertices.size() != b.vertices.size()) return false;
    for (std::size_t i = 0; i < a.vertices.size(); ++i) {
        const auto& u = a.vertices[i];
        const auto& v = b.vertices[i];
        if (u.isCorner != v.isCorner || u.place != v.place || u.through != v.through ||
            u.fraction != v.fraction || u.curve != v.curve || u.rule.index() != v.rule.index())
            return false;
        std::vector<ObjectId> namedByU;
        std::vector<ObjectId> namedByV;
        linework::references(u.rule, [&](ObjectId id) { namedByU.push_back(id); });
        linework::references(v.rule, [&](ObjectId id) { namedByV.push_back(id); });
        if (namedByU != namedByV) return false;
    }
    return true;
}

/// Whether who asks whom depends on places alone.
bool asksByPlace(const Line3D& line) {
    return std::none_of(line.vertices.begin(), line.vertices.end(), [](const linework::LineVertex& v) {
        return standing(v.rule) == linework::Standing::Solved ||
               (v.curve && v.curve->by == linework::VerticalCurve::By::K);
    });
}

}  // namespace

bool CycleSolver::run() {
    const auto& document = evaluation_.document;
    for (const ObjectId id : cycle_)
        if (document.get<Line>(id) == nullptr) return false;
    auto& memo = evaluation_.memory_[{"cycle-lines", cycle_.front()}];
    const auto last = std::static_pointer_cast<const Last>(memo.value);
    Last next;
    next.members = cycle_;
    next.outside = evaluation_.outsideOf(cycle_);
    next.objects.reserve(cycle_.size());
    for (const ObjectId id : cycle_) next.objects.push_back(document.find(id));
    std::vector<ObjectId> changed;
    bool done = false;
    if (last && last->members == cycle_ && last->outside == next.outside && last->again &&
        changeOfFigures(*last, changed)) {
        next.results = last->results;
        next.again = true;
        done = follow(next, std::move(changed));
    }
    if (!done) solveAll(next);
    for (const auto& [id, result] : next.results) evaluation_.out.lines[id] = result;
    memo.value = std::make_shared<const Last>(std::move(next));
    return true;
}

bool CycleSolver::changeOfFigures(const Last& last, std::vector<ObjectId>& changed) const {
    for (std::size_t i = 0; i < cycle_.size(); ++i) {
        const ObjectId id = cycle_[i];
        const auto now = evaluation_.document.find(id);
        const auto& before = last.objects[i];
        if (now == before) continue;
        if (!sameButFigures(now->payload.as<Line>()->line, before->payload.as<Line>()->line)) return false;
        changed.push_back(id);
    }
    return true;
}

ResolvedLine CycleSolver::solve(ObjectId line, const Last& with) {
    auto around = evaluation_.surroundings();
    around.finished = [this, line, &with](ObjectId id) -> std::shared_ptr<const ResolvedLine> {
        if (id == line) return nullptr;
        const auto it = with.results.find(id);
        return it != with.results.end() ? it->second : evaluation_.line(id);
    };
    around.path = [&with](ObjectId id) -> const linework::Path* {
        const auto it = with.results.find(id);
        return it == with.results.end() ? nullptr : &it->second->path;
    };
    linework::AskedParts asked;
    return linework::HeightSolver(std::move(around), asked).finish(line);
}

bool CycleSolver::follow(Last& next, std::vector<ObjectId> changed) {
    const auto names = [&](ObjectId line, ObjectId other) {
        const auto& named = evaluation_.namedBy(line);
        return std::binary_search(named.begin(), named.end(), other);
    };
    std::vector<ObjectId> open = std::move(changed);
    for (std::size_t solved = 0; !open.empty(); ++solved) {
        if (solved > 4 * cycle_.size()) return false;
        const ObjectId id = open.front();
        open.erase(open.begin());
        auto result = solve(id, next);
        ++evaluation_.computed_;
        auto& known = next.results[id];
        keepLast(result, known.get());
        if (*known == result) continue;
        known = std::make_shared<const ResolvedLine>(std::move(result));
        // What is remembered of the line by itself is of an older state: only its heights are still of use.
        auto& memo = evaluation_.memory_[{"line", id}];
        memo.inputs.clear();
        memo.value = known;
        for (const ObjectId user : cycle_)
            if (names(user, id) && std::find(open.begin(), open.end(), user) == open.end())
                open.push_back(user);
    }
    return true;
}

void CycleSolver::solveAll(Last& next) {
    next.again = true;
    for (const ObjectId id : cycle_) {
        next.results[id] = evaluation_.solved(id);
        next.again = next.again && asksByPlace(evaluation_.document.get<Line>(id)->line);
        for (const auto& v : next.results[id]->vertices) next.again = next.again && !v.circular;
    }
}

}  // namespace erdwerk::derive
