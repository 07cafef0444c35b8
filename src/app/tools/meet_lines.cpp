// The line where the slopes from two 3D lines meet.

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/operations/derived_lines.h"

namespace erdwerk::app::tools {

namespace {

/// "-2:1", or "-2:1 -3:1" for each line; "fall" behind it measures them down the steepest fall.
Result<linework::MeetOptions> meetOptions(const QString& text) {
    linework::MeetOptions out;
    std::vector<Grade> grades;
    for (const QString& word : text.split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        if (word == tr("loose")) continue;
        if (word == tr("fall")) {
            out.along = linework::SlopeAlong::Fall;
            continue;
        }
        const auto entry = parseHeightEntry(word.toStdString());
        const auto* grade = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
        if (grade == nullptr)
            return badInput("'" + word.toStdString() + "' is no grade or ratio; write it like -2:1 or -33%");
        grades.push_back(grade->grade);
    }
    if (grades.empty() || grades.size() > 2) return badInput("type one slope for both lines, or two");
    out.a = grades.front();
    out.b = grades.back();
    return out;
}

void ghost(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks) {
    if (picks.size() < 3) return;
    const auto options = meetOptions(picks[2].name);
    if (!options) return;
    const auto chains =
        operations::meetingOf(session.derived(), picks[0].ref.object, picks[1].ref.object, *options);
    if (!chains) return;
    painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
    for (const auto& chain : *chains) {
        QPolygonF line;
        for (const auto& v : chain.vertices) line << view.toPicture(v.place);
        painter.drawPolyline(line);
    }
}

}  // namespace

ToolDeclaration meetLines() {
    PickSpec spec{.title = tr("Meet two slopes"),
                  .steps = {lineStep(tr("Pick the first line")),
                            {tr("Second line"), tr("Pick the second line"), Accept::Line},
                            typedStep(tr("Slopes"), tr("Type the slope from the lines towards each other"))},
                  .apply = [](const Session& s, const Picks& k) -> document::Edit {
                      const auto options = meetOptions(k[2].name);
                      if (!options) return refusal(options.error().text);
                      return operations::meetLines(s.results(), k[0].ref.object, k[1].ref.object, *options,
                                                   k[2].name.contains(tr("loose")));
                  },
                  .repeats = false,
                  .entryHint = QStringLiteral("-2:1  ·  -2:1 -3:1  ·  -33% fall  ·  loose"),
                  .typed = typedName,
                  .ghost = ghost};
    return {.id = QStringLiteral("lines-meet"),
            .text = tr("Meet two slopes"),
            .help = tr("The line where the slopes from two lines meet: a ditch bottom, a ridge"),
            .icon = {"M3 5 L10 17 M21 5 L14 17", "M10 17 H14"},
            .key = QStringLiteral("T"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
