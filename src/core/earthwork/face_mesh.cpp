#include "core/earthwork/face_mesh.h"

#include <algorithm>
#include <cmath>
#include <unordered_map>

#include "core/geometry/predicates.h"
#include "core/terrain/build.h"

namespace erdwerk::earthwork {

namespace {

constexpr double grid = 1e-6;
/// Vertices nearer than this are one: where a face ends micrometres before a corner, what lies between would
/// be a slit as long as the side.
constexpr double same = 1e-5;
constexpr double tiny = 1e-9;
/// Where a face that falls stands beside one that rises both have vertices of their own.
constexpr double step = 0.01;

/// Goes along cells of one strip that follow each other one by one.
class Regions {
public:
    explicit Regions(const FaceCells& cells) : all_(cells) {}

    /// A cell, or several above each other of which the lines are those of the lowest and the highest.
    void add(const FaceCell& c) {
        const bool goesOn = open_ && region_.inner.back().s == c.from && overlaps(c);
        if (!goesOn) end();
        if (!open_) region_.strip = c.strip;
        chain(region_.inner, c, c.low, lastLow_);
        chain(region_.outer, c, c.high, lastHigh_);
        open_ = true;
    }
    std::vector<FaceRegion> take() {
        end();
        return std::move(out_);
    }

private:
    [[nodiscard]] bool overlaps(const FaceCell& c) const {
        return std::min(region_.outer.back().d, all_.high(c, c.from)) >
               std::max(region_.inner.back().d, all_.low(c, c.from));
    }
    void chain(std::vector<Along>& places, const FaceCell& c, std::uint32_t line, std::uint32_t& last) const {
        const Along a{c.from, all_.lines[line].at(c.from)};
        const Along b{c.to, all_.lines[line].at(c.to)};
        const bool follows = !places.empty() && std::abs(places.back().d - a.d) < tiny;
        if (follows && last == line) {
            places.back() = b;
            return;
        }
        last = line;
        if (!follows) places.push_back(a);
        places.push_back(b);
    }
    void end() {
        if (open_) out_.push_back(std::move(region_));
        region_ = {};
        open_ = false;
        lastLow_ = lastHigh_ = 0xffffffffU;
    }

    const FaceCells& all_;
    std::vector<FaceRegion> out_;
    FaceRegion region_;
    bool open_ = false;
    std::uint32_t lastLow_ = 0xffffffffU;
    std::uint32_t lastHigh_ = 0xffffffffU;
};

/// Cells of one strip that lie on each other are one.
std::vector<FaceCell> stacked(const FaceCells& all, std::size_t strip) {
    std::vector<FaceCell> out;
    for (const FaceCell& c : all.cells) {
        if (c.strip != strip) continue;
        if (!out.empty() && out.back().slab == c.slab && out.back().high == c.low)
            out.back().high = c.high;
        else
            out.push_back(c);
    }
    return out;
}

/// The sides of cells where no other lies beside them.
class Outline {
public:
    Outline(const FaceCells& all, const std::vector<FaceCell>& cells) : all_(all) {
        for (const CellSide& side : sidesOf(cells)) {
            const FaceLine& line = all.lines[side.line];
            sides.emplace_back(Along{side.from, line.at(side.from)}, Along{side.to, line.at(side.to)});
        }
        std::size_t before = 0;
        std::size_t beforeEnd = 0;
        for (std::size_t here = 0; here < cells.size();) {
            std::size_t end = here;
            while (end < cells.size() && cells[end].slab == cells[here].slab) ++end;
            const bool follows = beforeEnd > before && cells[before].to == cells[here].from;
            if (!follows) walls(cells, before, beforeEnd, 0, 0);
            walls(cells, follows ? before : 0, follows ? beforeEnd : 0, here, end);
            before = here;
            beforeEnd = end;
            here = end;
        }
        walls(cells, before, beforeEnd, 0, 0);
    }
    std::vector<std::pair<Along, Along>> sides;

private:
    /// Where the cells that end and those that begin at one s do not lie beside each other.
    void walls(const std::vector<FaceCell>& cells, std::size_t a, std::size_t aEnd, std::size_t b,
               std::size_t bEnd) {
        if (a == aEnd && b == bEnd) return;
        const double s = a < aEnd ? cells[a].to : cells[b].from;
        std::vector<double> ends;
        for (std::size_t i = a; i < aEnd; ++i)
            for (const std::uint32_t l : {cells[i].low, cells[i].high}) ends.push_back(all_.lines[l].at(s));
        for (std::size_t i = b; i < bEnd; ++i)
            for (const std::uint32_t l : {cells[i].low, cells[i].high}) ends.push_back(all_.lines[l].at(s));
        std::sort(ends.begin(), ends.end());
        const auto covers = [&](std::size_t from, std::size_t to, double d) {
            for (std::size_t i = from; i < to; ++i)
                if (all_.lines[cells[i].low].at(s) <= d && d <= all_.lines[cells[i].high].at(s)) return true;
            return false;
        };
        for (std::size_t i = 0; i + 1 < ends.size(); ++i) {
            if (ends[i + 1] - ends[i] < tiny) continue;
            const double middle = (ends[i] + ends[i + 1]) / 2;
            if (covers(a, aEnd, middle) != covers(b, bEnd, middle))
                sides.emplace_back(Along{s, ends[i]}, Along{s, ends[i + 1]});
        }
    }

    const FaceCells& all_;
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
        while (v != terrain::Tin::none && (squareBetween(vertices_[v].plan(), p.plan()) > same * same ||
                                           std::abs(vertices_[v].z - p.z) > step))
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

FaceParts partsOf(const Facet& facet, const FaceCells& all) {
    FaceParts out;
    for (std::size_t strip = 0; strip < facet.strips.size(); ++strip) {
        const auto cells = stacked(all, strip);
        bool isPlain = true;
        for (std::size_t i = 0; i + 1 < cells.size(); ++i)
            isPlain = isPlain && cells[i].slab != cells[i + 1].slab;
        if (isPlain) {
            Regions regions(all);
            for (const FaceCell& c : cells) regions.add(c);
            for (FaceRegion& r : regions.take()) out.regions.push_back(std::move(r));
        } else {
            out.outlines.push_back({strip, std::move(Outline(all, cells).sides)});
        }
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

void addOutline(MeshPool& pool, const Facet& facet, const FaceCells& all, const FaceOutline& outline) {
    const Strip& plane = facet.strips[outline.strip];
    std::unordered_map<std::uint32_t, std::uint32_t> numbers;
    std::vector<std::uint32_t> vertices;
    std::vector<Vec2> places;
    const auto numberOf = [&](Along p) {
        const Vec2 place = facet.place(p);
        const std::uint32_t v = pool.vertex({place.x, place.y, plane.height(p)});
        const auto [it, isNew] = numbers.try_emplace(v, static_cast<std::uint32_t>(vertices.size()));
        if (isNew) {
            vertices.push_back(v);
            places.push_back(pool.at(v).plan());
        }
        return it->second;
    };
    std::vector<std::array<std::uint32_t, 2>> sides;
    for (const auto& [a, b] : outline.sides) {
        const std::uint32_t from = numberOf(a);
        const std::uint32_t to = numberOf(b);
        if (from != to) sides.push_back({from, to});
    }
    const auto corners = terrain::constrainedTriangles(places, sides);
    for (std::size_t t = 0; t + 2 < corners.size(); t += 3) {
        const Vec2 middle =
            (places[corners[t]] + places[corners[t + 1]] + places[corners[t + 2]]) * (1.0 / 3);
        const auto cell = all.at(facet.own(middle));
        if (cell && all.cells[*cell].strip == outline.strip)
            pool.triangle(vertices[corners[t]], vertices[corners[t + 1]], vertices[corners[t + 2]]);
    }
}

}  // namespace erdwerk::earthwork
