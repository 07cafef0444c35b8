#pragma once
// What the file dialogs offer, from the declarations of the formats.

#include <QString>

#include "core/format/export.h"
#include "core/format/import.h"

namespace erdwerk::app {

/// "NAME (*.gpkg *.geojson …);;All files (*)": every format of this sort that is read, and those offered with
/// it.
QString filterToOpen(const QString& name, format::FileSort sort);
/// One filter for each format in which a project is written, projects themselves apart; those with figures
/// twice: as they are shown, and with all their digits.
QString filterToExport();
/// How figures are to be written with the filter that was chosen.
format::Figures figuresOf(const QString& chosenFilter);
/// One for each format in which a surface is written.
QString filterToWriteSurface();

}  // namespace erdwerk::app
