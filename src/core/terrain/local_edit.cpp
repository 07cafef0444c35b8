#include "core/terrain/local_edit.h"

#include <algorithm>
#include <map>

#include "core/terrain/mesh.h"
#include "core/terrain/noding.h"

namespace erdwerk::terrain {

namespace {

using Side = std::pair<std::uint32_t, std::uint32_t>;

class Editor {
public:
    Editor(const BuiltSurface& before, const TinLocator& locator, NodedLines old, NodedLines now)
        : locator_(locator), old_(std::move(old)), now_(std::move(now)), mesh_(before.tin) {}

    bool run() {
        const auto oldSides = sidesOf(old_);
        const auto newSides = sidesOf(now_);
        std::vector<std::array<Vec2, 2>> gone;
        std::vector<std::array<Vec3, 2>> added;
        for (const auto& [key, side] : oldSides)
            if (newSides.count(key) == 0) gone.push_back({side[0].plan(), side[1].plan()});
        for (const auto& [key, side] : newSides)
            if (oldSides.count(key) == 0) added.push_back(side);
        for (const auto& [a, b] : gone)
            if (!release(a, b)) return false;
        // Corners in the order of the noded lines, as a build would number them.
        for (std::size_t i = 0; i < now_.vertices.size(); ++i) {
            if (i < old_.corners ||
                (i >= now_.corners && i - now_.corners < old_.vertices.size() - old_.corners))
                continue;
            if (!vertexAt(now_.vertices[i])) return false;
        }
        for (const auto& [a, b] : added) {
            const auto to = vertexAt(b);
            const auto from = vertexAt(a);  // last: the constraint starts from a triangle there
            if (!from || !to) return false;
            if (*from != *to && !mesh_.constrain(*from, *to, at_)) return false;
        }
        return true;
    }

    Tin finish() && { return std::move(mesh_).tin(); }

private:
    using Place = std::pair<double, double>;
    using Key = std::pair<Place, Place>;

    /// Sides by their places, so that what both noded alike is the same.
    static std::map<Key, std::array<Vec3, 2>> sidesOf(const NodedLines& lines) {
        std::map<Key, std::array<Vec3, 2>> out;
        for (const auto& [from, to] : lines.sides) {
            const Vec3& a = lines.vertices[from];
            const Vec3& b = lines.vertices[to];
            Key key{{a.x, a.y}, {b.x, b.y}};
            if (key.second < key.first) std::swap(key.first, key.second);
            out.emplace(key, std::array<Vec3, 2>{a, b});
        }
        return out;
    }

    /// A triangle at the place, from the last one or, far away, by the index over the triangulation before.
    Mesh::Where locate(Vec2 place) {
        std::uint32_t hint = mesh_.lastTriangle();
        if (const auto t = locator_.triangleAt(place)) hint = *t;
        return mesh_.locate(place, hint);
    }

    /// The vertex there, added when there is none; nothing outside the region. Leaves a triangle at it in
    /// `at_`.
    std::optional<std::uint32_t> vertexAt(const Vec3& place) {
        const auto where = locate(place.plan());
        if (where.at == Mesh::At::Outside) return std::nullopt;
        if (where.at == Mesh::At::Corner) {
            at_ = where.triangle;
            return mesh_.corner(where.triangle, where.index);
        }
        const std::uint32_t v = mesh_.insert(place, where);
        at_ = mesh_.lastTriangle();
        return v;
    }

    /// Takes a constraint away; it may run through vertices that lie exactly on it.
    bool release(Vec2 from, Vec2 to) {
        const auto a = locate(from);
        if (a.at != Mesh::At::Corner) return false;
        const std::uint32_t start = mesh_.corner(a.triangle, a.index);
        const auto b = locate(to);
        if (b.at != Mesh::At::Corner) return false;
        return mesh_.release(start, mesh_.corner(b.triangle, b.index), locate(from).triangle);
    }

    const TinLocator& locator_;
    NodedLines old_;
    NodedLines now_;
    Mesh mesh_;
    std::uint32_t at_ = 0;
};

}  // namespace

namespace {

Box boxOf(const Breakline& line) {
    Box box;
    for (const Vec3& c : line.corners) box.add(c.plan());
    return box;
}

}  // namespace

std::optional<BuiltSurface> withLine(const BuiltSurface& before, const TinLocator& locator,
                                     const BuildInput& input, const Breakline& added) {
    // Only lines whose box the new one meets can be cut by it.
    const Box box = boxOf(added);
    std::vector<Breakline> lines;
    std::vector<std::size_t> which;
    for (std::size_t l = 0; l < input.lines.size(); ++l) {
        if (!boxOf(input.lines[l]).meets(box)) continue;
        lines.push_back(input.lines[l]);
        which.push_back(l);
    }
    NodedLines old = nodeLines(lines, input.onCrossing);
    lines.push_back(added);
    which.push_back(input.lines.size());
    NodedLines now = nodeLines(lines, input.onCrossing);
    // Heights of corners that were there must not have changed: the new line comes last and gives way, unless
    // the rule is another.
    for (std::size_t i = 0; i < old.corners; ++i)
        if (old.vertices[i] != now.vertices[i]) return std::nullopt;
    BuiltSurface out;
    out.points = before.points;
    out.duplicates = before.duplicates;
    out.crossings = before.crossings;
    for (Crossing crossing : now.crossings) {
        if (crossing.second + 1 != lines.size()) continue;
        crossing.first = which[crossing.first];
        crossing.second = which[crossing.second];
        out.crossings.push_back(crossing);
    }
    Editor editor(before, locator, std::move(old), std::move(now));
    if (!editor.run()) return std::nullopt;
    out.tin = std::move(editor).finish();
    return out;
}

}  // namespace erdwerk::terrain
