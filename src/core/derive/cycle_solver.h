#pragma once
// The lines of a cycle, worked out again after a change of figures: only those that the change reaches.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

/// When nothing but figures of rules changed since the cycle was worked out last, who asks whom is the same,
/// and no height depended on itself then. So solving the changed lines against the last heights of the
/// others, and again whatever takes heights from a line that came out different, ends at the heights that a
/// whole solution would give. DependencyCycles with surfaces, places that are solved and curves by K ask by
/// figures: they are solved as a whole.
class CycleSolver {
public:
    CycleSolver(Evaluation& evaluation, const std::vector<ObjectId>& cycle)
        : evaluation_(evaluation), cycle_(cycle) {}
    /// Puts the results of all lines of the cycle among those of the evaluation; false when it does not
    /// apply.
    bool run();

private:
    /// What the cycle was worked out from last, and what came of it.
    struct Last {
        std::vector<ObjectId> members;
        std::vector<Input> outside;
        std::vector<std::shared_ptr<const Object>> objects;  ///< of the members
        std::map<ObjectId, std::shared_ptr<const linework::ResolvedLine>> results;
        bool again = false;  ///< it may be solved so
    };
    [[nodiscard]] bool changeOfFigures(const Last& last, std::vector<ObjectId>& changed) const;
    bool follow(Last& next, std::vector<ObjectId> changed);
    void solveAll(Last& next);
    [[nodiscard]] linework::ResolvedLine solve(ObjectId line, const Last& with);

    Evaluation& evaluation_;
    const std::vector<ObjectId>& cycle_;
};

}  // namespace erdwerk::derive
