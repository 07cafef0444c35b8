#include "app/window/main_window.h"

#include <QCloseEvent>
#include <QCoreApplication>
#include <QDragEnterEvent>
#include <QFileInfo>
#include <QMenuBar>
#include <QMimeData>
#include <QStackedWidget>
#include <QStatusBar>
#include <QThread>
#include "app/base/open_project.h"

#include "app/base/remembered.h"
#include "app/bench/slice_page.h"
#include "app/bench/volumes_page.h"
#include "app/panels/rack.h"
#include "app/plan/plan_view.h"
#include "app/sheet/sheet_canvas.h"
#include "app/sheet/sheet_page.h"
#include "app/window/commands/edit_commands.h"
#include "app/window/commands/field_commands.h"
#include "app/window/commands/file_commands.h"
#include "app/window/commands/ground_commands.h"
#include "app/window/commands/help_commands.h"
#include "app/window/commands/object_commands.h"
#include "app/window/commands/parcel_commands.h"
#include "app/window/commands/record_commands.h"
#include "app/window/commands/route_commands.h"
#include "app/window/commands/shape_commands.h"
#include "app/window/commands/sheet_commands.h"
#include "app/window/commands/tool_commands.h"
#include "app/window/commands/view_commands.h"
#include "app/window/imports.h"
#include "app/window/object_menu.h"
#include "app/window/project_files.h"
#include "app/window/start_page.h"
#include "app/window/tool_in_hand.h"
#include "app/window/twin_views.h"
#include "app/window/window_keys.h"
#include "app/window/window_menus.h"

namespace erdwerk::app {

MainWindow::MainWindow() : work_(this) {
    resize(1280, 800);
    setAcceptDrops(true);
    buildWindow();
    inHand_ = std::make_unique<ToolInHand>(work_);
    files_ = std::make_unique<ProjectFiles>(work_, *inHand_);
    imports_ = std::make_unique<Imports>(work_, *files_);
    menu_ = std::make_unique<ObjectMenu>(work_, *inHand_);
    addCommands();
    buildMenus(*menuBar(), work_.actions);
    keys_ = std::make_unique<WindowKeys>(*this, work_, *inHand_);
    connectFrame();
    work_.rack->setStage(Stage::Field);
    restoreFrame();
    showProject(false);
    work_.start->setLost(OpenProject::lostProjects());
    work_.start->setRecent(remembered::recentProjects());
    updateTitle();
}

MainWindow::~MainWindow() {
    keys_.reset();
    sets_.clear();
    menu_.reset();
    imports_.reset();
    files_.reset();
    inHand_.reset();
    // What is in the window goes before the session that it shows.
    delete takeCentralWidget();
}

void MainWindow::addCommands() {
    const auto add = [this](std::unique_ptr<CommandSet> set) { sets_.push_back(std::move(set)); };
    add(std::make_unique<FileCommands>(work_, *files_, *imports_));
    add(std::make_unique<EditCommands>(work_, *inHand_));
    add(std::make_unique<ViewCommands>(work_));
    add(std::make_unique<HelpCommands>(work_));
    add(std::make_unique<ObjectCommands>(work_));
    add(std::make_unique<FieldCommands>(work_, *imports_));
    add(std::make_unique<GroundCommands>(work_));
    add(std::make_unique<ShapeCommands>(work_));
    add(std::make_unique<RouteCommands>(work_));
    add(std::make_unique<RecordCommands>(work_));
    add(std::make_unique<ParcelCommands>(work_));
    add(std::make_unique<SheetCommands>(work_));
    add(std::make_unique<ToolCommands>(work_, *inHand_));
}

Tool* MainWindow::tool() {
    return inHand_->tool();
}

void MainWindow::showProject(bool shown) {
    stack_->setCurrentIndex(shown ? 1 : 0);
    statusBar()->setVisible(shown);
}

void MainWindow::updateTitle() {
    QString name =
        work_.session.isOpen() ? QString::fromStdString(work_.session.document().settings().name) : QString();
    if (work_.session.isOpen() && work_.session.project().isChanged()) name += QStringLiteral(" •");
    if (work_.session.project().isSaving()) name += tr("  –  saving…");
    if (work_.session.project().isReadOnly()) name += tr("  –  to look at only");
    if (!work_.session.project().path().isEmpty())
        name += QStringLiteral("  –  ") + QFileInfo(work_.session.project().path()).fileName();
    setWindowTitle(name.isEmpty() ? tr("Erdwerk") : name + tr("  –  Erdwerk"));
}

void MainWindow::settle() {
    do {
        work_.session.waitForResults();
        while (!work_.plan->settled() || !work_.views->second()->settled() || work_.volumes->isWorking() ||
               work_.slice->isWorking() ||
               (work_.sheetPage->isVisible() && !work_.sheetPage->canvas()->settled())) {
            QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
            QThread::msleep(1);
        }
        QCoreApplication::processEvents();
        // What was waiting for its turn (a file that was dropped) may have begun more.
    } while (work_.session.isWorking() || !work_.session.editing().isEmpty());
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!files_->askToSave()) {
        event->ignore();
        return;
    }
    if (work_.session.project().isSaving()) {
        work_.say(tr("Saving; the window closes when it is done"), false);
        work_.session.project().waitForSave();
        // It went wrong, or something was edited meanwhile.
        if (!files_->askToSave()) {
            event->ignore();
            return;
        }
    }
    keepFrame();
    work_.session.project().close(true);
    event->accept();
}

void MainWindow::dragEnterEvent(QDragEnterEvent* event) {
    const auto urls = event->mimeData()->urls();
    if (!urls.isEmpty() &&
        std::all_of(urls.begin(), urls.end(), [](const QUrl& u) { return u.isLocalFile(); }))
        event->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* event) {
    event->acceptProposedAction();
    QStringList paths;
    for (const QUrl& url : event->mimeData()->urls()) paths << url.toLocalFile();
    // What is asked turns the event loop: when the drop has ended.
    QMetaObject::invokeMethod(
        this,
        [this, paths] {
            for (const QString& path : paths) {
                remembered::setLastFile(path);
                imports_->take(path);
            }
        },
        Qt::QueuedConnection);
}

}  // namespace erdwerk::app

#include "moc_main_window.cpp"
