#include "core/terrain/mesh.h"

#include <algorithm>
#include <cassert>
#include <map>

#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

namespace {

constexpr std::uint32_t mark = ~Tin::none;

int next(int i) {
    return i == 2 ? 0 : i + 1;
}
int previous(int i) {
    return i == 0 ? 2 : i - 1;
}

}  // namespace

Mesh::Mesh(const Tin& tin) {
    // With room for a local edit, so that the first new triangle does not copy everything again.
    constexpr std::size_t room = 4096;
    vertices_.reserve(tin.vertexCount() + room);
    corners_.reserve(tin.corners().size() + 6 * room);
    links_.reserve(tin.links().size() + 6 * room);
    vertices_.assign(tin.vertices().begin(), tin.vertices().end());
    corners_.assign(tin.corners().begin(), tin.corners().end());
    links_.assign(tin.links().begin(), tin.links().end());
}

Tin Mesh::tin() && {
    return Tin::fromLinked(std::move(vertices_), std::move(corners_), std::move(links_));
}

void Mesh::reserve(std::size_t moreVertices) {
    vertices_.reserve(vertices_.size() + moreVertices);
    corners_.reserve(corners_.size() + 6 * moreVertices);
    links_.reserve(links_.size() + 6 * moreVertices);
}

int Mesh::cornerIndex(std::uint32_t t, std::uint32_t v) const {
    for (int i = 0; i < 3; ++i)
        if (corner(t, i) == v) return i;
    return -1;
}

Mesh::Where Mesh::locate(Vec2 p, std::uint32_t hint) const {
    std::uint32_t t = hint < triangleCount() ? hint : 0;
    std::uint32_t from = none;
    // A visibility walk; starting the sides at a place that changes keeps it from going in circles.
    for (std::uint32_t step = 0;; ++step) {
        int zero = -1;
        int zeros = 0;
        bool moved = false;
        for (int k = 0; k < 3; ++k) {
            const int i = static_cast<int>((unsigned(k) + step) % 3);
            const std::uint32_t beyond = neighbour(t, i);
            if (beyond == from && from != none) continue;
            const int side = geometry::orientation(vertices_[corner(t, next(i))].plan(),
                                                   vertices_[corner(t, previous(i))].plan(), p);
            if (side < 0) {
                if (beyond == none) return {At::Outside, t, i};
                from = t;
                t = beyond;
                moved = true;
                break;
            }
            if (side == 0) {
                zero = i;
                ++zeros;
            }
        }
        if (moved) continue;
        for (int i = 0; i < 3; ++i)
            if (vertices_[corner(t, i)].plan() == p) return {At::Corner, t, i};
        if (zeros == 0) {
            // The side we came through was not asked again; it can only be touched when p lies on it.
            for (int i = 0; from != none && i < 3; ++i)
                if (neighbour(t, i) == from &&
                    geometry::orientation(vertices_[corner(t, next(i))].plan(),
                                          vertices_[corner(t, previous(i))].plan(), p) == 0)
                    return {At::Side, t, i};
            return {At::Inside, t, 0};
        }
        return {At::Side, t, zero};
    }
}

void Mesh::set(std::uint32_t t, std::array<std::uint32_t, 3> corners, std::array<std::uint32_t, 3> links) {
    std::copy(corners.begin(), corners.end(), corners_.begin() + 3 * std::ptrdiff_t{t});
    std::copy(links.begin(), links.end(), links_.begin() + 3 * std::ptrdiff_t{t});
}

std::uint32_t Mesh::addTriangle() {
    const std::uint32_t t = triangleCount();
    corners_.resize(corners_.size() + 3);
    links_.resize(links_.size() + 3, none);
    return t;
}

void Mesh::linkBack(std::uint32_t t, int i, std::uint32_t formerly) {
    const std::uint32_t n = neighbour(t, i);
    if (n == none) return;
    for (int j = 0; j < 3; ++j)
        if (neighbour(n, j) == formerly && corner(n, next(j)) == corner(t, previous(i))) {
            link(n, j) = t | (link(n, j) & mark);
            return;
        }
}

/// Three triangles for one; returns them.
std::vector<std::uint32_t> Mesh::splitTriangle(std::uint32_t t, std::uint32_t v) {
    const std::array<std::uint32_t, 3> c{corner(t, 0), corner(t, 1), corner(t, 2)};
    const std::array<std::uint32_t, 3> l{link(t, 0), link(t, 1), link(t, 2)};
    const std::uint32_t t1 = addTriangle();
    const std::uint32_t t2 = addTriangle();
    set(t, {v, c[1], c[2]}, {l[0], t1, t2});
    set(t1, {v, c[2], c[0]}, {l[1], t2, t});
    set(t2, {v, c[0], c[1]}, {l[2], t, t1});
    linkBack(t1, 0, t);
    linkBack(t2, 0, t);
    return {t, t1, t2};
}

/// Two triangles for each on a side; returns them.
std::vector<std::uint32_t> Mesh::splitSide(std::uint32_t t, int i, std::uint32_t v,
                                           std::vector<std::uint32_t>* touched) {
    const std::uint32_t apex = corner(t, i);
    const std::uint32_t a = corner(t, next(i));
    const std::uint32_t b = corner(t, previous(i));
    const std::uint32_t n = neighbour(t, i);
    const std::uint32_t flag = link(t, i) & mark;
    const std::uint32_t toA = link(t, previous(i));
    const std::uint32_t toB = link(t, next(i));
    int j = 0;
    std::uint32_t far = none;
    std::uint32_t farB = none;
    std::uint32_t farA = none;
    if (n != none) {
        while (corner(n, next(j)) != b || corner(n, previous(j)) != a) ++j;
        far = corner(n, j);
        farB = link(n, previous(j));
        farA = link(n, next(j));
        if (touched != nullptr) touched->push_back(n);
    }
    const std::uint32_t t1 = addTriangle();
    const std::uint32_t n1 = n == none ? none : addTriangle();
    set(t, {v, apex, a}, {toA, (n == none ? none : n1) | flag, t1});
    set(t1, {v, b, apex}, {toB, t, n | flag});
    linkBack(t1, 0, t);
    std::vector<std::uint32_t> star{t, t1};
    if (n != none) {
        set(n, {v, far, b}, {farB, t1 | flag, n1});
        set(n1, {v, a, far}, {farA, n, t | flag});
        linkBack(n1, 0, n);
        star.push_back(n);
        star.push_back(n1);
    }
    return star;
}

std::uint32_t Mesh::insert(const Vec3& vertex, const Where& where, std::vector<std::uint32_t>* touched) {
    assert(where.at == At::Inside || where.at == At::Side);
    const auto v = static_cast<std::uint32_t>(vertices_.size());
    vertices_.push_back(vertex);
    const std::uint32_t t = where.triangle;
    if (touched != nullptr) touched->push_back(t);
    auto star = where.at == At::Inside ? splitTriangle(t, v) : splitSide(t, where.index, v, touched);
    // Lawson's flips: every changed triangle keeps the new vertex as corner 0.
    while (!star.empty()) {
        const std::uint32_t s = star.back();
        star.pop_back();
        if (!shouldFlip(s, 0)) continue;
        const std::uint32_t n = neighbour(s, 0);
        if (touched != nullptr) touched->push_back(n);
        flip(s, 0);
        star.push_back(s);
        star.push_back(n);
    }
    last_ = t;
    return v;
}

bool Mesh::shouldFlip(std::uint32_t t, int i) const {
    const std::uint32_t n = neighbour(t, i);
    if (n == none || constrained(t, i)) return false;
    int j = 0;
    while (neighbour(n, j) != t || corner(n, next(j)) != corner(t, previous(i))) ++j;
    return geometry::inCircle(vertices_[corner(t, 0)].plan(), vertices_[corner(t, 1)].plan(),
                              vertices_[corner(t, 2)].plan(), vertices_[corner(n, j)].plan()) > 0;
}

/// Turns the side i of t = (v, b, c from corner i on) to v-d: t becomes (v, b, d) and its neighbour (v, d,
/// c).
void Mesh::flip(std::uint32_t t, int i) {
    const std::uint32_t n = neighbour(t, i);
    const std::uint32_t v = corner(t, i);
    const std::uint32_t b = corner(t, next(i));
    const std::uint32_t c = corner(t, previous(i));
    int j = 0;
    while (corner(n, next(j)) != c || corner(n, previous(j)) != b) ++j;
    const std::uint32_t d = corner(n, j);
    const std::uint32_t besideB = link(n, next(j));      // edge b-d
    const std::uint32_t besideC = link(n, previous(j));  // edge d-c
    const std::uint32_t vb = link(t, previous(i));       // edge v-b
    const std::uint32_t cv = link(t, next(i));           // edge c-v
    set(t, {v, b, d}, {besideB, n, vb});
    set(n, {v, d, c}, {besideC, cv, t});
    linkBack(t, 0, n);
    linkBack(n, 1, t);
}

void Mesh::legalise(std::vector<std::pair<std::uint32_t, int>>& sides) {
    while (!sides.empty()) {
        const auto [t, i] = sides.back();
        sides.pop_back();
        if (!shouldFlip(t, i)) continue;
        const std::uint32_t n = neighbour(t, i);
        flip(t, i);
        for (const auto& side : {std::pair{t, 0}, std::pair{t, 2}, std::pair{n, 0}, std::pair{n, 1}})
            sides.push_back(side);
    }
}

void Mesh::around(std::uint32_t v, std::uint32_t t, std::vector<std::uint32_t>& out) const {
    // Clockwise to the rim, or once round.
    std::uint32_t first = t;
    for (;;) {
        const std::uint32_t n = neighbour(first, previous(cornerIndex(first, v)));
        if (n == none || n == t) break;
        first = n;
    }
    for (std::uint32_t s = first;;) {
        out.push_back(s);
        s = neighbour(s, next(cornerIndex(s, v)));
        if (s == none || s == first) break;
    }
}

bool Mesh::release(std::uint32_t a, std::uint32_t b, std::uint32_t t) {
    std::vector<std::uint32_t> star;
    around(a, t, star);
    for (const std::uint32_t s : star)
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t from = corner(s, next(i));
            const std::uint32_t to = corner(s, previous(i));
            if (!((from == a && to == b) || (from == b && to == a))) continue;
            if (!constrained(s, i)) return false;
            link(s, i) &= none;
            const std::uint32_t n = neighbour(s, i);
            for (int j = 0; n != none && j < 3; ++j)
                if (corner(n, next(j)) == to && corner(n, previous(j)) == from) link(n, j) &= none;
            std::vector<std::pair<std::uint32_t, int>> sides{{s, i}};
            legalise(sides);
            last_ = s;
            return true;
        }
    return false;
}

/// A side from `a` that lies along the straight to `b`, forwards, is constrained and gone along (`a` and `t`
/// move); else the triangle round `a` that the straight enters, none when there is none.
std::optional<std::uint32_t> Mesh::alongSide(std::uint32_t& a, std::uint32_t b, std::uint32_t& t) {
    const Vec2 pa = vertices_[a].plan();
    const Vec2 pb = vertices_[b].plan();
    std::vector<std::uint32_t> star;
    around(a, t, star);
    std::uint32_t crossing = none;
    for (const std::uint32_t s : star) {
        const int i = cornerIndex(s, a);
        const std::uint32_t right = corner(s, next(i));
        const std::uint32_t left = corner(s, previous(i));
        const int turnRight = geometry::orientation(pa, pb, vertices_[right].plan());
        const int turnLeft = geometry::orientation(pa, pb, vertices_[left].plan());
        // A side that lies along the straight, forwards.
        for (const auto& [w, turn, side] :
             {std::tuple{right, turnRight, previous(i)}, std::tuple{left, turnLeft, next(i)}}) {
            if (turn != 0 || geometry::dot(vertices_[w].plan() - pa, pb - pa) <= 0) continue;
            link(s, side) |= mark;
            const std::uint32_t n = neighbour(s, side);
            for (int j = 0; n != none && j < 3; ++j)
                if (neighbour(n, j) == s && corner(n, next(j)) == corner(s, previous(side)))
                    link(n, j) |= mark;
            a = w;
            t = s;
            return std::nullopt;
        }
        if (turnRight < 0 && turnLeft > 0) crossing = s;
    }
    return crossing;
}

/// Takes out the triangles that the straight from `a` crosses, from `crossing` to the next vertex on it, and
/// fills the gap on both sides. Returns that vertex; none when a constrained side or the rim is in the way.
std::uint32_t Mesh::cutThrough(std::uint32_t a, std::uint32_t b, std::uint32_t crossing) {
    const Vec2 pa = vertices_[a].plan();
    const Vec2 pb = vertices_[b].plan();
    std::vector<std::uint32_t> removed{crossing};
    const int i = cornerIndex(crossing, a);
    std::vector<std::uint32_t> right{a, corner(crossing, next(i))};
    std::vector<std::uint32_t> left{a, corner(crossing, previous(i))};
    std::uint32_t s = crossing;
    int side = i;
    std::uint32_t end = none;
    while (end == none) {
        if (constrained(s, side)) return none;
        const std::uint32_t n = neighbour(s, side);
        if (n == none) return none;
        int j = 0;
        while (corner(n, next(j)) != corner(s, previous(side)) ||
               corner(n, previous(j)) != corner(s, next(side)))
            ++j;
        removed.push_back(n);
        const std::uint32_t apex = corner(n, j);
        const int turn = apex == b ? 0 : geometry::orientation(pa, pb, vertices_[apex].plan());
        s = n;
        if (turn == 0)
            end = apex;
        else if (turn < 0) {
            right.push_back(apex);
            side = next(j);  // the side from the apex to the left chain
            if (corner(n, next(j)) == left.back()) side = previous(j);
        } else {
            left.push_back(apex);
            side = next(j);
            if (corner(n, next(j)) == right.back()) side = previous(j);
        }
    }
    right.push_back(end);
    left.push_back(end);
    retriangulate(removed, left, right);
    return end;
}

bool Mesh::constrain(std::uint32_t a, std::uint32_t b, std::uint32_t t) {
    while (a != b) {
        const auto crossing = alongSide(a, b, t);
        if (!crossing) continue;
        if (*crossing == none) return false;
        const std::uint32_t end = cutThrough(a, b, *crossing);
        if (end == none) return false;
        a = end;
        t = last_;
    }
    last_ = t;
    return true;
}

namespace {

/// Triangles of the region between a straight (first to last of the chain) and a chain on its left, each
/// Delaunay with respect to the chain (Anglada, "An improved incremental algorithm for constructing
/// restricted Delaunay triangulations", 1997).
void fillLeft(const std::vector<Vec3>& vertices, const std::vector<std::uint32_t>& chain, std::size_t first,
              std::size_t last, std::vector<std::array<std::uint32_t, 3>>& out) {
    if (last - first < 2) return;
    const Vec2 a = vertices[chain[first]].plan();
    const Vec2 b = vertices[chain[last]].plan();
    std::size_t best = first + 1;
    for (std::size_t k = first + 2; k < last; ++k)
        if (geometry::inCircle(a, b, vertices[chain[best]].plan(), vertices[chain[k]].plan()) > 0) best = k;
    out.push_back({chain[first], chain[last], chain[best]});
    fillLeft(vertices, chain, first, best, out);
    fillLeft(vertices, chain, best, last, out);
}

}  // namespace

void Mesh::retriangulate(const std::vector<std::uint32_t>& removed, const std::vector<std::uint32_t>& left,
                         const std::vector<std::uint32_t>& right) {
    std::vector<std::array<std::uint32_t, 3>> filled;
    fillLeft(vertices_, left, 0, left.size() - 1, filled);
    const std::vector<std::uint32_t> back(right.rbegin(), right.rend());
    fillLeft(vertices_, back, 0, back.size() - 1, filled);
    assert(filled.size() == removed.size());
    using Edge = std::pair<std::uint32_t, std::uint32_t>;
    std::map<Edge, std::uint32_t> outer;  // directed sides of the hole, with the links they had
    for (const std::uint32_t t : removed)
        for (int i = 0; i < 3; ++i) outer[{corner(t, next(i)), corner(t, previous(i))}] = link(t, i);
    std::map<Edge, std::pair<std::uint32_t, int>> inner;
    for (std::size_t k = 0; k < filled.size(); ++k) {
        set(removed[k], filled[k], {none, none, none});
        for (int i = 0; i < 3; ++i)
            inner[{corner(removed[k], next(i)), corner(removed[k], previous(i))}] = {removed[k], i};
    }
    const Edge straight{left.front(), left.back()};
    std::vector<std::pair<std::uint32_t, int>> sides;
    for (const auto& [edge, slot] : inner) {
        const Edge reverse{edge.second, edge.first};
        const auto before = outer.find(edge);
        const std::uint32_t flag = before == outer.end() ? 0 : before->second & mark;
        if (const auto it = inner.find(reverse); it != inner.end()) {
            const bool isStraight = edge == straight || reverse == straight;
            link(slot.first, slot.second) = it->second.first | (isStraight ? mark : flag);
            continue;
        }
        link(slot.first, slot.second) = before->second;
        const std::uint32_t n = before->second & none;
        for (int j = 0; n != none && j < 3; ++j)
            if (corner(n, next(j)) == edge.second && corner(n, previous(j)) == edge.first)
                link(n, j) = slot.first | (link(n, j) & mark);
    }
    for (const std::uint32_t t : removed)
        for (int i = 0; i < 3; ++i) sides.emplace_back(t, i);
    legalise(sides);
    // A triangle at the far end, to go on from.
    for (const std::uint32_t t : removed)
        if (cornerIndex(t, left.back()) >= 0) last_ = t;
}

}  // namespace erdwerk::terrain
