// Height rules that give no height, and vertical curves that do not fit.

#include <algorithm>
#include <cmath>
#include <set>

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/line_result.h"
#include "core/linework/grade_limits.h"
#include "core/objects/line.h"
#include "core/operations/derived_lines.h"
#include "core/operations/mend.h"
#include "core/operations/rules.h"
#include "core/operations/surfaces.h"

namespace erdwerk::check {

using derive::Derived;

namespace {

Fix fixOf(std::string label, document::Edit edit) {
    Fix fix;
    fix.label = std::move(label);
    fix.apply = std::move(edit);
    return fix;
}

/// "'Kerb', point 3", or the name of a surface.
std::string nameOf(const document::Document& document, const linework::AskedPart& part) {
    const std::string name = "'" + document.nameOf(part.object) + "'";
    return part.vertex ? name + ", point " + std::to_string(*part.vertex + 1) : name;
}

std::string pointsText(std::size_t count) {
    return std::to_string(count) + (count == 1 ? " point" : " points");
}

/// The points of one line that have the same trouble.
struct Trouble {
    std::vector<std::size_t> points;
    std::string text;  ///< of the first

    void add(std::size_t point, const std::string& problem) {
        if (points.empty()) text = problem;
        points.push_back(point);
    }
};

class LineRules {
public:
    LineRules(const Derived& derived, ObjectId id, const linework::ResolvedLine& line,
              std::vector<Finding>& out)
        : derived_(derived),
          document_(derived.document),
          id_(id),
          line_(line),
          definition_(*derived.definition(id)),
          out_(out) {}

    void run(std::set<std::vector<std::pair<ObjectId, std::size_t>>>& circles) {
        limits();
        if (const auto* followed = Derived::in(derived_.followed, id_);
            followed && !followed->problem.empty())
            return notFollowing(*followed);
        Trouble withoutHeight;
        Trouble noAnswer;
        std::map<ObjectId, Trouble> gone;
        for (std::size_t i = 0; i < line_.vertices.size(); ++i) {
            const auto& v = line_.vertices[i];
            if (!v.curveProblem.empty()) curve(i);
            if (v.height) continue;
            if (v.circular) {
                circle(i, circles);
            } else if (const auto lost = lostName(i)) {
                gone[lost].add(i, v.problem);
            } else if (isControl(definition_.vertices[i].rule)) {
                noAnswer.add(i, v.problem);
            } else {
                withoutHeight.add(i, v.problem);
            }
        }
        for (const auto& [from, trouble] : gone) lost(from, trouble);
        if (!noAnswer.points.empty()) {
            Finding f =
                finding(kinds::heightRule, Severity::MustFix, noAnswer, " whose rule gives no height; ");
            f.fixes.push_back(
                fixOf("Take " + std::string(noAnswer.points.size() == 1 ? "its" : "their") + " rule away",
                      operations::freeHeights(partsOf(noAnswer))));
            out_.push_back(std::move(f));
        }
        // Parcels and alignments need no heights; a line without any is a plan line.
        if (withoutHeight.points.empty() || withoutHeight.points.size() == line_.vertices.size()) return;
        Finding f = finding(kinds::withoutHeight, Severity::LookAt, withoutHeight, " without height; ");
        f.fixes.push_back({"Interpolate them", operations::interpolateMissing(id_),
                           "interpolate " + std::to_string(withoutHeight.points.size()),
                           "interpolate what is missing"});
        if (const auto means = meansOfNeighbours(withoutHeight); !means.empty()) {
            Fix fix = fixOf("Take the mean of the neighbours", operations::keepHeights(id_, means));
            fix.brief = means.size() == 1
                            ? "mean " + formatHeight(means.front().second, document_.settings().display)
                            : "means";
            fix.way = "take the mean of the neighbours";
            f.fixes.push_back(std::move(fix));
        }
        out_.push_back(std::move(f));
    }

private:
    /// Of the nearest heights before and after along the line; at an end the one there is.
    [[nodiscard]] std::vector<std::pair<std::size_t, double>> meansOfNeighbours(
        const Trouble& trouble) const {
        const std::size_t n = line_.vertices.size();
        // One way along the line and back; a closed one is gone round twice.
        std::vector<std::optional<double>> before(n);
        std::vector<std::optional<double>> after(n);
        std::optional<double> last;
        std::optional<double> next;
        for (std::size_t step = 0; step < (line_.closed ? 2 * n : n); ++step) {
            const std::size_t ahead = line_.ordered(step % n);
            const std::size_t back = line_.ordered(n - 1 - step % n);
            if (last) before[ahead] = last;
            if (next) after[back] = next;
            if (line_.vertices[ahead].height) last = line_.vertices[ahead].height;
            if (line_.vertices[back].height) next = line_.vertices[back].height;
        }
        std::vector<std::pair<std::size_t, double>> out;
        for (const std::size_t i : trouble.points) {
            const auto& one = before[i] ? before[i] : after[i];
            if (one) out.emplace_back(i, before[i] && after[i] ? (*before[i] + *after[i]) / 2 : *one);
        }
        return out;
    }

    [[nodiscard]] std::vector<operations::LinePart> partsOf(const Trouble& trouble) const {
        std::vector<operations::LinePart> out;
        for (const std::size_t i : trouble.points) out.emplace_back(id_, i);
        return out;
    }

    /// What a rule names that is no longer there.
    [[nodiscard]] ObjectId lostName(std::size_t point) const {
        ObjectId out;
        linework::references(definition_.vertices[point].rule, [&](ObjectId named) {
            if (!document_.find(named)) out = named;
        });
        return out;
    }

    Finding finding(const FindingKind& kind, Severity severity, const Trouble& trouble,
                    const std::string& what) {
        const std::size_t first = trouble.points.front();
        Finding f{kind, severity, {}, line_.vertices[first].place, {}, {id_}, {document_.nameOf(id_)}, {}};
        f.text = "'" + document_.nameOf(id_) + "' has " + pointsText(trouble.points.size()) + what +
                 "point " + std::to_string(first + 1) + ": " + trouble.text;
        for (const std::size_t i : trouble.points) {
            if (f.parts.size() == mostInstances) break;
            f.parts.push_back({"Point " + std::to_string(i + 1) + ": " + line_.vertices[i].problem,
                               line_.vertices[i].place});
        }
        return f;
    }

    /// Stretches that are steeper or flatter than the line is meant to be.
    void limits() {
        const auto& limits = document_.get<objects::Line>(id_)->limits;
        const auto beyond = linework::gradesBeyond(definition_, line_, limits);
        if (beyond.empty()) return;
        const auto& display = document_.settings().display;
        const auto words = [&](const linework::GradeBeyond& b) {
            return formatGrade(b.grade, display) + (b.steep ? ", steeper than " : ", flatter than ") +
                   formatGrade(Grade::riseOverRun(b.steep ? *limits.steepest : *limits.flattest), display) +
                   " (" + formatStation(b.from, display) + " to " + formatStation(b.to, display) + ")";
        };
        const auto middle = [&](const linework::GradeBeyond& b) {
            return geometry::positionAt(line_.path, std::fmod((b.from + b.to) / 2, line_.length)).place;
        };
        Finding f{kinds::gradeLimit,
                  Severity::LookAt,
                  {},
                  middle(beyond.front()),
                  {},
                  {id_},
                  {document_.nameOf(id_)},
                  {}};
        f.text = "'" + document_.nameOf(id_) + "' " + words(beyond.front());
        if (beyond.size() > 1) f.text += " and " + std::to_string(beyond.size() - 1) + " more";
        for (const auto& b : beyond) {
            if (f.parts.size() == mostInstances) break;
            f.parts.push_back({words(b), middle(b)});
        }
        f.fixes.push_back(fixOf("Take the limits away", operations::setTypedLimits(id_, "")));
        out_.push_back(std::move(f));
    }

    /// A line that follows others and cannot.
    void notFollowing(const derive::FollowedLine& followed) {
        const auto at = line_.vertices.empty() ? geometry::Vec2{} : line_.vertices.front().place;
        Finding f{kinds::lineFollows, Severity::MustFix, {}, at, {}, {id_}, {document_.nameOf(id_)}, {}};
        f.text = "'" + document_.nameOf(id_) + "' cannot follow: " + followed.problem;
        const auto seen = std::make_shared<const Derived>(derived_);
        f.fixes.push_back(fixOf("Loosen it with the heights it had", operations::loosen(seen, {id_})));
        const auto named = objects::references(document_.find(id_)->payload);
        // Not what it follows already; and what follows the figure of lines lies on them.
        const auto fits = [&](ObjectId other) {
            return other != id_ && std::find(named.begin(), named.end(), other) == named.end() &&
                   objects::figureOf(*document_.get<objects::Line>(other)) == nullptr;
        };
        for (const ObjectId from : named) {
            if (document_.find(from)) continue;
            std::vector<std::pair<double, ObjectId>> near;
            for (const auto& [other, line] : derived_.lines)
                if (const auto on = fits(other) ? geometry::nearestOn(line->path, at) : std::nullopt)
                    near.emplace_back(std::abs(on->distance), other);
            std::sort(near.begin(), near.end());
            for (std::size_t i = 0; i < near.size() && i < 2; ++i)
                f.fixes.push_back(fixOf("Follow '" + document_.nameOf(near[i].second) + "'",
                                        operations::measureFrom(id_, from, near[i].second)));
        }
        out_.push_back(std::move(f));
    }

    void lost(ObjectId from, const Trouble& trouble) {
        Finding f = finding(kinds::heightRuleLost, Severity::MustFix, trouble,
                            " measured from what is no longer there; ");
        std::vector<std::pair<std::size_t, double>> last;
        for (const std::size_t i : trouble.points)
            if (line_.vertices[i].lastHeight) last.emplace_back(i, *line_.vertices[i].lastHeight);
        if (!last.empty()) {
            const std::string height = formatHeight(last.front().second, document_.settings().display);
            Fix fix = fixOf(last.size() == 1 ? "Keep the height " + height : "Keep the heights they had",
                            operations::keepHeights(id_, last));
            fix.brief = last.size() == 1 ? "keep " + height : "keep " + std::to_string(last.size());
            fix.way = "keep the heights that they had";
            f.fixes.push_back(std::move(fix));
        }
        for (const ObjectId other : othersLike(trouble.points.front())) {
            const std::string name = document_.nameOf(other);
            Fix fix = fixOf("Measure from '" + name + "'", operations::measureFrom(id_, from, other));
            fix.brief = "from " + name;
            f.fixes.push_back(std::move(fix));
        }
        f.fixes.push_back(fixOf("Take their rules away", operations::freeHeights(partsOf(trouble))));
        out_.push_back(std::move(f));
    }

    /// Up to three of what a rule could be measured from instead: surfaces, or the 3D lines nearest to it.
    [[nodiscard]] std::vector<ObjectId> othersLike(std::size_t point) const {
        constexpr std::size_t most = 3;
        std::vector<ObjectId> out;
        if (std::holds_alternative<linework::OnSurface>(definition_.vertices[point].rule)) {
            for (const ObjectId surface : document_.all<objects::Surface>())
                if (out.size() < most && !operations::hasSource(document_, surface, id_))
                    out.push_back(surface);
            return out;
        }
        const auto here = line_.vertices[point].place;
        std::vector<std::pair<double, ObjectId>> near;
        for (const auto& [other, line] : derived_.lines) {
            const auto at = other == id_ ? std::nullopt : geometry::nearestOn(line->path, here);
            if (at && heightAt(*line, geometry::distanceAlong(line->path, *at)))
                near.emplace_back(geometry::distance(at->place, here), other);
        }
        std::sort(near.begin(), near.end());
        for (std::size_t i = 0; i < near.size() && i < most; ++i) out.push_back(near[i].second);
        return out;
    }

    void curve(std::size_t point) {
        const auto& v = line_.vertices[point];
        Finding f{
            kinds::verticalCurve, Severity::LookAt, {}, v.place, {}, {id_}, {document_.nameOf(id_)}, {}};
        f.text = nameOf(document_, {id_, point}) + ": " + v.curveProblem + ", and is left out";
        f.fixes.push_back(fixOf("Take the curve away", operations::setCurve(id_, point, std::nullopt)));
        out_.push_back(std::move(f));
    }

    /// Names every control and surface in the circle, this line first; each circle is told once.
    void circle(std::size_t point, std::set<std::vector<std::pair<ObjectId, std::size_t>>>& known) {
        const auto& v = line_.vertices[point];
        std::vector<std::pair<ObjectId, std::size_t>> key;
        for (const auto& part : v.circle) key.emplace_back(part.object, part.vertex.value_or(0));
        std::sort(key.begin(), key.end());
        if (!known.insert(key).second) return;
        Finding f{
            kinds::heightRuleCircle, Severity::MustFix, {}, v.place, {}, {id_}, {document_.nameOf(id_)}, {}};
        auto around = v.circle;
        const auto own = std::find(around.begin(), around.end(), linework::AskedPart{id_, point});
        if (own != around.end()) std::rotate(around.begin(), own, around.end());
        std::string round;
        for (const auto& part : around) {
            if (std::find(f.objects.begin(), f.objects.end(), part.object) == f.objects.end()) {
                f.objects.push_back(part.object);
                f.names.push_back(document_.nameOf(part.object));
            }
            round += nameOf(document_, part) + " → ";
        }
        f.text = nameOf(document_, {id_, point}) + ": " + v.problem;
        if (around.size() > 1) f.text += " (" + round + nameOf(document_, {id_, point}) + ")";
        f.fixes.push_back(fixOf("Give it no height", operations::setRule(id_, point, linework::NoHeight{})));
        out_.push_back(std::move(f));
    }

    const Derived& derived_;
    const document::Document& document_;
    ObjectId id_;
    const linework::ResolvedLine& line_;
    const linework::Line3D& definition_;
    std::vector<Finding>& out_;
};

}  // namespace

void heightRules(const Derived& derived, std::vector<Finding>& out) {
    std::set<std::vector<std::pair<ObjectId, std::size_t>>> circles;
    for (const auto& [id, line] : derived.lines) LineRules(derived, id, *line, out).run(circles);
}

}  // namespace erdwerk::check
