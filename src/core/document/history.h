#pragma once
// Every document since the project was opened, for undo and redo without limit.

#include <string>
#include <vector>

#include "core/document/document.h"

namespace erdwerk::document {

struct Step {
    std::string what;  ///< "Move point 17"
    Document document;
};

class History {
public:
    explicit History(Document start = {}) { steps_.push_back({"Start", std::move(start)}); }

    [[nodiscard]] const Document& current() const { return steps_[at_].document; }
    [[nodiscard]] const std::vector<Step>& steps() const { return steps_; }
    [[nodiscard]] std::size_t position() const { return at_; }
    [[nodiscard]] bool canUndo() const { return at_ > 0; }
    [[nodiscard]] bool canRedo() const { return at_ + 1 < steps_.size(); }

    /// Drops what could be redone.
    void apply(std::string what, Document document) {
        steps_.resize(at_ + 1);
        steps_.push_back({std::move(what), std::move(document)});
        at_ = steps_.size() - 1;
    }
    /// Back or forward to any step. Requires position < steps().size().
    void goTo(std::size_t position) { at_ = position; }

private:
    std::vector<Step> steps_;
    std::size_t at_ = 0;
};

}  // namespace erdwerk::document
