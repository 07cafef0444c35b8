// What is wrong with the sources of surfaces: points, ends of lines, boundaries, files.

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/edge.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/geometry/box_index.h"
#include "core/objects/backdrop.h"
#include "core/objects/cloud.h"
#include "core/objects/height_raster.h"
#include "core/operations/lines.h"
#include "core/operations/mend.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"

namespace erdwerk::check {

using derive::Derived;
using document::Document;
using geometry::Vec2;
using objects::Role;

namespace {

std::string numberOf(const survey::SurveyPoint& p) {
    return p.number.empty() ? std::string("without number") : p.number;
}

std::string quoted(const Document& document, ObjectId id) {
    return "'" + document.nameOf(id) + "'";
}

/// Where two sides of a ring that are not neighbours properly cross.
std::vector<Vec2> selfCrossings(const std::vector<Vec2>& ring, bool closed) {
    std::vector<geometry::Box> boxes;
    const std::size_t sides = closed ? ring.size() : ring.size() - 1;
    for (std::size_t i = 0; i < sides; ++i)
        boxes.push_back(geometry::boundsOf({ring[i], ring[(i + 1) % ring.size()], std::nullopt}));
    const geometry::BoxIndex index(boxes);
    std::vector<Vec2> out;
    for (std::size_t i = 0; i < sides && out.size() < 20; ++i) {
        const Vec2 a = ring[i];
        const Vec2 b = ring[(i + 1) % ring.size()];
        index.query(boxes[i], [&](std::uint32_t j) {
            if (j <= i + 1 || (closed && i == 0 && j + 1 == sides)) return true;
            const Vec2 c = ring[j];
            const Vec2 d = ring[(j + 1) % ring.size()];
            const double ab = geometry::cross(b - a, d - c);
            if (ab == 0) return true;
            const double t = geometry::cross(c - a, d - c) / ab;
            const double u = geometry::cross(c - a, b - a) / ab;
            if (t > 0 && t < 1 && u > 0 && u < 1) out.push_back(geometry::lerp(a, b, t));
            return true;
        });
    }
    return out;
}

}  // namespace

void nearDuplicates(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    const double near = document.settings().checks.near;
    if (!(near > 0)) return;
    struct Entry {
        Vec2 place;
        objects::PointRef ref;
    };
    std::vector<Entry> all;
    for (const auto id : document.all<objects::Points>()) {
        const auto& set = document.get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) all.push_back({set[i].plan, {id, i}});
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const Entry& a, const Entry& b) { return a.place.x < b.place.x; });
    for (std::size_t i = 0; i < all.size(); ++i) {
        for (std::size_t k = i + 1; k < all.size() && all[k].place.x - all[i].place.x <= near; ++k) {
            const double apart = geometry::distance(all[i].place, all[k].place);
            if (apart == 0 || apart > near) continue;  // one place is another finding
            auto first = all[i].ref;
            auto second = all[k].ref;
            if (std::pair(second.set, second.index) < std::pair(first.set, first.index))
                std::swap(first, second);
            const auto& p = document.get<objects::Points>(first.set)->set[first.index];
            const auto& q = document.get<objects::Points>(second.set)->set[second.index];
            Finding f{
                kinds::nearDuplicates, Severity::LookAt, {}, p.plan, {}, {first.set, second.set}, {}, {}};
            f.names = {"Point " + numberOf(p), "Point " + numberOf(q)};
            for (const auto& point : {p, q})
                if (point.height) f.heights.push_back(*point.height);
            const auto& display = document.settings().display;
            f.text = f.names[0] + " (" + formatHeight(p.height, display) + ") and " + f.names[1] + " (" +
                     formatHeight(q.height, display) + ") are only " + formatLength(apart, display) +
                     " apart";
            const auto keep = [&](const survey::SurveyPoint& kept, objects::PointRef gone,
                                  const std::string& way) {
                f.fixes.push_back({"Keep " + numberOf(kept),
                                   operations::removePoints({gone}),
                                   "keep " + numberOf(kept),
                                   way,
                                   {gone}});
            };
            keep(p, second, "keep the first of each two");
            keep(q, first, "keep the second of each two");
            out.push_back(std::move(f));
        }
    }
}

void pointsOutsideEdge(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    for (const auto id : document.all<objects::Surface>()) {
        const auto sources =
            derive::expandedSources(document, *document.get<objects::Surface>(id)->definition);
        const auto edge =
            std::find_if(sources.begin(), sources.end(), [](const auto& s) { return s.role == Role::Edge; });
        if (edge == sources.end()) continue;
        const auto* line = Derived::in(derived.lines, edge->object);
        if (line == nullptr) continue;
        const auto ring = derive::boundaryAlong(*line, derive::breaklineSagitta).ring;
        if (ring.size() < 3) continue;
        for (const auto& s : sources) {
            const auto* points = document.get<objects::Points>(s.object);
            if (points == nullptr) continue;
            std::vector<objects::PointRef> outside;
            for (std::size_t i = 0; i < points->set.size(); ++i)
                if (points->set[i].height &&
                    geometry::sideOf(ring, points->set[i].plan) == geometry::Side::Outside)
                    outside.push_back({s.object, i});
            if (outside.empty()) continue;
            Finding f{kinds::pointsOutside,
                      Severity::Note,
                      {},
                      points->set[outside.front().index].plan,
                      {},
                      {id, s.object, edge->object},
                      {document.nameOf(s.object)},
                      {}};
            f.text = std::to_string(outside.size()) + (outside.size() == 1 ? " point of " : " points of ") +
                     quoted(document, s.object) + (outside.size() == 1 ? " lies" : " lie") +
                     " outside the edge of " + quoted(document, id) + " and take no part";
            for (const auto& ref : outside) {
                if (f.parts.size() == mostInstances) break;
                const auto& p = points->set[ref.index];
                f.parts.push_back({"Point " + numberOf(p), p.plan});
            }
            out.push_back(std::move(f));
        }
    }
}

void boundaries(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    for (const auto id : document.all<objects::Surface>()) {
        for (const auto& s :
             derive::expandedSources(document, *document.get<objects::Surface>(id)->definition)) {
            const bool ring = objects::isRing(s.role);
            const auto* line = Derived::in(derived.lines, s.object);
            if (!ring || line == nullptr || line->path.empty()) continue;
            const std::string what = "The " + std::string(objects::roleName(s.role)) + " " +
                                     quoted(document, s.object) + " of " + quoted(document, id);
            const auto base = [&](const FindingKind& kind, std::string text, Vec2 at) {
                return Finding{kind,
                               Severity::MustFix,
                               std::move(text),
                               at,
                               {},
                               {s.object, id},
                               {document.nameOf(s.object)},
                               {}};
            };
            const auto giveUp = operations::removeSource(id, s.object);
            if (!line->closed) {
                auto f =
                    base(kinds::boundaryOpen,
                         what + " is not closed: its ends are " +
                             formatLength(geometry::distance(line->path.front().start, line->path.back().end),
                                          document.settings().display) +
                             " apart",
                         line->path.back().end);
                f.fixes.push_back({"Close the line", operations::closeLine(s.object)});
                f.fixes.push_back({"Take it out", giveUp});
                out.push_back(std::move(f));
                continue;
            }
            const auto corners = derive::boundaryAlong(*line, derive::breaklineSagitta).ring;
            if (corners.size() < 4) continue;
            for (const Vec2 at : selfCrossings(corners, true)) {
                auto f = base(kinds::boundaryCrossesItself, what + " crosses itself", at);
                f.fixes.push_back({"Take it out", giveUp});
                out.push_back(std::move(f));
            }
        }
    }
}

namespace {

/// Lines that are among the sources of surfaces, each once.
std::vector<ObjectId> sourceLines(const Document& document) {
    std::set<ObjectId> done;
    std::vector<ObjectId> lines;
    for (const auto id : document.all<objects::Surface>())
        for (const auto& s :
             derive::expandedSources(document, *document.get<objects::Surface>(id)->definition))
            if (document.get<objects::Line>(s.object) != nullptr && done.insert(s.object).second)
                lines.push_back(s.object);
    return lines;
}

/// Segments of lines, found by place.
struct SegmentIndex {
    std::vector<std::pair<ObjectId, geometry::Segment>> segments;
    std::unique_ptr<geometry::BoxIndex> index;  ///< of boxes that reach `touch` farther
};

SegmentIndex segmentIndex(const Derived& derived, const std::vector<ObjectId>& lines, double touch) {
    SegmentIndex out;
    std::vector<geometry::Box> boxes;
    for (const ObjectId id : lines)
        if (const auto* line = Derived::in(derived.lines, id))
            for (const auto& segment : line->path) {
                boxes.push_back(geometry::boundsOf(segment).grown(touch));
                out.segments.emplace_back(id, segment);
            }
    out.index = std::make_unique<geometry::BoxIndex>(boxes);
    return out;
}

/// The other lines that a place nearly touches, and where; none when it lies on one already.
std::map<ObjectId, geometry::Nearest> nearlyTouched(const SegmentIndex& all, ObjectId id, Vec2 end,
                                                    double touch) {
    std::map<ObjectId, geometry::Nearest> best;
    bool joined = false;
    geometry::Box here;
    here.add(end);
    all.index->query(here, [&](std::uint32_t k) {
        const auto& [other, segment] = all.segments[k];
        if (other == id) return true;
        const auto near = geometry::nearestOn({segment}, end);
        const double apart = std::abs(near->distance);
        if (apart <= 1e-6) joined = true;
        if (apart > touch) return true;
        const auto it = best.find(other);
        if (it == best.end() || apart < std::abs(it->second.distance)) best[other] = *near;
        return true;
    });
    if (joined) best.clear();
    return best;
}

Finding nearlyTouching(const Derived& derived, ObjectId id, bool last, ObjectId other, double apart) {
    const Document& document = derived.document;
    const auto* line = Derived::in(derived.lines, id);
    const Vec2 end = last ? line->path.back().end : line->path.front().start;
    const auto* target = Derived::in(derived.lines, other);
    const auto on = geometry::nearestOn(target->path, end);
    const auto height = linework::heightAt(*target, geometry::distanceAlong(target->path, *on));
    Finding f{kinds::nearlyTouching,
              Severity::LookAt,
              quoted(document, id) + " ends " + formatLength(apart, document.settings().display) +
                  " beside " + quoted(document, other) + " without touching it",
              end,
              {},
              {id, other},
              {document.nameOf(id), document.nameOf(other)},
              {}};
    const auto& ends = last ? line->vertices.back() : line->vertices.front();
    if (ends.height) f.heights.push_back(*ends.height);
    if (height) {
        f.heights.push_back(*height);
        f.fixes.push_back({"End it on the line",
                           operations::moveEndOnto(id, last, {on->place.x, on->place.y, *height}, other),
                           "end it on " + document.nameOf(other), "end each on the line it nearly touches"});
    }
    return f;
}

}  // namespace

void nearlyTouching(const Derived& derived, std::vector<Finding>& out) {
    const double touch = derived.document.settings().checks.touch;
    if (!(touch > 0)) return;
    const auto lines = sourceLines(derived.document);
    const SegmentIndex all = segmentIndex(derived, lines, touch);
    for (const ObjectId id : lines) {
        const auto* line = Derived::in(derived.lines, id);
        if (line == nullptr || line->closed || line->path.empty()) continue;
        for (const bool last : {false, true}) {
            const Vec2 end = last ? line->path.back().end : line->path.front().start;
            for (const auto& [other, near] : nearlyTouched(all, id, end, touch))
                out.push_back(nearlyTouching(derived, id, last, other, std::abs(near.distance)));
        }
    }
}

void missingFiles(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    const auto missing = [&](ObjectId id, const std::string& file, const std::string& problem) {
        if (problem.empty()) return;
        out.push_back({kinds::fileMissing,
                       Severity::MustFix,
                       quoted(document, id) + ": " + file + ": " + problem,
                       std::nullopt,
                       {},
                       {id},
                       {document.nameOf(id)},
                       {{"Take it out of the project", [id](const Document& d) { return d.without(id); }}}});
    };
    for (const auto id : document.all<objects::Cloud>()) {
        const auto* payload = document.get<objects::Cloud>(id);
        missing(id, payload->file, payload->problem);
    }
    for (const auto id : document.all<objects::HeightRaster>()) {
        const auto* payload = document.get<objects::HeightRaster>(id);
        missing(id, payload->file, payload->problem);
    }
    for (const auto id : document.all<objects::Backdrop>()) {
        const auto* payload = document.get<objects::Backdrop>(id);
        missing(id, payload->file, payload->problem);
    }
}

}  // namespace erdwerk::check
