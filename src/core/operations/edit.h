#pragma once
// What every edit here speaks of.

#include <functional>
#include <memory>
#include <optional>
#include <vector>

#include "core/derive/derived.h"
#include "core/document/transaction.h"

namespace erdwerk::operations {

using derive::Derived;
using document::Accepted;
using document::changed;
using document::Document;
using document::Edit;
using document::Edited;
using document::NewObject;
using document::Settings;
using namespace objects;

/// Results that an edit is prepared on; it applies only while what it looks at is the same.
using Results = std::shared_ptr<const Derived>;

}  // namespace erdwerk::operations
