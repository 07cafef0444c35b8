#pragma once
// The project as a file: opened, saved, recovered; the questions and messages that belong to it.

#include <QObject>
#include <QString>

#include "app/base/session.h"

namespace erdwerk::app {

class ToolInHand;
class Workbench;

class ProjectFiles : public QObject {
    Q_OBJECT
public:
    ProjectFiles(Workbench& work, ToolInHand& inHand);

    /// False (with a message shown) when it cannot be opened.
    bool openProject(const QString& path);
    bool openDemo();
    /// The demo with something worth seeing in hand: Ground, 3D beside the plan, a line and its grades.
    bool showDemo();
    /// Before the project goes: false when the person would rather keep it.
    [[nodiscard]] bool askToSave();
    /// Saves and waits for it.
    bool save(bool askName);
    /// Starts saving; the window goes on.
    void startSaving(bool askName);
    void showRecovery();

private:
    void connectStart();
    void connectKeeping();
    /// Where to save to; asks when it has no name yet, or `askName`. Empty: not at all.
    [[nodiscard]] QString pathToSave(bool askName);

    Workbench& work_;
    Session& session_;
    ToolInHand& inHand_;
};

/// The folder with the demo's files: beside the installed program, or in the source tree above it.
QString demoFolder();

}  // namespace erdwerk::app
