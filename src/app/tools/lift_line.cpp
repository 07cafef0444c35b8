// Raises or lowers lines, rules kept.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/shape.h"

namespace erdwerk::app::tools {

namespace {

/// The picked line, or with it all that are selected.
std::vector<operations::LinePart> meant(const Session& session, ObjectId picked) {
    std::vector<operations::LinePart> out;
    bool among = false;
    for (const Ref& ref : session.selection()) {
        if (session.document().get<objects::Line>(ref.object) == nullptr) continue;
        among = among || ref.object == picked;
        out.emplace_back(ref.object, ref.part);
    }
    if (!among) return {{picked, std::nullopt}};
    // Of one line in hand all of it is meant, not the point that was clicked last.
    if (out.size() == 1) out.front().second.reset();
    return out;
}

/// Of the place that was clicked, or of the point that is selected.
std::optional<double> heightOf(const Session& session, const Snap& pick) {
    if (pick.height) return pick.height;
    const auto* line = derive::Derived::in(session.derived().lines, pick.ref.object);
    for (const Ref& ref : session.selection())
        if (line != nullptr && ref.object == pick.ref.object && ref.part && *ref.part < line->vertices.size())
            return line->vertices[*ref.part].height;
    return std::nullopt;
}

/// "0.15", or "to 101.25" for the place that was picked.
Result<Snap> typedLift(const Session& session, const QString& text) {
    const QString typed = text.trimmed();
    if (!typed.startsWith(tr("to "))) return typedNumber(session, text);
    auto out = typedNumber(session, typed.mid(3));
    if (out) out->name = typed;
    return out;
}

}  // namespace

ToolDeclaration liftLine() {
    PickSpec spec{.title = tr("Lift a line"),
                  .steps = {lineStep(tr("Pick the line to lift")),
                            typedStep(tr("By"), tr("Type how much to lift it; a minus lowers it"))},
                  .apply = [](const Session& s, const Picks& k) -> document::Edit {
                      double by = *k[1].height;
                      if (k[1].name.startsWith(tr("to "))) {
                          const auto now = heightOf(s, k[0]);
                          if (!now) return refusal("click the place of the line that gets this height");
                          by -= *now;
                      }
                      return operations::lift(s.results(), meant(s, k[0].ref.object), by);
                  },
                  .entryHint = tr("0.15  ·  to 101.25"),
                  .typed = typedLift};
    return {.id = QStringLiteral("line-lift"),
            .text = tr("Lift a line"),
            .help = tr("Raises or lowers the line, or all selected lines; rules are kept"),
            .icon = {"M3 19 L10 14 L21 17", "M12 11 V3 M9 6 L12 3 L15 6"},
            .key = QStringLiteral("L"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

ToolDeclaration matchLine() {
    PickSpec spec{
        .title = tr("Match a line"),
        .steps = {lineStep(tr("Pick the line that gets its heights")),
                  {tr("From"), tr("Pick the line it takes them from"), Accept::Line},
                  typedStep(tr("Plus"), tr("Type what is added: 0, +0.10 or a crossfall like -2%"))},
        .apply =
            [](const Session&, const Picks& k) {
                const std::string typed = k[2].name.toStdString();
                return operations::matchLine(k[0].ref.object, k[1].ref.object,
                                             typed == "0" ? std::string() : typed);
            },
        .entryHint = QStringLiteral("0  ·  +0.10  ·  -2%"),
        .typed = typedName};
    return {.id = QStringLiteral("line-match"),
            .text = tr("Match a line"),
            .help = tr("Every control takes its height from another line, with an amount or a crossfall"),
            .icon = {"M3 8 C9 4 15 10 21 6", "M3 18 C9 14 15 20 21 16 M8 8 V14 M15 9 V16"},
            .key = QStringLiteral("A"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
