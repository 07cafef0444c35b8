#include "core/earthwork/pad.h"

#include <algorithm>
#include <cmath>

#include "core/base/display.h"
#include "core/earthwork/face_mesh.h"
#include "core/geometry/path.h"
#include "core/terrain/patch.h"

namespace erdwerk::earthwork {

namespace {

/// Within the edge as it is divided by its batter, so that both share their vertices.
Result<terrain::Tin> insideOf(const Batter& batter, const PadShape& shape) {
    terrain::BuildInput input;
    terrain::Boundary ring;
    for (const Vec3& p : batter.edge) {
        ring.ring.push_back(p.plan());
        ring.heights.emplace_back(p.z);
    }
    const bool turned = geometry::signedArea(ring.ring) < 0;
    if (turned) {
        std::reverse(ring.ring.begin(), ring.ring.end());
        std::reverse(ring.heights.begin(), ring.heights.end());
    }
    input.boundary = std::move(ring);
    input.lines = shape.inside;
    input.narrowest = 0;
    auto built = terrain::build(std::move(input));
    if (!built) return tl::unexpected(built.error());
    return std::move(built->tin);
}

/// The outside of a ring: to the right when it runs counter-clockwise.
bool isRightOfEdge(const Edge& edge) {
    std::vector<Vec2> ring;
    for (const Vec3& p : edge.corners) ring.push_back(p.plan());
    return geometry::signedArea(ring) > 0;
}

void addAll(MeshPool& pool, const terrain::Tin& tin) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        pool.triangle(pool.vertex(a), pool.vertex(b), pool.vertex(c));
    }
}

Edge lifted(Edge edge, double by) {
    for (Vec3& p : edge.corners) p.z += by;
    return edge;
}

PadShape lifted(PadShape shape, double by) {
    for (auto& line : shape.inside)
        for (Vec3& p : line.corners) p.z += by;
    return shape;
}

/// Looks for the lift.
class Balancer {
public:
    Balancer(const Edge& edge, const PadShape& shape, const terrain::TinLocator& ground, const Earth& earth,
             double surplus, const Context& context)
        : edge_(edge), shape_(shape), ground_(ground), earth_(earth), surplus_(surplus), context_(context) {}

    Result<Balanced> run() {
        const auto start = startLift();
        if (!start) return badInput("the edge lies off the ground");
        // The surplus falls as the pad rises: out from the ground's mean height until it has both signs.
        auto low = tried(*start);
        if (!low) return tl::unexpected(low.error());
        auto high = *low;
        double step = 0.5;
        while (low->error < 0 || high.error > 0) {
            const bool down = low->error < 0;
            auto next = tried(down ? low->lift - step : high.lift + step);
            if (!next) return tl::unexpected(next.error());
            if (!next->whole || step > 1e5) return noHeight(down ? low->lift : high.lift);
            if (down) {
                high = *low;
                low = next;
            } else {
                low = high;
                high = *next;
            }
            step *= 2;
        }
        return narrow(*low, high);
    }

private:
    struct Tried {
        double lift = 0;
        double error = 0;  ///< of the surplus: too much is > 0
        bool whole = true;
    };

    [[nodiscard]] std::optional<double> startLift() const {
        double sum = 0;
        int count = 0;
        for (const Vec3& p : edge_.corners)
            if (const auto z = ground_.heightAt(p.plan())) {
                sum += *z - p.z;
                ++count;
            }
        return count > 0 ? std::optional(sum / count) : std::nullopt;
    }

    Result<Tried> tried(double lift) {
        if (context_.isCancelled()) return cancelled();
        auto made = pad(lifted(edge_, lift), lifted(shape_, lift), ground_, context_);
        if (!made) return tl::unexpected(made.error());
        const double net = earth_.net(made->volumes);
        out_.curve.push_back({lift, made->volumes.cut, made->volumes.fill, net});
        const Tried t{lift, -net - surplus_, made->batter.open.empty()};
        if (std::abs(t.error) < bestError_ && t.whole) {
            bestError_ = std::abs(t.error);
            out_.pad = std::move(*made);
            out_.lift = lift;
            out_.error = t.error;
        }
        return t;
    }

    /// False position with halving (the Illinois method), which keeps the answer between.
    Result<Balanced> narrow(Tried low, Tried high) {
        double f = low.error;
        double g = high.error;
        int kept = 0;
        for (int i = 0; i < 100; ++i) {
            const double size = 1 + out_.pad.volumes.cut + out_.pad.volumes.fill;
            if (bestError_ <= 1e-11 * size || high.lift - low.lift < 1e-12) break;
            double middle =
                f == g ? (low.lift + high.lift) / 2 : low.lift + (high.lift - low.lift) * f / (f - g);
            if (!(middle > low.lift && middle < high.lift)) middle = (low.lift + high.lift) / 2;
            const auto next = tried(middle);
            if (!next) return tl::unexpected(next.error());
            if (!next->whole) return noHeight(middle);
            if (next->error > 0) {
                low = *next;
                f = next->error;
                if (kept == 1) g /= 2;
                kept = 1;
            } else {
                high = *next;
                g = next->error;
                if (kept == -1) f /= 2;
                kept = -1;
            }
        }
        std::sort(out_.curve.begin(), out_.curve.end(),
                  [](const BalancePoint& a, const BalancePoint& b) { return a.lift < b.lift; });
        return std::move(out_);
    }

    [[nodiscard]] tl::unexpected<Error> noHeight(double lift) const {
        const double height = edge_.corners.front().z + lift;
        return fail(ErrorCode::NotFound,
                    "no height balances: at " + formatFixed(height, 3) +
                        " the batters do not reach the ground everywhere, and the earth does not come out");
    }

    const Edge& edge_;
    const PadShape& shape_;
    const terrain::TinLocator& ground_;
    const Earth& earth_;
    double surplus_;
    const Context& context_;
    Balanced out_;
    double bestError_ = std::numeric_limits<double>::infinity();
};

}  // namespace

Result<Pad> pad(const Edge& edge, const PadShape& shape, const terrain::TinLocator& ground,
                const Context& context) {
    if (!edge.closed) return badInput("the edge of a pad is a closed line");
    BatterShape outside = shape.batter;
    outside.target = ToSurface{};
    outside.right = isRightOfEdge(edge);
    auto made = batter(edge, outside, &ground, context);
    if (!made) return tl::unexpected(made.error());
    Pad out;
    out.batter = std::move(*made);
    out.height = edge.corners.front().z;
    const auto inside = insideOf(out.batter, shape);
    if (!inside) return tl::unexpected(inside.error());
    MeshPool pool;
    addAll(pool, *inside);
    addAll(pool, out.batter.faces);
    out.surface = pool.take();
    const auto between = terrain::volumeBetween(
        terrain::TinLocator(std::make_shared<const terrain::Tin>(out.surface)), ground, context);
    if (!between) return tl::unexpected(between.error());
    // From the pad to the ground is the other way round.
    out.volumes = {between->fill, between->cut, between->area, between->fillArea, between->cutArea};
    return out;
}

Result<Balanced> balanced(const Edge& edge, const PadShape& shape, const terrain::TinLocator& ground,
                          const Earth& earth, double surplus, const Context& context) {
    if (!(earth.swell > 0) || !(earth.shrink > 0)) return badInput("swell and shrink must be above 0");
    if (edge.corners.empty()) return badInput("the edge has no sides");
    return Balancer(edge, shape, ground, earth, surplus, context).run();
}

Result<std::vector<BalancePoint>> balanceCurve(const Edge& edge, const PadShape& shape,
                                               const terrain::TinLocator& ground, const Earth& earth,
                                               double fromLift, double toLift, int count,
                                               const Context& context) {
    std::vector<BalancePoint> out;
    for (int i = 0; i < count; ++i) {
        if (context.isCancelled()) return cancelled();
        const double lift = fromLift + (toLift - fromLift) * i / (count - 1);
        const auto made = pad(lifted(edge, lift), lifted(shape, lift), ground, context);
        if (made) out.push_back({lift, made->volumes.cut, made->volumes.fill, earth.net(made->volumes)});
    }
    return out;
}

terrain::Tin finished(const terrain::Tin& ground, const terrain::Tin& pad) {
    return terrain::takenOver(ground, pad);
}

}  // namespace erdwerk::earthwork
