#pragma once
// The file dialogs, which begin where the last file was chosen.

#include <QString>

class QWidget;

namespace erdwerk::app {

/// Empty when nothing was chosen.
QString fileToOpen(QWidget* parent, const QString& title, const QString& filter);
/// `suggested`: a name, or a whole path.
QString fileToWrite(QWidget* parent, const QString& title, const QString& suggested, const QString& filter,
                    QString* chosenFilter = nullptr);

}  // namespace erdwerk::app
