#include "core/linework/height_solver.h"

#include <algorithm>
#include <cassert>
#include <future>
#include <map>
#include <numeric>

#include "core/linework/path_crossings.h"
#include "core/linework/solver_line.h"

namespace erdwerk::linework {

namespace {

using geometry::nearestOn;

/// So many heights are asked for within each other on one stack: about a megabyte.
constexpr std::size_t stackful = 1000;

ObjectId namedBy(const HeightRule& rule) {
    ObjectId out;
    references(rule, [&](ObjectId id) { out = id; });
    return out;
}

}  // namespace

struct HeightSolver::State {
    State(Surroundings surroundings, AskedParts& parts) : around(std::move(surroundings)), asked(parts) {}

    Surroundings around;
    AskedParts& asked;
    std::map<ObjectId, std::unique_ptr<SolverLine>> lines;
    std::map<ObjectId, Path> paths;

    // ---- what there is

    [[nodiscard]] std::string named(ObjectId id) const {
        return around.nameOf ? "'" + around.nameOf(id) + "'" : std::string("the other line");
    }

    [[nodiscard]] std::string gone(ObjectId id, const char* what) const {
        const std::string name = around.nameOf ? around.nameOf(id) : std::string();
        return name.empty() ? std::string("the line it ") + what + " is no longer in the project"
                            : "there is no 3D line '" + name + "'";
    }

    /// Null when there is no such line.
    const Path* pathOf(ObjectId id) {
        if (const Path* known = around.path ? around.path(id) : nullptr) return known;
        if (const auto it = paths.find(id); it != paths.end()) return &it->second;
        const Line3D* line = around.line ? around.line(id) : nullptr;
        return line == nullptr ? nullptr : &(paths[id] = planPath(*line));
    }

    SolverLine& stateOf(ObjectId id) {
        auto& slot = lines[id];
        if (slot) return *slot;
        slot = std::make_unique<SolverLine>();
        SolverLine& s = *slot;
        s.id = id;
        s.line = around.line(id);
        assert(s.line != nullptr);
        s.out = placed(*s.line);
        s.progress.assign(s.line->vertices.size(), SolverLine::Progress::Open);
        for (std::size_t i = 0; i < s.line->vertices.size(); ++i)
            if (standing(s.line->vertices[i].rule) == Standing::Crossing) cross(s, i);
        s.arrange();
        return s;
    }

    /// Finds the place of a point that stands where its line crosses another.
    void cross(SolverLine& s, std::size_t i) {
        const LineVertex& v = s.line->vertices[i];
        const ObjectId other = namedBy(v.rule);
        const auto refuse = [&](std::string why) {
            s.crossed.emplace(i, Result<double>(badInput(std::move(why))));
        };
        if (v.isCorner) return;
        if (other == s.id) return refuse("a line does not take its height from itself");
        const Path* path = pathOf(other);
        if (path == nullptr) return refuse(gone(other, "crosses"));
        const auto places = pathCrossings(s.out.path, *path);
        if (places.empty()) return refuse("the line does not cross " + named(other));
        const double here = s.out.vertices[i].distance;
        auto best = places.begin();
        if (std::get<CrossingLine>(v.rule).nearestHere) {
            best = std::min_element(places.begin(), places.end(), [&](const auto& a, const auto& b) {
                return std::abs(a.first - here) < std::abs(b.first - here);
            });
        } else {
            const std::size_t side = segmentOf(*s.line, i);
            double from = 0;
            for (std::size_t k = 0; k < side; ++k) from += lengthOf(s.out.path[k]);
            const double to = from + lengthOf(s.out.path[side]);
            const auto onSide = std::find_if(places.begin(), places.end(), [&](const auto& p) {
                return p.first >= from - pathsTouch && p.first <= to + pathsTouch;
            });
            if (onSide != places.end()) best = onSide;
        }
        s.out.vertices[i].distance = best->first;
        s.out.vertices[i].place = positionAt(s.out.path, best->first).place;
        s.crossed.emplace(i, Result<double>(best->second));
    }

    // ---- who stands beside whom

    using Neighbours = std::pair<std::optional<std::size_t>, std::optional<std::size_t>>;

    /// The members of a list (by key) before and after a distance; one that stands there is before it.
    Neighbours neighboursIn(SolverLine& s, const std::vector<std::size_t>& list, double distance) {
        const auto count = static_cast<std::ptrdiff_t>(list.size());
        auto next = std::upper_bound(list.begin(), list.end(), distance,
                                     [&](double d, std::size_t i) { return d < s.key[i]; }) -
                    list.begin();
        const auto at = [&](std::ptrdiff_t k) -> std::optional<std::size_t> {
            if (count == 0 || (!s.line->closed && (k < 0 || k >= count))) return std::nullopt;
            return list[static_cast<std::size_t>((k + count) % count)];
        };
        const auto solved = [&](std::optional<std::size_t> i) {
            return i && standing(s.line->vertices[*i].rule) == Standing::Solved && solve(s, *i).height;
        };
        // Only now is it known on which side of the place they are.
        while (next > 0 && solved(at(next - 1)) && s.out.vertices[*at(next - 1)].distance > distance) --next;
        while (next < count && solved(at(next)) && s.out.vertices[*at(next)].distance <= distance) ++next;
        return {at(next - 1), at(next)};
    }

    Neighbours controlsBeside(SolverLine& s, std::size_t i) {
        if (!isControl(s.line->vertices[i].rule))
            return neighboursIn(s, s.controls, s.out.vertices[i].distance);
        const std::size_t count = s.controls.size();
        const std::size_t at = s.rank[i];
        const bool round = s.line->closed && count > 1;
        Neighbours out;
        if (at > 0 || round) out.first = s.controls[(at + count - 1) % count];
        if (at + 1 < count || round) out.second = s.controls[(at + 1) % count];
        return out;
    }

    /// From one vertex to another in the direction of the line.
    static double run(const SolverLine& s, std::size_t from, std::size_t to) {
        const double d = s.out.vertices[to].distance - s.out.vertices[from].distance;
        return d < 0 ? d + s.out.length : d;
    }

    // ---- heights

    class Ask : public Asking {
    public:
        Ask(State& state, SolverLine& line, std::size_t vertex)
            : state_(state), line_(line), vertex_(vertex) {}
        Result<Neighbour> previous() override { return neighbour(false); }
        Result<Neighbour> next() override { return neighbour(true); }
        Result<double> surface(ObjectId surface) override {
            const auto height = state_.around.surface(surface, here().place);
            if (!height) return tl::unexpected(height.error());
            if (!*height) return badInput("the surface does not reach this place");
            return **height;
        }
        Result<Neighbour> nearestOf(ObjectId other) override {
            const Path* path = state_.pathOf(other);
            if (path == nullptr) return fail(ErrorCode::NotFound, state_.gone(other, "is measured from"));
            const auto near = nearestOn(*path, here().place);
            if (!near) return badInput(state_.named(other) + " has no length");
            const auto height = state_.heightOn(other, distanceAlong(*path, *near));
            if (!height) return tl::unexpected(height.error());
            return Neighbour{*height, geometry::distance(near->place, here().place)};
        }
        Result<double> crossed() override {
            const auto& at = line_.crossed.at(vertex_);
            return at ? state_.heightOn(namedBy(line_.line->vertices[vertex_].rule), *at) : at;
        }
        void standAfterPrevious(double run) override {
            ResolvedVertex& v = line_.out.vertices[vertex_];
            const auto before = state_.controlsBeside(line_, vertex_).first;
            double d = line_.out.vertices[*before].distance + run;
            if (line_.line->closed && d >= line_.out.length) d -= line_.out.length;
            v.distance = d;
            v.place = positionAt(line_.out.path, d).place;
        }

    private:
        [[nodiscard]] const ResolvedVertex& here() const { return line_.out.vertices[vertex_]; }
        Result<Neighbour> neighbour(bool forward) {
            const auto beside = state_.controlsBeside(line_, vertex_);
            const auto k = forward ? beside.second : beside.first;
            if (!k)
                return badInput(forward ? "there is no next height to measure from"
                                        : "there is no previous height to measure from");
            const ResolvedVertex& other = state_.solve(line_, *k);
            if (!other.height) {
                if (other.circular)
                    return fail(ErrorCode::Circular, "it is measured from a height that depends on itself");
                return badInput(forward ? "the next height is missing" : "the height before is missing");
            }
            return Neighbour{*other.height, forward ? run(line_, vertex_, *k) : run(line_, *k, vertex_)};
        }
        State& state_;
        SolverLine& line_;
        std::size_t vertex_;
    };

    const ResolvedVertex& solve(SolverLine& s, std::size_t i) {
        ResolvedVertex& r = s.out.vertices[i];
        if (s.progress[i] == SolverLine::Progress::Done) return r;
        const AskedPart part{s.id, i};
        if (s.progress[i] == SolverLine::Progress::Busy) {
            closeCircle(part);
            return r;
        }
        s.progress[i] = SolverLine::Progress::Busy;
        asked.push_back(part);
        Ask ask(*this, s, i);
        const LineVertex& v = s.line->vertices[i];
        Result<double> height = badInput("a corner cannot move; only a grade point can have this rule");
        const auto work = [&] { height = linework::solve(v.rule, ask); };
        if (v.isCorner && standing(v.rule) != Standing::Own) {
        } else if (asked.size() % stackful == 0) {
            // A long chain goes on with a fresh stack; what is thrown there comes out here.
            std::async(std::launch::async, work).get();
        } else {
            work();
        }
        asked.pop_back();
        s.progress[i] = SolverLine::Progress::Done;
        if (height && !r.circular)
            r.height = *height;
        else if (r.problem.empty())
            r.problem = height.error().text;
        return r;
    }

    void closeCircle(const AskedPart& again) {
        const auto first = std::find(asked.begin(), asked.end(), again);
        const std::vector<AskedPart> circle(first, asked.end());
        for (const AskedPart& part : circle) {
            const auto line = part.vertex ? lines.find(part.object) : lines.end();
            if (line == lines.end()) continue;
            ResolvedVertex& r = line->second->out.vertices[*part.vertex];
            if (r.circular) continue;
            r.circular = true;
            r.circle = circle;
            r.problem = "the height rules go in a circle";
            for (const AskedPart& other : circle)
                if (!other.vertex)
                    r.problem = "the line takes its height from a surface that is made from the line";
        }
    }

    /// The finished line at a distance, asking only the controls beside it.
    Result<double> heightOn(ObjectId id, double distance) {
        const auto missing = [&] { return badInput(named(id) + " has no height there"); };
        if (const auto whole = around.finished ? around.finished(id) : nullptr) {
            const auto height = heightAt(*whole, distance);
            return height ? Result<double>(*height) : missing();
        }
        SolverLine& s = stateOf(id);
        auto [before, after] = neighboursIn(s, s.all, distance);
        const auto at = [&](std::optional<std::size_t> i) {
            return i && std::abs(s.out.vertices[*i].distance - distance) <= 1e-9 &&
                   !std::holds_alternative<NoHeight>(s.line->vertices[*i].rule);
        };
        if (at(before)) after = before;
        if (at(after)) before = after;
        if (!before || !after) return missing();
        const ResolvedVertex& a = solve(s, *before);
        const ResolvedVertex& b = solve(s, *after);
        for (const ResolvedVertex* v : {&a, &b})
            if (v->circular)
                return fail(ErrorCode::Circular, "it is measured from a height that depends on itself");
        if (!a.height || !b.height) return missing();
        for (const auto control :
             {neighboursIn(s, s.controls, distance).first, neighboursIn(s, s.controls, distance).second}) {
            if (!control || !s.line->vertices[*control].curve || !reaches(s, *control, distance)) continue;
            const auto curve = curveAt(s, *control);
            if (dependsOnItself(s, *control))
                return fail(ErrorCode::Circular, "it is measured from a height that depends on itself");
            if (curve)
                for (const double turn : {0.0, s.out.length, -s.out.length})
                    if (const double in = distance + turn - curve->start;
                        in >= 0 && in <= curve->length && (turn == 0.0 || s.line->closed))
                        return curve->height(in);
        }
        const double whole = run(s, *before, *after);
        double part = distance - a.distance;
        if (part < 0) part += s.out.length;
        return whole > 0 ? *a.height + (*b.height - *a.height) * part / whole : *a.height;
    }

    // ---- vertical curves

    /// Whether a curve of given length can cover a distance; one by K may always.
    static bool reaches(const SolverLine& s, std::size_t i, double distance) {
        const VerticalCurve& curve = *s.line->vertices[i].curve;
        if (curve.by == VerticalCurve::By::K || s.line->closed) return true;
        return std::abs(distance - s.out.vertices[i].distance) <= curve.value / 2;
    }

    /// Whether a height that the curve at a control needs is in a circle.
    bool dependsOnItself(SolverLine& s, std::size_t i) {
        const auto [before, after] = controlsBeside(s, i);
        for (const auto k : {before, std::optional(i), after})
            if (k && s.out.vertices[*k].circular) return true;
        return false;
    }

    /// By itself, whatever its neighbours have; nothing where there is no change of grade. A problem is
    /// noted.
    std::optional<ResolvedCurve> ownCurve(SolverLine& s, std::size_t i) {
        const auto known = s.curves.find(i);
        if (known != s.curves.end()) return known->second;
        s.curves[i] = std::nullopt;
        ResolvedVertex& here = s.out.vertices[i];
        const auto [before, after] = controlsBeside(s, i);
        if (!before || !after) {
            here.curveProblem = "a vertical curve needs a grade on both sides";
            return std::nullopt;
        }
        const auto a = solve(s, *before).height;
        const auto b = solve(s, *after).height;
        const auto middle = solve(s, i).height;
        if (!a || !b || !middle) {
            here.curveProblem = "its vertical curve needs heights on both sides";
            return std::nullopt;
        }
        const double runIn = run(s, *before, i);
        const double runOut = run(s, i, *after);
        if (!(runIn > 0) || !(runOut > 0)) {
            here.curveProblem = "a vertical curve needs a grade on both sides";
            return std::nullopt;
        }
        ResolvedCurve curve;
        curve.vertex = i;
        curve.in = Grade::riseOverRun((*middle - *a) / runIn);
        curve.out = Grade::riseOverRun((*b - *middle) / runOut);
        if (std::abs(curve.in.riseOverRun() - curve.out.riseOverRun()) < 1e-12) return std::nullopt;
        curve.length = s.line->vertices[i].curve->length(curve.in, curve.out);
        curve.start = here.distance - curve.length / 2;
        curve.startHeight = *middle - curve.in.riseOverRun() * curve.length / 2;
        if (curve.length / 2 > std::min(runIn, runOut) + 1e-9) {
            here.curveProblem = "its vertical curve reaches past the control beside it";
            return std::nullopt;
        }
        return s.curves[i] = curve;
    }

    /// As it stands in the line: nothing where it overlaps the curve beside it.
    std::optional<ResolvedCurve> curveAt(SolverLine& s, std::size_t i) {
        const auto own = ownCurve(s, i);
        if (!own) return std::nullopt;
        const auto [before, after] = controlsBeside(s, i);
        for (const auto other : {before, after}) {
            if (!other || *other == i || !s.line->vertices[*other].curve) continue;
            const auto beside = ownCurve(s, *other);
            const double apart = other == before ? run(s, *other, i) : run(s, i, *other);
            if (beside && (beside->length + own->length) / 2 > apart + 1e-9) {
                s.out.vertices[i].curveProblem = "its vertical curve overlaps the one beside it";
                return std::nullopt;
            }
        }
        return own;
    }

    ResolvedLine finish(ObjectId id) {
        SolverLine& s = stateOf(id);
        const std::size_t n = s.line->vertices.size();
        // Those that look ahead from the end, the others from the start: so each finds its neighbour done.
        for (std::size_t i = n; i-- > 0;)
            if (looksAhead(s.line->vertices[i].rule) && !looksBack(s.line->vertices[i].rule)) solve(s, i);
        for (std::size_t i = 0; i < n; ++i) solve(s, i);
        ResolvedLine out = s.out;
        const auto byDistance = [&](std::size_t a, std::size_t b) {
            return out.vertices[a].distance < out.vertices[b].distance;
        };
        std::vector<std::size_t> order(n);
        std::iota(order.begin(), order.end(), std::size_t{0});
        if (!std::is_sorted(order.begin(), order.end(), byDistance)) {
            std::stable_sort(order.begin(), order.end(), byDistance);
            out.order = std::move(order);
        }
        for (std::size_t i = 0; i < n; ++i) {
            if (!s.line->vertices[i].curve) continue;
            if (const auto curve = curveAt(s, i)) out.curves.push_back(*curve);
            out.vertices[i].curveProblem = s.out.vertices[i].curveProblem;
        }
        std::sort(out.curves.begin(), out.curves.end(),
                  [](const ResolvedCurve& a, const ResolvedCurve& b) { return a.start < b.start; });
        return out;
    }
};

HeightSolver::HeightSolver(Surroundings around, AskedParts& asked)
    : state_(std::make_unique<State>(std::move(around), asked)) {}
HeightSolver::~HeightSolver() = default;

ResolvedLine HeightSolver::finish(ObjectId line) {
    return state_->finish(line);
}

void HeightSolver::closeCircle(const AskedPart& again) {
    state_->closeCircle(again);
}

ResolvedLine resolve(const Line3D& line, Surroundings around) {
    AskedParts asked;
    around.line = [&line, others = std::move(around.line)](ObjectId id) -> const Line3D* {
        if (!id) return &line;
        return others ? others(id) : nullptr;
    };
    auto finished = std::move(around.finished);
    around.finished = [finished](ObjectId id) { return id && finished ? finished(id) : nullptr; };
    return HeightSolver(std::move(around), asked).finish({});
}

ResolvedLine resolve(const Line3D& line, const SurfaceHeight& surfaceHeight) {
    return resolve(line, Surroundings{surfaceHeight});
}

}  // namespace erdwerk::linework
