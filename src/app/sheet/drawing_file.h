#pragma once
// Drawings as files.

#include <QPainter>
#include <QStringList>
#include <functional>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::app {

/// Told the layer of what is painted next.
using DrawingLayer = std::function<void(const QString&)>;

/// `paint` gets the picture units a millimetre.
struct Drawing {
    QSizeF millimetres;
    QString title;
    std::function<void(QPainter&, double, const DrawingLayer&)> paint;
};

/// Told before each drawing; false ends it all.
using DrawingProgress = std::function<bool(std::size_t done, const QString& next)>;

/// As PDF (vector, with layers that a reader puts on and off), one page each, or SVG by the ending; several
/// SVG are numbered before it. A file appears only when it is whole. Gives the file of each; Cancelled when
/// progress says so, with no file.
Result<QStringList> writeDrawings(const QString& path, const std::vector<Drawing>& drawings,
                                  const DrawingProgress& progress = {});

}  // namespace erdwerk::app
