// Heights of 3D lines.

#include "core/derive/evaluation.h"
#include "core/derive/surface_build.h"

namespace erdwerk::derive {

linework::Surroundings Evaluation::surroundings() {
    linework::Surroundings around;
    around.surface = [this](ObjectId on, geometry::Vec2 place) -> Result<std::optional<double>> {
        if (document.get<Surface>(on) == nullptr)
            return fail(ErrorCode::NotFound, "its surface is no longer in the project");
        const auto found = surface(on);
        if (!found) {
            web_.closeCircle({on, std::nullopt});
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
        return knots_.together(id, asked.back().object) ? nullptr : line(id);
    };
    around.nameOf = [this](ObjectId id) { return document.nameOf(id); };
    return around;
}

std::shared_ptr<const std::vector<ObjectId>> Evaluation::namedBy(ObjectId id) {
    Memo& memo = memory_[{"named", id}];
    const std::vector<Input> inputs{document.find(id)};
    if (!memo.value || memo.inputs != inputs) {
        std::set<ObjectId> named;
        if (const auto* line = document.get<Line>(id))  // a rule may name what is gone
            for (const auto& v : line->line.vertices)
                linework::references(v.rule, [&](ObjectId other) { named.insert(other); });
        memo = {inputs, {}, std::make_shared<const std::vector<ObjectId>>(named.begin(), named.end())};
    }
    return std::static_pointer_cast<const std::vector<ObjectId>>(memo.value);
}

std::shared_ptr<const linework::ResolvedLine> Evaluation::otherLine(ObjectId id) {
    return document.get<Line>(id) == nullptr ? nullptr : line(id);
}

Input Evaluation::knotState(ObjectId member) {
    const auto& knot = *knots_.of(member);
    std::vector<Input> inputs;
    const auto addOutside = [&](ObjectId id) {
        if (knots_.together(id, member)) return;
        if (document.get<Surface>(id) != nullptr)
            inputs.push_back(surface(id));
        else if (document.get<Line>(id) != nullptr)
            inputs.push_back(line(id));
        else
            inputs.push_back(survey(document.find(id)));
    };
    for (const ObjectId id : knot) {
        if (const auto* surface = document.get<Surface>(id)) {
            inputs.push_back(surface->definition);
            for (const Source& s : expandedSources(document, *surface->definition)) addOutside(s.object);
        } else {
            inputs.push_back(document.find(id));
            for (const ObjectId other : *namedBy(id)) addOutside(other);
        }
    }
    Memo& memo = memory_[{"knot", knot.front()}];
    if (!memo.value || memo.inputs != inputs) memo = {std::move(inputs), {}, std::make_shared<const int>(0)};
    return memo.value;
}

std::vector<Input> Evaluation::inputsOf(ObjectId id) {
    if (knots_.of(id) != nullptr) return {document.find(id), knotState(id)};
    std::vector<Input> inputs{document.find(id)};
    for (const ObjectId other : *namedBy(id))
        inputs.push_back(document.get<Surface>(other) != nullptr ? Input(surface(other))
                                                                 : Input(otherLine(other)));
    return inputs;
}

namespace {

/// Heights that a line had, for what can no longer be asked.
void keepLast(linework::ResolvedLine& line, const linework::ResolvedLine* before) {
    if (before == nullptr || before->vertices.size() != line.vertices.size()) return;
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const auto& was = before->vertices[i];
        if (!line.vertices[i].height) line.vertices[i].lastHeight = was.height ? was.height : was.lastHeight;
    }
}

}  // namespace

std::shared_ptr<const linework::ResolvedLine> Evaluation::line(ObjectId id) {
    if (const auto it = out.lines.find(id); it != out.lines.end()) return it->second;
    if (document.get<Line>(id) == nullptr) return nullptr;
    auto inputs = inputsOf(id);
    const auto before = last<linework::ResolvedLine>("line", id);
    auto result = remembered<linework::ResolvedLine>("line", id, std::move(inputs), {}, [&] {
        auto solved = web_.finish(id);
        keepLast(solved, before.get());
        return solved;
    });
    out.lines[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Line&) {
    evaluation.line(id);
}

}  // namespace erdwerk::derive
