#pragma once
// What became of an edit that was asked for.

#include <QString>
#include <functional>
#include <vector>

#include "core/base/id.h"

namespace erdwerk::app {

struct Outcome {
    bool done = false;                ///< refused or stopped otherwise, after a message with the reason
    std::vector<ObjectId> made = {};  ///< objects that it added, groups not among them
    QString problem = {};             ///< why it was refused; empty when it was stopped
    explicit operator bool() const { return done; }
};

/// Is told it.
using Then = std::function<void(const Outcome&)>;

}  // namespace erdwerk::app
