// Gives the points inside a closed line another class.

#include <cmath>

#include "app/base/aside.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/derive/dense_source.h"
#include "core/linework/rules/rule_kind.h"
#include "core/objects/cloud.h"
#include "core/operations/dense.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

namespace {

/// Classifying many points takes a while: it is done aside, and put in place while the cloud is the same.
document::Edit classify(const Session& s, const Picks& k) {
    const ObjectId cloud = currentCloud(s);
    const double number = *k[1].height;
    if (number != std::floor(number) || number < 0 || number > 255)
        return refusal("a class is a whole number from 0 to 255");
    const auto ring = operations::ringOf(s.derived(), k[0].ref.object);
    if (!ring) return refusal(ring.error().text);
    const auto before = s.document();
    const auto after =
        aside([&] { return operations::classify(before, cloud, *ring, static_cast<std::uint8_t>(number)); });
    const auto* classified = after.get<objects::Cloud>(cloud);
    if (classified == nullptr) return refusal("there is no cloud yet");
    return document::onlyWhileSame(
        before, {cloud},
        [cloud, next = *classified](const document::Document& d) -> Result<document::Edited> {
            return d.withPayload(cloud, next);
        });
}

}  // namespace

ToolDeclaration classByHand() {
    PickSpec spec{
        .title = tr("Set a class by hand"),
        .steps = {lineStep(tr("Pick the closed line round the points")),
                  typedStep(tr("Class"),
                            tr("Type the class number: 2 ground, 5 vegetation, 6 building, 1 none"))},
        .apply = classify,
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
