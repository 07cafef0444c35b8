// Sets survey points on a cloud, a raster or a surface: number proposed, code completed, height shown first.

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/derive/dense_source.h"
#include "core/objects/points.h"
#include "core/operations/points.h"

namespace erdwerk::app {

class PlacePointTool : public Tool {
    Q_OBJECT
public:
    explicit PlacePointTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] QStringList completions() const override;
    void repick(std::size_t chip) override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    void propose();
    [[nodiscard]] std::optional<double> heightAt(const Snap& snap) const;
    void setPoint(geometry::Vec2 place, std::optional<double> height);

    ObjectId source_;  ///< of heights; none: the surface on top
    std::string number_;
    std::string code_;
    std::optional<Snap> hover_;
    std::optional<double> hoverHeight_;
    std::size_t made_ = 0;
};

PlacePointTool::PlacePointTool(Session& session) : Tool(session, tr("Add a survey point")) {
    const ObjectId dense = currentDense(session);
    // A cloud or raster that is selected; else whatever surface lies on top.
    const bool chosen =
        session.selection().holds(dense) || session.document().all<objects::Surface>().empty();
    if (chosen) source_ = dense;
    propose();
}

void PlacePointTool::propose() {
    const auto sets = session_.document().all<objects::Points>();
    number_ =
        sets.empty() ? "1" : survey::nextNumber(session_.document().get<objects::Points>(sets.front())->set);
}

QString PlacePointTool::prompt() const {
    return tr("Click where the point is, or type");
}

QString PlacePointTool::entryHint() const {
    return tr("E, N, height   ·   no 120   ·   code TOE");
}

std::vector<Chip> PlacePointTool::chips() const {
    return {{tr("Number"), QString::fromStdString(number_)},
            {tr("Code"), code_.empty() ? tr("none") : QString::fromStdString(code_)},
            {tr("Height from"), source_ ? QString::fromStdString(session_.document().nameOf(source_))
                                        : tr("the surface on top")}};
}

QStringList PlacePointTool::completions() const {
    QStringList out;
    for (const ObjectId id : session_.document().all<objects::Points>()) {
        const auto& set = session_.document().get<objects::Points>(id)->set;
        for (std::size_t i = 0; i < set.size() && out.size() < 200; ++i) {
            const QString code = tr("code ") + QString::fromStdString(set[i].code);
            if (!set[i].code.empty() && !out.contains(code)) out << code;
        }
    }
    return out;
}

void PlacePointTool::repick(std::size_t chip) {
    if (chip == 0) propose();
    if (chip == 1) code_.clear();
    if (chip == 2) {
        // The next thing that has heights.
        std::vector<ObjectId> all{ObjectId{}};
        const auto& d = session_.document();
        for (const ObjectId id : d.all<objects::Cloud>()) all.push_back(id);
        for (const ObjectId id : d.all<objects::HeightRaster>()) all.push_back(id);
        for (const ObjectId id : d.all<objects::Surface>()) all.push_back(id);
        const auto at = std::find(all.begin(), all.end(), source_);
        source_ = at == all.end() || at + 1 == all.end() ? all.front() : *(at + 1);
    }
    Q_EMIT changed();
}

std::optional<double> PlacePointTool::heightAt(const Snap& snap) const {
    if (snap.kind != SnapKind::Surface && snap.height) return snap.height;
    return source_ ? derive::denseHeight(session_.derived(), source_, snap.place)
                   : session_.derived().topHeight(snap.place);
}

void PlacePointTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    hoverHeight_ = heightAt(snap);
    Q_EMIT changed();
}

void PlacePointTool::clickAt(const Snap& snap) {
    setPoint(snap.place, heightAt(snap));
}

void PlacePointTool::setPoint(geometry::Vec2 place, std::optional<double> height) {
    if (!session_.edit(tr("Add a survey point"), operations::addPoint({number_, place, height, code_, ""})))
        return;
    ++made_;
    propose();
    Q_EMIT changed();
}

bool PlacePointTool::enter(const QString& text) {
    const QString first = text.section(QLatin1Char(' '), 0, 0).toLower();
    const QString rest = text.section(QLatin1Char(' '), 1).trimmed();
    if (first == tr("no") || first == tr("code")) {
        if (first == tr("no") && rest.isEmpty()) {
            Q_EMIT failed(tr("Type a number after 'no'"));
            return false;
        }
        (first == tr("no") ? number_ : code_) = rest.toStdString();
        Q_EMIT changed();
        return true;
    }
    const auto snap = tools::typedPlace(session_, text);
    if (!snap) {
        Q_EMIT failed(QString::fromStdString(snap.error().text));
        return false;
    }
    setPoint(snap->place, snap->height ? snap->height : heightAt(*snap));
    return true;
}

bool PlacePointTool::stepBack() {
    if (made_ == 0) return false;
    --made_;
    session_.undo();
    propose();
    Q_EMIT changed();
    return true;
}

void PlacePointTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (!hover_) return;
    const QPointF p = view.toPicture(hover_->place);
    painter.setPen(QPen(theme::clay, 1.8));
    painter.drawLine(p - QPointF(6, 0), p + QPointF(6, 0));
    painter.drawLine(p - QPointF(0, 6), p + QPointF(0, 6));
    const auto& height = hoverHeight_;
    const QString text =
        QString::fromStdString(number_) +
        (code_.empty() ? QString() : QStringLiteral("  ") + QString::fromStdString(code_)) +
        (height ? QStringLiteral("   ") +
                      QString::fromStdString(formatHeight(height, session_.document().settings().display))
                : tr("   no height here"));
    const QFont font = theme::font(12, true);
    painter.setFont(font);
    const QRectF box = QFontMetricsF(font).boundingRect(text).adjusted(-6, -3, 6, 3);
    const QRectF room(p + QPointF(12, -26), box.size());
    painter.setPen(QPen(theme::hairline, 1));
    painter.setBrush(QColor(255, 255, 255, 235));
    painter.drawRoundedRect(room, 4, 4);
    painter.setPen(theme::clay.darker(115));
    painter.drawText(room, Qt::AlignCenter, text);
}

namespace tools {

ToolDeclaration addSurveyPoint() {
    return {.id = QStringLiteral("add-point"),
            .text = tr("Add a survey point"),
            .help = tr("Sets a point in the plan, its height from a cloud, raster or surface"),
            .icon = {"M5 12 H13 M9 8 V16", "M17 5 V11 M14 8 H20"},
            .key = QStringLiteral("A"),
            .whyNot = anOpenProject,
            .suits = isOneOf<objects::Points>,
            .make = [](Session& s) { return std::make_unique<PlacePointTool>(s); }};
}

}  // namespace tools

}  // namespace erdwerk::app

#include "add_survey_point.moc"
