// Fewer points for lines; how many go is said before they do.

#include "app/base/latest_worker.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

/// The picked line, or with it all that are selected.
std::vector<ObjectId> linesMeant(const Session& session, ObjectId picked) {
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

/// What would go: worked out on a worker, once for each state of the project and what was typed.
class Thinnings {
public:
    explicit Thinnings(Tool& tool)
        : worker_(
              &tool,
              [](const Request& asked, const std::atomic<bool>& cancel) { return worked(asked, cancel); },
              [this, &tool](Answer answer) {
                  made_ = std::move(answer);
                  Q_EMIT tool.changed();
              },
              [this, &tool](const QString& reason) {
                  problem_ = reason;
                  Q_EMIT tool.changed();
              }) {}

    /// Null while it is being worked out.
    const std::vector<Thinning>* of(const Session& session, const Picks& picks) {
        Request now{session.results(), linesMeant(session, picks[0].ref.object), picks[1].name};
        if (!asked_ || !(now == *asked_)) {
            asked_ = std::move(now);
            made_.reset();
            problem_.clear();
            worker_.request(*asked_, true);
        }
        return made_ && made_->of == *asked_ ? &made_->all : nullptr;
    }

    /// Why it could not be worked out, or empty.
    [[nodiscard]] const QString& problem() const { return problem_; }

private:
    struct Request {
        operations::Results seen;
        std::vector<ObjectId> lines;
        QString typed;
        bool operator==(const Request&) const = default;
    };
    struct Answer {
        Request of;
        std::vector<Thinning> all;
    };
    static std::optional<Answer> worked(const Request& asked, const std::atomic<bool>& cancel) {
        Answer out{asked, {}};
        const auto options = operations::parseThin(asked.typed.toStdString());
        for (const ObjectId id : options ? asked.lines : std::vector<ObjectId>{}) {
            if (cancel) return std::nullopt;
            const auto* line = asked.seen->definition(id);
            const auto* resolved = derive::Derived::in(asked.seen->lines, id);
            if (line == nullptr || resolved == nullptr) continue;
            if (auto thin =
                    linework::thinnedLine(*line, *resolved, *options, operations::surroundings(*asked.seen)))
                out.all.push_back({id, std::move(*thin)});
        }
        return out;
    }

    std::optional<Request> asked_;
    std::optional<Answer> made_;
    QString problem_;
    LatestWorker<Request, Answer> worker_;
};

QString howMany(const Session& session, const Picks& picks, Thinnings& thinnings) {
    const auto* all = thinnings.of(session, picks);
    if (!thinnings.problem().isEmpty()) return tr("%1: Backspace changes it").arg(thinnings.problem());
    if (all == nullptr) return tr("Working out which points go: Enter applies, Backspace changes it");
    std::size_t before = 0;
    std::size_t gone = 0;
    double off = 0;
    for (const auto& [id, thin] : *all) {
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
        const auto* all = thinnings.of(session, picks);
        for (const auto& [id, thin] : all == nullptr ? std::vector<Thinning>{} : *all)
            paintGhostPath(painter, view, planPath(thin.reshaped.line),
                           QObject::tr("%1 points").arg(thin.before - thin.gone));
        return;
    }
    for (const ObjectId id : linesMeant(session, picks[0].ref.object))
        if (const auto* line = session.derived().definition(id))
            paintGhostPath(painter, view, planPath(*line),
                           QObject::tr("%1 points").arg(line->vertices.size()));
}

/// Each tool has thinnings of its own.
std::unique_ptr<Tool> made(Session& session) {
    // Filled in below, once there is a tool to tell.
    const auto thinnings = std::make_shared<std::unique_ptr<Thinnings>>();
    PickSpec spec{
        .title = tr("Thin down a line"),
        .steps = {lineStep(tr("Pick the line that has too many points")),
                  typedStep(tr("Within"), tr("Type how far off, which angle, which spacing"))},
        .applyLong = [](const Session& s, const Picks& k) -> document::LongEdit {
            const auto options = operations::parseThin(k[1].name.toStdString());
            if (!options) return longRefusal(options.error().text);
            return operations::thinLines(s.results(), linesMeant(s, k[0].ref.object), *options);
        },
        .asks = [thinnings](const Session& s, const Picks& k) { return howMany(s, k, **thinnings); },
        .repeats = false,
        .entryHint = QStringLiteral("0.02  ·  3deg  ·  <0.5"),
        .typed = typedThinning,
        .ghost = [thinnings](QPainter& painter, const ViewTransform& view, const Session& s,
                             const Picks& k) { ghost(painter, view, s, k, **thinnings); }};
    auto tool = std::make_unique<PickTool>(session, std::move(spec));
    *thinnings = std::make_unique<Thinnings>(*tool);
    return tool;
}

}  // namespace

ToolDeclaration thinLines() {
    return {.id = QStringLiteral("thin-line"),
            .text = tr("Thin down a line"),
            .help = tr("Fewer points, by deviation in space, angle or spacing"),
            .icon = {"M3 17 L7 11 L11 14 L15 8 L21 6", "M3 20 L21 10"},
            .key = QStringLiteral("W"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = made};
}

}  // namespace erdwerk::app::tools
