#pragma once
// The window: stage bar; rack, plan and twin view, with prompt line and bench below; facts and contents.

#include <QLabel>
#include <QMainWindow>
#include <QSplitter>
#include <QStackedWidget>
#include <QToolButton>
#include <memory>

#include "app/base/actions.h"
#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "app/bench/bench.h"
#include "app/bench/findings_page.h"
#include "app/bench/fit_page.h"
#include "app/bench/grades_page.h"
#include "app/bench/history_page.h"
#include "app/bench/profile_page.h"
#include "app/bench/slice_page.h"
#include "app/bench/tables_page.h"
#include "app/bench/volumes_page.h"
#include "app/panels/contents.h"
#include "app/panels/facts.h"
#include "app/panels/rack.h"
#include "app/plan/plan_view.h"
#include "app/scene/scene_view.h"
#include "app/sheet/sheet_batch.h"
#include "app/sheet/sheet_page.h"
#include "app/tools/all_tools.h"
#include "app/window/guide_panel.h"
#include "app/window/keeping_bar.h"
#include "app/window/prompt_line.h"
#include "app/window/stage_bar.h"
#include "app/window/start_page.h"
#include "app/window/twin_views.h"
#include "core/format/export.h"
#include "core/operations/dense.h"

class QPrinter;

namespace erdwerk::app {

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;

    [[nodiscard]] Session& session() { return session_; }
    [[nodiscard]] ActionList& actions() { return actions_; }
    [[nodiscard]] PlanView* plan() { return plan_; }
    [[nodiscard]] SceneView* scene() { return scene_; }
    [[nodiscard]] PromptLine* prompt() { return prompt_; }
    [[nodiscard]] StageBar* stageBar() { return stageBar_; }
    [[nodiscard]] Bench* bench() { return bench_; }
    [[nodiscard]] GradesPage* grades() { return grades_; }
    [[nodiscard]] ProfilePage* profile() { return profile_; }
    [[nodiscard]] FindingsPage* findings() { return findings_; }
    [[nodiscard]] TablesPage* tables() { return tables_; }
    [[nodiscard]] FitPage* fit() { return fit_; }
    [[nodiscard]] SlicePage* slice() { return slice_; }
    [[nodiscard]] VolumesPage* volumes() { return volumes_; }
    [[nodiscard]] TwinViews* views() { return views_; }
    [[nodiscard]] Facts* facts() { return facts_; }
    [[nodiscard]] Contents* contents() { return contents_; }
    [[nodiscard]] Rack* rack() { return rack_; }
    [[nodiscard]] GuidePanel* guide() { return guide_; }
    [[nodiscard]] Tool* tool() { return tool_.get(); }

    /// False (with a message shown) when it cannot be opened.
    bool openProject(const QString& path);
    bool openDemo();
    /// The demo with something worth seeing in hand: Ground, 3D beside the plan, a line and its grades.
    bool showDemo();
    /// `asNew`: into a project of its own, once the preview is agreed to.
    bool importSurvey(const QString& path, bool asNew = false);
    void readOffsetSet(const QString& path);
    void readPointsByStation();
    void importLines(const QString& path);
    /// A cloud, or a raster of heights or a picture.
    void importDense(const QString& path, bool cloud);
    bool exportTo(const QString& path, format::Figures figures = format::Figures::AsShown);
    /// Whatever it is, as when it is dropped on the window.
    bool takeFile(const QString& path);
    /// The pages for a printer: the selected or only sheet true to scale, else what the plan shows.
    Result<void> printTo(QPrinter& printer);
    /// Writes sheets while the window goes on; says when it is done.
    void writeSheetsAside(const QString& path, std::vector<ObjectId> sheets);
    /// Into the project, as title block or picture; false after a message.
    bool takeArtwork(const QString& path);
    [[nodiscard]] SheetPage* sheetPage() { return sheetPage_; }
    [[nodiscard]] SheetBatch* batch() { return batch_.get(); }
    void setTool(std::unique_ptr<Tool> tool, const QString& actionId = {});
    void showTwin(bool on);
    /// Saves and waits for it.
    bool save(bool askName);
    [[nodiscard]] KeepingBar* keeping() { return keeping_; }
    /// What can be done with the selection: the actions that suit it. The caller shows and deletes it.
    [[nodiscard]] QMenu* menuOfSelection();
    /// Shows a thing that lies under the cursor as selected, and its menu.
    void showMenu(QPoint at, std::optional<Ref> under);
    void showGuide(bool shown);
    /// Everything drawn: results there, plan settled.
    void settle();

protected:
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void buildWindow();
    QWidget* buildMiddle();
    QWidget* buildRight();
    void connectFrame();
    void restoreFrame();
    void keepFrame();
    /// Gives the bench the room that it takes now.
    void fitBench();
    bool keyPressed(QKeyEvent* event);
    void addToolItems(QMenu& menu);
    void addObjectItems(QMenu& menu, const objects::Object& object);
    void buildActions();
    void command(const char* id, const QString& text, const QString& help, const QIcon& icon,
                 const QString& menu, const QKeySequence& key, std::function<void()> run,
                 std::function<QString()> whyNot = {});
    void openCommands();
    void printCommand();
    void fileCommands();
    void editCommands();
    void viewCommands();
    void pageCommands();
    void objectCommands();
    void offerCommands();
    void fieldCommands();
    void denseCommands();
    void groundCommands();
    void shapeCommands();
    void routeCommands();
    void criteriaCommands();
    void stationCommands();
    void tiedPointCommands();
    [[nodiscard]] std::optional<ObjectId> oneAlignment() const;
    [[nodiscard]] std::vector<geometry::Vec2> pickedPoints() const;
    void profileThroughPoints();
    void writeProfileDrawing();
    void writeProfileTable();
    void recordCommands();
    void showLabelStyle();
    void showDimensionStyle();
    /// The one behind that which is selected, or the first.
    void selectNext(const std::vector<ObjectId>& ids);
    void newTable();
    void parcelCommands();
    [[nodiscard]] ObjectId oneParcel() const;
    void readBack(const QString& name, const QString& text);
    void exportDescription();
    void exportClosure();
    void surfaceFromDense();
    void exportSurface();
    void connectGroundPages();
    void report(const Result<void>& done, const QString& path);
    void buildMenus();
    void connectViews();
    void connectBench();
    void connectStart();
    void connectKeeping();
    void buildBench();
    void showRecovery();
    void updateTitle();
    void updateCursor(const std::optional<geometry::Vec2>& place);
    void showProject(bool shown);
    void endTool();
    void dropTool();
    void replaceTool(std::unique_ptr<Tool> tool, const QString& actionId);
    void showToolTable();
    void showObject(ObjectId id);
    void undo();
    void redo();
    /// The set of the selected survey points, and which of them.
    [[nodiscard]] std::vector<std::size_t> selectedPoints(ObjectId& set) const;
    /// Does an edit and selects what it made.
    std::vector<ObjectId> editAndSelectNew(const QString& what, const document::Edit& edit);
    [[nodiscard]] QString nameOf(ObjectId id) const;
    /// Selects new objects and opens the page that shows them.
    void showMade(const std::vector<ObjectId>& made);
    /// The name of one, or how many.
    [[nodiscard]] QString namesOf(const std::vector<ObjectId>& ids) const;
    void showSelected();
    void renameSelected();
    void notImported(const QString& why);
    /// Reads a file into the project, aside.
    void readIn(const QString& path, document::LongEdit read);
    void connectPoints(bool byCode);
    void newSurface();
    void deleteSelection();
    void sheetCommands();
    void frameCommands();
    void connectSheets();
    /// Sheets in the plan's place, or the plan again.
    void showSheets(bool shown);
    bool leaveSheet();
    /// The selected one, the one that is looked at, or the only one; none.
    [[nodiscard]] ObjectId sheetInHand() const;
    void openSheet();
    void newSheet();
    void sheetsAlong();
    void addFrame(const std::string& kind);
    void showFrameInPlan(std::size_t frame);
    void writeTitleBlock();
    void exportSheet();
    [[nodiscard]] bool askToSave();
    /// Where to save to; asks when it has no name yet, or `askName`. Empty: not at all.
    [[nodiscard]] QString pathToSave(bool askName);
    /// Starts saving; the window goes on.
    void saveAside(bool askName);
    void say(const QString& text, bool isError);

    Session session_;
    ActionList actions_;
    std::unique_ptr<Tool> tool_;
    std::optional<Bench::Page> pageBefore_;  ///< of the bench, while it shows what the tool is about to do
    QStackedWidget* stack_ = nullptr;
    StartPage* start_ = nullptr;
    StageBar* stageBar_ = nullptr;
    Rack* rack_ = nullptr;
    Contents* contents_ = nullptr;
    PlanView* plan_ = nullptr;
    SceneView* scene_ = nullptr;
    TwinViews* views_ = nullptr;
    SheetPage* sheetPage_ = nullptr;
    QStackedWidget* middle_ = nullptr;  ///< the views, or a sheet
    std::unique_ptr<SheetBatch> batch_;
    Facts* facts_ = nullptr;
    PromptLine* prompt_ = nullptr;
    Bench* bench_ = nullptr;
    KeepingBar* keeping_ = nullptr;
    GradesPage* grades_ = nullptr;
    ProfilePage* profile_ = nullptr;
    FindingsPage* findings_ = nullptr;
    TablesPage* tables_ = nullptr;
    FitPage* fit_ = nullptr;
    SlicePage* slice_ = nullptr;
    VolumesPage* volumes_ = nullptr;
    HistoryPage* history_ = nullptr;
    GuidePanel* guide_ = nullptr;
    QSplitter* columns_ = nullptr;  ///< rack, what is worked with, facts and contents
    QSplitter* rows_ = nullptr;     ///< views over prompt line and bench
    QSplitter* right_ = nullptr;    ///< facts over contents
    QMenu* partsMenu_ = nullptr;    ///< what the plan shows
    QWidget* lower_ = nullptr;      ///< prompt line and bench
    QStackedWidget* rightStack_ = nullptr;
    int benchHeight_ = 250;  ///< with the prompt line, while it is for the person to choose
    QLabel* cursor_ = nullptr;
    QLabel* scale_ = nullptr;
    QToolButton* shows_ = nullptr;  ///< opens the list of what the plan shows
    bool fitPending_ = false;
    bool leaving_ = false;
};

/// The folder with the demo's files: beside the installed program, or in the source tree above it.
QString demoFolder();

}  // namespace erdwerk::app
