#include "app/sheet/drawing_file.h"

#include <QFileInfo>
#include <QPageSize>
#include <QPdfWriter>
#include <QSvgGenerator>

#include "app/sheet/pdf_layers.h"
#include "core/format/output.h"

namespace erdwerk::app {

namespace {

Result<void> cannotBeWritten(const QString& path) {
    return fail(ErrorCode::Io, "cannot be written", path.toStdString());
}

Result<void> stopped() {
    return fail(ErrorCode::Cancelled, "stopped");
}

/// Each layer is a page at first; they are put on each other afterwards.
Result<void> writePdf(const QString& path, const std::vector<Drawing>& drawings,
                      const DrawingProgress& progress) {
    return format::replaceFile(path.toStdString(), [&](const std::string& temporary) -> Result<void> {
        std::vector<LayeredPage> pages;
        QPdfWriter pdf(QString::fromStdString(temporary));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        pdf.setResolution(600);
        pdf.setTitle(drawings.front().title);
        pdf.setCreator(QStringLiteral("Erdwerk"));
        QPainter painter;
        for (const Drawing& drawing : drawings) {
            if (progress && !progress(pages.size(), drawing.title)) return stopped();
            pdf.setPageSize(QPageSize(drawing.millimetres, QPageSize::Millimeter, {}, QPageSize::ExactMatch));
            pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
            if (&drawing == &drawings.front() ? !painter.begin(&pdf) : !pdf.newPage())
                return cannotBeWritten(path);
            painter.resetTransform();
            pages.push_back({{std::string()}, drawing.millimetres.width(), drawing.millimetres.height()});
            drawing.paint(painter, 600 / 25.4, [&](const QString& layer) {
                auto& layers = pages.back().layers;
                if (layers.back() == layer.toStdString()) return;
                if (layers.back().empty())
                    layers.back() = layer.toStdString();
                else if (pdf.newPage())
                    layers.push_back(layer.toStdString());
            });
        }
        if (!painter.end()) return cannotBeWritten(path);
        return layPages(temporary, pages);
    });
}

Result<void> writeSvg(const QString& path, const Drawing& drawing) {
    return format::replaceFile(path.toStdString(), [&](const std::string& temporary) -> Result<void> {
        const QSizeF size = drawing.millimetres * 10;
        QSvgGenerator svg;
        svg.setFileName(QString::fromStdString(temporary));
        svg.setResolution(254);
        svg.setSize(size.toSize());
        svg.setViewBox(QRectF({0, 0}, size));
        svg.setTitle(drawing.title);
        QPainter painter;
        if (!painter.begin(&svg)) return cannotBeWritten(path);
        drawing.paint(painter, 10, {});
        return painter.end() ? Result<void>{} : cannotBeWritten(path);
    });
}

}  // namespace

Result<QStringList> writeDrawings(const QString& path, const std::vector<Drawing>& drawings,
                                  const DrawingProgress& progress) {
    const QFileInfo file(path);
    const QString ending = file.suffix().toLower();
    QStringList out;
    if (drawings.empty()) return badInput("there is nothing to draw");
    if (ending == QStringLiteral("pdf")) {
        if (auto done = writePdf(path, drawings, progress); !done) return tl::unexpected(done.error());
        for (std::size_t i = 0; i < drawings.size(); ++i) out << path;
        return out;
    }
    if (ending != QStringLiteral("svg"))
        return fail(ErrorCode::Unsupported, "a drawing is written as .pdf or .svg", path.toStdString());
    for (std::size_t i = 0; i < drawings.size(); ++i) {
        if (progress && !progress(i, drawings[i].title)) return tl::unexpected(stopped().error());
        const QString numbered =
            path.left(path.size() - 4) + QStringLiteral("-%1.").arg(i + 1) + file.suffix();
        out << (drawings.size() == 1 ? path : numbered);
        if (auto done = writeSvg(out.back(), drawings[i]); !done) return tl::unexpected(done.error());
    }
    return out;
}

}  // namespace erdwerk::app
