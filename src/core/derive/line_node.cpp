// Heights of 3D lines.

#include <algorithm>

#include "core/derive/cycle_solver.h"
#include "core/derive/evaluation.h"
#include "core/derive/follow.h"
#include "core/derive/line_result.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/objects/alignment.h"
#include "core/objects/profile.h"
#include "core/route/design_edit.h"

namespace erdwerk::derive {

linework::Surroundings Evaluation::surroundings() {
    linework::Surroundings around;
    around.surface = [this](ObjectId on, geometry::Vec2 place) -> Result<std::optional<double>> {
        if (document.get<Surface>(on) == nullptr)
            return fail(ErrorCode::NotFound, "its surface is no longer in the project");
        const auto found = surface(on);
        if (!found) {
            heights_.closeCircle({on, std::nullopt});
            return fail(ErrorCode::Circular,
                        "the line takes its height from a surface that is made from the line");
        }
        if (!found->locator) return std::optional<double>{};
        return found->locator->heightAt(place);
    };
    around.line = [this](ObjectId id) -> const linework::Line3D* {
        const auto* line = document.get<Line>(id);
        return line == nullptr ? nullptr : &line->line;
    };
    around.finished = [this](ObjectId id) -> std::shared_ptr<const linework::ResolvedLine> {
        // Those that use each other are asked by control; all others as a whole, so that they are remembered.
        if (const auto it = out.lines.find(id); it != out.lines.end()) return it->second;
        const bool inKnot = asked.empty()
                                ? cycles_->of(id) != nullptr
                                : asked.back().object == id || cycles_->together(id, asked.back().object);
        return inKnot ? nullptr : line(id);
    };
    around.nameOf = [this](ObjectId id) { return document.nameOf(id); };
    return around;
}

/// The lines and surfaces that the design which a line follows stands on; the objects that say so are added
/// to `from`.
std::vector<ObjectId> Evaluation::underDesign(const Line& line, std::vector<Input>& from) {
    std::vector<ObjectId> under;
    const auto* of = line.follows ? std::get_if<DesignOf>(line.follows.get()) : nullptr;
    const auto* profile = of == nullptr ? nullptr : document.get<Profile>(of->profile);
    if (profile == nullptr) return under;
    from.push_back(document.find(of->profile));
    from.push_back(document.find(profile->alignment));
    if (const auto* along = document.get<Alignment>(profile->alignment); along != nullptr && along->line)
        under.push_back(along->line);
    if (!route::followsGround(profile->design)) return under;
    under.push_back(profile->ground);
    under.insert(under.end(), profile->across.begin(), profile->across.end());
    return under;
}

void Evaluation::readNames() {
    std::vector<Input> all;
    all.reserve(document.objects().size());
    named_.reserve(document.objects().size());
    bool groups = false;
    for (const auto& [id, object] : document.objects()) {
        if (const auto* surface = object->payload.as<Surface>()) {
            all.push_back(surface->definition);
            for (const Source& s : surface->definition->sources)
                groups = groups || document.get<Group>(s.object) != nullptr;
        }
        const auto* line = object->payload.as<Line>();
        if (line == nullptr) continue;
        Memo& memo = memory_[{"named", id}];
        std::vector<Input> from{object};
        const auto under = underDesign(*line, from);
        if (!memo.value || memo.inputs != from) {
            std::set<ObjectId> named(under.begin(), under.end());
            for (const ObjectId other : references(object->payload))
                if (document.get<Profile>(other) == nullptr) named.insert(other);
            std::vector<ObjectId> list(named.begin(), named.end());
            const auto before = std::static_pointer_cast<const std::vector<ObjectId>>(memo.value);
            memo.inputs = std::move(from);
            if (!before || *before != list)
                memo.value = std::make_shared<const std::vector<ObjectId>>(std::move(list));
        }
        auto named = std::static_pointer_cast<const std::vector<ObjectId>>(memo.value);
        if (named->empty()) continue;
        all.push_back(named);
        named_[id.value] = std::move(named);
    }
    Memo& memo = memory_[{"cycles", ObjectId{}}];
    if (!memo.value || groups || memo.inputs != all)
        memo = {std::move(all),
                {},
                std::make_shared<const DependencyCycles>(
                    document, [this](ObjectId id) -> const std::vector<ObjectId>& { return namedBy(id); })};
    cycles_ = std::static_pointer_cast<const DependencyCycles>(memo.value);
}

const std::vector<ObjectId>& Evaluation::namedBy(ObjectId id) const {
    static const std::vector<ObjectId> nothing;  // also of what is gone
    const auto it = named_.find(id.value);
    return it == named_.end() ? nothing : *it->second;
}

std::shared_ptr<const linework::ResolvedLine> Evaluation::otherLine(ObjectId id) {
    return document.get<Line>(id) == nullptr ? nullptr : line(id);
}

std::vector<Input> Evaluation::outsideOf(const std::vector<ObjectId>& cycle) {
    std::vector<Input> outside;
    const auto add = [&](ObjectId id) {
        if (cycles_->together(id, cycle.front())) return;
        if (document.get<Surface>(id) != nullptr)
            outside.push_back(surface(id));
        else if (document.get<Line>(id) != nullptr)
            outside.push_back(line(id));
        else
            outside.push_back(survey(document.find(id)));
    };
    for (const ObjectId id : cycle) {
        if (const auto* surface = document.get<Surface>(id))
            for (const Source& s : expandedSources(document, *surface->definition)) add(s.object);
        else
            for (const ObjectId other : namedBy(id)) add(other);
    }
    return outside;
}

Input Evaluation::knotState(ObjectId member) {
    const auto& cycle = *cycles_->of(member);
    auto& known = knotStates_[cycle.front()];
    if (known) return known;
    std::vector<Input> inputs = outsideOf(cycle);
    for (const ObjectId id : cycle) {
        const auto* surface = document.get<Surface>(id);
        inputs.push_back(surface != nullptr ? Input(surface->definition) : Input(document.find(id)));
    }
    Memo& memo = memory_[{"cycle", cycle.front()}];
    if (!memo.value || memo.inputs != inputs) memo = {std::move(inputs), {}, std::make_shared<const int>(0)};
    return known = memo.value;
}

std::vector<Input> Evaluation::inputsOf(ObjectId id) {
    if (cycles_->of(id) != nullptr) return {document.find(id), knotState(id)};
    std::vector<Input> inputs;
    inputs.reserve(1 + namedBy(id).size());
    inputs.push_back(document.find(id));
    for (const ObjectId other : namedBy(id))
        if (other != id)  // a line may name itself: a circle
            inputs.push_back(document.get<Surface>(other) != nullptr ? Input(surface(other))
                                                                     : Input(otherLine(other)));
    return inputs;
}

void keepLast(linework::ResolvedLine& line, const linework::ResolvedLine* before) {
    if (before == nullptr || before->vertices.size() != line.vertices.size()) return;
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const auto& was = before->vertices[i];
        if (!line.vertices[i].height) line.vertices[i].lastHeight = was.height ? was.height : was.lastHeight;
    }
}

std::shared_ptr<const linework::ResolvedLine> Evaluation::solved(ObjectId id) {
    auto inputs = inputsOf(id);
    const auto before = last<linework::ResolvedLine>("line", id);
    return remembered<linework::ResolvedLine>("line", id, std::move(inputs), {}, [&] {
        auto result = heights_.finish(id);
        keepLast(result, before.get());
        return result;
    });
}

/// What a line is that follows a design.
Result<linework::Line3D> Evaluation::onDesign(const DesignOf& of) {
    const auto* profile = document.get<Profile>(of.profile);
    const auto along = profile == nullptr ? nullptr : alignment(profile->alignment);
    if (!along || along->path.empty())
        return fail(ErrorCode::NotFound, "the profile that it follows is no longer there");
    const bool laid = route::followsGround(profile->design);
    const auto ground = laid ? this->profile(of.profile) : nullptr;
    return rowBesideDesign(*along, designOf(*profile, ground.get()), of);
}

std::shared_ptr<const linework::ResolvedLine> Evaluation::following(ObjectId id) {
    const auto ask = [this](ObjectId other) { return otherLine(other); };
    auto inputs = inputsOf(id);
    const auto* design = std::get_if<DesignOf>(document.get<Line>(id)->follows.get());
    const auto* profile = design == nullptr ? nullptr : document.get<Profile>(design->profile);
    if (const auto* along = profile == nullptr ? nullptr : document.get<Alignment>(profile->alignment);
        along != nullptr && along->line == id) {
        // Its own axis: the only circle that is no cycle.
        out.followed[id] = std::make_shared<const FollowedLine>(
            FollowedLine{document.get<Line>(id)->line, "its design lies on an alignment that follows it"});
        return solved(id);
    }
    if (profile != nullptr) {
        inputs.push_back(document.find(design->profile));
        inputs.push_back(alignment(profile->alignment));
        if (route::followsGround(profile->design)) inputs.push_back(this->profile(design->profile));
    }
    auto followed = remembered<FollowedLine>("followed", id, std::move(inputs), {}, [&]() -> FollowedLine {
        const auto& object = *document.get<Line>(id);
        if (design != nullptr) {
            auto made = onDesign(*design);
            if (!made) return {object.line, made.error().text};
            return {std::move(*made), {}};
        }
        auto made = followedLine(*object.follows, ask, [this](ObjectId of) {
            const auto found = document.get<Surface>(of) == nullptr ? nullptr : surface(of);
            return found ? found->locator : nullptr;
        });
        if (!made) return {object.line, made.error().text};
        return {std::move(*made), {}};
    });
    out.followed[id] = followed;
    const auto before = last<linework::ResolvedLine>("line", id);
    return remembered<linework::ResolvedLine>("line", id, {followed}, {}, [&] {
        auto result = linework::resolve(followed->line, surroundings());
        keepLast(result, before.get());
        return result;
    });
}

namespace {
/// A damaged file may have a line follow itself; that is no cycle, and nothing to work out.
bool followsOthers(const document::Document& document, ObjectId id) {
    if (!document.get<Line>(id)->follows) return false;
    const auto named = objects::references(document.find(id)->payload);
    return std::find(named.begin(), named.end(), id) == named.end();
}
}  // namespace

std::shared_ptr<const linework::ResolvedLine> Evaluation::line(ObjectId id) {
    if (const auto it = out.lines.find(id); it != out.lines.end()) return it->second;
    if (document.get<Line>(id) == nullptr) return nullptr;
    const auto* cycle = cycles_->of(id);
    if (cycle != nullptr && CycleSolver(*this, *cycle).run()) return out.lines.at(id);
    auto result = cycle == nullptr && followsOthers(document, id) ? following(id) : solved(id);
    out.lines[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Line& line) {
    evaluation.line(id);
    if (line.follows && evaluation.out.followed.count(id) == 0)
        evaluation.out.followed[id] = std::make_shared<const FollowedLine>(
            FollowedLine{line.line, "it is made of a line that takes its heights from it"});
}

}  // namespace erdwerk::derive
