// Fewer points for lines; how many go is said before they do.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

/// The picked line, or with it all that are selected.
std::vector<ObjectId> meant(const Session& session, ObjectId picked) {
    std::vector<ObjectId> out;
    for (const Ref& ref : session.selection())
        if (session.document().get<objects::Line>(ref.object) != nullptr &&
            std::find(out.begin(), out.end(), ref.object) == out.end())
            out.push_back(ref.object);
    if (std::find(out.begin(), out.end(), picked) == out.end()) return {picked};
    return out;
}

Result<Snap> typedThinning(const Session& session, const QString& text) {
    const auto options = operations::parseThin(text.trimmed().toStdString());
    if (!options) return tl::unexpected(options.error());
    return typedName(session, text);
}

struct Thinning {
    ObjectId line;
    linework::ThinnedLine thin;
};

/// What would go, worked out once for each state of the project and what was typed, not for each picture.
class Thinnings {
public:
    const std::vector<Thinning>& of(const Session& session, const Picks& picks) {
        const auto seen = session.results();
        const auto lines = meant(session, picks[0].ref.object);
        if (seen == seen_ && lines == lines_ && picks[1].name == typed_) return made_;
        seen_ = seen;
        lines_ = lines;
        typed_ = picks[1].name;
        made_.clear();
        const auto options = operations::parseThin(typed_.toStdString());
        for (const ObjectId id : options ? lines_ : std::vector<ObjectId>{}) {
            const auto* line = seen->definition(id);
            const auto* resolved = derive::Derived::in(seen->lines, id);
            if (line == nullptr || resolved == nullptr) continue;
            if (auto thin =
                    linework::thinnedLine(*line, *resolved, *options, operations::surroundings(*seen)))
                made_.push_back({id, std::move(*thin)});
        }
        return made_;
    }

private:
    operations::Results seen_;
    std::vector<ObjectId> lines_;
    QString typed_;
    std::vector<Thinning> made_;
};

QString howMany(const std::vector<Thinning>& all) {
    std::size_t before = 0;
    std::size_t gone = 0;
    double off = 0;
    for (const auto& [id, thin] : all) {
        before += thin.before;
        gone += thin.gone;
        off = std::max(off, thin.deviation);
    }
    return tr("%1 of %2 points go, off by %3 at most: Enter applies, Backspace changes it")
        .arg(gone)
        .arg(before)
        .arg(off, 0, 'f', 3);
}

void ghost(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks,
           Thinnings& thinnings) {
    if (picks.empty()) return;
    if (picks.size() > 1) {
        for (const auto& [id, thin] : thinnings.of(session, picks))
            paintGhostPath(painter, view, planPath(thin.reshaped.line),
                           QObject::tr("%1 points").arg(thin.before - thin.gone));
        return;
    }
    for (const ObjectId id : meant(session, picks[0].ref.object))
        if (const auto* line = session.derived().definition(id))
            paintGhostPath(painter, view, planPath(*line),
                           QObject::tr("%1 points").arg(line->vertices.size()));
}

}  // namespace

ToolDeclaration thinLines() {
    const auto thinnings = std::make_shared<Thinnings>();
    PickSpec spec{
        .title = tr("Thin down a line"),
        .steps = {lineStep(tr("Pick the line that has too many points")),
                  typedStep(tr("Within"), tr("Type how far off, which angle, which spacing"))},
        .applyLong = [](const Session& s, const Picks& k) -> document::LongEdit {
            const auto options = operations::parseThin(k[1].name.toStdString());
            if (!options) return longRefusal(options.error().text);
            return operations::thinLines(s.results(), meant(s, k[0].ref.object), *options);
        },
        .asks = [thinnings](const Session& s, const Picks& k) { return howMany(thinnings->of(s, k)); },
        .repeats = false,
        .entryHint = QStringLiteral("0.02  ·  3deg  ·  <0.5"),
        .typed = typedThinning,
        .ghost = [thinnings](QPainter& painter, const ViewTransform& view, const Session& s,
                             const Picks& k) { ghost(painter, view, s, k, *thinnings); }};
    return {.id = QStringLiteral("thin-line"),
            .text = tr("Thin down a line"),
            .help = tr("Fewer points, by deviation in space, angle or spacing"),
            .icon = {"M3 17 L7 11 L11 14 L15 8 L21 6", "M3 20 L21 10"},
            .key = QStringLiteral("W"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
