// Heights at hand: the heights and grades of a line, typed beside it in the plan, point after point.

#include "app/base/theme.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/objects/line.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

class HeightsAtHandTool : public Tool {
    Q_OBJECT
public:
    explicit HeightsAtHandTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] const linework::Line3D* line() const;
    [[nodiscard]] const linework::ResolvedLine* resolved() const;
    void go(std::size_t point);
    void goNext();

    ObjectId line_;
    std::optional<std::size_t> point_;  ///< the one that is typed
    std::optional<std::size_t> hover_;
};

HeightsAtHandTool::HeightsAtHandTool(Session& session) : Tool(session, tr("Heights at hand")) {
    if (const auto selected = session.selected<objects::Line>()) line_ = *selected;
    for (const Ref& ref : session.selection())
        if (ref.object == line_ && ref.part) point_ = ref.part;
    if (line_ && !point_) point_ = 0;
}

const linework::Line3D* HeightsAtHandTool::line() const {
    const auto* on = session_.document().get<objects::Line>(line_);
    return on == nullptr ? nullptr : &on->line;
}

const linework::ResolvedLine* HeightsAtHandTool::resolved() const {
    const auto* found = derive::Derived::in(session_.derived().lines, line_);
    const auto* on = line();
    return found != nullptr && on != nullptr && found->vertices.size() == on->vertices.size() ? found
                                                                                              : nullptr;
}

QString HeightsAtHandTool::prompt() const {
    if (line() == nullptr || !point_) return tr("Pick a 3D line, then type its heights point by point");
    return tr("Height or rule of point %1; Enter alone: the next").arg(*point_ + 1);
}

QString HeightsAtHandTool::entryHint() const {
    return tr("101.25  ·  2%  ·  3:1  ·  +0.15  ·  =Ground");
}

std::vector<Chip> HeightsAtHandTool::chips() const {
    std::vector<Chip> out{{tr("Line"), line() != nullptr
                                           ? QString::fromStdString(session_.document().nameOf(line_))
                                           : QString()}};
    const auto* r = resolved();
    if (r == nullptr || !point_ || *point_ >= r->vertices.size()) return out;
    const auto& display = session_.document().settings().display;
    const auto& v = r->vertices[*point_];
    out.push_back({tr("Now"), QString::fromStdString(
                                  formatHeight(v.height, display) + ", " +
                                  operations::controlText(session_.document(), line()->vertices[*point_]))});
    return out;
}

bool HeightsAtHandTool::accepts(const Snap& snap) const {
    return session_.document().get<objects::Line>(snap.ref.object) != nullptr;
}

void HeightsAtHandTool::hoverAt(const Snap& snap) {
    hover_ = snap.ref.object == line_ ? snap.ref.part : std::nullopt;
    Q_EMIT changed();
}

void HeightsAtHandTool::clickAt(const Snap& snap) {
    if (!accepts(snap)) {
        Q_EMIT failed(tr("Nothing that has heights is here; click a point of a 3D line"));
        return;
    }
    line_ = snap.ref.object;
    if (snap.ref.part) return go(*snap.ref.part);
    // Somewhere on a side: the point that ends it.
    const auto* r = resolved();
    if (r == nullptr) return go(0);
    const auto near = geometry::nearestOn(r->path, snap.place);
    const double at = near ? geometry::distanceAlong(r->path, *near) : 0;
    std::size_t next = 0;
    while (next + 1 < r->vertices.size() && r->vertices[r->ordered(next)].distance < at) ++next;
    go(r->ordered(next));
}

void HeightsAtHandTool::go(std::size_t point) {
    point_ = point;
    session_.selection().set({{line_, point}});
    Q_EMIT changed();
}

void HeightsAtHandTool::goNext() {
    const auto* r = resolved();
    if (r == nullptr || !point_) return;
    const std::size_t at = r->positionOf(*point_) + 1;
    if (at >= r->vertices.size()) {
        if (r->closed) return go(r->ordered(0));
        Q_EMIT session_.message(tr("That was the last point of %1")
                                    .arg(QString::fromStdString(session_.document().nameOf(line_))),
                                false);
        return;
    }
    go(r->ordered(at));
}

bool HeightsAtHandTool::enter(const QString& text) {
    if (line() == nullptr || !point_) {
        Q_EMIT failed(tr("Pick a 3D line first"));
        return false;
    }
    const QString name = QString::fromStdString(session_.document().nameOf(line_));
    if (!session_.edit(tr("%1, point %2: %3").arg(name).arg(*point_ + 1).arg(text),
                       operations::setTypedRule(line_, *point_, text.toStdString())))
        return false;
    goNext();
    return true;
}

bool HeightsAtHandTool::stepBack() {
    const auto* r = resolved();
    if (r == nullptr || !point_) return false;
    const std::size_t at = r->positionOf(*point_);
    if (at == 0) return false;
    go(r->ordered(at - 1));
    return true;
}

void HeightsAtHandTool::complete() {
    if (line() != nullptr) goNext();
}

void HeightsAtHandTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    const auto* r = resolved();
    if (r == nullptr) return;
    const auto mark = [&](std::size_t i, double size, const QColor& colour) {
        if (i >= r->vertices.size()) return;
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(colour, 2));
        painter.drawEllipse(view.toPicture(r->vertices[i].place), size, size);
    };
    if (hover_ && hover_ != point_) mark(*hover_, 8, theme::spruce);
    if (point_) mark(*point_, 9, theme::clay);
}

namespace tools {

ToolDeclaration heightsAtHand() {
    return {.id = QStringLiteral("heights-at-hand"),
            .text = tr("Heights at hand"),
            .help = tr("Types the heights and grades of a line in the plan, point after point"),
            .icon = {"M3 17 L10 11 L15 14 L21 7", "M10 5 V11 M7.5 8 H12.5"},
            .key = QStringLiteral("H"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = [](Session& s) { return std::make_unique<HeightsAtHandTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "heights_at_hand.moc"
