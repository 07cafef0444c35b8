#pragma once
// Derived results: pure functions of the objects they name, remembered by the identity of those objects and
// worked out again only when one of them is another object.

#include <memory>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/derive/derived.h"

namespace erdwerk::derive {

/// Keeps the memory between evaluations. Used by one thread at a time.
class Model {
public:
    Model();
    ~Model();
    Model(Model&&) noexcept;
    Model& operator=(Model&&) noexcept;

    /// Works out what differs from the last evaluation. Cancelled leaves the memory usable.
    Result<Derived> evaluate(const Document& document, const Context& context = {});
    /// How many results were worked out (not remembered) by the last evaluation.
    [[nodiscard]] std::size_t computedLast() const;

private:
    struct State;
    std::unique_ptr<State> state_;
};

/// Of the results of an older document those that hold for `newest` too: nothing that they depend on is
/// another object. Lines that depend on nothing are worked out. For saving without waiting.
Derived resultsFor(const Document& newest, const Derived& derived);

/// One evaluation without memory.
Result<Derived> evaluate(const Document& document, const Context& context = {});

}  // namespace erdwerk::derive
