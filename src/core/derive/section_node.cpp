// Sections that are kept.

#include <algorithm>

#include "core/derive/evaluation.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/section.h"
#include "core/route/alignment.h"
#include "core/terrain/section.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Section& section) {
    const Document& document = evaluation.document;
    std::vector<Input> inputs{document.find(id)};
    std::vector<ObjectId> surfaces;
    std::vector<std::shared_ptr<const SurfaceResult>> through;
    for (const ObjectId other : document.all<Surface>()) {
        if (std::find(section.off.begin(), section.off.end(), other) != section.off.end()) continue;
        auto surface = evaluation.surface(other);
        inputs.push_back(surface);
        if (!surface || !surface->locator) continue;
        surfaces.push_back(other);
        through.push_back(std::move(surface));
    }
    std::shared_ptr<const linework::ResolvedLine> line;
    std::shared_ptr<const route::AlignmentGeometry> alignment;
    if (document.get<Line>(section.along) != nullptr) line = evaluation.line(section.along);
    if (document.get<Alignment>(section.along) != nullptr) alignment = evaluation.alignment(section.along);
    inputs.push_back(line);
    inputs.push_back(alignment);
    evaluation.out.sections[id] =
        evaluation.remembered<SectionResult>("section", id, std::move(inputs), {}, [&] {
            SectionResult out;
            out.axis = geometry::pathThrough(section.axis);
            if (line && !line->path.empty()) out.axis = line->path;
            if (alignment && !alignment->path.empty()) out.axis = alignment->path;
            if (out.axis.empty()) {
                out.problem = "there is nothing to cut along";
                return out;
            }
            out.surfaces = surfaces;
            std::vector<const terrain::TinLocator*> locators;
            locators.reserve(through.size());
            for (const auto& surface : through) locators.push_back(surface->locator.get());
            out.rows = terrain::sectionThrough(locators, out.axis, {section.interval});
            return out;
        });
}

}  // namespace erdwerk::derive
