#pragma once
// Every document since the project was opened, for undo and redo without limit.

#include <algorithm>
#include <string>
#include <vector>

#include "core/document/document.h"

namespace erdwerk::document {

struct Step {
    std::string what;  ///< "Move point 17"
    Document document;
    std::uint64_t number = 0;  ///< of its own, never used again
};

class History {
public:
    explicit History(Document start = {}) : highestId_(start.nextId()) {
        steps_.push_back({"Start", std::move(start), 0});
    }

    [[nodiscard]] const Document& current() const { return steps_[at_].document; }
    /// The current document, giving out no id that any document here has used, undone ones included.
    [[nodiscard]] Document fresh() const { return current().withNextId(highestId_); }
    /// Of the current step: tells whether this is the state that was saved.
    [[nodiscard]] std::uint64_t number() const { return steps_[at_].number; }
    [[nodiscard]] const std::vector<Step>& steps() const { return steps_; }
    [[nodiscard]] std::size_t position() const { return at_; }
    [[nodiscard]] bool canUndo() const { return at_ > 0; }
    [[nodiscard]] bool canRedo() const { return at_ + 1 < steps_.size(); }

    /// Drops what could be redone.
    void apply(std::string what, Document document) {
        highestId_ = std::max(highestId_, document.nextId());
        steps_.erase(steps_.begin() + static_cast<std::ptrdiff_t>(at_) + 1, steps_.end());
        steps_.push_back({std::move(what), std::move(document), ++lastNumber_});
        at_ = steps_.size() - 1;
    }
    /// Back or forward to any step. Requires position < steps().size().
    void goTo(std::size_t position) { at_ = position; }

private:
    std::vector<Step> steps_;
    std::size_t at_ = 0;
    std::uint64_t lastNumber_ = 0;
    std::uint64_t highestId_ = 1;
};

}  // namespace erdwerk::document
