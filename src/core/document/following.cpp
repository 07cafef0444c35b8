#include "core/document/following.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "core/base/id.h"
#include "core/geometry/inside.h"
#include "core/linework/enclosure.h"
#include "core/linework/offset.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/route/station_finder.h"
#include "core/survey/points.h"

namespace erdwerk::document {

using geometry::Vec2;
using objects::FigureOf;
using objects::Line;
using objects::RowOf;

namespace {

/// Nothing where it stays as it is.
std::optional<Line> rowAfter(const RowOf& row, const Line& line, const Document& after) {
    const auto* source = after.get<Line>(row.line);
    if (source == nullptr) return std::nullopt;
    auto next = linework::offset(linework::placed(source->line), row.row, row.options);
    if (!next || *next == line.line) return std::nullopt;
    Line out = line;
    out.line = std::move(*next);
    return out;
}

/// The lines that are there and follow no figure themselves.
struct Members {
    std::vector<ObjectId> ids;
    std::vector<geometry::Path> paths;
    /// With a box only those that come into it.
    Members(const std::vector<ObjectId>& lines, const Document& document,
            const std::optional<geometry::Box>& box = std::nullopt) {
        for (const ObjectId id : lines) {
            const auto* of = document.get<Line>(id);
            if (of == nullptr || objects::figureOf(*of) != nullptr) continue;
            auto path = linework::planPath(of->line);
            if (box && !geometry::boundsOf(path).meets(*box)) continue;
            ids.push_back(id);
            paths.push_back(std::move(path));
        }
    }
};

bool sameShape(const linework::Line3D& a, const linework::Line3D& b) {
    constexpr double same = 1e-6;
    const auto p = linework::planPath(a);
    const auto q = linework::planPath(b);
    return std::abs(geometry::signedArea(p) - geometry::signedArea(q)) <=
               same * std::abs(geometry::signedArea(p)) &&
           geometry::distance(geometry::boundsOf(p).centre(), geometry::boundsOf(q).centre()) <= same;
}

/// How far a line was moved: its first corner.
Vec2 shiftOf(ObjectId id, const Document& before, const Document& after) {
    const auto* was = before.get<Line>(id);
    const auto* now = after.get<Line>(id);
    if (was == nullptr || now == nullptr || was->line.vertices.empty() || now->line.vertices.empty())
        return {};
    return now->line.vertices.front().place - was->line.vertices.front().place;
}

std::optional<Line> figureAfter(const FigureOf& figure, const Line& line, const Document& before,
                                const Document& after) {
    Line next = line;
    FigureOf of = figure;
    const auto take = [&](const geometry::Path& path) {
        next.line = linework::lineRound(path);
        of.inside = geometry::placeInside(geometry::flattened(path, 1e-3));
    };
    const Members members(figure.lines, after);
    bool closes = false;
    if (members.ids.size() == figure.lines.size()) {
        // All of it may have been moved away from the place.
        std::vector<Vec2> places{figure.inside};
        for (const ObjectId id : figure.lines) places.push_back(figure.inside + shiftOf(id, before, after));
        for (std::size_t i = 0; !closes && i < places.size(); ++i)
            if (const auto made = linework::figureOfAll(members.paths, places[i])) {
                take(*made);
                closes = true;
            }
    }
    if (!closes) {
        const Members all(after.all<Line>(), after, geometry::boundsOf(linework::planPath(line.line)));
        const auto made = linework::enclosureOf(all.paths, figure.inside);
        if (!made || !sameShape(linework::lineRound(made->figure), line.line)) return std::nullopt;
        take(made->figure);
        of.lines.clear();
        for (const std::size_t path : made->paths) of.lines.push_back(all.ids[path]);
    }
    if (next.line == line.line && of.lines == figure.lines) return std::nullopt;
    next.follows = std::make_shared<const objects::Follows>(std::move(of));
    return next;
}

/// The line as it is after an edit of what it follows; nothing where it stays as it is.
std::optional<Line> shapeAfter(ObjectId id, const Document& before, const Document& after) {
    const Line& line = *after.get<Line>(id);
    if (!line.follows) return std::nullopt;
    const auto* row = std::get_if<RowOf>(line.follows.get());
    const auto* figure = objects::figureOf(line);
    if (row == nullptr && figure == nullptr) return std::nullopt;
    const auto moved = [&](ObjectId of) { return after.find(of) != before.find(of); };
    const auto* was = before.get<Line>(id);
    const bool other = was == nullptr || !objects::sameFollows(*was, line);
    if (row != nullptr) return other || moved(row->line) ? rowAfter(*row, line, after) : std::nullopt;
    const bool any = std::any_of(figure->lines.begin(), figure->lines.end(), moved);
    return other || any ? figureAfter(*figure, line, before, after) : std::nullopt;
}

}  // namespace

Document withShapesFollowing(const Document& before, Document after) {
    // A row of a row comes after it: each round goes one row on.
    const std::size_t most = after.all<Line>().size();
    bool again = true;
    for (std::size_t round = 0; again && round <= most; ++round) {
        again = false;
        for (const ObjectId id : after.all<Line>())
            if (auto next = shapeAfter(id, before, after)) {
                after = after.withPayload(id, std::move(*next));
                again = true;
            }
    }
    return after;
}

route::AlignmentGeometry alignmentIn(const Document& document, ObjectId id) {
    const auto* alignment = document.get<objects::Alignment>(id);
    if (alignment == nullptr) return {};
    const auto* line = document.get<Line>(alignment->line);
    return objects::geometryOf(*alignment,
                               line == nullptr ? geometry::Path{} : linework::planPath(line->line));
}

namespace {

/// The points of one set, before and after an edit.
class TiedSet {
public:
    TiedSet(const Document& before, const Document& after, ObjectId id, const objects::Points& now)
        : now_(now), was_(before.get<objects::Points>(id)), tie_(*now.tie) {
        const auto* along = after.get<objects::Alignment>(tie_.alignment);
        moved_ = along == nullptr || after.find(tie_.alignment) != before.find(tie_.alignment) ||
                 (along->line && after.find(along->line) != before.find(along->line)) || was_ == nullptr ||
                 was_->tie != now.tie;
    }
    /// The edit touched nothing of it; the usual case, and it costs no look at the points.
    [[nodiscard]] bool stays() const {
        return !moved_ && was_ != nullptr && was_->set.blocks() == now_.set.blocks();
    }

    /// Nothing when it is as it was.
    std::optional<objects::Points> follow(const route::AlignmentGeometry& alignment) {
        if (alignment.path.empty()) return std::nullopt;
        points_ = now_.set.all();
        for (std::size_t i = 0; i < points_.size(); ++i) at_.emplace(points_[i].number, i);
        carryEdits(alignment);
        bool set = false;
        for (const auto& tied : tie_.points) {
            const auto at = at_.find(tied.number);
            if (at == at_.end()) continue;
            const auto distance = alignment.stationing.distanceAt(tied.station, alignment.length);
            if (!distance || !moved_) continue;
            const auto place = placeAt(alignment, alignment.running(*distance), tied.offset);
            if (points_[at->second].plan == place) continue;
            points_[at->second].plan = place;
            changed_.push_back(at->second);
            set = true;
        }
        std::erase_if(tie_.points, [&](const objects::TiedPoint& t) { return at_.count(t.number) == 0; });
        if (!set && tie_ == *now_.tie) return std::nullopt;
        objects::Points out = now_;
        constexpr std::size_t few = 50;
        if (changed_.size() > few) {
            out.set = survey::PointSet(std::move(points_));
        } else {
            for (const std::size_t i : changed_) out.set = out.set.with(i, points_[i]);
        }
        out.tie = tie_.points.empty() ? nullptr : std::make_shared<const objects::StationTie>(tie_);
        return out;
    }

private:
    /// What the edit did to the points themselves.
    void carryEdits(const route::AlignmentGeometry& alignment) {
        if (was_ == nullptr || was_->tie != now_.tie || was_->set.size() != points_.size()) return;
        std::optional<route::StationFinder> finder;
        std::map<std::string, std::size_t> tied;
        for (std::size_t k = 0; k < tie_.points.size(); ++k) tied.emplace(tie_.points[k].number, k);
        for (std::size_t i = 0; i < points_.size(); ++i) {
            const auto& old = was_->set[i];
            const auto at = tied.find(old.number);
            if (at == tied.end()) continue;
            auto& t = tie_.points[at->second];
            t.number = points_[i].number;
            if (old.plan == points_[i].plan) continue;
            if (!finder) finder.emplace(alignment);
            const auto found = finder->find(points_[i].plan);
            t.station = alignment.stationing.stationAt(found.distance);
            t.offset = found.offset;
        }
    }

    const objects::Points& now_;
    const objects::Points* was_;
    objects::StationTie tie_;
    std::vector<survey::SurveyPoint> points_;
    std::map<std::string, std::size_t> at_;
    std::vector<std::size_t> changed_;
    bool moved_ = false;
};

}  // namespace

Document withPointsTied(const Document& before, Document after) {
    for (const ObjectId id : after.all<objects::Points>()) {
        const auto& points = *after.get<objects::Points>(id);
        if (!points.tie) continue;
        TiedSet set(before, after, id, points);
        if (set.stays()) continue;
        auto next = set.follow(alignmentIn(after, points.tie->alignment));
        if (next) after = after.withPayload(id, std::move(*next));
    }
    return after;
}

Result<void> checkFollowing(const Document& before, const Document& after) {
    for (const ObjectId id : difference(before, after).changed) {
        const auto* was = before.get<Line>(id);
        const auto* now = after.get<Line>(id);
        if (was == nullptr || now == nullptr || !now->follows || !objects::sameFollows(*was, *now)) continue;
        if (!(was->line == now->line))
            return badInput("'" + after.nameOf(id) + "' follows '" +
                            after.nameOf(objects::references(after.find(id)->payload).front()) +
                            "'; loosen it first");
    }
    return {};
}

}  // namespace erdwerk::document
