#include "core/terrain/patch.h"

#include <oneapi/tbb/parallel_invoke.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <unordered_set>

#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/clip.h"

namespace erdwerk::terrain {

namespace {

constexpr std::uint32_t flag = ~Tin::none;

std::size_t at(std::uint32_t t, int i) {
    return 3 * std::size_t{t} + static_cast<std::size_t>(i);
}

/// A place to a grid; looked for in the cells beside it too.
class RimVertices {
public:
    void add(std::uint32_t v, const Vec3& p) { cells_[{cell(p.x), cell(p.y)}].emplace_back(v, p); }
    [[nodiscard]] std::optional<std::uint32_t> find(const Vec3& p) const {
        for (std::int64_t dx = -1; dx <= 1; ++dx)
            for (std::int64_t dy = -1; dy <= 1; ++dy) {
                const auto it = cells_.find({cell(p.x) + dx, cell(p.y) + dy});
                if (it == cells_.end()) continue;
                for (const auto& [v, place] : it->second)
                    if (geometry::distance(place.plan(), p.plan()) <= grid && std::abs(place.z - p.z) <= grid)
                        return v;
            }
        return std::nullopt;
    }

private:
    static constexpr double grid = 1e-6;
    static std::int64_t cell(double v) { return static_cast<std::int64_t>(std::floor(v / grid)); }
    std::map<std::pair<std::int64_t, std::int64_t>, std::vector<std::pair<std::uint32_t, Vec3>>> cells_;
};

std::vector<std::vector<Vec2>> rimPlaces(const Tin& tin) {
    std::vector<std::vector<Vec2>> out;
    for (const auto& ring : rimRings(tin)) {
        auto& places = out.emplace_back();
        places.reserve(ring.size());
        for (const std::uint32_t v : ring) places.push_back(tin.vertex(v).plan());
    }
    return out;
}

bool isCrack(const std::vector<Vec2>& ring) {
    double around = 0;
    for (std::size_t k = 0; k < ring.size(); ++k)
        around += geometry::distance(ring[k], ring[(k + 1) % ring.size()]);
    return std::abs(geometry::signedArea(ring)) < 1e-5 * around;
}

}  // namespace

/// With room for more: growing would copy everything once again.
std::shared_ptr<Tin> Patch::copyOf(const Tin& tin) {
    const auto copy = [](const auto& from, auto& to) {
        to.reserve(from.size() + from.size() / 16 + 4096);
        to.assign(from.begin(), from.end());
    };
    auto out = std::make_shared<Tin>();
    tbb::parallel_invoke([&] { copy(tin.vertices_, out->vertices_); },
                         [&] { copy(tin.corners_, out->corners_); }, [&] { copy(tin.links_, out->links_); });
    return out;
}

Patch::Patch(std::shared_ptr<const TinLocator> base)
    : base_(std::move(base)), tin_(copyOf(base_->tin())), locator_(tin_, *base_) {}

/// Takes triangles out of the index; gives the links of all their sides, by side.
Patch::Links Patch::takeOut(const std::vector<std::uint32_t>& removed) {
    Links sides;
    sides.reserve(3 * removed.size());
    for (const std::uint32_t t : removed) {
        locator_.take(t);
        const auto [it, untouched] = origin_.try_emplace(t, t);
        if (it->second != Tin::none) gone_.push_back(it->second);
        it->second = Tin::none;
        for (int i = 0; i < 3; ++i) {
            sides[sideOf(t, i)] = tin_->links_[at(t, i)];
            loose_.push_back(tin_->corner(t, i));
        }
    }
    return sides;
}

/// Lets the side of a triangle lead to another one; a constraint stays.
void Patch::relink(std::uint32_t triangle, Side side, std::uint32_t to) {
    for (int i = 0; i < 3; ++i)
        if (sideOf(triangle, i) == side) {
            std::uint32_t& link = tin_->links_[at(triangle, i)];
            link = to | (link & flag);
        }
}

/// Other triangles in the place of some; sides that both have keep their neighbours and constraints.
void Patch::exchange(std::vector<std::uint32_t> removed, const std::vector<Triangle>& added,
                     const std::vector<VertexPair>& constrained) {
    std::sort(removed.begin(), removed.end());
    Links outer = takeOut(removed);
    std::vector<std::uint32_t> slots = removed;
    while (slots.size() < added.size()) {
        slots.push_back(tin_->triangleCount());
        tin_->corners_.resize(tin_->corners_.size() + 3);
        tin_->links_.resize(tin_->links_.size() + 3);
        origin_[slots.back()] = Tin::none;
    }
    const std::vector<std::uint32_t> gaps(slots.begin() + static_cast<std::ptrdiff_t>(added.size()),
                                          slots.end());
    slots.resize(added.size());
    for (std::size_t k = 0; k < added.size(); ++k)
        for (int i = 0; i < 3; ++i) tin_->corners_[at(slots[k], i)] = added[k][static_cast<std::size_t>(i)];
    const std::unordered_set<std::uint32_t> out(removed.begin(), removed.end());
    for (auto& [side, link] : outer)
        if (const std::uint32_t n = link & Tin::none; n != Tin::none && out.count(n) == 0)
            relink(n, {side.second, side.first}, Tin::none);
        else
            link = Tin::none | (link & flag);
    link(slots, outer, constrained);
    for (const std::uint32_t t : slots) locator_.put(t);
    close(gaps);
}

/// Neighbours of new triangles: each other, and what lay beyond the sides of those that were there.
void Patch::link(const std::vector<std::uint32_t>& slots, const Links& outer,
                 const std::vector<VertexPair>& constrained) {
    Links inner;
    inner.reserve(3 * slots.size());
    for (const std::uint32_t t : slots)
        for (int i = 0; i < 3; ++i) inner[sideOf(t, i)] = t;
    for (const std::uint32_t t : slots)
        for (int i = 0; i < 3; ++i) {
            const auto [a, b] = sideOf(t, i);
            const auto before = outer.find({a, b});
            const bool held = (before != outer.end() && (before->second & flag) != 0) ||
                              std::binary_search(constrained.begin(), constrained.end(),
                                                 VertexPair{std::min(a, b), std::max(a, b)});
            std::uint32_t& own = tin_->links_[at(t, i)];
            own = Tin::none | (held ? flag : 0);
            if (const auto it = inner.find({b, a}); it != inner.end()) {
                own = it->second | (own & flag);
            } else if (before != outer.end() && (before->second & Tin::none) != Tin::none) {
                const std::uint32_t n = before->second & Tin::none;
                own = n | (own & flag);
                relink(n, {b, a}, t);
                if (held)
                    for (int j = 0; j < 3; ++j)
                        if (sideOf(n, j) == Side{b, a}) tin_->links_[at(n, j)] |= flag;
            }
        }
}

/// The last triangles fill what is empty.
void Patch::close(std::vector<std::uint32_t> gaps) {
    std::sort(gaps.rbegin(), gaps.rend());
    for (const std::uint32_t gap : gaps) {
        const std::uint32_t last = tin_->triangleCount() - 1;
        if (gap != last) {
            locator_.take(last);
            for (int i = 0; i < 3; ++i) {
                tin_->corners_[at(gap, i)] = tin_->corners_[at(last, i)];
                tin_->links_[at(gap, i)] = tin_->links_[at(last, i)];
            }
            for (int i = 0; i < 3; ++i)
                if (const std::uint32_t n = tin_->neighbour(gap, i); n != Tin::none) {
                    const auto [a, b] = sideOf(gap, i);
                    relink(n, {b, a}, gap);
                }
            origin_[gap] = origin_.try_emplace(last, last).first->second;
            locator_.put(gap);
        }
        origin_.erase(last);
        tin_->corners_.resize(tin_->corners_.size() - 3);
        tin_->links_.resize(tin_->links_.size() - 3);
    }
}

/// Triangles to the right of a closed chain of edges.
std::vector<std::uint32_t> Patch::enclosedBy(const std::vector<VertexPair>& chain) const {
    std::set<Side> edges(chain.begin(), chain.end());
    std::unordered_set<std::uint32_t> seen;
    std::vector<std::uint32_t> work;
    for (const auto& [a, b] : chain) {
        Box box;
        box.add(tin_->vertex(a).plan());
        for (const std::uint32_t t : locator_.near(box))
            for (int i = 0; i < 3; ++i)
                if (sideOf(t, i) == Side{b, a} && seen.insert(t).second) work.push_back(t);
    }
    std::vector<std::uint32_t> out;
    while (!work.empty()) {
        const std::uint32_t t = work.back();
        work.pop_back();
        out.push_back(t);
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin_->neighbour(t, i);
            const auto [a, b] = sideOf(t, i);
            if (n != Tin::none && edges.count({b, a}) == 0 && seen.insert(n).second) work.push_back(n);
        }
    }
    std::sort(out.begin(), out.end());
    return out;
}

void Patch::cutOut(const std::vector<Vec2>& ring, const std::vector<std::vector<Vec2>>& openings) {
    const auto addVertices = [&](const RingCut& cut) {
        tin_->vertices_.insert(tin_->vertices_.end(), cut.vertices.begin(), cut.vertices.end());
        for (std::size_t k = 0; k < cut.vertices.size(); ++k)
            loose_.push_back(static_cast<std::uint32_t>(tin_->vertexCount() - 1 - k));
    };
    std::vector<std::vector<VertexPair>> chains;
    for (const auto& opening : openings) {
        RingCut cut = cutAlong(locator_, opening);
        addVertices(cut);
        cut.inside.insert(cut.inside.end(), cut.outside.begin(), cut.outside.end());
        exchange(cut.crossed, cut.inside, cut.constrained);
        chains.push_back(std::move(cut.chain));
    }
    const RingCut cut = cutAlong(locator_, ring);
    addVertices(cut);
    std::unordered_set<std::uint32_t> stays;
    for (const auto& chain : chains) {
        const auto enclosed = enclosedBy(chain);
        stays.insert(enclosed.begin(), enclosed.end());
    }
    std::vector<std::uint32_t> removed = cut.crossed;
    for (const std::uint32_t t : cut.within)
        if (stays.count(t) == 0) removed.push_back(t);
    exchange(std::move(removed), cut.outside, cut.constrained);
}

std::vector<std::vector<Vec2>> ringsToCut(const Tin& tin) {
    auto out = rimPlaces(tin);
    std::erase_if(out, isCrack);
    return out;
}

void Patch::takeOver(const Tin& other) {
    const auto rings = ringsToCut(other);
    const auto plain = [](const std::vector<Vec2>& ring) {
        return ring.size() > 2 && validate(Boundary{ring, {}}).has_value();
    };
    for (const auto& ring : rings) {
        // Rings of openings run the other way round.
        if (geometry::signedArea(ring) <= 0 || !plain(ring)) continue;
        std::vector<std::vector<Vec2>> openings;
        for (const auto& opening : rings)
            if (geometry::signedArea(opening) < 0 && plain(opening) &&
                geometry::sideOf(ring, opening.front()) != geometry::Side::Outside)
                openings.push_back(opening);
        cutOut(ring, openings);
    }
    sew(other);
}

/// For each vertex of the other surface the one of this that it shares, or none. Two never become one, and
/// none is shared where a triangle would turn over or lie on one that is there.
std::vector<std::uint32_t> Patch::sharedVertices(const Tin& other, const Links& open,
                                                 const Links& there) const {
    RimVertices rim;
    for (const auto& [side, t] : open) rim.add(side.first, tin_->vertex(side.first));
    for (const auto& [side, t] : open) rim.add(side.second, tin_->vertex(side.second));
    std::vector<std::uint32_t> shared(other.vertexCount(), Tin::none);
    std::unordered_set<std::uint32_t> taken;
    for (std::uint32_t t = 0; t < other.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            if (other.neighbour(t, i) != Tin::none) continue;
            for (const int k : {(i + 1) % 3, (i + 2) % 3}) {
                const std::uint32_t v = other.corner(t, k);
                if (shared[v] != Tin::none) continue;
                if (const auto same = rim.find(other.vertex(v)); same && taken.insert(*same).second)
                    shared[v] = *same;
            }
        }
    const auto wrong = [&](std::uint32_t t) {
        std::array<Vec2, 3> places;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t v = shared[other.corner(t, i)];
            const std::uint32_t w = shared[other.corner(t, (i + 1) % 3)];
            if (v != Tin::none && w != Tin::none && there.count({v, w}) != 0) return true;
            places[static_cast<std::size_t>(i)] =
                v == Tin::none ? other.vertex(other.corner(t, i)).plan() : tin_->vertex(v).plan();
        }
        return geometry::orientation(places[0], places[1], places[2]) <= 0;
    };
    // What is given up changes the triangles beside it.
    for (bool again = true; again;) {
        again = false;
        for (std::uint32_t t = 0; t < other.triangleCount(); ++t) {
            const std::array<std::uint32_t, 3> own{other.corner(t, 0), other.corner(t, 1),
                                                   other.corner(t, 2)};
            const bool any =
                std::any_of(own.begin(), own.end(), [&](std::uint32_t v) { return shared[v] != Tin::none; });
            if (!any || !wrong(t)) continue;
            for (const std::uint32_t v : own) shared[v] = Tin::none;
            again = true;
        }
    }
    return shared;
}

/// Adds the triangles of the other surface, with the vertices and sides that both rims share.
void Patch::sew(const Tin& other) {
    Links open;
    Links there;
    for (const auto& ring : rimPlaces(other))
        for (std::size_t k = 0; k < ring.size(); ++k)
            for (const std::uint32_t t : locator_.along(ring[k], ring[(k + 1) % ring.size()]))
                for (int i = 0; i < 3; ++i)
                    (tin_->neighbour(t, i) == Tin::none ? open : there).emplace(sideOf(t, i), t);
    there.insert(open.begin(), open.end());
    std::vector<std::uint32_t> number = sharedVertices(other, open, there);
    for (std::uint32_t v = 0; v < other.vertexCount(); ++v) {
        if (number[v] != Tin::none) continue;
        number[v] = static_cast<std::uint32_t>(tin_->vertexCount());
        tin_->vertices_.push_back(other.vertex(v));
    }
    const std::uint32_t first = tin_->triangleCount();
    for (const std::uint32_t c : other.corners()) tin_->corners_.push_back(number[c]);
    for (const std::uint32_t l : other.links())
        tin_->links_.push_back((l & Tin::none) == Tin::none ? l : l + first);
    for (std::uint32_t t = first; t < tin_->triangleCount(); ++t) {
        origin_[t] = Tin::none;
        for (int i = 0; i < 3; ++i) {
            if (tin_->neighbour(t, i) != Tin::none) continue;
            const auto [a, b] = sideOf(t, i);
            const auto it = open.find({b, a});
            if (it == open.end()) continue;
            // Constrained: what was sewn together stays apart when it is edited.
            tin_->links_[at(t, i)] = it->second | flag;
            for (int j = 0; j < 3; ++j)
                if (sideOf(it->second, j) == Side{b, a}) tin_->links_[at(it->second, j)] = t | flag;
            open.erase(it);
        }
    }
    const Box reach = locator_.grid_->bounds;
    const Box box = other.bounds();
    if (other.empty() || (reach.contains({box.minX, box.minY}) && reach.contains({box.maxX, box.maxY}))) {
        for (std::uint32_t t = first; t < tin_->triangleCount(); ++t) locator_.put(t);
    } else {
        locator_ = TinLocator(tin_);
    }
}

/// Vertices without a triangle go; the last ones fill their places.
void Patch::dropVertices() {
    std::sort(loose_.begin(), loose_.end());
    loose_.erase(std::unique(loose_.begin(), loose_.end()), loose_.end());
    const auto star = [&](std::uint32_t v, const auto& visit) {
        const Vec2 p = tin_->vertex(v).plan();
        bool any = false;
        for (const std::uint32_t t :
             locator_.in(locator_.grid_->cellAt(locator_.grid_->row(p.y), locator_.grid_->column(p.x))))
            for (int i = 0; i < 3; ++i)
                if (tin_->corner(t, i) == v) {
                    any = true;
                    visit(at(t, i));
                }
        return any;
    };
    std::erase_if(loose_, [&](std::uint32_t v) { return star(v, [](std::size_t) {}); });
    for (auto it = loose_.rbegin(); it != loose_.rend(); ++it) {
        const auto last = static_cast<std::uint32_t>(tin_->vertexCount() - 1);
        if (*it != last) {
            star(last, [&](std::size_t corner) { tin_->corners_[corner] = *it; });
            tin_->vertices_[*it] = tin_->vertices_[last];
        }
        tin_->vertices_.pop_back();
    }
}

Patched Patch::finish() && {
    dropVertices();
    Patched out;
    out.gone = std::move(gone_);
    std::sort(out.gone.begin(), out.gone.end());
    for (const auto& [t, origin] : origin_)
        if (origin == Tin::none) out.fresh.push_back(t);
    std::sort(out.fresh.begin(), out.fresh.end());
    // Where most is another the shared grid is of no use.
    if (2 * out.gone.size() > base_->tin().triangleCount()) locator_ = TinLocator(tin_);
    out.locator = std::make_shared<const TinLocator>(std::move(locator_));
    return out;
}

Tin takenOver(const Tin& tin, const Tin& other) {
    Patch patch(std::make_shared<const TinLocator>(std::make_shared<const Tin>(tin)));
    patch.takeOver(other);
    return std::move(patch).finish().locator->tin();
}

}  // namespace erdwerk::terrain
