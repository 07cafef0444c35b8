#include "app/base/file_dialog.h"

#include <QDir>
#include <QFileDialog>

#include "app/base/remembered.h"

namespace erdwerk::app {

QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) {
    const QString path = QFileDialog::getOpenFileName(parent, title, remembered::lastFolder(), filter);
    remembered::setLastFile(path);
    return path;
}

QString fileToWrite(QWidget* parent, const QString& title, const QString& suggested, const QString& filter,
                    QString* chosenFilter) {
    const QString folder = remembered::lastFolder();
    const QString begin =
        folder.isEmpty() || QDir::isAbsolutePath(suggested) ? suggested : QDir(folder).filePath(suggested);
    const QString path = QFileDialog::getSaveFileName(parent, title, begin, filter, chosenFilter);
    remembered::setLastFile(path);
    return path;
}

}  // namespace erdwerk::app
