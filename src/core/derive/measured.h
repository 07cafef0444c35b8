#pragma once
// What dimensions measure, of finished results: for showing one before it is made.

#include "core/annotate/dimension.h"
#include "core/derive/model.h"

namespace erdwerk::derive {

/// As the result of the dimension would be.
annotate::Dimensioned measured(const Derived& derived, const Dimension& dimension,
                               const annotate::DimensionStyle& style);

}  // namespace erdwerk::derive
