#include "app/sheet/drawing_file.h"

#include <QBuffer>
#include <QFileInfo>
#include <QPageSize>
#include <QPdfWriter>
#include <QSvgGenerator>

#include "app/sheet/pdf_layers.h"
#include "core/format/output.h"

namespace erdwerk::app {

namespace {

Error cannotBeDrawn(const QString& path) {
    return {ErrorCode::Io, "cannot be drawn", path.toStdString(), 0};
}

const Error stopped{ErrorCode::Cancelled, "stopped", {}, 0};

// Drawings are made in memory: Qt's own writers do not say when a disk is full.

/// Each layer is a page at first; they are put on each other afterwards.
Result<std::string> pdfOf(const QString& path, const std::vector<Drawing>& drawings,
                          const DrawingProgress& progress) {
    std::vector<LayeredPage> pages;
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&buffer);
    pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
    pdf.setResolution(600);
    pdf.setTitle(drawings.front().title);
    pdf.setCreator(QStringLiteral("Erdwerk"));
    QPainter painter;
    for (const Drawing& drawing : drawings) {
        if (progress && !progress(pages.size(), drawing.title)) return tl::unexpected(stopped);
        pdf.setPageSize(QPageSize(drawing.millimetres, QPageSize::Millimeter, {}, QPageSize::ExactMatch));
        pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
        if (&drawing == &drawings.front() ? !painter.begin(&pdf) : !pdf.newPage())
            return tl::unexpected(cannotBeDrawn(path));
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
    if (!painter.end()) return tl::unexpected(cannotBeDrawn(path));
    return layPages(buffer.data().toStdString(), pages);
}

Result<std::string> svgOf(const QString& path, const Drawing& drawing) {
    const QSizeF size = drawing.millimetres * 10;
    QBuffer buffer;
    buffer.open(QIODevice::WriteOnly);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    svg.setResolution(254);
    svg.setSize(size.toSize());
    svg.setViewBox(QRectF({0, 0}, size));
    svg.setTitle(drawing.title);
    QPainter painter;
    if (!painter.begin(&svg)) return tl::unexpected(cannotBeDrawn(path));
    drawing.paint(painter, 10, {});
    if (!painter.end()) return tl::unexpected(cannotBeDrawn(path));
    return buffer.data().toStdString();
}

}  // namespace

Result<QStringList> writeDrawings(const QString& path, const std::vector<Drawing>& drawings,
                                  const DrawingProgress& progress) {
    const QFileInfo file(path);
    const QString ending = file.suffix().toLower();
    QStringList out;
    if (drawings.empty()) return badInput("there is nothing to draw");
    const bool pdf = ending == QStringLiteral("pdf");
    if (!pdf && ending != QStringLiteral("svg"))
        return fail(ErrorCode::Unsupported, "a drawing is written as .pdf or .svg", path.toStdString());
    // All are drawn before the first is written: what is stopped leaves no file.
    std::vector<std::pair<QString, std::string>> files;
    for (std::size_t i = 0; i < drawings.size(); ++i) {
        const QString numbered =
            path.left(path.size() - 4) + QStringLiteral("-%1.").arg(i + 1) + file.suffix();
        out << (pdf || drawings.size() == 1 ? path : numbered);
        if (pdf && i > 0) continue;
        if (!pdf && progress && !progress(i, drawings[i].title)) return tl::unexpected(stopped);
        auto drawn = pdf ? pdfOf(path, drawings, progress) : svgOf(out.back(), drawings[i]);
        if (!drawn) return tl::unexpected(drawn.error());
        files.emplace_back(out.back(), std::move(*drawn));
    }
    for (const auto& [name, bytes] : files)
        if (auto done = format::replaceFile(name.toStdString(), bytes); !done)
            return tl::unexpected(done.error());
    return out;
}

}  // namespace erdwerk::app
