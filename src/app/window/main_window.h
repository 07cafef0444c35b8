#pragma once
// The window: stage bar; rack, plan and twin view, with prompt line and bench below; facts and contents. It
// makes the parts of the workbench and gives them their room; what they do stands in its command sets and in
// the parts themselves.

#include <QMainWindow>
#include <memory>
#include <vector>

#include "app/window/workbench.h"

class QSplitter;

namespace erdwerk::app {

class CommandSet;
class CursorLine;
class FileCommands;
class Imports;
class ObjectMenu;
class ProjectFiles;
class SheetCommands;
class Tool;
class ToolInHand;
class WindowKeys;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;

    [[nodiscard]] Workbench& work() { return work_; }
    [[nodiscard]] Session& session() { return work_.session; }
    [[nodiscard]] ActionList& actions() { return work_.actions; }
    [[nodiscard]] PlanView* plan() { return work_.plan; }
    [[nodiscard]] SceneView* scene() { return work_.scene; }
    [[nodiscard]] PromptLine* prompt() { return work_.prompt; }
    [[nodiscard]] StageBar* stageBar() { return work_.stageBar; }
    [[nodiscard]] Bench* bench() { return work_.bench; }
    [[nodiscard]] GradesPage* grades() { return work_.grades; }
    [[nodiscard]] ProfilePage* profile() { return work_.profile; }
    [[nodiscard]] FindingsPage* findings() { return work_.findings; }
    [[nodiscard]] TablesPage* tables() { return work_.tables; }
    [[nodiscard]] FitPage* fit() { return work_.fit; }
    [[nodiscard]] SlicePage* slice() { return work_.slice; }
    [[nodiscard]] VolumesPage* volumes() { return work_.volumes; }
    [[nodiscard]] TwinViews* views() { return work_.views; }
    [[nodiscard]] SheetPage* sheetPage() { return work_.sheetPage; }
    [[nodiscard]] Facts* facts() { return work_.facts; }
    [[nodiscard]] Contents* contents() { return work_.contents; }
    [[nodiscard]] Rack* rack() { return work_.rack; }
    [[nodiscard]] GuidePanel* guide() { return work_.guide; }
    [[nodiscard]] KeepingBar* keeping() { return work_.keeping; }

    [[nodiscard]] ProjectFiles& files() { return *files_; }
    [[nodiscard]] Imports& imports() { return *imports_; }
    [[nodiscard]] ObjectMenu& menu() { return *menu_; }
    [[nodiscard]] ToolInHand& inHand() { return *inHand_; }
    [[nodiscard]] Tool* tool();
    /// One of the sets by its class.
    template <class Set>
    [[nodiscard]] Set& commands() {
        for (const auto& set : sets_)
            if (auto* found = qobject_cast<Set*>(set.get())) return *found;
        Q_UNREACHABLE();
    }
    /// Everything drawn: results there, plan settled.
    void settle();

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;

private:
    void buildWindow();
    QWidget* buildMiddle();
    QWidget* buildRight();
    void buildBench();
    void buildStatusBar();
    void addCommands();
    void connectFrame();
    void connectBench();
    void restoreFrame();
    void keepFrame();
    /// Gives the bench the room that it takes now.
    void fitBench();
    void showProject(bool shown);
    void updateTitle();

    Workbench work_;
    std::unique_ptr<ToolInHand> inHand_;
    std::unique_ptr<ProjectFiles> files_;
    std::unique_ptr<Imports> imports_;
    std::unique_ptr<ObjectMenu> menu_;
    std::vector<std::unique_ptr<CommandSet>> sets_;  ///< in the order of the menus
    std::unique_ptr<WindowKeys> keys_;
    QStackedWidget* stack_ = nullptr;  ///< the start page, or the project
    QSplitter* columns_ = nullptr;     ///< rack, what is worked with, facts and contents
    QSplitter* rows_ = nullptr;        ///< views over prompt line and bench
    QSplitter* right_ = nullptr;       ///< facts over contents
    QWidget* lower_ = nullptr;         ///< prompt line and bench
    int benchHeight_ = 250;            ///< with the prompt line, while it is for the person to choose
};

}  // namespace erdwerk::app
