// Gives the points inside a closed line another class.

#include <cmath>

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/derive/dense_source.h"
#include "core/linework/rules/rule_kind.h"
#include "core/objects/cloud.h"
#include "core/operations/dense.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

namespace {

document::LongEdit classify(const Session& s, const Picks& k) {
    const double number = *k[1].height;
    if (number != std::floor(number) || number < 0 || number > 255)
        return longRefusal("a class is a whole number from 0 to 255");
    auto ring = operations::ringOf(s.derived(), k[0].ref.object);
    if (!ring) return longRefusal(ring.error().text);
    return operations::classify(currentCloud(s), std::move(*ring), static_cast<std::uint8_t>(number));
}

}  // namespace

ToolDeclaration classByHand() {
    PickSpec spec{
        .title = tr("Set a class by hand"),
        .steps = {lineStep(tr("Pick the closed line round the points")),
                  typedStep(tr("Class"),
                            tr("Type the class number: 2 ground, 5 vegetation, 6 building, 1 none"))},
        .applyLong = classify,
        .entryHint = QStringLiteral("2"),
        .typed = typedNumber,
        .ghost = ghostLine};
    return {.id = QStringLiteral("cloud-class"),
            .text = tr("Set a class by hand"),
            .help = tr("Gives the points inside a closed line another class"),
            .icon = {"M4 6 L19 4 L20 17 L6 19 Z", "M10 10 H10.1 M14 9 H14.1 M12 14 H12.1"},
            .key = QStringLiteral("S"),
            .whyNot = aCloud,
            .suits = isOneOf<objects::Cloud>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
