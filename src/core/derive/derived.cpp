#include "core/derive/derived.h"

#include "core/derive/line_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/line.h"

namespace erdwerk::derive {

Derived::Derived() = default;
Derived::Derived(const Derived&) = default;
Derived::Derived(Derived&&) noexcept = default;
Derived& Derived::operator=(const Derived&) = default;
Derived& Derived::operator=(Derived&&) noexcept = default;
Derived::~Derived() = default;

const linework::Line3D* Derived::definition(ObjectId line) const {
    if (const auto* follows = in(followed, line)) return &follows->line;
    const auto* own = document.get<Line>(line);
    return own == nullptr ? nullptr : &own->line;
}

const terrain::TinLocator* Derived::surface(ObjectId id) const {
    const auto* result = in(surfaces, id);
    return result == nullptr ? nullptr : result->locator.get();
}

const terrain::TinLocator* Derived::topSurface(geometry::Vec2 place) const {
    for (auto it = surfaces.rbegin(); it != surfaces.rend(); ++it) {
        const auto object = document.find(it->first);
        if (it->second->locator && object && !document.hidden(*object) &&
            it->second->locator->triangleAt(place))
            return it->second->locator.get();
    }
    return nullptr;
}

std::optional<double> Derived::topHeight(geometry::Vec2 place) const {
    const auto* surface = topSurface(place);
    return surface == nullptr ? std::nullopt : surface->heightAt(place);
}

}  // namespace erdwerk::derive
