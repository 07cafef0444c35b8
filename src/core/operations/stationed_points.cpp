#include "core/operations/stationed_points.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/derive/route_result.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/with.h"
#include "core/route/design.h"

namespace erdwerk::operations {

using document::freshName;
using objects::Points;

namespace {

/// BadInput when two have the same number: what is tied is found by it.
Result<void> numbersDiffer(const std::vector<objects::TiedPoint>& points) {
    std::set<std::string> seen;
    for (const auto& p : points)
        if (!seen.insert(p.number).second)
            return badInput("'" + p.number +
                            "' is there twice; points that are tied need numbers of their own");
    return {};
}

std::vector<std::size_t> allOr(const std::vector<std::size_t>& members, std::size_t size) {
    if (!members.empty()) return members;
    std::vector<std::size_t> out(size);
    for (std::size_t i = 0; i < size; ++i) out[i] = i;
    return out;
}

const route::AlignmentGeometry* geometryOf(const Derived& seen, ObjectId alignment) {
    const auto* a = Derived::in(seen.alignments, alignment);
    return a == nullptr || a->path.empty() ? nullptr : a;
}

}  // namespace

std::vector<std::optional<geometry::Vec2>> placesOf(const Derived& seen, ObjectId alignment,
                                                    const std::vector<route::StationedPoint>& rows) {
    const auto* line = geometryOf(seen, alignment);
    std::vector<std::optional<geometry::Vec2>> out(rows.size());
    for (std::size_t i = 0; line != nullptr && i < rows.size(); ++i)
        if (const auto distance = line->stationing.distanceAt(rows[i].station, line->length))
            out[i] = placeAt(*line, line->running(*distance), rows[i].offset);
    return out;
}

Edit pointsByStation(const Results& seen, ObjectId alignment, const std::string& set,
                     std::vector<route::StationedPoint> rows, StationTies ties) {
    return [=, rows = std::move(rows)](const Document& d) -> Result<Edited> {
        const auto* line = geometryOf(*seen, alignment);
        if (d.get<objects::Alignment>(alignment) == nullptr || line == nullptr)
            return badInput("the alignment is gone");
        std::vector<survey::SurveyPoint> points;
        objects::StationTie tie{alignment, {}};
        const auto places = placesOf(*seen, alignment, rows);
        for (std::size_t i = 0; i < rows.size(); ++i) {
            const auto& row = rows[i];
            if (!places[i])
                return badInput("'" + row.name + "': station " +
                                formatStation(row.station, d.settings().display) + " is not on '" +
                                d.nameOf(alignment) + "'");
            points.push_back({row.name, *places[i], row.height, row.code, ""});
            tie.points.push_back({row.name, row.station, row.offset});
        }
        if (points.empty()) return badInput("there are no rows");
        if (ties == StationTies::Loose) return withPointsIn(d, freshName<Points>(d, set), std::move(points));
        if (auto differ = numbersDiffer(tie.points); !differ) return tl::unexpected(differ.error());
        ObjectId id;
        const Document out = withPointsIn(d, freshName<Points>(d, set), std::move(points), &id);
        return document::changed<Points>(
            out, id, [&](Points& p) { p.tie = std::make_shared<const objects::StationTie>(std::move(tie)); });
    };
}

Edit loosenPoints(ObjectId set) {
    return [set](const Document& d) -> Result<Edited> {
        const auto* points = d.get<Points>(set);
        if (points == nullptr || !points->tie) return badInput("these points follow nothing");
        return document::changed<Points>(d, set, [](Points& p) { p.tie = nullptr; });
    };
}

Edit tieToAlignment(const Results& seen, ObjectId set, ObjectId alignment,
                    const std::vector<std::size_t>& members) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* points = d.get<Points>(set);
        const auto* line = geometryOf(*seen, alignment);
        if (points == nullptr || line == nullptr || d.get<objects::Alignment>(alignment) == nullptr)
            return badInput("pick a set of points and an alignment");
        const route::StationFinder finder(*line);
        objects::StationTie tie{alignment, {}};
        for (const std::size_t i : allOr(members, points->set.size())) {
            if (i >= points->set.size()) return badInput("a point is gone");
            const auto& p = points->set[i];
            const auto found = finder.find(p.plan);
            if (found.beyond)
                return badInput("point '" + p.number + "' stands beyond the ends of '" + d.nameOf(alignment) +
                                "'");
            tie.points.push_back({p.number, line->stationing.stationAt(found.distance), found.offset});
        }
        if (tie.points.empty()) return badInput("there are no points in the set");
        if (auto differ = numbersDiffer(tie.points); !differ) return tl::unexpected(differ.error());
        return document::changed<Points>(
            d, set, [&](Points& p) { p.tie = std::make_shared<const objects::StationTie>(std::move(tie)); });
    };
}

Edit connectByOffset(const Results& seen, ObjectId set, ObjectId alignment,
                     const std::vector<std::size_t>& members, double within) {
    return document::onlyWhileSame(
        seen->document, {set, alignment}, [=](const Document& d) -> Result<Edited> {
            const auto* points = d.get<Points>(set);
            const auto* line = geometryOf(*seen, alignment);
            if (points == nullptr || line == nullptr) return badInput("pick points and an alignment");
            struct Stands {
                double offset;
                double distance;
                std::size_t point;
            };
            const route::StationFinder finder(*line);
            std::vector<Stands> all;
            for (const std::size_t i : allOr(members, points->set.size())) {
                if (i >= points->set.size()) return badInput("a point is gone");
                const auto found = finder.find(points->set[i].plan);
                all.push_back({found.offset, found.distance, i});
            }
            std::sort(all.begin(), all.end(),
                      [](const Stands& a, const Stands& b) { return a.offset < b.offset; });
            Document out = d;
            std::size_t made = 0;
            for (std::size_t from = 0; from < all.size();) {
                std::size_t to = from + 1;
                while (to < all.size() && all[to].offset - all[to - 1].offset < within) ++to;
                std::sort(all.begin() + static_cast<std::ptrdiff_t>(from),
                          all.begin() + static_cast<std::ptrdiff_t>(to),
                          [](const Stands& a, const Stands& b) { return a.distance < b.distance; });
                survey::Chain chain;
                for (std::size_t k = from; k < to; ++k) chain.push_back(all[k].point);
                if (chain.size() > 1) {
                    const std::string stem =
                        d.nameOf(alignment) + " " +
                        formatFixed(all[from].offset, d.settings().display.lengthDecimals);
                    out = withLineThrough(out, set, chain, freshName<objects::Line>(out, stem));
                    ++made;
                }
                from = to;
            }
            if (made == 0) return badInput("no two of the points stand at the same offset");
            return Edited(out, "Connect points by offset", std::to_string(made) + " lines");
        });
}

namespace {

/// Gathers places and says where they stand.
class Report {
public:
    Report(const Derived& derived, ObjectId id, const route::AlignmentGeometry& alignment)
        : derived_(derived), alignment_(alignment), finder_(alignment) {
        for (const ObjectId p : derived.document.all<objects::Profile>()) {
            const auto* profile = derived.document.get<objects::Profile>(p);
            if (profile->alignment != id) continue;
            design_ = &derive::designOf(*profile, Derived::in(derived.profiles, p));
            ground_ = derived.surface(profile->ground);
            break;
        }
    }

    void point(ObjectId set, std::size_t i) {
        const auto* points = derived_.document.get<Points>(set);
        if (points == nullptr || i >= points->set.size()) return;
        const auto& p = points->set[i];
        add(p.number, p.code, p.plan, p.height);
    }
    void corner(ObjectId line, std::size_t i) {
        const auto* resolved = Derived::in(derived_.lines, line);
        if (resolved == nullptr || i >= resolved->vertices.size()) return;
        add(derived_.document.nameOf(line) + " " + std::to_string(i + 1), {}, resolved->vertices[i].place,
            resolved->vertices[i].height);
    }
    void whole(ObjectId id) {
        if (const auto* points = derived_.document.get<Points>(id))
            for (std::size_t i = 0; i < points->set.size(); ++i) point(id, i);
        if (const auto* resolved = Derived::in(derived_.lines, id))
            for (std::size_t i = 0; i < resolved->vertices.size(); ++i) corner(id, i);
        if (derived_.document.get<objects::Group>(id) == nullptr) return;
        for (const auto& [other, object] : derived_.document.objects())
            if (object->group == id && other != id) whole(other);
    }
    std::vector<StationRow> rows;

private:
    void add(std::string name, const std::string& code, geometry::Vec2 place,
             const std::optional<double>& height) {
        const auto found = finder_.find(place);
        StationRow row{std::move(name),
                       code,
                       place,
                       alignment_.stationing.stationAt(found.distance),
                       found.distance,
                       found.offset,
                       found.beyond,
                       height,
                       {},
                       {}};
        if (height && design_ != nullptr)
            if (const auto d = route::designAt(*design_, alignment_.running(found.distance)))
                row.overDesign = *height - d->height;
        if (height && ground_ != nullptr)
            if (const auto g = ground_->heightAt(place)) row.overSurface = *height - *g;
        rows.push_back(std::move(row));
    }

    const Derived& derived_;
    const route::AlignmentGeometry& alignment_;
    route::StationFinder finder_;
    const std::vector<route::Pvi>* design_ = nullptr;
    const terrain::TinLocator* ground_ = nullptr;
};

}  // namespace

std::vector<StationRow> stationsOf(const Derived& derived, ObjectId alignment,
                                   const std::vector<objects::Part>& parts,
                                   const std::vector<ObjectId>& whole) {
    const auto* line = geometryOf(derived, alignment);
    if (line == nullptr) return {};
    Report report(derived, alignment, *line);
    for (const auto& part : parts) {
        report.point(part.object, part.index);
        report.corner(part.object, part.index);
    }
    for (const ObjectId id : whole) report.whole(id);
    return std::move(report.rows);
}

}  // namespace erdwerk::operations
