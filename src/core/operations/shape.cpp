#include "core/operations/shape.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/base/notation.h"
#include "core/linework/edit.h"
#include "core/linework/rules/height_rule.h"
#include "core/linework/stretch.h"
#include "core/linework/to_next.h"
#include "core/objects/line.h"
#include "core/operations/surfaces.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

using linework::Line3D;
using linework::ResolvedLine;

namespace {

/// Raises marked vertices of one line; `lifted` are the lines that are raised as a whole.
class Lifting {
public:
    Lifting(const Line3D& line, const ResolvedLine& resolved, std::vector<bool> marked,
            const std::set<ObjectId>& lifted, double amount)
        : line_(line),
          resolved_(resolved),
          marked_(std::move(marked)),
          lifted_(lifted),
          amount_(amount),
          out_(line) {}

    Line3D run() {
        for (std::size_t i = 0; i < marked_.size(); ++i)
            if (marked_[i]) raise(i);
        return out_;
    }

private:
    [[nodiscard]] bool follows(std::size_t i, bool ahead) const {
        const auto other = linework::nextControl(line_, resolved_, i, ahead);
        return other && marked_[*other];
    }
    void fix(std::size_t i) {
        if (const auto height = resolved_.vertices[i].height)
            out_.vertices[i].rule = linework::FixedHeight{*height + amount_};
    }
    void raise(std::size_t i) {
        auto& rule = out_.vertices[i].rule;
        if (auto* fixed = std::get_if<linework::FixedHeight>(&rule)) {
            fixed->height += amount_;
        } else if (auto* surface = std::get_if<linework::OnSurface>(&rule)) {
            surface->amount += amount_;
        } else if (auto* crossing = std::get_if<linework::CrossingLine>(&rule)) {
            if (lifted_.count(crossing->line) == 0) crossing->amount += amount_;
        } else if (auto* on = std::get_if<linework::OnLine>(&rule)) {
            if (lifted_.count(on->line) != 0) return;
            if (on->crossfall)
                fix(i);
            else
                on->amount += amount_;
        } else if (std::holds_alternative<linework::MeetingGrades>(rule)) {
            if (!follows(i, false) || !follows(i, true)) fix(i);
        } else if (std::holds_alternative<linework::Interpolated>(rule)) {
            if (!follows(i, false) || !follows(i, true)) fix(i);
        } else if (looksBack(rule)) {
            if (!follows(i, false)) fix(i);
        } else if (looksAhead(rule)) {
            if (!follows(i, true)) fix(i);
        }
    }

    const Line3D& line_;
    const ResolvedLine& resolved_;
    std::vector<bool> marked_;
    const std::set<ObjectId>& lifted_;
    double amount_;
    Line3D out_;
};

Edit ofOneLine(ObjectId id, std::function<Result<Line3D>(const Line3D&)> edit) {
    return [id, edit = std::move(edit)](const Document& document) -> Result<Edited> {
        const auto line = ownLine(document, id);
        if (!line) return tl::unexpected(line.error());
        auto next = edit((*line)->line);
        if (!next) return tl::unexpected(next.error());
        return withLine(document, id, std::move(*next));
    };
}

}  // namespace

Edit lift(const Results& seen, const std::vector<LinePart>& parts, double amount) {
    return document::onlyWhileSame(
        seen->document, linesOf(parts), [=](const Document& document) -> Result<Edited> {
            std::set<ObjectId> lifted;
            for (const auto& [id, vertex] : parts)
                if (!vertex) lifted.insert(id);
            Document d = document;
            bool any = false;
            for (const ObjectId id : linesOf(parts)) {
                const auto* line = document.get<objects::Line>(id);
                const auto* resolved = Derived::in(seen->lines, id);
                if (line == nullptr || resolved == nullptr) continue;
                if (line->follows) {  // it goes with what it follows
                    const auto named = objects::references(document.find(id)->payload);
                    if (std::any_of(named.begin(), named.end(),
                                    [&](ObjectId of) { return lifted.count(of) != 0; }))
                        continue;
                    return tl::unexpected(ownLine(document, id).error());
                }
                std::vector<bool> marked(line->line.vertices.size(), lifted.count(id) != 0);
                for (const auto& [of, vertex] : parts)
                    if (of == id && vertex && *vertex < marked.size()) marked[*vertex] = true;
                auto next = Lifting(line->line, *resolved, std::move(marked), lifted, amount).run();
                any = any || !(next == line->line);
                d = withLine(d, id, std::move(next));
            }
            if (!any) return badInput("there is no height to lift");
            return d;
        });
}

Edit matchLine(ObjectId line, ObjectId other, const std::string& typed) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* on = document.get<objects::Line>(line);
        if (on == nullptr || document.get<objects::Line>(other) == nullptr || line == other)
            return badInput("pick two different lines");
        std::string amount(trimmed(typed));
        if (!amount.empty() && amount.front() != '+' && amount.front() != '-') amount = "+" + amount;
        // Straight to a line: a surface of the same name is not meant.
        auto names = namesIn(document);
        names.surfaceNamed = [](const std::string&) { return ObjectId{}; };
        names.lineNamed = [other](const std::string&) { return other; };
        const auto rule =
            linework::parseRule("=" + linework::nameText(document.nameOf(other)) + amount, names);
        if (!rule) return tl::unexpected(rule.error());
        Line3D next = on->line;
        for (auto& v : next.vertices)
            if (v.isCorner || isControl(v.rule)) v.rule = *rule;
        return withLine(document, line, std::move(next));
    };
}

Edit oneGrade(ObjectId line, std::vector<std::size_t> points) {
    return ofOneLine(line, [points = std::move(points)](const Line3D& l) -> Result<Line3D> {
        if (points.size() < 2) return badInput("pick the first and the last point of the grade");
        const auto [first, last] = std::minmax_element(points.begin(), points.end());
        if (*last >= l.vertices.size()) return badInput("the line has no such point");
        if (*last - *first < 2) return badInput("there is no point between these two");
        Line3D next = l;
        for (std::size_t i = *first + 1; i < *last; ++i) {
            next.vertices[i].rule = linework::Interpolated{};
            next.vertices[i].curve.reset();
        }
        return next;
    });
}

Edit interpolate(const std::vector<LinePart>& parts) {
    return [parts](const Document& document) -> Result<Edited> {
        Document d = document;
        for (const auto& [id, vertex] : parts) {
            const auto* line = d.get<objects::Line>(id);
            if (line == nullptr || !vertex || *vertex >= line->line.vertices.size()) continue;
            if (!line->line.closed && (*vertex == 0 || *vertex + 1 == line->line.vertices.size()))
                return badInput("an end of a line lies between nothing");
            Line3D next = line->line;
            next.vertices[*vertex].rule = linework::Interpolated{};
            next.vertices[*vertex].curve.reset();
            d = withLine(d, id, std::move(next));
        }
        return d;
    };
}

Edit carryGradeOn(const Results& seen, ObjectId line, std::size_t point) {
    return document::onlyWhileSame(
        seen->document, {line}, ofOneLine(line, [=](const Line3D& l) -> Result<Line3D> {
            const auto* resolved = Derived::in(seen->lines, line);
            if (resolved == nullptr || point >= l.vertices.size()) return badInput("pick a point of a line");
            if (l.closed) return badInput("a closed line has no end to carry the grade on to");
            const auto before = linework::nextControl(l, *resolved, point, false);
            const auto way = before ? linework::toNext(l, *resolved, *before) : std::nullopt;
            if (!way || way->next != point) return badInput("no grade leads to this point");
            if (point + 1 == l.vertices.size()) return badInput("this is the end of the line");
            linework::GradeFromPrevious rule{way->grade()};
            if (const auto* typed = std::get_if<linework::GradeFromPrevious>(&l.vertices[point].rule))
                rule = *typed;
            Line3D next = l;
            for (std::size_t i = point + 1; i < next.vertices.size(); ++i) {
                next.vertices[i].rule = linework::Interpolated{};
                next.vertices[i].curve.reset();
            }
            next.vertices.back().rule = rule;
            return next;
        }));
}

Edit removePoints(ObjectId line, std::vector<std::size_t> points) {
    std::sort(points.rbegin(), points.rend());
    return ofOneLine(line, [points = std::move(points)](const Line3D& l) -> Result<Line3D> {
        Line3D next = l;
        for (const std::size_t i : points) {
            auto done = linework::removeVertex(next, i);
            if (!done) return done;
            next = std::move(*done);
        }
        return next;
    });
}

Edit setTypedRun(const Results& seen, ObjectId line, std::size_t point, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        const auto* resolved = Derived::in(seen->lines, line);
        if (!own) return tl::unexpected(own.error());
        const objects::Line* on = *own;
        if (resolved == nullptr || point >= resolved->vertices.size())
            return badInput("pick a point of a line");
        const auto run = parseNumber(text);
        if (!run || !(*run > 0)) return badInput("'" + text + "' is no run; it is a length above 0");
        const auto next = linework::nextControl(on->line, *resolved, point);
        if (!next) return badInput("there is no control after this one");
        if (on->line.vertices[*next].isCorner)
            return badInput("the next control is a corner; only a grade point moves along its line");
        if (standing(on->line.vertices[*next].rule) != linework::Standing::Own)
            return badInput("the place of the next control is solved; it has no run of its own");
        return moveGradePointTo(line, *next, resolved->vertices[point].distance + *run)(document);
    };
}

Edit drapeLine(const Results& seen, ObjectId surface, ObjectId line, const linework::DrapeOptions& options,
               bool asValues) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* locator = seen->surface(surface);
        if (locator == nullptr) return badInput("there is no surface to lay the line on");
        // Values do not come back to the surface that the line is part of.
        if (!asValues && hasSource(document, surface, line))
            return badInput("the line is a source of this surface; its heights would go in a circle");
        return ofOneLine(line, [&](const Line3D& l) -> Result<Line3D> {
            auto draped = linework::drape(l, *locator, surface, options);
            if (!draped || !asValues) return draped;
            const auto resolved = linework::resolve(*draped, surroundings(*seen));
            std::vector<bool> marked;
            for (const auto& v : draped->vertices)
                marked.push_back(std::holds_alternative<linework::OnSurface>(v.rule));
            return linework::frozen(*draped, resolved, marked);
        })(document);
    };
}

Edit levelWith(const Results& seen, const Stretch& stretch, double height) {
    return document::onlyWhileSame(seen->document, {stretch.from.line},
                                   ofOneLine(stretch.from.line, [=](const Line3D& l) -> Result<Line3D> {
                                       if (stretch.from.line != stretch.to.line)
                                           return badInput("both places must be on the same line");
                                       const auto from = distanceOf(*seen, stretch.from);
                                       const auto to = distanceOf(*seen, stretch.to);
                                       if (!from || !to) return tl::unexpected((from ? to : from).error());
                                       return linework::levelStretch(l, *from, *to, height);
                                   }));
}

std::optional<double> contourHeightAt(const Derived& seen, ObjectId surface, geometry::Vec2 place) {
    const auto* ground = seen.surface(surface);
    const auto* object = seen.document.get<objects::Surface>(surface);
    const auto height = ground == nullptr ? std::nullopt : ground->heightAt(place);
    if (!height || object == nullptr || !(object->style.interval > 0)) return height;
    const double contour = std::round(*height / object->style.interval) * object->style.interval;
    return std::abs(contour - *height) <= object->style.interval / 10 ? contour : *height;
}

Edit drapeStretch(const Results& seen, ObjectId surface, ObjectId line, double from, double to,
                  const linework::DrapeOptions& options, bool asValues) {
    return [=](const Document& document) -> Result<Edited> {
        const auto own = ownLine(document, line);
        if (!own) return tl::unexpected(own.error());
        auto whole = drapeLine(seen, surface, line, options, asValues)(document);
        if (!whole) return whole;
        const Line3D& draped = whole->document.get<objects::Line>(line)->line;
        const auto at = linework::placed(draped);
        std::vector<linework::StretchPoint> points;
        for (std::size_t i = 0; i < draped.vertices.size(); ++i)
            if (isControl(draped.vertices[i].rule) && at.vertices[i].distance > from &&
                at.vertices[i].distance < to)
                points.push_back({at.vertices[i].distance, draped.vertices[i].rule});
        for (const double end : {from, to}) {
            const auto place = geometry::positionAt(at.path, end).place;
            const auto height = seen->surface(surface)->heightAt(place);
            if (!height) return badInput("an end of the stretch is off the surface");
            if (asValues)
                points.push_back({end, linework::FixedHeight{*height + options.amount}});
            else
                points.push_back({end, linework::OnSurface{surface, options.amount}});
        }
        auto next = linework::withStretch((*own)->line, from, to, points);
        if (!next) return tl::unexpected(next.error());
        return withLine(document, line, std::move(*next));
    };
}

}  // namespace erdwerk::operations
