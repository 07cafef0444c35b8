// What the plan shows over its picture: selection, findings, hover, scale bar, captions.

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/plan/plan_view.h"
#include "core/check/finding.h"
#include "core/check/finding_kinds.h"

namespace erdwerk::app {

using geometry::Vec2;

void PlanView::paintCaption(QPainter& painter) {
    const QString text = *fade_ >= 1   ? tr("surfaces")
                         : *fade_ <= 0 ? tr("sources")
                                       : tr("sources, surfaces over them %1 %").arg(qRound(100 * *fade_));
    painter.setFont(theme::font(12, true));
    const QRectF box = QFontMetricsF(painter.font()).boundingRect(text).adjusted(-7, -3, 7, 3);
    const QRectF room(QPointF(10, 8), box.size());
    painter.setPen(QPen(theme::hairline, 1));
    painter.setBrush(QColor(255, 255, 255, 235));
    painter.drawRoundedRect(room, 3, 3);
    painter.setPen(theme::ink);
    painter.drawText(room, Qt::AlignCenter, text);
}

void PlanView::paintEmpty(QPainter& painter) {
    painter.setPen(theme::inkQuiet);
    painter.setFont(theme::font(14));
    painter.drawText(rect(), Qt::AlignCenter,
                     tr("Nothing here yet. Import survey points from the Field stage,\nor draw a 3D line "
                        "from the Shape stage."));
}

void PlanView::paintScaleBar(QPainter& painter) {
    const double units = roundStep(70 / view_.scale);
    const double pixels = units * view_.scale;
    const QPointF at(width() - pixels - 18, height() - 26);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor(255, 255, 255, 215));
    painter.drawRect(QRectF(at - QPointF(8, 16), QSizeF(pixels + 16, 28)));
    painter.setPen(QPen(theme::ink, 1));
    painter.setBrush(theme::ink);
    painter.drawRect(QRectF(at + QPointF(0, 4), QSizeF(pixels / 2, 3)));
    painter.setBrush(theme::panel);
    painter.drawRect(QRectF(at + QPointF(pixels / 2, 4), QSizeF(pixels / 2, 3)));
    painter.setFont(theme::font(10));
    painter.drawText(QRectF(at - QPointF(0, 14), QSizeF(pixels, 14)), Qt::AlignRight,
                     QString::fromStdString(formatExact(units)) + QStringLiteral(" ") +
                         QString::fromUtf8(unitSymbol(session_.document().settings().display.unit).data()));
    // North arrow.
    const QPointF n(width() - 24, 36);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor(255, 255, 255, 215));
    painter.drawRoundedRect(QRectF(n + QPointF(-16, -26), QSizeF(32, 52)), 3, 3);
    painter.setPen(QPen(theme::ink, 1.2));
    painter.setBrush(theme::panel);
    painter.drawPolygon(QPolygonF{n + QPointF(0, -20), n + QPointF(6, 8), n + QPointF(0, 3)});
    painter.setBrush(theme::ink);
    painter.drawPolygon(QPolygonF{n + QPointF(0, -20), n + QPointF(-6, 8), n + QPointF(0, 3)});
    painter.setFont(theme::font(11, true));
    painter.drawText(QRectF(n + QPointF(-10, 9), QSizeF(20, 14)), Qt::AlignCenter, tr("N"));
}

void PlanView::paintSelection(QPainter& painter) {
    painter.setRenderHint(QPainter::Antialiasing);
    HandlePainter handles(painter, session_.derived(), session_.document(), view_, &session_.textsShown());
    // What was made just now has no results yet.
    for (const Ref& ref : session_.selection())
        if (const auto object = session_.document().find(ref.object);
            object && session_.derived().document.find(ref.object))
            layerOf(layers_, *object).handles(handles, ref);
    painter.setBrush(Qt::NoBrush);
}

void PlanView::paintFindings(QPainter& painter) {
    painter.setFont(theme::font(10, true));
    for (const auto& f : session_.snapshot()->findings) {
        if (!f.at || !view_.window().contains(*f.at)) continue;
        const QPointF p = view_.toPicture(*f.at);
        const QColor colour = f.severity == check::Severity::MustFix ? theme::madder : theme::ochre;
        painter.setPen(QPen(colour, 2));
        painter.setBrush(Qt::NoBrush);
        if (f.kind == check::kinds::crossingBreaklines) {
            painter.drawEllipse(p, 9, 9);
            QString text;
            for (const double h : f.heights)
                text += (text.isEmpty() ? "" : " / ") +
                        QString::fromStdString(formatHeight(h, session_.document().settings().display));
            const QRectF box = QFontMetricsF(painter.font()).boundingRect(text).adjusted(-4, -2, 4, 2);
            const QRectF room(p + QPointF(12, -8), box.size());
            painter.setPen(Qt::NoPen);
            painter.setBrush(QColor(255, 255, 255, 225));
            painter.drawRoundedRect(room, 3, 3);
            painter.setPen(colour);
            painter.drawText(room, Qt::AlignCenter, text);
        } else {
            painter.drawLine(p + QPointF(-7, 8), p + QPointF(7, 8));
            painter.drawLine(p + QPointF(-7, 8), p + QPointF(0, -5));
            painter.drawLine(p + QPointF(7, 8), p + QPointF(0, -5));
        }
    }
}

void PlanView::paintHover(QPainter& painter) {
    if (session_.selection().hover() && !underMouse()) {
        // Another view points here.
        const QPointF p = view_.toPicture(session_.selection().hover()->place);
        painter.setPen(QPen(theme::clay, 1.6));
        painter.setBrush(Qt::NoBrush);
        painter.drawEllipse(p, 8, 8);
        painter.drawLine(p - QPointF(12, 0), p + QPointF(12, 0));
        painter.drawLine(p - QPointF(0, 12), p + QPointF(0, 12));
        return;
    }
    if (!snap_ || !underMouse() || snap_->kind == SnapKind::Surface) return;
    const QPointF p = view_.toPicture(snap_->place);
    painter.setPen(QPen(theme::clay, 1.6));
    painter.setBrush(Qt::NoBrush);
    switch (snap_->kind) {
        case SnapKind::Corner:
        case SnapKind::End:
            painter.drawRect(QRectF(p - QPointF(6, 6), QSizeF(12, 12)));
            break;
        case SnapKind::Middle:
            painter.drawPolygon(QPolygonF{p + QPointF(-6, 5), p + QPointF(6, 5), p + QPointF(0, -6)});
            break;
        case SnapKind::Crossing:
            painter.drawLine(p - QPointF(6, 6), p + QPointF(6, 6));
            painter.drawLine(p + QPointF(-6, 6), p + QPointF(6, -6));
            break;
        default:
            painter.drawEllipse(p, 6, 6);
    }
    QString text = snap_->name;
    if (snap_->height)
        text += QStringLiteral("  ") +
                QString::fromStdString(formatHeight(snap_->height, session_.document().settings().display));
    if (stacked_.size() > 1) text += tr("   (Tab: %1 of %2)").arg(stackedAt_ + 1).arg(stacked_.size());
    painter.setFont(theme::font(11));
    const QRectF box = QFontMetricsF(painter.font()).boundingRect(text).adjusted(-5, -2, 5, 2);
    QRectF room(p + QPointF(12, 12), box.size());
    if (room.right() > width()) room.moveRight(p.x() - 12);
    if (room.bottom() > height()) room.moveBottom(p.y() - 12);
    painter.setPen(QPen(theme::hairline, 1));
    painter.setBrush(QColor(255, 255, 255, 235));
    painter.drawRoundedRect(room, 3, 3);
    painter.setPen(theme::ink);
    painter.drawText(room, Qt::AlignCenter, text);
}

void PlanView::paintStale(QPainter& painter) {
    const QString text = session_.staleText();
    if (text.isEmpty()) return;
    const QString line = tr("%1 · Ctrl+R works them out").arg(text);
    const QFont font = theme::font(12, true);
    painter.setFont(font);
    const QRectF box = QFontMetricsF(font).boundingRect(line).adjusted(-10, -5, 10, 5);
    const QRectF room((width() - box.width()) / 2, 10, box.width(), box.height());
    painter.setPen(QPen(theme::ochre, 1));
    painter.setBrush(QColor(0xFB, 0xEF, 0xD9));
    painter.drawRoundedRect(room, 4, 4);
    painter.setPen(theme::ink);
    painter.drawText(room, Qt::AlignCenter, line);
}

}  // namespace erdwerk::app
