// Profiles: the ground along an alignment.

#include "core/derive/evaluation.h"
#include "core/route/profile.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Profile& profile) {
    const auto along = evaluation.alignment(profile.alignment);
    if (!along) return;
    const auto ground = evaluation.surface(profile.ground);
    evaluation.out.profiles[id] =
        evaluation.remembered<ProfileResult>("profile", id, {along, ground}, {}, [&] {
            ProfileResult result;
            if (!ground)
                result.problem = "no ground surface is chosen";
            else if (!ground->locator)
                result.problem = ground->problem;
            else
                result.ground = route::groundProfile(*along, *ground->locator);
            return result;
        });
}

}  // namespace erdwerk::derive
