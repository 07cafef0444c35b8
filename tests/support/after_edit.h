#pragma once
// A document after an edit that must apply to it.

#include "core/document/transaction.h"
#include "support/geometry.h"

namespace erdwerk::test {

/// Fails the test when the edit is refused. `made` receives the first object that it added or changed.
inline document::Document afterEdit(const document::Document& before, const document::Edit& edit,
                                    ObjectId* made = nullptr) {
    auto next = valueOf(edit(before)).document;
    if (made != nullptr) {
        const auto changed = difference(before, next).changed;
        *made = changed.empty() ? ObjectId{} : changed.front();
    }
    return next;
}

}  // namespace erdwerk::test
