#include "app/kinds/balance_curve.h"

#include <QPainter>

#include "app/base/theme.h"
#include "core/derive/earthwork_result.h"

namespace erdwerk::app {

BalanceCurve::BalanceCurve(Session& session, ObjectId earthwork, QWidget* parent)
    : QWidget(parent), session_(session), earthwork_(earthwork) {
    setAccessibleName(tr("Cut and fill against height"));
    setMinimumHeight(120);
    worker_ = std::make_unique<LatestWorker<std::shared_ptr<const derive::Derived>, Curve>>(
        this,
        [earthwork](const std::shared_ptr<const derive::Derived>& seen,
                    const std::atomic<bool>& cancel) -> std::optional<Curve> {
            Context context;
            context.cancelFlag = &cancel;
            auto curve = operations::balanceCurve(*seen, earthwork, 1.5, context);
            if (cancel) return std::nullopt;
            return curve ? std::move(*curve) : Curve{};
        },
        [this](Curve curve) {
            curve_ = std::move(curve);
            none_ = curve_.size() < 2;
            update();
        },
        [](const QString&) {});
    worker_->request(session_.results(), true);
}

BalanceCurve::~BalanceCurve() {
    worker_.reset();
}

void BalanceCurve::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(theme::font(11));
    const QRectF frame = QRectF(rect()).adjusted(6, 16, -6, -18);
    painter.setPen(theme::hairline);
    painter.drawRect(frame);
    if (curve_.size() < 2) {
        painter.setPen(theme::inkQuiet);
        painter.drawText(frame, Qt::AlignCenter,
                         none_ ? tr("no curve: it cannot be made here") : tr("working…"));
        return;
    }
    double most = 0;
    for (const auto& p : curve_) most = std::max({most, p.cut, p.fill});
    if (!(most > 0)) return;
    const double low = curve_.front().lift;
    const double high = curve_.back().lift;
    const auto at = [&](double height, double volume) {
        return QPointF(frame.left() + frame.width() * (height - low) / (high - low),
                       frame.bottom() - frame.height() * volume / most);
    };
    const auto line = [&](const QColor& colour, double earthwork::BalancePoint::*figure, Qt::PenStyle style) {
        QPolygonF shape;
        for (const auto& p : curve_) shape << at(p.lift, p.*figure);
        painter.setPen(QPen(colour, 1.8, style));
        painter.drawPolyline(shape);
    };
    line(theme::cut, &earthwork::BalancePoint::cut, Qt::SolidLine);
    line(theme::fill, &earthwork::BalancePoint::fill, Qt::DashLine);
    const auto* now = derive::Derived::in(session_.derived().earthworks, earthwork_);
    if (now != nullptr && now->height && *now->height >= low && *now->height <= high) {
        painter.setPen(QPen(theme::clay, 1.4));
        painter.drawLine(at(*now->height, 0), at(*now->height, most));
    }
    const auto& display = session_.document().settings().display;
    const auto height = [&](double h) { return QString::fromStdString(formatHeight(h, display)); };
    painter.setPen(theme::ink);
    painter.drawText(QRectF(frame.left(), frame.bottom() + 2, frame.width(), 14), Qt::AlignLeft, height(low));
    painter.drawText(QRectF(frame.left(), frame.bottom() + 2, frame.width(), 14), Qt::AlignRight,
                     height(high));
    painter.setPen(theme::cut);
    painter.drawText(QRectF(frame.left(), 0, frame.width() / 2, 14), Qt::AlignLeft, tr("cut ───"));
    painter.setPen(theme::fill);
    painter.drawText(QRectF(frame.center().x(), 0, frame.width() / 2, 14), Qt::AlignRight, tr("fill ─ ─"));
}

}  // namespace erdwerk::app

#include "moc_balance_curve.cpp"
