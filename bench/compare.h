#pragma once
// Ours against a peer, in one run.

#include <algorithm>
#include <chrono>
#include <cstdio>

namespace erdwerk::bench {

/// The shortest of some runs, in seconds.
template <class Work>
double bestOf(int runs, const Work& work) {
    double best = 1e300;
    for (int i = 0; i < runs; ++i) {
        const auto start = std::chrono::steady_clock::now();
        work();
        best =
            std::min(best, std::chrono::duration<double>(std::chrono::steady_clock::now() - start).count());
    }
    return best;
}

inline void ratio(const char* name, double ours, double peer, double target) {
    std::printf("%-52s %10.4g / %10.4g = %.4f (target at most %.2f)\n", name, ours, peer, ours / peer,
                target);
}

}  // namespace erdwerk::bench
