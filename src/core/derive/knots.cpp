#include "core/derive/knots.h"

#include <algorithm>

#include "core/derive/surface_build.h"

namespace erdwerk::derive {

namespace {

using document::Document;

std::vector<ObjectId> usedBy(const Document& document, ObjectId id,
                             const std::function<const std::vector<ObjectId>&(ObjectId)>& namedBy) {
    const auto* surface = document.get<objects::Surface>(id);
    if (surface == nullptr) return namedBy(id);
    std::vector<ObjectId> out;
    for (const auto& source : expandedSources(document, *surface->definition))
        if (document.get<objects::Line>(source.object) != nullptr) out.push_back(source.object);
    if (document.get<objects::Surface>(surface->definition->base) != nullptr)
        out.push_back(surface->definition->base);
    for (const auto& edit : surface->definition->edits)
        if (edit.on && document.get<objects::Surface>(edit.surface) != nullptr) out.push_back(edit.surface);
    return out;
}

struct Visited {
    std::size_t number = 0;
    std::size_t low = 0;
    bool onStack = false;
};

/// A call of Tarjan's recursion, kept by hand: chains of names can be long.
struct Call {
    ObjectId id;
    std::vector<ObjectId> used;
    std::size_t next = 0;
};

}  // namespace

Knots::Knots(const Document& document, const std::function<const std::vector<ObjectId>&(ObjectId)>& namedBy) {
    std::map<ObjectId, Visited> visited;
    std::vector<ObjectId> stack;
    std::vector<Call> calls;
    const auto enter = [&](ObjectId id) {
        const std::size_t number = visited.size() + 1;
        visited[id] = {number, number, true};
        stack.push_back(id);
        calls.push_back({id, usedBy(document, id, namedBy)});
    };
    const auto leave = [&](ObjectId id) {
        if (visited[id].low != visited[id].number) return;
        const auto first = std::find(stack.begin(), stack.end(), id);
        for (auto it = first; it != stack.end(); ++it) visited[*it].onStack = false;
        if (stack.end() - first > 1) {
            for (auto it = first; it != stack.end(); ++it) knot_[*it] = members_.size();
            members_.emplace_back(first, stack.end());
            std::sort(members_.back().begin(), members_.back().end());
        }
        stack.erase(first, stack.end());
    };
    for (const ObjectId root : document.all<objects::Line>()) {
        if (visited.count(root) != 0 || namedBy(root).empty()) continue;
        enter(root);
        while (!calls.empty()) {
            Call& call = calls.back();
            const ObjectId id = call.id;
            if (call.next == call.used.size()) {
                calls.pop_back();
                leave(id);
                if (!calls.empty())
                    visited[calls.back().id].low = std::min(visited[calls.back().id].low, visited[id].low);
                continue;
            }
            const ObjectId other = call.used[call.next++];
            const auto seen = visited.find(other);
            if (seen == visited.end())
                enter(other);
            else if (seen->second.onStack)
                visited[id].low = std::min(visited[id].low, seen->second.number);
        }
    }
}

const std::vector<ObjectId>* Knots::of(ObjectId id) const {
    const auto it = knot_.find(id);
    return it == knot_.end() ? nullptr : &members_[it->second];
}

bool Knots::together(ObjectId a, ObjectId b) const {
    const auto* knot = of(a);
    return knot != nullptr && knot == of(b);
}

}  // namespace erdwerk::derive
