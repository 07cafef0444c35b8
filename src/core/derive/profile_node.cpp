// Profiles: the ground along an alignment.

#include "core/derive/evaluation.h"
#include "core/document/finished.h"
#include "core/route/profile.h"

namespace erdwerk::derive {

namespace {

/// The finished surface of a ground; the ground of a finished one.
ObjectId otherState(const Document& document, ObjectId surface) {
    const auto* ground = document.get<Surface>(surface);
    if (ground == nullptr) return {};
    return ground->definition->base ? ground->definition->base : document::finishedOf(document, surface);
}

}  // namespace

void work(Evaluation& evaluation, ObjectId id, const Profile& profile) {
    const auto along = evaluation.alignment(profile.alignment);
    if (!along) return;
    const auto ground = evaluation.surface(profile.ground);
    std::vector<Input> inputs{along, ground};
    const ObjectId other = otherState(evaluation.document, profile.ground);
    if (other) inputs.push_back(evaluation.surface(other));
    const auto before = evaluation.last<ProfileResult>("profile", id);
    evaluation.out.profiles[id] = evaluation.remembered<ProfileResult>(
        "profile", id, std::move(inputs), std::to_string(other.value), [&] {
            ProfileResult result;
            const auto besides = other ? evaluation.surface(other) : nullptr;
            if (besides && besides->locator)
                result.others.push_back({other, route::groundProfile(*along, *besides->locator)});
            if (!ground)
                result.problem = "no ground surface is chosen";
            else if (!ground->locator)
                result.problem = ground->problem;
            else {
                const auto pieces = std::make_shared<const route::GroundPieces>(route::groundPieces(
                    along->path, ground->locator, before ? before->pieces.get() : nullptr));
                result.ground = joined(*pieces, *along);
                result.pieces = pieces;
            }
            return result;
        });
}

}  // namespace erdwerk::derive
