// Makes two lines one, at their nearest ends.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

/// Ends farther apart than this, or heights that differ by more, are asked about. Project units.
constexpr double same = 0.001;

QString gapAndStep(const Session& session, const Picks& picks) {
    const auto gap = operations::gapBetween(session.derived(), picks[0].ref.object, picks[1].ref.object);
    if (!gap) return {};
    const auto& display = session.document().settings().display;
    const auto figure = [&](double value) { return QString::fromStdString(formatLength(value, display)); };
    const bool step = gap->first && gap->second && std::abs(*gap->first - *gap->second) > same;
    if (gap->gap > same)
        return tr("The ends are %1 apart: Enter puts a side between, or type close, or close and whose "
                  "height")
            .arg(figure(gap->gap));
    return step ? tr("The heights differ by %1: Enter keeps the first, or type second or mean")
                      .arg(figure(std::abs(*gap->first - *gap->second)))
                : QString();
}

Result<operations::JoinOptions> joinOptions(const QString& text) {
    operations::JoinOptions out;
    out.gap = same;
    for (const QString& word : text.toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        if (word == tr("close"))
            out.gap = std::numeric_limits<double>::max();
        else if (word == tr("first"))
            out.step = operations::JoinOptions::Step::First;
        else if (word == tr("second"))
            out.step = operations::JoinOptions::Step::Second;
        else if (word == tr("mean"))
            out.step = operations::JoinOptions::Step::Mean;
        else
            return badInput("'" + word.toStdString() +
                            "' is no way to join; type close, first, second or mean");
    }
    return out;
}

Result<Snap> typedJoin(const Session& session, const QString& text) {
    const auto options = joinOptions(text);
    if (!options) return tl::unexpected(options.error());
    return typedName(session, text);
}

}  // namespace

ToolDeclaration joinLines() {
    PickSpec spec{.title = tr("Join lines"),
                  .steps = {lineStep(tr("Pick the line that keeps its name")),
                            {tr("Joined on"), tr("Pick the line to join to it"), Accept::Line}},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          const auto options = joinOptions(k.size() > 2 ? k[2].name : QString());
                          return operations::joinLines(s.results(), k[0].ref.object, k[1].ref.object,
                                                       options.value_or(operations::JoinOptions{}));
                      },
                  .asks = gapAndStep,
                  .typed = typedJoin};
    return {
        .id = QStringLiteral("join"),
        .text = tr("Join lines"),
        .help = tr("Makes two lines one, at their nearest ends; a gap and a step in height are asked about"),
        .icon = {"M3 18 L10 13 M14 11 L21 6", "M10 13 L14 11"},
        .key = QStringLiteral("J"),
        .whyNot = aLine,
        .suits = isOneOf<objects::Line>,
        .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
