#pragma once
// What every triangulation must hold.

#include <gtest/gtest.h>

#include "core/geometry/predicates.h"
#include "core/terrain/tin.h"

namespace erdwerk::test {

/// Triangles run counter-clockwise; neighbours know each other over the very side, and agree on its
/// constraint.
inline void expectLinked(const terrain::Tin& tin) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        ASSERT_GT(geometry::orientation(a.plan(), b.plan(), c.plan()), 0) << "triangle " << t;
        for (int i = 0; i < 3; ++i) {
            const auto n = tin.neighbour(t, i);
            if (n == terrain::Tin::none) continue;
            ASSERT_LT(n, tin.triangleCount());
            bool back = false;
            for (int j = 0; j < 3; ++j)
                back = back || (tin.neighbour(n, j) == t && tin.constrained(n, j) == tin.constrained(t, i) &&
                                tin.corner(n, (j + 1) % 3) == tin.corner(t, (i + 2) % 3) &&
                                tin.corner(n, (j + 2) % 3) == tin.corner(t, (i + 1) % 3));
            ASSERT_TRUE(back) << "triangles " << t << " and " << n;
        }
    }
}

}  // namespace erdwerk::test
