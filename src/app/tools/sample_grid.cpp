// Survey points at a spacing inside a closed line, heights from a cloud, raster or surface.

#include "app/base/await_work.h"
#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

namespace {

/// Triangulating what is dense takes a while, so the heights are taken on a worker.
document::Edit sample(const Session& s, const Picks& k) {
    const ObjectId source = currentDense(s);
    auto places = awaitWork(
        [&, seen = s.results()] { return operations::gridOf(*seen, source, k[0].ref.object, *k[1].height); });
    if (!places) return refusal(places.error().text);
    return operations::addGrid(source, std::move(*places));
}

}  // namespace

ToolDeclaration sampleGrid() {
    PickSpec spec{.title = tr("Sample on a grid"),
                  .steps = {lineStep(tr("Pick the closed line inside which the grid lies")),
                            typedStep(tr("Spacing"), tr("Type the distance between the points"))},
                  .apply = sample,
                  .repeats = false,
                  .entryHint = QStringLiteral("2"),
                  .typed = typedPositive,
                  .ghost = ghostLine};
    return {
        .id = QStringLiteral("grid-sample"),
        .text = tr("Sample on a grid"),
        .help =
            tr("Survey points at a spacing inside a closed line, heights from a cloud, raster or surface"),
        .icon =
            {"M5 5 H5.1 M12 5 H12.1 M19 5 H19.1 M5 12 H5.1 M19 12 H19.1 M5 19 H5.1 M12 19 H12.1 M19 19 H19.1",
             "M12 12 H12.1"},
        .key = QStringLiteral("G"),
        .whyNot = denseHeights,
        .suits = isOneOf<objects::Line>,
        .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
