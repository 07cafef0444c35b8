#include "app/window/main_window.h"

#include <QApplication>
#include <QCloseEvent>
#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QMessageBox>
#include <QStatusBar>
#include <QThread>

#include "app/base/remembered.h"
#include "app/kinds/all_kinds.h"
#include "app/window/recovery_dialog.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

QString demoFolder() {
    QDir folder(QCoreApplication::applicationDirPath());
    if (folder.exists(QStringLiteral("../share/erdwerk/demo")))
        return folder.filePath(QStringLiteral("../share/erdwerk/demo"));
    do {
        if (folder.exists(QStringLiteral("data/demo/quillmoor.erdwerk")))
            return folder.filePath(QStringLiteral("data/demo"));
    } while (folder.cdUp());
    return {};
}

MainWindow::MainWindow() {
    resize(1280, 800);
    setAcceptDrops(true);
    buildWindow();
    buildActions();
    buildMenus();
    connectViews();
    connectFrame();
    rack_->setStage(Stage::Field);
    restoreFrame();
    showProject(false);
    start_->setLost(Session::lostProjects());
    start_->setRecent(remembered::recentProjects());
    updateTitle();
}

MainWindow::~MainWindow() {
    qApp->removeEventFilter(this);
    plan_->setTool(nullptr);
    // What is in the window goes before the session that it shows.
    delete takeCentralWidget();
}

void MainWindow::buildBench() {
    bench_ = new Bench;
    grades_ = new GradesPage(session_);
    profile_ = new ProfilePage(session_);
    findings_ = new FindingsPage(session_);
    fit_ = new FitPage(session_);
    slice_ = new SlicePage(session_);
    volumes_ = new VolumesPage(session_);
    tables_ = new TablesPage(session_);
    history_ = new HistoryPage(session_);
    bench_->addPage(Bench::Page::Grades, grades_);
    bench_->addPage(Bench::Page::Profile, profile_);
    bench_->addPage(Bench::Page::Findings, findings_);
    bench_->addPage(Bench::Page::Fit, fit_);
    bench_->addPage(Bench::Page::Section, slice_);
    bench_->addPage(Bench::Page::Volumes, volumes_);
    bench_->addPage(Bench::Page::Tables, tables_);
    bench_->addPage(Bench::Page::History, history_);
}

void MainWindow::connectViews() {
    connect(&actions_, &ActionList::refused, this, [this](const QString& reason) { say(reason, true); });
    connect(&session_, &Session::message, this, &MainWindow::say);
    connect(&session_, &Session::documentChanged, this, &MainWindow::updateTitle);
    connect(&session_, &Session::edited, prompt_, &PromptLine::forgetError);
    connect(&session_, &Session::savingChanged, this, &MainWindow::updateTitle);
    connect(&session_, &Session::opened, this, [this] {
        // What a tool had begun belongs to the project before.
        dropTool();
        fitPending_ = true;
        showProject(true);
    });
    connect(&session_, &Session::resultsChanged, this, [this] {
        if (fitPending_ && plan_->width() > 100) {
            fitPending_ = false;
            plan_->fit();
        }
    });
    connect(plan_, &PlanView::cursorMoved, this, &MainWindow::updateCursor);
    connect(plan_, &PlanView::viewChanged, this, [this] { updateCursor(std::nullopt); });
    connect(plan_, &PlanView::typed, prompt_, &PromptLine::startEntry);
    connect(plan_, &PlanView::deletePressed, this, &MainWindow::deleteSelection);
    connect(contents_, &Contents::deletePressed, this, &MainWindow::deleteSelection);
    connect(contents_, &Contents::showObject, this, &MainWindow::showObject);
    connect(prompt_, &PromptLine::completed, this, [this] {
        if (tool_) tool_->complete();
    });
    connect(prompt_, &PromptLine::left, this, &MainWindow::endTool);
    qApp->installEventFilter(this);
    connectBench();
    connectStart();
    connectKeeping();
    connectGroundPages();
}

void MainWindow::connectBench() {
    connect(&session_, &Session::resultsChanged, this,
            [this] { bench_->setCount(Bench::Page::Findings, session_.snapshot()->findings.size()); });
    connect(stageBar_, &StageBar::stageChanged, this, [this](Stage stage) {
        rack_->setStage(stage);
        // The stage chooses the page on the bench, nothing else.
        if (stage == Stage::Shape) bench_->open(Bench::Page::Grades);
        if (stage == Stage::Route) bench_->open(Bench::Page::Profile);
        if (stage == Stage::Ground) bench_->open(Bench::Page::Findings);
        if (stage == Stage::Field || stage == Stage::Record) bench_->open(Bench::Page::Tables);
    });
    connect(stageBar_, &StageBar::findingsPressed, this, [this] {
        bench_->open(Bench::Page::Findings);
        findings_->list()->setFocus();
    });
    connect(bench_, &Bench::left, this, [this](Bench::Page page) {
        if (page == Bench::Page::Findings) findings_->lookedAt();
    });
    connect(profile_, &ProfilePage::newProfilePressed, this,
            [this] { actions_.run(QStringLiteral("profile")); });
}

void MainWindow::connectStart() {
    connect(start_, &StartPage::demoPressed, this, &MainWindow::showDemo);
    connect(start_, &StartPage::openPressed, this, [this] { actions_.run(QStringLiteral("open")); });
    connect(start_, &StartPage::emptyPressed, this, [this] { session_.startNew({}); });
    connect(start_, &StartPage::recentPressed, this, [this](const QString& path) { openProject(path); });
    connect(start_, &StartPage::newFromSurveyPressed, this,
            [this] { actions_.run(QStringLiteral("new-from-survey")); });
    connect(start_, &StartPage::recoverPressed, this, [this](const QString& base) {
        if (auto done = session_.recoverLost(base); !done)
            QMessageBox::warning(this, tr("Not recovered"), QString::fromStdString(done.error().message()));
        else if (!session_.recovery().problem.empty())
            showRecovery();
    });
}

void MainWindow::connectKeeping() {
    connect(&session_, &Session::saved, this, [this](const QString& path) {
        remembered::addRecentProject(path);
        start_->setRecent(remembered::recentProjects());
        say(tr("Saved to %1").arg(QFileInfo(path).fileName()), false);
    });
    connect(keeping_, &KeepingBar::saveElsewherePressed, this, [this] { saveAside(true); });
    connect(keeping_, &KeepingBar::copyPressed, this, [this] { session_.workOnCopy(); });
    connect(keeping_, &KeepingBar::takeOverPressed, this, [this] { openProject(session_.path()); });
}

void MainWindow::showRecovery() {
    auto* dialog = new RecoveryDialog(session_.recovery(), this);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->show();
}

void MainWindow::showObject(ObjectId id) {
    if (session_.document().get<objects::Sheet>(id) != nullptr) {
        sheetPage_->open(id);
        return showSheets(true);
    }
    showSheets(false);
    geometry::Box box;
    if (const auto object = session_.derived().document.find(id))
        kindOf(*object).bounds(session_.derived(), id, box);
    if (!box.empty()) plan_->fitTo(box.grown(box.width() < 1 ? 10 : 0));
}

void MainWindow::showProject(bool shown) {
    stack_->setCurrentIndex(shown ? 1 : 0);
    statusBar()->setVisible(shown);
}

void MainWindow::updateTitle() {
    QString name =
        session_.isOpen() ? QString::fromStdString(session_.document().settings().name) : QString();
    if (session_.isOpen() && session_.isChanged()) name += QStringLiteral(" •");
    if (session_.isSaving()) name += tr("  –  saving…");
    if (session_.isReadOnly()) name += tr("  –  to look at only");
    if (!session_.path().isEmpty()) name += QStringLiteral("  –  ") + QFileInfo(session_.path()).fileName();
    setWindowTitle(name.isEmpty() ? tr("Erdwerk") : name + tr("  –  Erdwerk"));
}

void MainWindow::updateCursor(const std::optional<geometry::Vec2>& place) {
    const auto& display = session_.document().settings().display;
    QString text;
    if (place) {
        text = QString::fromStdString(formatPosition(place->x, place->y, display));
        const auto* surface = session_.derived().topSurface(*place);
        if (surface != nullptr) {
            const auto slope = terrain::slopeOf(surface->tin().triangle(*surface->triangleAt(*place)));
            text +=
                tr("     height %1     grade %2     downhill %3")
                    .arg(QString::fromStdString(formatHeight(surface->heightAt(*place), display)),
                         QString::fromStdString(formatGrade(Grade::riseOverRun(slope.grade), display)),
                         slope.grade > 0 ? QString::fromStdString(formatDirection(slope.downhill, display))
                                         : tr("flat"));
        } else {
            text += tr("     no surface here");
        }
    }
    cursor_->setText(text);
    // Screens have about 96 pixels an inch; the figure is what the plan would be on paper.
    const double metresPerPixel = metresPer(display.unit) / std::max(plan_->view().scale, 1e-9);
    scale_->setText(tr("about 1 : %1   %2")
                        .arg(static_cast<qlonglong>(metresPerPixel / 0.0254 * 96))
                        .arg(QString::fromUtf8(unitSymbol(display.unit).data())));
}

void MainWindow::say(const QString& text, bool isError) {
    prompt_->showMessage(text, isError);
}

// ---- tools

void MainWindow::setTool(std::unique_ptr<Tool> tool, const QString& actionId) {
    // What the tool before had finished is kept, unless it ends by itself.
    if (tool_ && !leaving_) {
        leaving_ = true;
        tool_->leave();
        leaving_ = false;
    }
    // Tools work in the plan.
    if (tool) showSheets(false);
    replaceTool(std::move(tool), actionId);
}

void MainWindow::dropTool() {
    replaceTool(nullptr, {});
}

void MainWindow::replaceTool(std::unique_ptr<Tool> tool, const QString& actionId) {
    plan_->setTool(nullptr);
    prompt_->setTool(nullptr);
    // The tool may be ending itself: it goes when it has returned.
    if (tool_) tool_.release()->deleteLater();
    tool_ = std::move(tool);
    rack_->setActive(actionId);
    showToolTable();
    if (!tool_) return;
    connect(tool_.get(), &Tool::tableChanged, this, &MainWindow::showToolTable);
    connect(tool_.get(), &Tool::finished, this, [this, t = tool_.get()] {
        if (tool_.get() == t) endTool();
    });
    connect(tool_.get(), &Tool::made, this, &MainWindow::showMade);
    prompt_->setTool(tool_.get());
    plan_->setTool(tool_.get());
    plan_->setFocus();
}

void MainWindow::showToolTable() {
    auto table = tool_ ? tool_->table() : std::nullopt;
    if (table && !pageBefore_) {
        pageBefore_ = bench_->page();
        bench_->open(Bench::Page::Tables);
    }
    const bool ended = !table && pageBefore_;
    if (table || ended) tables_->setToolTable(std::move(table));
    if (!ended) return;
    // Back to where the person was, unless another page was opened meanwhile.
    if (bench_->page() == Bench::Page::Tables) bench_->open(*pageBefore_);
    pageBefore_.reset();
}

void MainWindow::endTool() {
    setTool(nullptr);
}

void MainWindow::undo() {
    // Inside a tool the last step of the tool comes first.
    if (tool_ && tool_->stepBack()) return;
    session_.undo();
}

void MainWindow::redo() {
    if (tool_ && tool_->stepForward()) return;
    session_.redo();
}

void MainWindow::showTwin(bool on) {
    views_->setTwin(on ? TwinViews::Twin::Scene : TwinViews::Twin::None);
}

void MainWindow::settle() {
    session_.waitForResults();
    while (!plan_->settled() || !views_->second()->settled() || volumes_->isWorking() ||
           slice_->isWorking() || (sheetPage_->isVisible() && !sheetPage_->canvas()->settled())) {
        QCoreApplication::processEvents(QEventLoop::AllEvents, 10);
        QThread::msleep(1);
    }
    QCoreApplication::processEvents();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    if (!askToSave()) {
        event->ignore();
        return;
    }
    if (session_.isSaving()) {
        say(tr("Saving; the window closes when it is done"), false);
        session_.waitForSave();
        // It went wrong, or something was edited meanwhile.
        if (!askToSave()) {
            event->ignore();
            return;
        }
    }
    keepFrame();
    session_.close(true);
    event->accept();
}

bool MainWindow::askToSave() {
    endTool();
    if (!session_.isOpen() || !session_.isChanged() || session_.isSaving()) return true;
    const auto answer =
        QMessageBox::question(this, tr("Save changes?"),
                              tr("%1 has changes that are not saved.")
                                  .arg(QString::fromStdString(session_.document().settings().name)),
                              QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel);
    if (answer == QMessageBox::Save) return save(false);
    return answer == QMessageBox::Discard;
}

}  // namespace erdwerk::app
