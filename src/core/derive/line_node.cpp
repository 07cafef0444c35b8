// Heights of 3D lines.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

namespace {

/// For the rules of lines. `circle` receives what is in the circle that a surface made from the line closes.
Result<std::optional<double>> heightOf(Evaluation& evaluation, ObjectId on, geometry::Vec2 place,
                                       std::vector<ObjectId>& circle) {
    if (evaluation.document.get<Surface>(on) == nullptr)
        return fail(ErrorCode::NotFound, "its surface is no longer in the project");
    const auto found = evaluation.surface(on);
    if (!found) {
        circle = linework::circleOf(evaluation.asked, {on, std::nullopt});
        return fail(ErrorCode::Circular,
                    "the line takes its height from a surface that is made from the line");
    }
    if (!found->locator) return std::optional<double>{};
    return found->locator->heightAt(place);
}

}  // namespace

std::shared_ptr<const linework::ResolvedLine> Evaluation::line(ObjectId id) {
    if (const auto it = out.lines.find(id); it != out.lines.end()) return it->second;
    const auto* payload = document.get<Line>(id);
    if (payload == nullptr) return nullptr;
    std::vector<Input> inputs{document.find(id)};
    std::set<ObjectId> asking;
    for (const auto& v : payload->line.vertices)
        if (const auto* on = std::get_if<linework::OnSurface>(&v.rule);
            on != nullptr && asking.insert(on->surface).second)
            inputs.push_back(surface(on->surface));
    auto result = remembered<linework::ResolvedLine>("line", id, std::move(inputs), {}, [&] {
        std::vector<ObjectId> circle;
        auto solved =
            linework::LineSolver(
                payload->line, id,
                [&](ObjectId on, geometry::Vec2 place) { return heightOf(*this, on, place, circle); }, asked)
                .finish();
        for (auto& v : solved.vertices)
            if (v.circular && v.circle.empty()) v.circle = circle;
        return solved;
    });
    out.lines[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Line&) {
    evaluation.line(id);
}

}  // namespace erdwerk::derive
