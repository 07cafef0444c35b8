#include "app/sheet/sheet_output.h"

#include <QPageSize>
#include <QPrinter>

#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "core/objects/sheet.h"

namespace erdwerk::app {

namespace {

QPageSize pageOf(const objects::Sheet& sheet) {
    return QPageSize(QSizeF(sheet.paper[0], sheet.paper[1]), QPageSize::Millimeter, {},
                     QPageSize::ExactMatch);
}

}  // namespace

Result<QStringList> writeSheets(const QString& path, const Snapshot& snapshot,
                                const std::vector<ObjectId>& ids, const DrawingProgress& progress) {
    std::vector<Drawing> drawings;
    for (const ObjectId id : ids) {
        const auto* sheet = snapshot.derived.document.get<objects::Sheet>(id);
        if (sheet == nullptr) return fail(ErrorCode::NotFound, "there is no such sheet");
        drawings.push_back(
            {QSizeF(sheet->paper[0], sheet->paper[1]), text(snapshot.derived.document.nameOf(id)),
             [&snapshot, id](QPainter& painter, double perMillimetre, const DrawingLayer& layer) {
                 paintSheet(painter, snapshot, id, perMillimetre, layer);
             }});
    }
    return writeDrawings(path, drawings, progress);
}

Result<void> printSheets(QPrinter& printer, const Snapshot& snapshot, const std::vector<ObjectId>& ids) {
    printer.setFullPage(true);
    QPainter painter;
    for (const ObjectId id : ids) {
        const auto* sheet = snapshot.derived.document.get<objects::Sheet>(id);
        if (sheet == nullptr) return fail(ErrorCode::NotFound, "there is no such sheet");
        printer.setPageSize(pageOf(*sheet));
        printer.setPageMargins(QMarginsF(0, 0, 0, 0));
        if (painter.isActive() ? !printer.newPage() : !painter.begin(&printer))
            return fail(ErrorCode::Io, "the printer takes nothing");
        paintSheet(painter, snapshot, id, printer.resolution() / 25.4);
    }
    if (!painter.end()) return fail(ErrorCode::Io, "the printer takes nothing");
    return {};
}

Result<void> printPlan(QPrinter& printer, const Snapshot& snapshot, const ViewTransform& view) {
    printer.setPageOrientation(view.size.width() > view.size.height() ? QPageLayout::Landscape
                                                                      : QPageLayout::Portrait);
    QPainter painter;
    if (!painter.begin(&printer)) return fail(ErrorCode::Io, "the printer takes nothing");
    const QRectF page(painter.viewport());
    const double factor = std::min(page.width() / view.size.width(), page.height() / view.size.height());
    ViewTransform onPage = view;
    onPage.size = view.size * factor;
    onPage.scale = view.scale * factor;
    PlanOptions options;
    options.unit = factor;
    options.off = snapshot.derived.document.shown().off;
    painter.setClipRect(QRectF({0, 0}, onPage.size));
    PlanPainter(painter, snapshot, onPage, planLayers(), options).paint();
    if (!painter.end()) return fail(ErrorCode::Io, "the printer takes nothing");
    return {};
}

}  // namespace erdwerk::app
