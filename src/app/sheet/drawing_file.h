#pragma once
// Drawings as files.

#include <QPainter>
#include <QStringList>
#include <functional>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::app {

/// `paint` gets the picture units a millimetre.
struct Drawing {
    QSizeF millimetres;
    QString title;
    std::function<void(QPainter&, double)> paint;
};

/// As PDF (vector), one page each, or SVG by the ending; several SVG are numbered before it. A file appears
/// only when it is whole. Gives the file of each.
Result<QStringList> writeDrawings(const QString& path, const std::vector<Drawing>& drawings);

}  // namespace erdwerk::app
