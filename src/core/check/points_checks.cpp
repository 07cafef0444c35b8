#include <algorithm>
#include <map>
#include <set>
#include <unordered_map>

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/objects/points.h"
#include "core/operations/points.h"
#include "core/survey/texts.h"

namespace erdwerk::check {

using derive::Derived;
using document::Document;
using objects::Points;

namespace {

std::string pointName(const survey::SurveyPoint& p) {
    return "Point " + (p.number.empty() ? std::string("without number") : p.number);
}

}  // namespace

void samePlace(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    // All points together, whatever surface they are in; grouped by exact place.
    struct Entry {
        geometry::Vec2 place;
        objects::PointRef ref;
    };
    std::vector<Entry> all;
    for (const auto id : document.all<Points>()) {
        const auto& set = document.get<Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) all.push_back({set[i].plan, {id, i}});
    }
    std::stable_sort(all.begin(), all.end(), [](const Entry& a, const Entry& b) {
        return a.place.x != b.place.x ? a.place.x < b.place.x : a.place.y < b.place.y;
    });
    for (std::size_t from = 0; from < all.size();) {
        std::size_t to = from + 1;
        while (to < all.size() && all[to].place == all[from].place) ++to;
        if (to - from > 1) {
            Finding f{kinds::samePlace, Severity::LookAt, {}, all[from].place, {}, {}, {}, {}};
            for (std::size_t k = from; k < to; ++k) {
                const auto& p = document.get<Points>(all[k].ref.set)->set[all[k].ref.index];
                if (p.height) f.heights.push_back(*p.height);
                f.objects.push_back(all[k].ref.set);
                f.names.push_back(pointName(p));
                f.text += (k > from ? " and " : "") + pointName(p) + " (" +
                          formatHeight(p.height, document.settings().display) + ")";
            }
            f.text += " are in one place; the surface takes the first";
            // Two heights contradict each other, as where breaklines cross.
            const auto [low, high] = std::minmax_element(f.heights.begin(), f.heights.end());
            if (low != f.heights.end() && *high - *low >= 0.0005) f.severity = Severity::MustFix;
            std::vector<objects::PointRef> rest;
            for (std::size_t k = from + 1; k < to; ++k) rest.push_back(all[k].ref);
            const std::string first =
                document.get<Points>(all[from].ref.set)->set[all[from].ref.index].number;
            f.fixes.push_back({"Keep only " + first, operations::removePoints(rest), "keep " + first,
                               "keep only the first of each", rest});
            out.push_back(std::move(f));
        }
        from = to;
    }
}

void withoutHeight(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    for (const auto id : document.all<Points>()) {
        const auto& set = document.get<Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) {
            if (set[i].height || survey::isText(set[i])) continue;
            Finding f{kinds::withoutHeight,
                      Severity::LookAt,
                      pointName(set[i]) + " has no height; it takes no part in surfaces",
                      set[i].plan,
                      {},
                      {id},
                      {pointName(set[i])},
                      {}};
            if (const auto h = derived.topHeight(set[i].plan))
                f.fixes.push_back(
                    {"Take " + formatHeight(h, document.settings().display) + " from the surface",
                     operations::setPointHeight({id, i}, h),
                     "the surface's " + formatHeight(h, document.settings().display),
                     "take the surface's height"});
            f.fixes.push_back({"Delete " + pointName(set[i]),
                               operations::removePoints({{id, i}}),
                               "delete",
                               "delete the point",
                               {{id, i}}});
            out.push_back(std::move(f));
        }
    }
}

void sameNumber(const Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    std::unordered_map<std::string, objects::PointRef> first;
    for (const auto id : document.all<Points>()) {
        const auto& set = document.get<Points>(id)->set;
        for (std::size_t i = 0; i < set.size(); ++i) {
            if (set[i].number.empty()) continue;
            const auto [it, fresh] = first.try_emplace(set[i].number, objects::PointRef{id, i});
            if (fresh) continue;
            Finding f{kinds::sameNumber,
                      Severity::LookAt,
                      "Number " + set[i].number + " is used more than once",
                      set[i].plan,
                      {},
                      {it->second.set, id},
                      {pointName(set[i]), pointName(set[i])},
                      {}};
            const std::string& number = set[i].number;
            f.fixes.push_back({"Give this " + number + " the next free number",
                               operations::renumberPoint({id, i}), "next free number",
                               "give the later one the next free number"});
            f.fixes.push_back({"Give this " + number + " a letter behind its number",
                               operations::letterPoint({id, i}), "add a letter",
                               "keep all, the later ones with a letter"});
            f.fixes.push_back({"Keep only the first " + number,
                               operations::removePoints({{id, i}}),
                               "keep the first",
                               "keep only the first of each",
                               {{id, i}}});
            out.push_back(std::move(f));
        }
    }
}

}  // namespace erdwerk::check
