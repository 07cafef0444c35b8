#pragma once
// A document after one of a finding's fixes.

#include "core/check/finding.h"
#include "support/geometry.h"

namespace erdwerk::test {

/// Fails the test when the fix is refused.
inline document::Document mended(const check::Fix& fix, const document::Document& document) {
    return valueOf(fix.apply(document)).document;
}

}  // namespace erdwerk::test
