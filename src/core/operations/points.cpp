#include "core/operations/points.h"

#include <algorithm>
#include <set>

#include "core/base/notation.h"
#include "core/derive/surface_result.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

using document::freshName;

namespace {

bool isThere(const Document& document, PointRef ref) {
    const auto* points = document.get<Points>(ref.set);
    return points != nullptr && ref.index < points->set.size();
}

Edit changePoint(PointRef ref, std::function<Result<void>(const Document&, survey::SurveyPoint&)> change) {
    return [ref, change = std::move(change)](const Document& document) -> Result<Edited> {
        if (!isThere(document, ref)) return badInput("the point is gone");
        survey::SurveyPoint p = document.get<Points>(ref.set)->set[ref.index];
        if (auto done = change(document, p); !done) return tl::unexpected(done.error());
        return withPoint(document, ref, std::move(p));
    };
}

}  // namespace

Edit addPoints(const std::string& setName, std::vector<survey::SurveyPoint> points) {
    return [setName, points = std::move(points)](const Document& d) -> Result<Edited> {
        return withPointsIn(d, setName, points);
    };
}

Edit addPoint(survey::SurveyPoint point) {
    return [point = std::move(point)](const Document& d) -> Result<Edited> {
        const auto sets = d.all<Points>();
        return withPointsIn(d, sets.empty() ? "Points" : d.nameOf(sets.front()), {point});
    };
}

Edit setPoint(PointRef ref, survey::SurveyPoint point) {
    return changePoint(ref,
                       [point = std::move(point)](const Document&, survey::SurveyPoint& p) -> Result<void> {
                           p = point;
                           return {};
                       });
}

Edit setPointHeight(PointRef ref, std::optional<double> height) {
    return changePoint(ref, [height](const Document&, survey::SurveyPoint& p) -> Result<void> {
        p.height = height;
        return {};
    });
}

Edit setTypedHeight(const Results& seen, PointRef ref, const std::string& text) {
    return changePoint(ref, [=](const Document& d, survey::SurveyPoint& p) -> Result<void> {
        if (text.find_first_not_of(' ') == std::string::npos) {
            p.height = {};
            return {};
        }
        const auto typed = parseHeightEntry(text);
        if (!typed) return tl::unexpected(typed.error());
        if (const auto* h = std::get_if<TypedHeight>(&*typed)) {
            p.height = h->height;
        } else if (const auto* r = std::get_if<TypedRise>(&*typed); r != nullptr && p.height) {
            *p.height += r->rise;
        } else if (const auto* s = std::get_if<TypedSurface>(&*typed)) {
            const auto* surface = seen->surface(d.byName<Surface>(s->surface));
            const auto ground = surface == nullptr ? std::nullopt : surface->heightAt(p.plan);
            if (!ground) return badInput("there is no surface '" + s->surface + "' here");
            p.height = *ground + s->amount;
        } else {
            return badInput("a point takes a height, a rise like +0.15, or =Surface");
        }
        return {};
    });
}

Edit movePoint(PointRef ref, geometry::Vec2 place) {
    return changePoint(ref, [place](const Document&, survey::SurveyPoint& p) -> Result<void> {
        p.plan = place;
        return {};
    });
}

Edit removePoints(std::vector<PointRef> points) {
    return [points = std::move(points)](const Document& d) -> Result<Edited> {
        for (const PointRef& ref : points)
            if (!isThere(d, ref)) return badInput("one of the points is gone");
        return withoutPoints(d, points);
    };
}

Edit renumberPoint(PointRef ref) {
    return changePoint(ref, [](const Document& document, survey::SurveyPoint& p) -> Result<void> {
        unsigned long long largest = 0;
        for (const ObjectId id : document.all<Points>())
            largest = std::max(largest, std::stoull(survey::nextNumber(document.get<Points>(id)->set)));
        p.number = std::to_string(largest);
        return {};
    });
}

Edit letterPoint(PointRef ref) {
    return changePoint(ref, [](const Document& document, survey::SurveyPoint& p) -> Result<void> {
        std::set<std::string> used;
        for (const ObjectId id : document.all<Points>())
            for (const auto& block : document.get<Points>(id)->set.blocks())
                for (const auto& other : *block) used.insert(other.number);
        // a … z, then za … zz and so on.
        std::string letters = "a";
        while (used.count(p.number + letters) != 0) {
            if (letters.back() == 'z')
                letters += 'a';
            else
                ++letters.back();
        }
        p.number += letters;
        return {};
    });
}

Edit connectPoints(ObjectId set, std::vector<std::size_t> members, bool byCode) {
    return [set, members = std::move(members), byCode](const Document& document) -> Result<Edited> {
        const auto* points = document.get<Points>(set);
        if (points == nullptr || members.size() < 2) return badInput("select at least two survey points");
        for (const std::size_t i : members)
            if (i >= points->set.size()) return badInput("one of these points is gone");
        std::vector<std::pair<std::string, survey::Chain>> chains;
        if (byCode)
            chains = survey::chainsByCode(points->set, members);
        else
            chains.emplace_back(freshName<Line>(document, "Line"),
                                survey::chainByNumber(points->set, members));
        if (chains.empty()) return badInput("no two of these points have the same code");
        Document next = document;
        for (const auto& [name, chain] : chains)
            next = withLineThrough(next, set, chain,
                                   next.byName<Line>(name) ? freshName<Line>(next, name) : name);
        const auto made = difference(document, next).changed.size();
        return Edited(next, "Connect points into " + std::to_string(made) + (made == 1 ? " line" : " lines"));
    };
}

}  // namespace erdwerk::operations
