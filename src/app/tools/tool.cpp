#include "app/tools/tool.h"

#include "app/base/theme.h"
#include "app/plan/plan_painter.h"
#include "core/base/notation.h"

namespace erdwerk::app {

void paintGhostPath(QPainter& painter, const ViewTransform& view, const geometry::Path& path,
                    const QString& figure, bool arrows) {
    if (path.empty()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(polyline(path, view));
    painter.setPen(QPen(theme::clay, 1.4));
    painter.setBrush(theme::paper);
    for (const auto& s : path)
        painter.drawRect(QRectF(view.toPicture(s.start) - QPointF(3, 3), QSizeF(6, 6)));
    painter.drawRect(QRectF(view.toPicture(path.back().end) - QPointF(3, 3), QSizeF(6, 6)));
    if (arrows) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme::clay);
        const double length = geometry::lengthOf(path);
        const int count = std::clamp(static_cast<int>(length * view.scale / 90), 1, 60);
        for (int k = 0; k < count; ++k) {
            const auto at = geometry::positionAt(path, length * (k + 0.5) / count);
            painter.save();
            painter.translate(view.toPicture(at.place));
            painter.rotate(at.direction.degrees());
            painter.drawPolygon(QPolygonF{QPointF(0, -8), QPointF(5.5, 6), QPointF(0, 3), QPointF(-5.5, 6)});
            painter.restore();
        }
    }
    if (figure.isEmpty()) return;
    const QFont font = theme::font(12, true);
    painter.setFont(font);
    const QRectF box = QFontMetricsF(font).boundingRect(figure).adjusted(-6, -3, 6, 3);
    const QRectF room(view.toPicture(path.back().end) + QPointF(12, 10), box.size());
    painter.setPen(QPen(theme::hairline, 1));
    painter.setBrush(QColor(255, 255, 255, 235));
    painter.drawRoundedRect(room, 4, 4);
    painter.setPen(theme::clay.darker(115));
    painter.drawText(room, Qt::AlignCenter, figure);
}

ObjectId currentSurface(const Session& session) {
    if (const auto selected = session.selected<document::Surface>()) return *selected;
    const auto all = session.document().all<document::Surface>();
    return all.empty() ? ObjectId{} : all.back();
}

ObjectId currentDense(const Session& session) {
    if (const auto cloud = session.selected<document::Cloud>()) return *cloud;
    if (const auto raster = session.selected<document::HeightRaster>()) return *raster;
    if (const auto surface = session.selected<document::Surface>()) return *surface;
    const auto& document = session.document();
    for (const ObjectId id : document.all<document::Cloud>())
        if (document.get<document::Cloud>(id)->cloud) return id;
    for (const ObjectId id : document.all<document::HeightRaster>())
        if (document.get<document::HeightRaster>(id)->raster) return id;
    return currentSurface(session);
}

std::optional<double> typedFigure(const QString& text) {
    return parseNumber(text.trimmed().replace(QLatin1Char(','), QLatin1Char('.')).toStdString());
}

QString ruleText(const document::Document& document, const linework::HeightRule& rule) {
    using namespace linework;
    const auto signedText = [](double v) {
        return QString::fromStdString((v >= 0 ? "+" : "") + formatExact(v));
    };
    if (const auto* fixed = std::get_if<FixedHeight>(&rule))
        return QString::fromStdString(formatExact(fixed->height));
    if (const auto* grade = std::get_if<GradeFromPrevious>(&rule))
        return QString::fromStdString(formatExact(std::round(grade->grade.percent() * 1e9) / 1e9) + "%");
    if (const auto* rise = std::get_if<RiseFromPrevious>(&rule)) return signedText(rise->rise);
    if (const auto* surface = std::get_if<OnSurface>(&rule))
        return QStringLiteral("=") + QString::fromStdString(document.nameOf(surface->surface)) +
               (surface->amount != 0 ? signedText(surface->amount) : QString());
    return std::holds_alternative<Interpolated>(rule) ? QStringLiteral("interpolated")
                                                      : QStringLiteral("none");
}

}  // namespace erdwerk::app
