#include "core/earthwork/face_mesh.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/predicates.h"

namespace erdwerk::earthwork {

namespace {

constexpr double grid = 1e-6;
/// Vertices nearer than this are one: where a face ends micrometres before a corner, what lies between would
/// be a slit as long as the side.
constexpr double same = 1e-5;
constexpr double tiny = 1e-9;

/// A chain over s: what it is made of, and its d there.
struct Line {
    double s0 = 0;
    double d0 = 0;
    double s1 = 0;
    double d1 = 0;
    int source = 0;
    bool meets = false;
    [[nodiscard]] double at(double s) const {
        if (s <= s0) return d0;
        if (s >= s1) return d1;
        return d0 + (d1 - d0) * (s - s0) / (s1 - s0);
    }
};

/// Where a face begins: its flanks where they lean outwards, the edge between them.
std::vector<Line> innerOf(const Facet& f, double from, double to) {
    std::vector<Line> out;
    const auto flank = [&](const Flank& along, bool before) {
        std::vector<Line> part;
        for (std::size_t k = 0; k < along.knots.size(); ++k) {
            const Along a = along.knots[k];
            Along b{};
            if (k + 1 < along.knots.size()) {
                b = along.knots[k + 1];
            } else {
                const double wanted = before ? from : to;
                if (along.onwards.s == 0 || (wanted - a.s) / along.onwards.s <= 0) continue;
                const double t = (wanted - a.s) / along.onwards.s;
                b = {wanted, a.d + along.onwards.d * t};
            }
            if (before && b.s < a.s) part.push_back({b.s, b.d, a.s, a.d});
            if (!before && b.s > a.s) part.push_back({a.s, a.d, b.s, b.d});
        }
        if (before) std::reverse(part.begin(), part.end());
        out.insert(out.end(), part.begin(), part.end());
    };
    if (from < -tiny) flank(f.first, true);
    if (f.length > 0) out.push_back({0, 0, f.length, 0});
    if (to > f.length + tiny) flank(f.last, false);
    for (std::size_t i = 0; i < out.size(); ++i) out[i].source = -1 - static_cast<int>(i);
    return out;
}

/// Builds regions slab by slab.
class Slabs {
public:
    Slabs(const Facet& facet, std::vector<Line> inner, std::vector<Line> outer, std::size_t strip)
        : inner_(std::move(inner)), outer_(std::move(outer)), strip_(strip) {
        if (strip > 0) low_ = &facet.strips[strip];
        if (strip + 1 < facet.strips.size()) high_ = &facet.strips[strip + 1];
    }

    std::vector<FaceRegion> run() {
        for (const double s : cuts()) cut_.push_back(s);
        for (std::size_t i = 0; i + 1 < cut_.size(); ++i) slab(cut_[i], cut_[i + 1]);
        end();
        return std::move(out_);
    }

private:
    [[nodiscard]] const Line* lineOver(const std::vector<Line>& all, double u, double v) const {
        const double middle = (u + v) / 2;
        const auto it = std::upper_bound(all.begin(), all.end(), middle,
                                         [](double s, const Line& l) { return s < l.s0; });
        if (it == all.begin() || (it - 1)->s1 < middle) return nullptr;
        return &*(it - 1);
    }

    /// Ends of all pieces, and where they cross the borders of the strip.
    [[nodiscard]] std::vector<double> cuts() const {
        std::vector<double> all;
        for (const auto* lines : {&inner_, &outer_})
            for (const Line& l : *lines) {
                all.push_back(l.s0);
                all.push_back(l.s1);
                for (const Strip* border : {low_, high_}) {
                    if (border == nullptr) continue;
                    const double a = l.d0 - border->start(l.s0);
                    const double b = l.d1 - border->start(l.s1);
                    if ((a < 0) != (b < 0)) all.push_back(l.s0 + (l.s1 - l.s0) * a / (a - b));
                }
            }
        // The chains may meet where neither ends.
        for (const Line& l : inner_)
            for (const Line& o : outer_) {
                const double u = std::max(l.s0, o.s0);
                const double v = std::min(l.s1, o.s1);
                if (!(v > u)) continue;
                const double a = o.at(u) - l.at(u);
                const double b = o.at(v) - l.at(v);
                if ((a < -tiny && b > tiny) || (a > tiny && b < -tiny))
                    all.push_back(u + (v - u) * a / (a - b));
            }
        std::sort(all.begin(), all.end());
        all.erase(std::unique(all.begin(), all.end(), [](double a, double b) { return b - a < 1e-11; }),
                  all.end());
        return all;
    }

    void slab(double u, double v) {
        const Line* in = lineOver(inner_, u, v);
        const Line* on = lineOver(outer_, u, v);
        if (in == nullptr || on == nullptr) return end();
        Line low = *in;
        Line high = *on;
        const double middle = (u + v) / 2;
        if (low_ != nullptr && low_->start(middle) > low.at(middle))
            low = {u, low_->start(u), v, low_->start(v), 1'000'000, false};
        if (high_ != nullptr && high_->start(middle) < high.at(middle))
            high = {u, high_->start(u), v, high_->start(v), 1'000'001, false};
        if (!(high.at(middle) - low.at(middle) > 1e-10)) return end();
        const bool goesOn = open_ && region_.inner.back().s == u;
        if (!goesOn) {
            end();
            open_ = true;
            lowSource_ = highSource_ = 0;
        }
        add(region_.inner, low, u, v, lowSource_, nullptr);
        add(region_.outer, high, u, v, highSource_, &region_.meets);
    }

    static void add(std::vector<Along>& chain, const Line& line, double u, double v, int& source,
                    std::vector<bool>* meets) {
        const Along a{u, line.at(u)};
        const Along b{v, line.at(v)};
        if (source == line.source && !chain.empty() && std::abs(chain.back().d - a.d) < tiny) {
            chain.back() = b;
            return;
        }
        const bool step = !chain.empty() && std::abs(chain.back().d - a.d) >= tiny;
        if (chain.empty() || step) {
            if (step && meets != nullptr) meets->push_back(false);
            chain.push_back(a);
        }
        chain.push_back(b);
        if (meets != nullptr) meets->push_back(line.meets);
        source = line.source;
    }

    void end() {
        if (open_) {
            region_.strip = strip_;
            out_.push_back(std::move(region_));
        }
        region_ = {};
        open_ = false;
    }

    std::vector<Line> inner_;
    std::vector<Line> outer_;
    std::size_t strip_;
    const Strip* low_ = nullptr;
    const Strip* high_ = nullptr;
    std::vector<double> cut_;
    std::vector<FaceRegion> out_;
    FaceRegion region_;
    bool open_ = false;
    int lowSource_ = 0;
    int highSource_ = 0;
};

}  // namespace

namespace {
double squareBetween(Vec2 a, Vec2 b) {
    return geometry::dot(b - a, b - a);
}
}  // namespace

void MeshPool::reserve(std::size_t vertices) {
    vertices_.reserve(vertices);
    before_.reserve(vertices);
    cells_.reserve(vertices);
    corners_.reserve(6 * vertices);
    sides_.reserve(6 * vertices);
}

std::uint32_t MeshPool::vertex(Vec3 p) {
    constexpr double size = 64 * same;
    const Vec2 inCells = p.plan() * (1 / size);
    const Cell home{static_cast<std::int64_t>(std::floor(inCells.x)),
                    static_cast<std::int64_t>(std::floor(inCells.y))};
    const auto find = [&](Cell cell) {
        const auto it = cells_.find(cell);
        std::uint32_t v = it == cells_.end() ? terrain::Tin::none : it->second;
        while (v != terrain::Tin::none && squareBetween(vertices_[v].plan(), p.plan()) > same * same)
            v = before_[v];
        return v;
    };
    // The next cell is looked at where it is near.
    const auto beside = [](double at, std::int64_t cell) {
        constexpr double near = 1.01 / 64;
        const double within = at - static_cast<double>(cell);
        return within < near ? -1 : (within > 1 - near ? 1 : 0);
    };
    const std::int64_t dx = beside(inCells.x, home.x);
    const std::int64_t dy = beside(inCells.y, home.y);
    std::uint32_t found = find(home);
    if (found == terrain::Tin::none && dx != 0) found = find({home.x + dx, home.y});
    if (found == terrain::Tin::none && dy != 0) found = find({home.x, home.y + dy});
    if (found == terrain::Tin::none && dx != 0 && dy != 0) found = find({home.x + dx, home.y + dy});
    if (found != terrain::Tin::none) return found;
    const auto [last, isFirst] = cells_.try_emplace(home, count());
    before_.push_back(isFirst ? terrain::Tin::none : last->second);
    if (!isFirst) last.value() = count();
    vertices_.push_back(p);
    return count() - 1;
}

void MeshPool::triangle(std::uint32_t a, std::uint32_t b, std::uint32_t c) {
    if (a == b || b == c || c == a) return;
    const Vec2 p = vertices_[a].plan();
    const Vec2 q = vertices_[b].plan();
    const Vec2 r = vertices_[c].plan();
    const int turn = geometry::orientation(p, q, r);
    if (turn == 0) return;
    const double longest =
        std::sqrt(std::max({squareBetween(p, q), squareBetween(q, r), squareBetween(r, p)}));
    if (std::abs(geometry::cross(q - p, r - p)) < grid * longest) return;
    if (turn < 0) std::swap(b, c);
    // A side has one triangle on each hand; another one would lie over it.
    const auto key = [](std::uint32_t from, std::uint32_t to) { return std::uint64_t{from} << 32U | to; };
    if (sides_.contains(key(a, b)) || sides_.contains(key(b, c)) || sides_.contains(key(c, a))) return;
    sides_.insert({key(a, b), key(b, c), key(c, a)});
    corners_.insert(corners_.end(), {a, b, c});
}

terrain::Tin MeshPool::take() {
    return {std::move(vertices_), std::move(corners_)};
}

std::vector<FaceRegion> regionsOf(const Facet& facet, const Envelope& end) {
    if (end.empty()) return {};
    const auto inner = innerOf(facet, end.front().s0, end.back().s1);
    std::vector<Line> outer;
    outer.reserve(end.size());
    for (const Piece& p : end)
        outer.push_back({p.s0, p.d0, p.s1, p.d1, static_cast<int>(outer.size()) + 1, p.on == EndsOn::Target});
    std::vector<FaceRegion> out;
    for (std::size_t k = 0; k < facet.strips.size(); ++k) {
        auto part = Slabs(facet, inner, outer, k).run();
        std::move(part.begin(), part.end(), std::back_inserter(out));
    }
    return out;
}

void addRegion(MeshPool& pool, const Facet& facet, const FaceRegion& region) {
    struct Corner {
        Along at;
        std::uint32_t vertex = 0;
        bool outer = false;
    };
    const Strip& plane = facet.strips[region.strip];
    const auto vertexAt = [&](Along p) {
        const Vec2 place = facet.place(p);
        return pool.vertex({place.x, place.y, plane.height(p)});
    };
    // Both chains by s: the usual triangulation of a monotone polygon.
    std::vector<Corner> corners;
    std::size_t i = 0;
    std::size_t k = 0;
    while (i < region.inner.size() || k < region.outer.size()) {
        const bool inner =
            k == region.outer.size() || (i < region.inner.size() && region.inner[i].s <= region.outer[k].s);
        const Along p = inner ? region.inner[i++] : region.outer[k++];
        Corner c{p, vertexAt(p), !inner};
        if (!corners.empty() && corners.back().vertex == c.vertex) continue;
        corners.push_back(c);
    }
    std::vector<Corner> stack;
    const auto turn = [](const Along& a, const Along& b, const Along& c) {
        return (b.s - a.s) * (c.d - a.d) - (b.d - a.d) * (c.s - a.s);
    };
    for (const Corner& c : corners) {
        if (stack.size() < 2) {
            stack.push_back(c);
            continue;
        }
        if (c.outer != stack.back().outer) {
            for (std::size_t n = 0; n + 1 < stack.size(); ++n)
                pool.triangle(stack[n].vertex, stack[n + 1].vertex, c.vertex);
            stack = {stack.back(), c};
            continue;
        }
        Corner last = stack.back();
        stack.pop_back();
        // On the outer chain the region lies to the right, on the inner one to the left.
        while (!stack.empty() && turn(stack.back().at, last.at, c.at) * (c.outer ? -1 : 1) > 0) {
            pool.triangle(stack.back().vertex, last.vertex, c.vertex);
            last = stack.back();
            stack.pop_back();
        }
        stack.push_back(last);
        stack.push_back(c);
    }
}

}  // namespace erdwerk::earthwork
