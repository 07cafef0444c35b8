// Profiles: the ground along an alignment.

#include "core/derive/evaluation.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_result.h"
#include "core/document/finished.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/route/design_edit.h"
#include "core/route/profile.h"

namespace erdwerk::derive {

namespace {

/// The finished surface of a ground; the ground of a finished one.
ObjectId otherState(const Document& document, ObjectId surface) {
    const auto* ground = document.get<Surface>(surface);
    if (ground == nullptr) return {};
    return ground->definition->base ? ground->definition->base : document::finishedOf(document, surface);
}

/// What lines give where they cross the axis, straight from each to the next.
void groundOfLines(ProfileResult& result, const route::AlignmentGeometry& along,
                   const std::vector<std::shared_ptr<const linework::ResolvedLine>>& lines) {
    std::vector<route::AcrossLine> across;
    across.reserve(lines.size());
    for (const auto& line : lines)
        across.push_back({line->path, [line](double d) { return linework::heightAt(*line, d); }});
    result.ground = route::profileAcross(along, across);
    std::erase_if(result.ground, [](const route::ProfilePoint& p) { return !p.height; });
    if (result.ground.empty()) result.problem = "none of its lines crosses the alignment with a height";
}

}  // namespace

std::shared_ptr<const ProfileResult> Evaluation::profile(ObjectId id) {
    if (const auto it = out.profiles.find(id); it != out.profiles.end()) return it->second;
    const auto* profile = document.get<Profile>(id);
    const auto along = profile == nullptr ? nullptr : alignment(profile->alignment);
    if (!along) return nullptr;
    std::vector<std::shared_ptr<const linework::ResolvedLine>> lines;
    for (const ObjectId other : profile->across)
        if (auto resolved = line(other)) lines.push_back(std::move(resolved));
    const auto ground = lines.empty() ? surface(profile->ground) : nullptr;
    std::vector<Input> inputs{along, ground};
    // The design only matters where it lies on the ground; else a dragged PVI would cut the ground anew.
    const bool laid = route::followsGround(profile->design);
    if (laid) inputs.push_back(document.find(id));
    inputs.insert(inputs.end(), lines.begin(), lines.end());
    const ObjectId other = lines.empty() ? otherState(document, profile->ground) : ObjectId{};
    const auto besides = other ? surface(other) : nullptr;
    if (other) inputs.push_back(besides);
    const auto before = last<ProfileResult>("profile", id);
    auto result = remembered<ProfileResult>(
        "profile", id, std::move(inputs), std::to_string(other.value) + (laid ? " laid" : ""), [&] {
            ProfileResult made;
            if (besides && besides->locator)
                made.others.push_back({other, route::groundProfile(*along, *besides->locator)});
            if (!lines.empty())
                groundOfLines(made, *along, lines);
            else if (!ground)
                made.problem = "no ground surface is chosen";
            else if (!ground->locator)
                made.problem = ground->problem;
            else {
                const auto pieces = std::make_shared<const route::GroundPieces>(route::groundPieces(
                    along->path, ground->locator, before ? before->pieces.get() : nullptr));
                made.ground = joined(*pieces, *along);
                made.pieces = pieces;
            }
            if (laid) made.laid = route::laidOnGround(profile->design, made.ground);
            return made;
        });
    out.profiles[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Profile&) {
    (void)evaluation.profile(id);
}

}  // namespace erdwerk::derive
