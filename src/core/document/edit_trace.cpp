#include "core/document/edit_trace.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <tuple>

#include "core/document/following.h"
#include "core/linework/line3d.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/points.h"

namespace erdwerk::document {

using geometry::Vec2;
using linework::Line3D;

namespace {

using Key = std::array<double, 2>;

Key keyOf(Vec2 p) {
    return {p.x, p.y};
}

/// Places of all vertices, grade points on their sides.
std::vector<Vec2> placesOf(const Line3D& line) {
    const auto path = planPath(line);
    std::vector<Vec2> out;
    std::size_t side = 0;
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const auto& v = line.vertices[i];
        if (v.isCorner) {
            if (i > 0) ++side;
            out.push_back(v.place);
        } else {
            out.push_back(side < path.size() ? pointAt(path[side], v.fraction) : Vec2{});
        }
    }
    return out;
}

bool sameKinds(const Line3D& a, const Line3D& b) {
    return std::equal(a.vertices.begin(), a.vertices.end(), b.vertices.begin(), b.vertices.end(),
                      [](const auto& x, const auto& y) { return x.isCorner == y.isCorner; });
}

bool isReversal(const Line3D& a, const Line3D& b) {
    const auto ca = cornersOf(a);
    const auto cb = cornersOf(b);
    if (ca.size() != cb.size() || ca.size() < 2) return false;
    const auto at = [](const Line3D& l, std::size_t corner) { return l.vertices[corner].place; };
    // A closed line that is turned round starts at the same corner.
    const std::size_t shift = a.closed && at(a, ca[0]) == at(b, cb[0]) ? 0 : ca.size() - 1;
    bool same = true;
    bool forward = true;
    for (std::size_t k = 0; k < ca.size(); ++k) {
        same = same && at(a, ca[k]) == at(b, cb[(shift + ca.size() - k) % ca.size()]);
        forward = forward && at(a, ca[k]) == at(b, cb[k]);
    }
    return same && !forward;
}

/// The vertices of the lines that a changed line may have gone to, by place.
class Places {
public:
    explicit Places(const std::vector<std::pair<ObjectId, const Line3D*>>& lines) {
        for (const auto& [id, line] : lines) {
            const auto places = placesOf(*line);
            for (std::size_t i = 0; i < places.size(); ++i) {
                if (line->vertices[i].isCorner)
                    corners_[keyOf(places[i])].push_back({id, i});
                else
                    grades_.push_back({places[i], {id, i}});
            }
        }
    }
    /// The first that was not taken yet, in the order of the lines; a later one rather than one before
    /// `after`.
    std::optional<Part> take(Vec2 place, const std::optional<Part>& after) {
        const auto it = corners_.find(keyOf(place));
        if (it == corners_.end() || it->second.empty()) return std::nullopt;
        auto best = it->second.begin();
        if (after)
            for (auto p = it->second.begin(); p != it->second.end(); ++p)
                if (p->object == after->object && p->index > after->index) {
                    best = p;
                    break;
                }
        const Part out = *best;
        it->second.erase(best);
        return out;
    }
    [[nodiscard]] std::optional<Part> grade(Vec2 place) const {
        for (const auto& [at, part] : grades_)
            if (geometry::distance(at, place) < 1e-6) return part;
        return std::nullopt;
    }

private:
    std::map<Key, std::vector<Part>> corners_;
    std::vector<std::pair<Vec2, Part>> grades_;
};

}  // namespace

void EditTrace::tracePoints(ObjectId id, const objects::Points& before, const objects::Points& after) {
    Parts& parts = parts_[id];
    if (before.set.size() == after.set.size()) {
        parts.kept = before.set.size();
        return;
    }
    parts.vertices.resize(before.set.size());
    // Points keep their order when some are taken out or added.
    std::size_t next = 0;
    for (std::size_t i = 0; i < before.set.size(); ++i) {
        std::size_t k = next;
        const bool fewer = after.set.size() < before.set.size();
        while (k < after.set.size() && !(after.set[k] == before.set[i])) {
            if (fewer) {
                k = after.set.size();
                break;
            }
            ++k;
        }
        if (k >= after.set.size()) continue;
        parts.vertices[i] = Part{id, k};
        next = k + 1;
    }
}

/// Whether a corner that the line no longer has is now one of another line: it was cut in two.
static bool leftForAnother(const Line3D& before,
                           const std::vector<std::pair<ObjectId, const Line3D*>>& after) {
    const auto has = [](const Line3D& line, geometry::Vec2 place) {
        return std::any_of(line.vertices.begin(), line.vertices.end(),
                           [&](const auto& v) { return v.isCorner && v.place == place; });
    };
    if (after.size() < 2) return false;
    return std::any_of(before.vertices.begin(), before.vertices.end(), [&](const auto& v) {
        if (!v.isCorner || has(*after.front().second, v.place)) return false;
        return std::any_of(after.begin() + 1, after.end(),
                           [&](const auto& line) { return has(*line.second, v.place); });
    });
}

void EditTrace::traceLine(ObjectId id, const Line3D& before,
                          const std::vector<std::pair<ObjectId, const Line3D*>>& after) {
    Parts& parts = parts_[id];
    const auto corners = cornersOf(before);
    const std::size_t sides = corners.size() - (before.closed ? 0 : 1);
    parts.vertices.resize(before.vertices.size());
    parts.sides.resize(sides);
    const Line3D* own = !after.empty() && after.front().first == id ? after.front().second : nullptr;
    const bool itself = own != nullptr && sameKinds(before, *own) && !isReversal(before, *own);
    if (itself && !leftForAnother(before, after)) {
        for (std::size_t i = 0; i < before.vertices.size(); ++i) parts.vertices[i] = Part{id, i};
        for (std::size_t s = 0; s < sides; ++s)
            if (own->closed || s + 1 < corners.size()) parts.sides[s] = Part{id, s};
        return;
    }
    Places places(after);
    const auto at = placesOf(before);
    std::optional<Part> last;
    for (std::size_t i = 0; i < before.vertices.size(); ++i) {
        parts.vertices[i] = before.vertices[i].isCorner ? places.take(at[i], last) : places.grade(at[i]);
        if (parts.vertices[i]) last = parts.vertices[i];
    }
    const auto lineOf = [&](ObjectId of) {
        return std::find_if(after.begin(), after.end(), [&](const auto& l) { return l.first == of; })->second;
    };
    for (std::size_t s = 0; s < sides; ++s) {
        const auto from = parts.vertices[corners[s]];
        const auto to = parts.vertices[corners[(s + 1) % corners.size()]];
        if (!from) continue;
        const Line3D& line = *lineOf(from->object);
        const auto now = cornersOf(line);
        const std::size_t count = now.size() - (line.closed ? 0 : 1);
        const auto position = [&](std::size_t vertex) {
            return static_cast<std::size_t>(std::find(now.begin(), now.end(), vertex) - now.begin());
        };
        const std::size_t k = position(from->index);
        if (to && to->object == from->object) {
            const std::size_t other = position(to->index);
            const bool backward = (other + 1) % now.size() == k && (line.closed || other + 1 == k);
            const bool forward = (k + 1) % now.size() == other && (line.closed || k + 1 == other);
            if (backward && !(forward && now.size() == 2)) {
                parts.sides[s] = Part{from->object, other};
                continue;
            }
        }
        if (k < count) parts.sides[s] = Part{from->object, k};
        // At the cut of a line its second part starts with the same corner.
        if (k >= count && to && to->object != from->object) {
            const Line3D& second = *lineOf(to->object);
            if (second.vertices.front().place == at[corners[s]]) parts.sides[s] = Part{to->object, 0};
        }
    }
}

EditTrace::EditTrace(const Document& before, const Document& after) : before_(before), after_(after) {
    const Change change = difference(before, after);
    std::vector<std::pair<ObjectId, const Line3D*>> fresh;
    std::vector<std::pair<ObjectId, const Line3D*>> changedLines;
    for (const ObjectId id : change.changed) {
        const auto* line = after.get<objects::Line>(id);
        if (line == nullptr) continue;
        (before.find(id) ? changedLines : fresh).push_back({id, &line->line});
    }
    for (const ObjectId id : change.changed) {
        const auto* points = after.get<objects::Points>(id);
        const auto* old = before.get<objects::Points>(id);
        if (points != nullptr && old != nullptr) tracePoints(id, *old, *points);
        const auto* was = before.get<objects::Alignment>(id);
        const auto* now = after.get<objects::Alignment>(id);
        if (was != nullptr && now != nullptr && !now->line &&
            (was->pis != now->pis || was->elements != now->elements || was->reversed != now->reversed))
            traceAlignment(id);
    }
    for (const auto& [id, line] : changedLines) {
        const auto* old = before.get<objects::Line>(id);
        if (old == nullptr || old->line == *line) continue;
        std::vector<std::pair<ObjectId, const Line3D*>> targets{{id, line}};
        // A split makes a new line of a part.
        if (line->vertices.size() < old->line.vertices.size() || fresh.size() == 1)
            targets.insert(targets.end(), fresh.begin(), fresh.end());
        traceLine(id, old->line, targets);
    }
    for (const ObjectId id : change.removed) {
        const auto* old = before.get<objects::Line>(id);
        parts_[id].gone = true;
        // A join takes the line into another one.
        if (old == nullptr || changedLines.empty()) continue;
        traceLine(id, old->line, changedLines);
        Parts& parts = parts_[id];
        const auto there = std::count_if(parts.vertices.begin(), parts.vertices.end(),
                                         [](const auto& v) { return v.has_value(); });
        // One corner in common is a touch, not a join.
        if (there < 2) {
            parts.vertices.assign(parts.vertices.size(), std::nullopt);
            parts.sides.assign(parts.sides.size(), std::nullopt);
        }
    }
}

void EditTrace::endsWith(const Document& after) {
    for (const ObjectId id : difference(after_, after).removed) parts_[id].gone = true;
    after_ = after;
}

/// The elements of an alignment before and after: one by one where they are of the same sorts in the same
/// order (or turned round), else those of the same sort whose middles are nearest to each other.
void EditTrace::traceAlignment(ObjectId id) {
    const auto before = alignmentIn(before_, id).path;
    const auto after = alignmentIn(after_, id).path;
    Parts parts;
    parts.kept = std::numeric_limits<std::size_t>::max();  // its PIs are counted, not traced
    parts.sides.resize(before.size());
    const auto same = [](const geometry::Segment& a, const geometry::Segment& b) {
        return isCurved(a) == isCurved(b);
    };
    const std::size_t n = before.size();
    if (n == after.size() && std::equal(before.begin(), before.end(), after.begin(), same)) {
        const bool turned = n > 0 && geometry::distance(before.front().start, after.back().end) < 1e-6 &&
                            geometry::distance(before.back().end, after.front().start) < 1e-6;
        for (std::size_t i = 0; i < n; ++i) parts.sides[i] = Part{id, turned ? n - 1 - i : i};
    } else {
        std::vector<std::tuple<double, std::size_t, std::size_t>> pairs;
        for (std::size_t i = 0; i < n; ++i)
            for (std::size_t k = 0; k < after.size(); ++k)
                if (same(before[i], after[k]))
                    pairs.emplace_back(geometry::distance(pointAt(before[i], 0.5), pointAt(after[k], 0.5)), i,
                                       k);
        std::sort(pairs.begin(), pairs.end());
        std::vector<bool> taken(after.size(), false);
        for (const auto& [away, i, k] : pairs) {
            if (parts.sides[i] || taken[k]) continue;
            parts.sides[i] = Part{id, k};
            taken[k] = true;
        }
    }
    parts_[id] = std::move(parts);
}

bool EditTrace::isPoints(ObjectId before) const {
    return before_.get<objects::Points>(before) != nullptr;
}

const Line3D* EditTrace::lineBefore(ObjectId id) const {
    const auto* line = before_.get<objects::Line>(id);
    return line == nullptr ? nullptr : &line->line;
}

const Line3D* EditTrace::lineAfter(ObjectId id) const {
    const auto* line = after_.get<objects::Line>(id);
    return line == nullptr ? nullptr : &line->line;
}

std::optional<Part> EditTrace::vertex(Part before) const {
    const auto it = parts_.find(before.object);
    if (it == parts_.end() || before.index < it->second.kept) return before;
    return before.index < it->second.vertices.size() ? it->second.vertices[before.index] : std::nullopt;
}

std::optional<Part> EditTrace::side(Part before) const {
    const auto it = parts_.find(before.object);
    if (it == parts_.end()) return before;
    return before.index < it->second.sides.size() ? it->second.sides[before.index] : std::nullopt;
}

std::optional<ObjectId> EditTrace::object(ObjectId before) const {
    const auto it = parts_.find(before);
    if (it == parts_.end() || !it->second.gone) return before;
    for (const auto& v : it->second.vertices)
        if (v) return v->object;
    return std::nullopt;
}

namespace {

/// Of the points of a set, or the vertices of a line.
std::vector<Vec2> partPlaces(const Document& document, ObjectId id) {
    if (const auto* line = document.get<objects::Line>(id)) return placesOf(line->line);
    std::vector<Vec2> out;
    if (const auto* points = document.get<objects::Points>(id))
        for (const auto& block : points->set.blocks())
            for (const auto& p : *block) out.push_back(p.plan);
    return out;
}

}  // namespace

std::optional<std::pair<ObjectId, Vec2>> EditTrace::place(ObjectId object, Vec2 at, double tolerance) const {
    using Answer = std::optional<std::pair<ObjectId, Vec2>>;
    const auto it = parts_.find(object);
    if (it == parts_.end()) return Answer({object, at});
    const auto was = partPlaces(before_, object);
    for (std::size_t i = 0; i < was.size(); ++i) {
        if (geometry::distance(was[i], at) > tolerance) continue;
        const auto now = vertex({object, i});
        if (!now) return std::nullopt;
        const auto places = partPlaces(after_, now->object);
        return now->index < places.size() ? Answer({now->object, places[now->index]}) : std::nullopt;
    }
    const auto* line = before_.get<objects::Line>(object);
    if (line == nullptr) return it->second.gone ? std::nullopt : Answer({object, at});
    const auto path = planPath(line->line);
    const auto nearest = geometry::nearestOn(path, at);
    if (!nearest || std::abs(nearest->distance) > tolerance)
        return it->second.gone ? std::nullopt : Answer({object, at});
    const auto now = side({object, nearest->segment});
    const auto* target = now ? after_.get<objects::Line>(now->object) : nullptr;
    if (target == nullptr) return std::nullopt;
    const geometry::Segment onto = planPath(target->line)[now->index];
    // Where the side did not move, the place does not either.
    const auto still = geometry::nearestOn(planPath(target->line), at);
    if (still && std::abs(still->distance) <= tolerance) return Answer({now->object, at});
    return Answer({now->object, pointAt(onto, nearest->fraction)});
}

namespace {

/// The accepted findings with their places and objects carried along.
std::vector<Accepted> carriedAccepted(const std::vector<Accepted>& all, const EditTrace& trace,
                                      std::size_t* lost) {
    constexpr double sameSpot = 0.002;
    std::vector<Accepted> out;
    for (const Accepted& a : all) {
        Accepted next = a;
        bool gone = false;
        for (ObjectId& id : next.objects) {
            const auto place = trace.place(id, a.at, sameSpot);
            const auto object = trace.object(id);
            if (!place || !object) {
                gone = true;
                break;
            }
            if (!(place->second == a.at)) next.at = place->second;
            id = place->first == id ? *object : place->first;
        }
        if (gone)
            ++*lost;
        else
            out.push_back(std::move(next));
    }
    return out;
}

}  // namespace

Document withPartsCarried(const Document& before, const Document& after, const EditTrace& trace,
                          std::vector<std::string>* lost) {
    if (trace.empty()) return after;
    Document out = after;
    for (const auto& [id, object] : after.objects()) {
        // What the edit itself made or changed names parts as they are now.
        if (before.find(id) != object) continue;
        std::vector<std::string> words;
        auto next = objects::carried(object->payload, trace, &words);
        if (next.state == objects::Carried::State::Gone) out = out.without(id);
        if (next.state == objects::Carried::State::Changed)
            out = out.withPayload(id, std::move(*next.payload));
        if (lost != nullptr)
            for (const auto& word : words) lost->push_back(word + " of " + object->name);
    }
    if (before.settingsPointer() == after.settingsPointer() && !before.settings().accepted.empty()) {
        std::size_t gone = 0;
        Settings settings = after.settings();
        settings.accepted = carriedAccepted(before.settings().accepted, trace, &gone);
        if (!(settings == after.settings())) out = out.withSettings(std::move(settings));
        if (gone > 0 && lost != nullptr)
            lost->push_back(gone == 1 ? "an accepted finding" : std::to_string(gone) + " accepted findings");
    }
    return out;
}

}  // namespace erdwerk::document
