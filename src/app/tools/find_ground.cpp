#include "app/tools/find_ground.h"

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/objects/cloud.h"
#include "core/operations/dense.h"
#include "core/survey/cloud_tiles.h"

namespace erdwerk::app {

FindGroundTool::FindGroundTool(Session& session) : Tool(session, tr("Find the ground")) {
    cloud_ = tools::currentCloud(session);
    worker_ = std::make_unique<LatestWorker<Request, Answer>>(
        this, &FindGroundTool::work,
        [this](Answer answer) {
            answer_ = std::move(answer);
            waiting_ = false;
            Q_EMIT changed();
        },
        [this](const QString& reason) {
            if (reason.isEmpty()) return;
            waiting_ = false;
            Q_EMIT failed(reason);
        });
    ask();
}

FindGroundTool::~FindGroundTool() {
    worker_.reset();
}

std::optional<FindGroundTool::Answer> FindGroundTool::work(const Request& request,
                                                           const std::atomic<bool>& cancel) {
    Context context;
    context.cancelFlag = &cancel;
    auto classes = terrain::groundClasses(*request.cloud, request.options, context);
    if (cancel) return std::nullopt;
    if (!classes) return Answer{{}, 0, classes.error().text};
    Answer answer{std::move(*classes)};
    answer.ground = static_cast<std::size_t>(
        std::count(answer.classes.begin(), answer.classes.end(), survey::cloud_class::ground));
    return answer;
}

void FindGroundTool::ask() {
    const auto* cloud = session_.document().get<objects::Cloud>(cloud_);
    if (cloud == nullptr || !cloud->cloud) return;
    of_ = cloud->cloud;
    waiting_ = true;
    worker_->request({of_, options_}, true);
    Q_EMIT changed();
}

QString FindGroundTool::prompt() const {
    if (of_ == nullptr) return tr("The cloud has no points");
    if (working()) return tr("Telling the ground from what stands on it…");
    if (!answer_.problem.empty()) return QString::fromStdString(answer_.problem);
    return tr("Brown is ground; type other figures, or Enter keeps it");
}

QString FindGroundTool::entryHint() const {
    return tr("object 20   ·   slope 15%   ·   above 0.15");
}

std::vector<Chip> FindGroundTool::chips() const {
    const auto& display = session_.document().settings().display;
    const auto length = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
    return {
        {tr("Cloud"), QString::fromStdString(session_.document().nameOf(cloud_))},
        {tr("Largest object"), length(options_.largestObject)},
        {tr("Slope up to"), QString::fromStdString(formatGrade(Grade::riseOverRun(options_.slope), display))},
        {tr("Off the ground up to"), length(options_.above)},
        {tr("Ground"),
         working() ? QString() : tr("%1 of %2").arg(answer_.ground).arg(answer_.classes.size())}};
}

void FindGroundTool::clickAt(const Snap&) {
    Q_EMIT failed(
        tr("Nothing is to be clicked here; Enter keeps the ground, Esc leaves the classes as they are"));
}

bool FindGroundTool::enter(const QString& text) {
    const QString word = text.trimmed().section(QLatin1Char(' '), 0, 0).toLower();
    QString figure = text.trimmed().section(QLatin1Char(' '), 1).trimmed();
    const bool perCent = figure.endsWith(QLatin1Char('%'));
    if (perCent) figure.chop(1);
    const double value = typedFigure(figure).value_or(-1);
    const bool slope = word == tr("slope");
    if (!(value > 0) || (perCent && !slope) || !(slope || word == tr("object") || word == tr("above"))) {
        Q_EMIT failed(tr("Type object, slope or above and a figure above 0"));
        return false;
    }
    // A grade is per cent, with its sign or without.
    if (slope) options_.slope = value / 100;
    if (word == tr("object")) options_.largestObject = value;
    if (word == tr("above")) options_.above = value;
    ask();
    return true;
}

void FindGroundTool::complete() {
    if (working() || answer_.classes.empty()) return;
    const QString name = QString::fromStdString(session_.document().nameOf(cloud_));
    if (!session_.edit(tr("Find the ground of %1: %2 points").arg(name).arg(answer_.ground),
                       operations::keepGround(cloud_, of_, answer_.classes)))
        return;
    session_.selection().set({{cloud_, std::nullopt}});
    Q_EMIT session_.message(
        tr("%1 points are ground and take part; the facts bring the others back").arg(answer_.ground), false);
    Q_EMIT finished();
}

void FindGroundTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    const auto* tiles = derive::Derived::in(session_.derived().clouds, cloud_);
    if (tiles == nullptr || answer_.classes.size() != tiles->cloud().size()) return;
    constexpr std::size_t most = 60000;
    QPolygonF ground;
    QPolygonF rest;
    tiles->sample(view.window(), most, [&](std::uint32_t i) {
        (answer_.classes[i] == survey::cloud_class::ground ? ground : rest)
            << view.toPicture(tiles->cloud().place(i).plan());
    });
    painter.setPen(QPen(theme::contourIndex, 2));
    painter.drawPoints(ground);
    painter.setPen(QPen(theme::clay, 2.4));
    painter.drawPoints(rest);
}

namespace tools {

ToolDeclaration findGround() {
    return {.id = QStringLiteral("find-ground"),
            .text = tr("Find the ground"),
            .help = tr("Tells the ground of a cloud from vegetation and buildings, as a preview"),
            .icon = {"M3 18 C8 15 14 19 21 15", "M12 13 V5 M9 8 L12 5 L15 8"},
            .key = QStringLiteral("F"),
            .whyNot = aCloud,
            .suits = isOneOf<objects::Cloud>,
            .make = [](Session& s) { return std::make_unique<FindGroundTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "moc_find_ground.cpp"
