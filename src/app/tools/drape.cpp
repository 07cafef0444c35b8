// Lays lines on a surface, with an amount and as many vertices as are wanted.

#include "core/linework/drape.h"
#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

class DrapeTool : public Tool {
    Q_OBJECT
public:
    explicit DrapeTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] ObjectId surface() const;
    void drape(ObjectId line);

    ObjectId line_;                    ///< selected before
    std::optional<ObjectId> surface_;  ///< chosen by its chip
    std::optional<ObjectId> hover_;
    linework::DrapeOptions options_;
    bool asValues_ = false;
    std::optional<std::pair<double, double>> stretch_;  ///< distances along the line
};

DrapeTool::DrapeTool(Session& session) : Tool(session, tr("Drape a line")) {
    if (const auto selected = session.selected<objects::Line>()) line_ = *selected;
}

namespace {

/// "from 20 to 60": distances along the line.
std::optional<std::pair<double, double>> stretchIn(const QString& text) {
    const QStringList typed = text.trimmed().toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    if (typed.size() != 4 || typed[0] != DrapeTool::tr("from") || typed[2] != DrapeTool::tr("to"))
        return std::nullopt;
    const auto from = typedFigure(typed[1]);
    const auto to = typedFigure(typed[3]);
    if (!from || !to || !(*from < *to)) return std::nullopt;
    return std::pair{*from, *to};
}

}  // namespace

ObjectId DrapeTool::surface() const {
    return surface_ && session_.document().find(*surface_) ? *surface_ : currentSurface(session_);
}

QString DrapeTool::prompt() const {
    return line_ ? tr("Enter lays it on the surface, or pick another line")
                 : tr("Pick the line to lay on the surface");
}

QString DrapeTool::entryHint() const {
    return tr("amount 0.10  ·  corners  ·  edges  ·  thin 0.05  ·  values  ·  keep  ·  from 20 to 60");
}

std::vector<Chip> DrapeTool::chips() const {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    const auto name = [&](ObjectId id) {
        return id ? QString::fromStdString(document.nameOf(id)) : QString();
    };
    std::vector<Chip> out{{tr("Line"), name(line_)}, {tr("On"), name(surface())}};
    if (options_.amount != 0)
        out.push_back({tr("Plus"), QString::fromStdString(formatRise(options_.amount, display))});
    if (options_.cornersOnly) out.push_back({tr("Points"), tr("corners only")});
    if (options_.thin)
        out.push_back({tr("Thinned to"), QString::fromStdString(formatLength(*options_.thin, display))});
    if (asValues_) out.push_back({tr("As"), tr("values")});
    if (options_.keepFixed) out.push_back({tr("Fixed heights"), tr("stay")});
    if (stretch_)
        out.push_back(
            {tr("Only"), tr("%1 to %2")
                             .arg(QString::fromStdString(formatLength(stretch_->first, display)),
                                  QString::fromStdString(formatLength(stretch_->second, display)))});
    return out;
}

void DrapeTool::repick(std::size_t chip) {
    const auto all = chips();
    if (chip >= all.size()) return;
    const QString role = all[chip].role;
    if (role == tr("Line")) line_ = {};
    if (role == tr("On")) {
        const auto surfaces = session_.document().all<objects::Surface>();
        const auto it = std::find(surfaces.begin(), surfaces.end(), surface());
        if (!surfaces.empty())
            surface_ = it == surfaces.end() || it + 1 == surfaces.end() ? surfaces.front() : *(it + 1);
    }
    if (role == tr("Plus")) options_.amount = 0;
    if (role == tr("Points")) options_.cornersOnly = false;
    if (role == tr("Thinned to")) options_.thin.reset();
    if (role == tr("As")) asValues_ = false;
    if (role == tr("Fixed heights")) options_.keepFixed = false;
    if (role == tr("Only")) stretch_.reset();
    Q_EMIT changed();
}

bool DrapeTool::accepts(const Snap& snap) const {
    return session_.document().get<objects::Line>(snap.ref.object) != nullptr;
}

void DrapeTool::hoverAt(const Snap& snap) {
    hover_ = accepts(snap) ? std::optional(snap.ref.object) : std::nullopt;
    Q_EMIT changed();
}

void DrapeTool::clickAt(const Snap& snap) {
    if (!accepts(snap)) {
        Q_EMIT failed(tr("Pick a 3D line"));
        return;
    }
    drape(snap.ref.object);
}

bool DrapeTool::enter(const QString& text) {
    const QString word = text.trimmed().section(QLatin1Char(' '), 0, 0).toLower();
    const auto figure = typedFigure(text.trimmed().section(QLatin1Char(' '), 1).trimmed());
    if (word == tr("corners") || word == tr("edges")) {
        options_.cornersOnly = word == tr("corners");
    } else if (word == tr("values")) {
        asValues_ = !asValues_;
    } else if (word == tr("keep")) {
        options_.keepFixed = !options_.keepFixed;
    } else if (word == tr("amount") && figure) {
        options_.amount = *figure;
    } else if (word == tr("thin") && figure && *figure >= 0) {
        options_.thin = *figure > 0 ? figure : std::nullopt;
    } else if (const auto between = stretchIn(text)) {
        stretch_ = between;
    } else {
        Q_EMIT failed(tr("Type amount or thin and a figure, from 20 to 60, or corners, edges, values, keep"));
        return false;
    }
    Q_EMIT changed();
    return true;
}

void DrapeTool::drape(ObjectId line) {
    const QString name = QString::fromStdString(session_.document().nameOf(line));
    const auto seen = session_.results();
    if (!session_.edit(tr("Drape %1").arg(name),
                       stretch_ ? operations::drapeStretch(seen, surface(), line, stretch_->first,
                                                           stretch_->second, options_, asValues_)
                                : operations::drapeLine(seen, surface(), line, options_, asValues_)))
        return;
    line_ = line;
    session_.selection().set({{line, std::nullopt}});
    Q_EMIT changed();
}

void DrapeTool::complete() {
    if (!line_) {
        Q_EMIT failed(tr("Pick a 3D line"));
        return;
    }
    drape(line_);
}

void DrapeTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    const auto* line = session_.document().get<objects::Line>(hover_.value_or(line_));
    const auto* ground = session_.derived().surface(surface());
    if (line == nullptr || ground == nullptr) return;
    const auto draped = linework::drape(line->line, *ground, surface(), options_);
    if (!draped) return;
    paintGhostPath(painter, view, planPath(*draped),
                   tr("%n points", nullptr, static_cast<int>(draped->vertices.size())));
}

namespace tools {

ToolDeclaration drape() {
    return {.id = QStringLiteral("drape"),
            .text = tr("Drape a line"),
            .help = tr("Lays a line on the surface: at its corners, or at each triangle edge too"),
            .icon = {"M3 16 C8 8 11 20 21 11", "M4 5 L20 5 M8 5 V9 M15 5 V10"},
            .key = QStringLiteral("P"),
            .whyNot = aSurfaceAndALine,
            .suits = isOneOf<objects::Line>,
            .make = [](Session& s) { return std::make_unique<DrapeTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "drape.moc"
