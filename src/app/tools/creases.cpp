#include "app/tools/creases.h"
#include "app/base/snapshot.h"

#include <cmath>

namespace erdwerk::app {

using geometry::Vec3;
using terrain::CreaseKind;

BendAnswer bendOf(const BendRequest& request, const std::atomic<bool>& cancel) {
    Context context;
    context.cancelFlag = &cancel;
    BendAnswer answer;
    auto field = derive::creaseField(request.snapshot->derived, request.source, request.area, context);
    if (field)
        answer.field = std::make_shared<const terrain::CreaseField>(std::move(*field));
    else
        answer.problem = field.error().text;
    return answer;
}

double creaseLength(const std::vector<Vec3>& places, bool closed) {
    double sum = 0;
    for (std::size_t i = 1; i < places.size(); ++i)
        sum += geometry::distance(places[i - 1].plan(), places[i].plan());
    if (closed && places.size() > 1) sum += geometry::distance(places.back().plan(), places.front().plan());
    return sum;
}

void paintCrease(QPainter& painter, const ViewTransform& view, const std::vector<Vec3>& places, bool closed,
                 CreaseKind kind, const QColor& colour, double width) {
    QPolygonF shape;
    for (const Vec3& p : places) shape << view.toPicture(p.plan());
    if (closed && !shape.isEmpty()) shape << shape.front();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour, width, kind == CreaseKind::Crest ? Qt::SolidLine : Qt::DashLine));
    painter.drawPolyline(shape);
    if (kind != CreaseKind::Crest) return;
    // Short strokes say crest even where colour does not.
    for (int i = 2; i + 1 < shape.size(); i += 4) {
        const QPointF along = shape[i + 1] - shape[i - 1];
        const double size = std::hypot(along.x(), along.y());
        if (size < 1) continue;
        painter.drawLine(shape[i], shape[i] + QPointF(-along.y(), along.x()) * (5 / size));
    }
}

QString kindText(CreaseKind kind) {
    return kind == CreaseKind::Crest ? QObject::tr("crest") : QObject::tr("toe");
}

}  // namespace erdwerk::app
