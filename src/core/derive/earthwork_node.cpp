// Batters, pads and ponds.

#include "core/derive/earthwork_build.h"
#include "core/derive/evaluation.h"
#include "core/derive/surface_result.h"
#include "core/objects/earthwork.h"

namespace erdwerk::derive {

namespace {

EarthworkResult failed(std::string why) {
    EarthworkResult out;
    out.problem = std::move(why);
    return out;
}

}  // namespace

std::shared_ptr<const EarthworkResult> Evaluation::earthwork(ObjectId id) {
    if (const auto it = out.earthworks.find(id); it != out.earthworks.end()) return it->second;
    const auto* object = document.get<Earthwork>(id);
    if (object == nullptr || !busyEarthworks.insert(id).second) return nullptr;
    std::vector<Input> inputs{document.find(id)};
    EarthworkBasis on;
    on.edge = line(object->edge);
    inputs.push_back(on.edge);
    std::shared_ptr<const SurfaceResult> ground;
    if (document.get<Surface>(object->ground) != nullptr) ground = surface(object->ground);
    inputs.push_back(ground);
    for (const ObjectId of : object->inside)
        if (const auto resolved = line(of)) {
            on.inside.push_back(resolved);
            inputs.push_back(resolved);
        }
    // What is in one group fits together: those before it are part of its ground.
    std::vector<std::shared_ptr<const EarthworkResult>> before;
    if (const ObjectId group = document.find(id)->group)
        for (const ObjectId other : document.all<Earthwork>()) {
            if (!(other < id) || document.find(other)->group != group) continue;
            if (document.get<Earthwork>(other)->ground != object->ground) continue;
            before.push_back(earthwork(other));
            inputs.push_back(before.back());
        }
    busyEarthworks.erase(id);
    auto result =
        remembered<EarthworkResult>("earthwork", id, std::move(inputs), {}, [&]() -> EarthworkResult {
            if (!on.edge) return failed("its edge is not there");
            if (object->ground && !(ground && ground->locator)) return failed("its ground is not there");
            if (ground) on.ground = ground->locator;
            for (const auto& other : before)
                if (other && other->surface && on.ground)
                    on.ground =
                        std::make_shared<const terrain::TinLocator>(std::make_shared<const terrain::Tin>(
                            earthwork::finished(on.ground->tin(), other->surface->tin())));
            auto made = buildEarthwork(*object, on, context);
            if (!made && made.error().code == ErrorCode::Cancelled) cancel();
            if (!made) return failed(made.error().text);
            made->ground = on.ground;
            made->net = object->earth.net(made->volumes);
            if (!made->surface && made->batter.open.empty())
                made->problem = "its edge lies on the ground: there is nothing to make";
            return std::move(*made);
        });
    out.earthworks[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Earthwork&) {
    evaluation.earthwork(id);
}

}  // namespace erdwerk::derive
