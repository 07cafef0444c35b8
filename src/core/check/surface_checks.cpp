// What is wrong with finished surfaces: spikes, flat triangles, needles at the rim, own edits, the fit.

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <unordered_map>

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/terrain/locator.h"
#include "core/terrain/rim.h"

namespace erdwerk::check {

using derive::Derived;
using document::Document;
using geometry::Vec2;
using geometry::Vec3;
using objects::Role;

namespace {

constexpr std::size_t mostOfOneKind = 100;

struct PlaceHash {
    std::size_t operator()(const Vec2& p) const {
        return std::hash<double>()(p.x) * 1000003U ^ std::hash<double>()(p.y);
    }
};

Finding about(const Document& document, const FindingKind& kind, Severity severity, ObjectId surface,
              Vec2 at) {
    return {kind, severity, {}, at, {}, {surface}, {document.nameOf(surface)}, {}};
}

/// Vertices at the other ends of all sides that meet at a vertex.
std::vector<std::vector<std::uint32_t>> ringsOf(const terrain::Tin& tin,
                                                const std::vector<std::uint32_t>& wanted) {
    std::unordered_map<std::uint32_t, std::size_t> position;
    for (std::size_t i = 0; i < wanted.size(); ++i) position[wanted[i]] = i;
    std::vector<std::vector<std::uint32_t>> out(wanted.size());
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            const auto it = position.find(tin.corner(t, i));
            if (it == position.end()) continue;
            for (const int k : {(i + 1) % 3, (i + 2) % 3}) out[it->second].push_back(tin.corner(t, k));
        }
    for (auto& ring : out) {
        std::sort(ring.begin(), ring.end());
        ring.erase(std::unique(ring.begin(), ring.end()), ring.end());
    }
    return out;
}

Vec2 centreOf(const std::array<Vec3, 3>& c) {
    return {(c[0].x + c[1].x + c[2].x) / 3, (c[0].y + c[1].y + c[2].y) / 3};
}

/// How far each vertex sticks out: its height over the highest neighbour (positive) or under the lowest
/// (negative), with the distance to the nearest one; 0 for all that lie between their neighbours.
struct Spikes {
    std::vector<std::uint32_t> vertices;
    std::vector<double> out;
};

/// A vertex is a spike when it is higher (or lower) than all its neighbours by more than 12 times the typical
/// step of the surface, and steeper than 1 : 1 to all of them.
Spikes spikesOf(const terrain::Tin& tin) {
    const std::size_t n = tin.vertexCount();
    std::vector<float> above(n, -std::numeric_limits<float>::infinity());  // highest neighbour
    std::vector<float> below(n, std::numeric_limits<float>::infinity());
    std::vector<float> gentlest(n, std::numeric_limits<float>::infinity());
    std::vector<float> steps;
    const double base = n == 0 ? 0 : tin.vertices().front().z;
    const auto meet = [&](std::uint32_t a, std::uint32_t b) {
        const Vec3& p = tin.vertex(a);
        const Vec3& q = tin.vertex(b);
        const double plan = geometry::distance(p.plan(), q.plan());
        above[a] = std::max(above[a], static_cast<float>(q.z - base));
        below[a] = std::min(below[a], static_cast<float>(q.z - base));
        gentlest[a] = std::min(gentlest[a], static_cast<float>(std::abs(p.z - q.z) / plan));
    };
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t a = tin.corner(t, i);
            const std::uint32_t b = tin.corner(t, (i + 1) % 3);
            meet(a, b);
            meet(b, a);
            steps.push_back(static_cast<float>(std::abs(tin.vertex(a).z - tin.vertex(b).z)));
        }
    Spikes spikes;
    if (steps.empty()) return spikes;
    const auto middle = steps.begin() + static_cast<std::ptrdiff_t>(steps.size() / 2);
    std::nth_element(steps.begin(), middle, steps.end());
    const double least = std::max(12.0 * static_cast<double>(*middle), 0.2);
    for (std::uint32_t v = 0; v < n; ++v) {
        if (!(gentlest[v] > 1) || !std::isfinite(gentlest[v])) continue;
        const double z = tin.vertex(v).z - base;
        double out = 0;
        if (z > static_cast<double>(above[v])) out = z - static_cast<double>(above[v]);
        if (z < static_cast<double>(below[v])) out = z - static_cast<double>(below[v]);
        if (std::abs(out) < least) continue;
        spikes.vertices.push_back(v);
        spikes.out.push_back(out);
    }
    return spikes;
}

void spikes(const Derived& derived, ObjectId surface, const terrain::Tin& tin, std::vector<Finding>& out) {
    const Document& document = derived.document;
    const auto found = spikesOf(tin);
    if (found.vertices.empty()) return;
    const auto rings = ringsOf(tin, found.vertices);
    std::unordered_map<Vec2, objects::PointRef, PlaceHash> points;
    for (const auto& s :
         derive::expandedSources(document, *document.get<objects::Surface>(surface)->definition))
        if (const auto* set = document.get<objects::Points>(s.object))
            for (std::size_t i = 0; i < set->set.size(); ++i)
                points.try_emplace(set->set[i].plan, objects::PointRef{s.object, i});
    const DisplaySettings& display = document.settings().display;
    for (std::size_t k = 0; k < found.vertices.size() && k < mostOfOneKind; ++k) {
        const Vec3 v = tin.vertex(found.vertices[k]);
        double mean = 0;
        for (const std::uint32_t r : rings[k]) mean += tin.vertex(r).z;
        mean /= static_cast<double>(rings[k].size());
        auto f = about(document, kinds::spike, Severity::LookAt, surface, v.plan());
        f.heights = {v.z, mean};
        const auto point = points.find(v.plan());
        std::string who = "A vertex";
        if (point != points.end()) {
            const auto ref = point->second;
            who = "Point " + document.get<objects::Points>(ref.set)->set[ref.index].number;
            f.objects.push_back(ref.set);
            f.names.push_back(who);
            f.fixes.push_back(
                {"Give it " + formatHeight(mean, display), operations::setPointHeight(ref, mean),
                 "neighbours' mean " + formatHeight(mean, display), "give each its neighbours' mean height"});
            f.fixes.push_back(
                {"Delete " + who, operations::removePoints({ref}), "delete", "delete the point", {ref}});
        } else {
            f.fixes.push_back(
                {"Leave it out",
                 operations::addOwnEdit(surface, {{terrain::EditKind::RemovePoint, v.plan(), {}}, {}, true}),
                 "leave out", "leave each out of its surface"});
        }
        f.text = who + " at " + formatHeight(v.z, display) + " stands " +
                 formatLength(std::abs(found.out[k]), display) + (found.out[k] > 0 ? " above" : " below") +
                 " all its neighbours in '" + document.nameOf(surface) + "'";
        out.push_back(std::move(f));
    }
}

/// Whether the quadrilateral of two triangles is strictly convex, so that its other diagonal may be taken.
bool flippable(const terrain::Tin& tin, std::uint32_t t, int i) {
    const std::uint32_t n = tin.neighbour(t, i);
    if (n == terrain::Tin::none || tin.constrained(t, i)) return false;
    const Vec2 top = tin.vertex(tin.corner(t, i)).plan();
    const Vec2 a = tin.vertex(tin.corner(t, (i + 1) % 3)).plan();
    const Vec2 b = tin.vertex(tin.corner(t, (i + 2) % 3)).plan();
    Vec2 bottom{};
    for (int k = 0; k < 3; ++k)
        if (tin.neighbour(n, k) == t) bottom = tin.vertex(tin.corner(n, k)).plan();
    return geometry::cross(a - top, bottom - top) > 0 && geometry::cross(bottom - top, b - top) > 0 &&
           geometry::cross(bottom - a, top - a) < 0 && geometry::cross(top - b, bottom - b) < 0;
}

void flatTriangles(const Derived& derived, ObjectId surface, const terrain::Tin& tin,
                   std::vector<Finding>& out) {
    const Document& document = derived.document;
    // Which contour a vertex is a corner of.
    std::unordered_map<Vec2, ObjectId, PlaceHash> owner;
    for (const auto& s :
         derive::expandedSources(document, *document.get<objects::Surface>(surface)->definition))
        if (s.role == Role::Contour)
            if (const auto* line = Derived::in(derived.lines, s.object))
                for (const auto& run : linework::runsWithHeights(*line, derive::breaklineSagitta))
                    for (const Vec3& p : run) owner.try_emplace(p.plan(), s.object);
    if (owner.empty()) return;
    const auto contourOf = [&](std::uint32_t v) {
        const auto it = owner.find(tin.vertex(v).plan());
        return it == owner.end() ? ObjectId{} : it->second;
    };
    struct OnOne {
        std::size_t count = 0;
        Vec2 at{};
        std::vector<Vec2> flips;
        std::vector<Instance> parts;
    };
    std::map<ObjectId, OnOne> found;
    std::set<std::uint32_t> used;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const ObjectId contour = contourOf(tin.corner(t, 0));
        if (!contour || contourOf(tin.corner(t, 1)) != contour || contourOf(tin.corner(t, 2)) != contour)
            continue;
        OnOne& one = found[contour];
        const auto corners = tin.triangle(t);
        const Vec2 centre = centreOf(corners);
        if (one.count++ == 0) one.at = centre;
        if (one.parts.size() < mostInstances)
            one.parts.push_back({"Flat triangle " + std::to_string(one.count), centre});
        for (int i = 0; i < 3 && used.count(t) == 0; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n == terrain::Tin::none || used.count(n) != 0 || !flippable(tin, t, i)) continue;
            bool otherHeight = false;
            for (int k = 0; k < 3; ++k)
                if (tin.neighbour(n, k) == t) otherHeight = contourOf(tin.corner(n, k)) != contour;
            if (!otherHeight) continue;
            one.flips.push_back(geometry::lerp(corners[std::size_t((i + 1) % 3)].plan(),
                                               corners[std::size_t((i + 2) % 3)].plan(), 0.5));
            used.insert(t);
            used.insert(n);
        }
    }
    for (const auto& [contour, one] : found) {
        auto f = about(document, kinds::flatTriangles, Severity::LookAt, surface, one.at);
        f.objects.push_back(contour);
        f.names.push_back(document.nameOf(contour));
        f.text = std::to_string(one.count) + (one.count == 1 ? " triangle" : " triangles") + " of '" +
                 f.names.front() + "' " + (one.count == 1 ? "is" : "are") + " flat: all corners lie on '" +
                 f.names.back() + "'";
        f.parts = one.parts;
        if (!one.flips.empty())
            f.fixes.push_back(
                {"Flip " + std::to_string(one.flips.size()) + (one.flips.size() == 1 ? " side" : " sides"),
                 operations::changeDefinition(
                     surface,
                     [flips = one.flips](auto& definition) {
                         for (const Vec2 at : flips)
                             definition.edits.push_back({{terrain::EditKind::FlipSide, at, {}}, {}, true});
                     }),
                 "flip " + std::to_string(one.flips.size()), "flip the sides that can be"});
        out.push_back(std::move(f));
    }
}

/// Height over longest side below which a rim triangle counts as a needle.
constexpr double needle = 0.02;

void rimNeedles(const Derived& derived, ObjectId surface, const terrain::Tin& tin,
                std::vector<Finding>& out) {
    const Document& document = derived.document;
    const auto& definition = *document.get<objects::Surface>(surface)->definition;
    // What begins with another surface has its rim.
    if (definition.narrowest >= needle || definition.base) return;
    for (const auto& s : derive::expandedSources(document, definition))
        if (s.role == Role::Edge) return;  // the rim is where it was asked to be
    std::vector<std::pair<double, Instance>> needles;
    std::size_t count = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto c = tin.triangle(t);
        double longest = 0;
        bool rim = false;
        for (int i = 0; i < 3; ++i) {
            const auto a = c[std::size_t((i + 1) % 3)].plan();
            const auto b = c[std::size_t((i + 2) % 3)].plan();
            longest = std::max(longest, geometry::distance(a, b));
            rim = rim || tin.neighbour(t, i) == terrain::Tin::none;
        }
        if (!rim) continue;
        const double area2 = geometry::cross(c[1].plan() - c[0].plan(), c[2].plan() - c[0].plan());
        const double narrow = area2 / (longest * longest);
        if (narrow >= needle) continue;
        ++count;
        needles.emplace_back(
            narrow,
            Instance{"Narrower than 1 : " + std::to_string(static_cast<int>(1 / std::max(narrow, 1e-9))),
                     centreOf(c)});
    }
    if (count == 0) return;
    std::stable_sort(needles.begin(), needles.end(),
                     [](const auto& a, const auto& b) { return a.first < b.first; });
    auto f = about(document, kinds::rimNeedles, Severity::Note, surface, needles.front().second.at);
    for (std::size_t i = 0; i < std::min(needles.size(), mostInstances); ++i)
        f.parts.push_back(needles[i].second);
    f.text = std::to_string(count) + (count == 1 ? " needle triangle" : " needle triangles") +
             " at the rim of '" + f.names.front() + "'";
    // What comes to lie at the rim goes as well, if it is as narrow: the fix says what it takes.
    const terrain::Tin left = terrain::peelRim(tin, {definition.maxEdge, needle, false});
    const std::size_t taken = tin.triangleCount() - left.triangleCount();
    const std::string takes = std::to_string(taken) + (taken == 1 ? " triangle, " : " triangles, ") +
                              formatArea(terrain::figuresOf(tin).planArea - terrain::figuresOf(left).planArea,
                                         document.settings().display);
    f.fixes.push_back({"Leave out narrow rim triangles: " + takes,
                       operations::changeDefinition(surface, [](auto& def) { def.narrowest = needle; }),
                       "leave out " + takes});
    out.push_back(std::move(f));
}

}  // namespace

void triangleFaults(const Derived& derived, ObjectId surface, std::vector<Finding>& out,
                    const Context& context) {
    const auto* locator = derived.surface(surface);
    if (locator == nullptr || locator->tin().empty()) return;
    spikes(derived, surface, locator->tin(), out);
    if (!context.isCancelled()) flatTriangles(derived, surface, locator->tin(), out);
    if (!context.isCancelled()) rimNeedles(derived, surface, locator->tin(), out);
}

void ownEdits(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    for (const auto& [surface, result] : derived.surfaces)
        for (const auto& [index, problem] : result->editProblems) {
            const auto& edits = document.get<objects::Surface>(surface)->definition->edits;
            auto f = about(document, kinds::ownEdit, Severity::LookAt, surface, edits[index].edit.at);
            f.text = "Own edit " + std::to_string(index + 1) + " of '" + f.names.front() +
                     "' does not apply: " + problem;
            f.fixes.push_back(
                {"Take the edit out", operations::changeDefinition(surface, [index = index](auto& def) {
                     if (index < def.edits.size())
                         def.edits.erase(def.edits.begin() + static_cast<std::ptrdiff_t>(index));
                 })});
            out.push_back(std::move(f));
        }
}

void fitOfSurfaces(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    for (const auto& [surface, fit] : derived.fits)
        for (const auto& worst : fit->worst) {
            auto f = about(document, kinds::fit, Severity::LookAt, surface, worst.point.plan());
            f.heights = {worst.point.z, worst.point.z - worst.deviation};
            f.text = "The source lies " + formatLength(std::abs(worst.deviation), display) +
                     (worst.deviation > 0 ? " above '" : " below '") + f.names.front() + "'; within " +
                     formatLength(fit->tolerance, display) + " is asked for";
            f.fixes.push_back(
                {"Add the source's point here",
                 operations::addToSurface(surface, "Points from the source", {worst.point}, "fit")});
            out.push_back(std::move(f));
        }
}

}  // namespace erdwerk::check
