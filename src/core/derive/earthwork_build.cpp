#include "core/derive/earthwork_build.h"

#include "core/derive/surface_result.h"
#include "core/earthwork/batter_text.h"
#include "core/objects/earthwork.h"

namespace erdwerk::derive {

namespace {

std::shared_ptr<const terrain::TinLocator> located(terrain::Tin tin) {
    if (tin.empty()) return nullptr;
    return std::make_shared<const terrain::TinLocator>(std::make_shared<const terrain::Tin>(std::move(tin)));
}

Result<EarthworkResult> batterOf(const Earthwork& object, const EarthworkBasis& on, const Context& context) {
    const auto shape = earthwork::shapeOf(object.form, object.right);
    if (!shape) return tl::unexpected(shape.error());
    const auto edge = edgeOf(object, on);
    if (!edge) return tl::unexpected(edge.error());
    auto made = earthwork::batter(*edge, *shape, on.ground.get(), context);
    if (!made) return tl::unexpected(made.error());
    EarthworkResult out;
    out.height = edge->corners.front().z;
    out.surface = out.faces = located(made->faces);
    out.batter = std::move(*made);
    if (out.surface && on.ground) {
        const auto between = terrain::volumeBetween(*out.surface, *on.ground, context);
        if (!between) return tl::unexpected(between.error());
        out.volumes = {between->fill, between->cut, between->area, between->fillArea, between->cutArea};
    }
    return out;
}

Result<EarthworkResult> padOf(const Earthwork& object, const EarthworkBasis& on, const Context& context) {
    if (!on.ground) return badInput("it has no ground to stand on");
    const auto shape = padShapeOf(object, on);
    if (!shape) return tl::unexpected(shape.error());
    const auto edge = earthwork::edgeOf(*on.edge);
    if (!edge) return tl::unexpected(edge.error());
    auto made = earthwork::pad(*edge, *shape, *on.ground, context);
    if (!made) return tl::unexpected(made.error());
    EarthworkResult out;
    out.height = made->height;
    out.volumes = made->volumes;
    if (object.sort == EarthworkSort::Pond) {
        constexpr double stages = 20;
        const auto lowest = earthwork::storage(made->surface, 1e6);
        if (lowest) {
            auto table =
                earthwork::storage(made->surface, (lowest->spill - lowest->lowest) / stages, context);
            if (table) out.storage = std::move(*table);
        }
    }
    out.surface = located(std::move(made->surface));
    out.faces = located(made->batter.faces);
    out.batter = std::move(made->batter);
    return out;
}

}  // namespace

EarthworkBasis basisOf(const Derived& seen, const Earthwork& object) {
    EarthworkBasis on;
    const auto line = [&](ObjectId id) -> std::shared_ptr<const linework::ResolvedLine> {
        const auto it = seen.lines.find(id);
        return it == seen.lines.end() ? nullptr : it->second;
    };
    on.edge = line(object.edge);
    if (const auto it = seen.surfaces.find(object.ground); it != seen.surfaces.end())
        on.ground = it->second->locator;
    for (const ObjectId id : object.inside)
        if (auto inside = line(id)) on.inside.push_back(std::move(inside));
    return on;
}

Result<earthwork::Edge> edgeOf(const Earthwork& object, const EarthworkBasis& on) {
    auto edge = earthwork::edgeOf(*on.edge);
    if (!edge || !object.stretch) return edge;
    return earthwork::stretchOf(*edge, object.stretch->from, object.stretch->to);
}

Result<earthwork::PadShape> padShapeOf(const Earthwork& object, const EarthworkBasis& on) {
    auto shape = earthwork::shapeOf(object.form, object.right);
    if (!shape) return tl::unexpected(shape.error());
    earthwork::PadShape out{std::move(*shape)};
    for (const auto& line : on.inside)
        for (auto& run : runsWithHeights(*line, breaklineSagitta))
            out.inside.push_back({std::move(run), false});
    return out;
}

Result<EarthworkResult> buildEarthwork(const Earthwork& object, const EarthworkBasis& on,
                                       const Context& context) {
    if (!on.edge) return badInput("its edge is not there");
    auto made =
        object.sort == EarthworkSort::Batter ? batterOf(object, on, context) : padOf(object, on, context);
    if (!made) return made;
    made->ground = on.ground;
    made->net = object.earth.net(made->volumes);
    if (!made->surface && made->batter.open.empty())
        made->problem = "its edge lies on its target: there is nothing to make";
    return made;
}

}  // namespace erdwerk::derive
