#include "core/format/export.h"

#include "core/format/formats.h"
#include "core/terrain/locator.h"

namespace erdwerk::format {

Result<std::vector<std::string>> exportFile(const std::string& path, const derive::Derived& derived,
                                            Figures figures) {
    const Format* format = formatOf(path);
    if (format == nullptr || format->write == nullptr)
        return fail(ErrorCode::Unsupported,
                    "the ending must be " + endingsThat([](const Format& f) { return f.write != nullptr; }),
                    path);
    return format->write(path, derived, figures);
}

Result<void> writeSurface(const std::string& path, const SurfaceToWrite& surface) {
    const Format* format = formatOf(path);
    if (format == nullptr || format->writeSurface == nullptr)
        return fail(ErrorCode::Unsupported, "a surface is written as " + endingsThat([](const Format& f) {
                                                return f.writeSurface != nullptr;
                                            }),
                    path);
    return format->writeSurface(path, surface);
}

Result<void> exportSurface(const std::string& path, const derive::Derived& derived, ObjectId surface,
                           double cell) {
    const auto* locator = derived.surface(surface);
    if (locator == nullptr) return badInput("there is no surface to write", path);
    return writeSurface(path, {.name = derived.document.nameOf(surface),
                               .tin = locator->tin(),
                               .unit = derived.document.settings().display.unit,
                               .cell = cell,
                               .derived = &derived,
                               .locator = locator});
}

}  // namespace erdwerk::format
