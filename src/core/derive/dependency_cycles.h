#pragma once
// Lines and surfaces that use each other, straight or round others: their heights are worked out together,
// one control at a time.

#include <functional>
#include <map>
#include <vector>

#include "core/document/document.h"

namespace erdwerk::derive {

/// The cycles of a document: the strongly connected parts, of more than one object, of the graph of who names
/// whom (Tarjan's algorithm). Costs as much as there are names.
class DependencyCycles {
public:
    DependencyCycles() = default;
    /// `namedBy` gives what the rules of a line name.
    DependencyCycles(const document::Document& document,
                     const std::function<const std::vector<ObjectId>&(ObjectId)>& namedBy);
    /// What is in one cycle with an object, itself too; null for what is in none.
    [[nodiscard]] const std::vector<ObjectId>* of(ObjectId id) const;
    [[nodiscard]] bool together(ObjectId a, ObjectId b) const;

private:
    std::map<ObjectId, std::size_t> cycle_;
    std::vector<std::vector<ObjectId>> members_;
};

}  // namespace erdwerk::derive
