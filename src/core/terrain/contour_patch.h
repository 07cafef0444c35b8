#pragma once
// Contours of a patched surface from those before.

#include <optional>

#include "core/terrain/contours.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// `before` are `contours(base, options)`; `now` is `base` without the triangles `gone` and with `fresh` (its
/// own numbers). Lines that run through neither are kept, the others followed anew, at the end of their
/// level. Costs a copy of the lines and those followed. Nothing is returned where `before` does not fit.
std::optional<std::vector<Contour>> contoursAfter(const std::vector<Contour>& before, const Tin& base,
                                                  const std::vector<std::uint32_t>& gone, const Tin& now,
                                                  const std::vector<std::uint32_t>& fresh,
                                                  const ContourOptions& options);

/// The parts of the lines of a surface that run through some of its triangles.
std::vector<Contour> contoursWithin(const Tin& tin, const std::vector<std::uint32_t>& triangles,
                                    const ContourOptions& options);

/// Of the lines of `base` within `gone` what lies where `now` has another height (by 1e-6), not rounded: what
/// an earthwork took away.
std::vector<Contour> contoursTakenAway(const Tin& base, const std::vector<std::uint32_t>& gone,
                                       const TinLocator& now, double interval);

}  // namespace erdwerk::terrain
