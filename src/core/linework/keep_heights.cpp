#include "core/linework/keep_heights.h"

#include "core/linework/smooth_side.h"

#include <algorithm>
#include <cmath>

#include "core/linework/to_next.h"

namespace erdwerk::linework {

namespace {

constexpr double sameHeight = 1e-9;
constexpr double samePlace = 1e-9;

class Keeping {
public:
    Keeping(Line3D line, const WantedHeight& wanted, const Surroundings& around,
            const std::vector<std::size_t>& before)
        : wanted_(wanted), around_(around), before_(before) {
        out_.line = std::move(line);
    }

    Reshaped run() {
        // Each round settles at least one.
        for (std::size_t round = 0; round <= out_.line.vertices.size(); ++round) {
            look();
            const auto now = ready();
            if (now.empty()) break;
            for (const std::size_t i : now) settle(i);
        }
        return std::move(out_);
    }

private:
    void look() {
        resolved_ = resolve(out_.line, around_);
        const std::size_t n = out_.line.vertices.size();
        wrong_.assign(n, false);
        for (std::size_t i = 0; i < n; ++i) {
            const LineVertex& v = out_.line.vertices[i];
            const auto want = wanted_(i, resolved_.vertices[i].distance);
            if (!want) continue;
            // The tangents' point under a curve: a fixed one was put there as it has to be.
            const bool fixed = std::holds_alternative<FixedHeight>(v.rule);
            if (v.curve && fixed) continue;
            const auto has =
                v.curve ? resolved_.vertices[i].height : heightAt(resolved_, resolved_.vertices[i].distance);
            const auto& wanted = v.curve ? want->control : want->finished;
            wrong_[i] =
                wanted.has_value() != has.has_value() || (has && std::abs(*wanted - *has) > sameHeight);
            if (fixed && wanted && std::get<FixedHeight>(v.rule).height == *wanted) wrong_[i] = false;
        }
    }
    [[nodiscard]] bool standsOnWrong(std::size_t i) const {
        const auto& rule = out_.line.vertices[i].rule;
        const auto wrong = [&](bool ahead) {
            const auto other = nextControl(out_.line, resolved_, i, ahead);
            return other && *other != i && wrong_[*other];
        };
        return (looksBack(rule) && wrong(false)) || (looksAhead(rule) && wrong(true));
    }
    /// Those to settle next: what came new into the line, then controls that are wrong by themselves, then
    /// what lies between controls.
    [[nodiscard]] std::vector<std::size_t> ready() const {
        std::vector<std::size_t> first;
        std::vector<std::size_t> controls;
        std::vector<std::size_t> between;
        std::vector<std::size_t> all;
        for (const std::size_t i : before_)
            if (wrong_[i] && (!isControl(out_.line.vertices[i].rule) || !standsOnWrong(i)))
                first.push_back(i);
        for (std::size_t i = 0; i < wrong_.size(); ++i) {
            if (!wrong_[i]) continue;
            all.push_back(i);
            if (standsOnWrong(i)) continue;
            (isControl(out_.line.vertices[i].rule) ? controls : between).push_back(i);
        }
        for (auto* some : {&first, &controls, &between})
            if (!some->empty()) return *some;
        return all;
    }
    void settle(std::size_t i) {
        auto& v = out_.line.vertices[i];
        const auto want = wanted_(i, resolved_.vertices[i].distance);
        if (!want) return;
        if (isControl(v.rule) && !std::holds_alternative<FixedHeight>(v.rule))
            out_.settled.push_back({v.rule, resolved_.vertices[i].place});
        const auto height = v.curve ? want->control : want->finished;
        v.rule = height ? HeightRule{FixedHeight{*height}} : HeightRule{NoHeight{}};
        if (!height) v.curve.reset();
    }

    const WantedHeight& wanted_;
    const Surroundings& around_;
    const std::vector<std::size_t>& before_;
    Reshaped out_;
    ResolvedLine resolved_;
    std::vector<bool> wrong_;
};

}  // namespace

std::optional<double> controlHeightAt(const ResolvedLine& line, double distance) {
    for (const auto& c : line.curves)
        for (const double turn : {0.0, line.length, -line.length})
            if ((turn == 0.0 || line.closed) &&
                std::abs(c.start + c.length / 2 + turn - distance) <= samePlace * std::max(1.0, line.length))
                return c.startHeight + c.in.riseOverRun() * c.length / 2;
    return heightAt(line, distance);
}

Wanted wantedFrom(const ResolvedLine& line, double distance) {
    return {heightAt(line, distance), controlHeightAt(line, distance)};
}

Reshaped keepHeights(Line3D line, const WantedHeight& wanted, const Surroundings& around,
                     const std::vector<std::size_t>& first) {
    dropLooseJoints(line);
    return Keeping(std::move(line), wanted, around, first).run();
}

}  // namespace erdwerk::linework
