#include "core/document/following.h"

#include <map>

#include "core/route/station_finder.h"

namespace erdwerk::document {

using objects::Line;
using objects::RowOf;

namespace {

const RowOf* rowOf(const Line& line) {
    return line.follows ? std::get_if<RowOf>(line.follows.get()) : nullptr;
}

}  // namespace

Document withRowsFollowing(const Document& before, Document after) {
    // A row of a row comes after it: each round goes one row on.
    const std::size_t most = after.all<Line>().size();
    bool again = true;
    for (std::size_t round = 0; again && round <= most; ++round) {
        again = false;
        for (const ObjectId id : after.all<Line>()) {
            const Line& line = *after.get<Line>(id);
            const auto* row = rowOf(line);
            if (row == nullptr) continue;
            const auto* source = after.get<Line>(row->line);
            const bool moved = after.find(row->line) != before.find(row->line);
            const auto* was = before.get<Line>(id);
            const bool other = was == nullptr || !objects::sameFollows(*was, line);
            if (source == nullptr || (!moved && !other)) continue;
            auto next = linework::offset(linework::placed(source->line), row->row, row->options);
            if (!next || *next == line.line) continue;
            after = changed<Line>(after, id, [&](Line& l) { l.line = std::move(*next); });
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
