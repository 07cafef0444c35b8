#include "core/linework/solver.h"

#include <algorithm>

namespace erdwerk::linework {

std::vector<ObjectId> circleOf(const AskedParts& asked, const AskedPart& part) {
    std::vector<ObjectId> out;
    const auto first = std::find(asked.begin(), asked.end(), part);
    for (auto it = first; it != asked.end(); ++it)
        if (it->object && std::find(out.begin(), out.end(), it->object) == out.end())
            out.push_back(it->object);
    return out;
}

struct LineSolver::State {
    enum class Progress { Open, Busy, Done };

    State(const Line3D& of, ObjectId own, SurfaceHeight heights, AskedParts& parts)
        : line(of),
          id(own),
          surfaceHeight(std::move(heights)),
          asked(parts),
          progress(of.vertices.size(), Progress::Open) {
        out = placed(of);
    }

    const Line3D& line;
    ObjectId id;
    SurfaceHeight surfaceHeight;
    AskedParts& asked;
    std::vector<Progress> progress;
    ResolvedLine out;

    class Ask : public Asking {
    public:
        Ask(State& state, std::size_t vertex) : state_(state), vertex_(vertex) {}
        Result<Neighbour> previous() override { return neighbour(false); }
        Result<Neighbour> next() override { return neighbour(true); }
        Result<double> surface(ObjectId surface) override {
            const auto height = state_.surfaceHeight(surface, state_.out.vertices[vertex_].place);
            if (!height) return tl::unexpected(height.error());
            if (!*height) return badInput("the surface does not reach this place");
            return **height;
        }

    private:
        Result<Neighbour> neighbour(bool forward) {
            const auto k = controlOf(state_.line, vertex_, forward);
            if (!k)
                return badInput(forward ? "there is no next height to measure from"
                                        : "there is no previous height to measure from");
            const ResolvedVertex& other = state_.solve(*k);
            if (!other.height) {
                if (other.circular) return fail(ErrorCode::Circular, other.problem);
                return badInput(forward ? "the next height is missing" : "the height before is missing");
            }
            const double from = state_.out.vertices[vertex_].distance;
            double run = forward ? other.distance - from : from - other.distance;
            if (run < 0) run += state_.out.length;
            return Neighbour{*other.height, run};
        }
        State& state_;
        std::size_t vertex_;
    };

    const ResolvedVertex& solve(std::size_t i) {
        ResolvedVertex& r = out.vertices[i];
        if (progress[i] == Progress::Done) return r;
        const AskedPart part{id, i};
        if (progress[i] == Progress::Busy) {
            r.circular = true;
            r.problem = "the height rules go in a circle";
            r.circle = circleOf(asked, part);
            return r;
        }
        progress[i] = Progress::Busy;
        asked.push_back(part);
        Ask ask(*this, i);
        const auto height = linework::solve(line.vertices[i].rule, ask);
        asked.pop_back();
        progress[i] = Progress::Done;
        if (height && !r.circular) {
            r.height = *height;
        } else {
            if (!height) r.circular = r.circular || height.error().code == ErrorCode::Circular;
            if (r.problem.empty() && !height) r.problem = height.error().text;
        }
        return r;
    }
};

LineSolver::LineSolver(const Line3D& line, ObjectId id, SurfaceHeight surfaceHeight, AskedParts& asked)
    : state_(std::make_unique<State>(line, id, std::move(surfaceHeight), asked)) {}
LineSolver::LineSolver(LineSolver&&) noexcept = default;
LineSolver& LineSolver::operator=(LineSolver&&) noexcept = default;
LineSolver::~LineSolver() = default;

const ResolvedVertex& LineSolver::vertex(std::size_t i) {
    return state_->solve(i);
}

ResolvedLine LineSolver::finish() {
    for (std::size_t i = 0; i < state_->out.vertices.size(); ++i) state_->solve(i);
    return state_->out;
}

ResolvedLine resolve(const Line3D& line, const SurfaceHeight& surfaceHeight) {
    AskedParts asked;
    return LineSolver(line, {}, surfaceHeight, asked).finish();
}

}  // namespace erdwerk::linework
