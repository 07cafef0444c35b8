#include "core/derive/dependency_cycles.h"

#include <algorithm>
#include <boost/graph/adjacency_list.hpp>
#include <boost/graph/strong_components.hpp>

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

}  // namespace

DependencyCycles::DependencyCycles(const Document& document,
                                   const std::function<const std::vector<ObjectId>&(ObjectId)>& namedBy) {
    // Everything that a line with rules reaches, numbered as it is met.
    std::map<ObjectId, std::size_t> numbers;
    std::vector<ObjectId> met;
    const auto numberOf = [&](ObjectId id) {
        const auto [at, isNew] = numbers.emplace(id, met.size());
        if (isNew) met.push_back(id);
        return at->second;
    };
    for (const ObjectId line : document.all<objects::Line>())
        if (!namedBy(line).empty()) numberOf(line);
    boost::adjacency_list<boost::vecS, boost::vecS, boost::directedS> uses;
    for (std::size_t from = 0; from < met.size(); ++from)
        for (const ObjectId used : usedBy(document, met[from], namedBy))
            boost::add_edge(from, numberOf(used), uses);
    if (met.empty()) return;
    std::vector<std::size_t> component(std::max(met.size(), boost::num_vertices(uses)));
    const std::size_t count = boost::strong_components(uses, component.data());
    std::vector<std::vector<ObjectId>> all(count);
    for (std::size_t i = 0; i < boost::num_vertices(uses); ++i) all[component[i]].push_back(met[i]);
    for (auto& members : all) {
        if (members.size() < 2) continue;
        for (const ObjectId id : members) cycle_[id] = members_.size();
        std::sort(members.begin(), members.end());
        members_.push_back(std::move(members));
    }
}

const std::vector<ObjectId>* DependencyCycles::of(ObjectId id) const {
    const auto it = cycle_.find(id);
    return it == cycle_.end() ? nullptr : &members_[it->second];
}

bool DependencyCycles::together(ObjectId a, ObjectId b) const {
    const auto* cycle = of(a);
    return cycle != nullptr && cycle == of(b);
}

}  // namespace erdwerk::derive
