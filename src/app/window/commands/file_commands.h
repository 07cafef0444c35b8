#pragma once
// The commands of files: open, save, export, print, and the settings of the project.

#include "app/base/session.h"
#include "app/window/command_set.h"
#include "core/format/export.h"

class QPrinter;

namespace erdwerk::app {

class Imports;
class ProjectFiles;

class FileCommands : public CommandSet {
    Q_OBJECT
public:
    FileCommands(Workbench& work, ProjectFiles& files, Imports& imports);

    bool exportTo(const QString& path, format::Figures figures = format::Figures::AsShown);
    /// The pages for a printer: the selected or only sheet true to scale, else what the plan shows.
    Result<void> printTo(QPrinter& printer);

private:
    void add();
    void openCommands();
    void printCommands();

    ProjectFiles& files_;
    Imports& imports_;
};

}  // namespace erdwerk::app
