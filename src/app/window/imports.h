#pragma once
// Files that come into the project: survey points through a preview, everything else on a worker.

#include <QObject>
#include <QString>

#include <functional>

#include "app/base/session.h"

namespace erdwerk::app {

class ProjectFiles;
class Workbench;

class Imports : public QObject {
    Q_OBJECT
public:
    Imports(Workbench& work, ProjectFiles& files);

    /// Whatever it is, as when it is dropped on the window.
    bool take(const QString& path);
    /// `asNew`: into a project of its own, once the preview is agreed to.
    bool survey(const QString& path, bool asNew = false);
    void lines(const QString& path);
    /// A cloud, or a raster of heights or a picture.
    void dense(const QString& path, bool cloud);

private:
    void notImported(const QString& why);
    /// Reads a file into the project, on a worker; what came in may be shown as selected.
    enum class Then { Select, Leave };
    void readIn(const QString& path, document::LongEdit read, Then then,
                const std::function<void()>& after = {});
    void askAboutFlat(const std::vector<ObjectId>& lines);

    Workbench& work_;
    Session& session_;
    ProjectFiles& files_;
};

}  // namespace erdwerk::app
