#pragma once
// What the window holds, by name, for those who work on it: the open project, the list of actions, the views
// and pages; and the few things that most of them do. It builds nothing and knows no command.

#include <QObject>
#include <QString>
#include <functional>
#include <vector>

#include "app/base/actions.h"
#include "app/base/session.h"

class QWidget;
class QStackedWidget;
class QToolButton;

namespace erdwerk::app {

class Bench;
class Contents;
class Facts;
class FindingsPage;
class FitPage;
class GradesPage;
class GuidePanel;
class HistoryPage;
class KeepingBar;
class PartsMenu;
class PlanView;
class ProfilePage;
class PromptLine;
class Rack;
class SceneView;
class SheetPage;
class SlicePage;
class StageBar;
class StartPage;
class TablesPage;
class TwinViews;
class VolumesPage;

class Workbench : public QObject {
    Q_OBJECT
public:
    explicit Workbench(QWidget* window);

    QWidget* const window;  ///< the parent of dialogs
    Session session;
    ActionList actions;

    // Made by the window before anybody else sees them; they belong to it.
    StartPage* start = nullptr;
    StageBar* stageBar = nullptr;
    KeepingBar* keeping = nullptr;
    Rack* rack = nullptr;
    TwinViews* views = nullptr;
    PlanView* plan = nullptr;
    SceneView* scene = nullptr;
    SheetPage* sheetPage = nullptr;
    QStackedWidget* middle = nullptr;  ///< the views, or a sheet
    PromptLine* prompt = nullptr;
    Bench* bench = nullptr;
    GradesPage* grades = nullptr;
    ProfilePage* profile = nullptr;
    FindingsPage* findings = nullptr;
    FitPage* fit = nullptr;
    SlicePage* slice = nullptr;
    VolumesPage* volumes = nullptr;
    TablesPage* tables = nullptr;
    HistoryPage* history = nullptr;
    Facts* facts = nullptr;
    Contents* contents = nullptr;
    GuidePanel* guide = nullptr;
    QStackedWidget* right = nullptr;  ///< facts and contents, or the guide
    PartsMenu* partsMenu = nullptr;   ///< what the plan shows
    QToolButton* shows = nullptr;     ///< opens it

    /// In the prompt line.
    void say(const QString& text, bool isError);
    /// What became of a file that was to be written; no path: of a print.
    void report(const Result<void>& done, const QString& path);
    [[nodiscard]] QString nameOf(ObjectId id) const;
    /// The name of one, or how many.
    [[nodiscard]] QString namesOf(const std::vector<ObjectId>& ids) const;
    /// Those of which anything is selected, each once.
    [[nodiscard]] std::vector<ObjectId> selectedObjects() const;
    /// Does an edit and selects what it made.
    std::vector<ObjectId> editAndSelectNew(const QString& what, const document::Edit& edit);
    /// Selects new objects and opens the page that shows them.
    void showMade(const std::vector<ObjectId>& made);
    /// As large as it fits, in the plan; a sheet in its place.
    void showObject(ObjectId id);
    void showSelected();
    /// Sheets in the plan's place, or the plan again.
    void showSheets(bool shown);
    /// One step out of a sheet (what Esc does); false when none is shown.
    bool leaveSheet();
    /// The sheet that is selected, the one that is looked at, or the only one; none.
    [[nodiscard]] ObjectId sheetInHand() const;
    /// The plan shows everything as soon as the next results are there.
    void fitWhenShown() { fitPending_ = true; }

private:
    bool fitPending_ = false;
};

}  // namespace erdwerk::app
