// The frame of the window: its panes and what they remember.

#include <QApplication>
#include <QSplitter>
#include <QStackedWidget>
#include <QStatusBar>
#include <QTimer>
#include <QToolButton>
#include <QVBoxLayout>

#include "app/base/open_project.h"
#include "app/base/remembered.h"
#include "app/base/theme.h"
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
#include "app/plan/plan_parts.h"
#include "app/plan/plan_view.h"
#include "app/sheet/sheet_page.h"
#include "app/window/cursor_line.h"
#include "app/window/guide_panel.h"
#include "app/window/keeping_bar.h"
#include "app/window/main_window.h"
#include "app/window/prompt_line.h"
#include "app/window/stage_bar.h"
#include "app/window/start_page.h"
#include "app/window/twin_views.h"

namespace erdwerk::app {

void MainWindow::buildWindow() {
    stack_ = new QStackedWidget;
    work_.start = new StartPage;
    auto* project = new QWidget;
    auto* column = new QVBoxLayout(project);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    work_.stageBar = new StageBar(work_.session);
    column->addWidget(work_.stageBar);
    work_.keeping = new KeepingBar(work_.session);
    column->addWidget(work_.keeping);
    columns_ = new QSplitter(Qt::Horizontal);
    columns_->setObjectName(QStringLiteral("columns"));
    work_.rack = new Rack(work_.actions, work_.session);
    work_.rack->setMinimumWidth(140);
    columns_->addWidget(work_.rack);
    columns_->addWidget(buildMiddle());
    columns_->addWidget(buildRight());
    columns_->setSizes({180, 844, 256});
    columns_->setStretchFactor(1, 1);
    columns_->setChildrenCollapsible(false);
    column->addWidget(columns_, 1);
    stack_->addWidget(work_.start);
    stack_->addWidget(project);
    setCentralWidget(stack_);
    buildStatusBar();
}

void MainWindow::buildStatusBar() {
    work_.partsMenu = new PartsMenu(work_.session, this);
    work_.shows = new QToolButton;
    work_.shows->setObjectName(QStringLiteral("planShows"));
    work_.shows->setText(tr("Plan shows ▾"));
    work_.shows->setToolTip(tr("Points, numbers, heights, contours …: what the plan shows (Ctrl+L)"));
    work_.shows->setAutoRaise(true);
    work_.shows->setPopupMode(QToolButton::InstantPopup);
    work_.shows->setMenu(work_.partsMenu);
    work_.shows->setStyleSheet(
        QStringLiteral("QToolButton { padding: 0 6px; } QToolButton::menu-indicator { image: none; }"));
    new CursorLine(work_, *statusBar());
}

QWidget* MainWindow::buildMiddle() {
    work_.views = new TwinViews(work_.session);
    work_.plan = work_.views->plan();
    work_.scene = work_.views->scene();
    work_.prompt = new PromptLine;
    buildBench();
    lower_ = new QWidget;
    auto* lowerColumn = new QVBoxLayout(lower_);
    lowerColumn->setContentsMargins(0, 0, 0, 0);
    lowerColumn->setSpacing(0);
    lowerColumn->addWidget(work_.prompt);
    lowerColumn->addWidget(work_.bench, 1);
    rows_ = new QSplitter(Qt::Vertical);
    rows_->setObjectName(QStringLiteral("rows"));
    work_.sheetPage = new SheetPage(work_.session);
    work_.middle = new QStackedWidget;
    work_.middle->addWidget(work_.views);
    work_.middle->addWidget(work_.sheetPage);
    rows_->addWidget(work_.middle);
    rows_->addWidget(lower_);
    rows_->setSizes({470, 236});
    rows_->setStretchFactor(0, 1);
    rows_->setChildrenCollapsible(false);
    return rows_;
}

QWidget* MainWindow::buildRight() {
    work_.facts = new Facts(work_.session);
    work_.contents = new Contents(work_.session);
    work_.guide = new GuidePanel;
    right_ = new QSplitter(Qt::Vertical);
    right_->setObjectName(QStringLiteral("right"));
    right_->addWidget(work_.facts);
    right_->addWidget(work_.contents);
    // Fourteen rows of contents and its filter.
    right_->setSizes({340, 340});
    right_->setChildrenCollapsible(false);
    work_.right = new QStackedWidget;
    work_.right->addWidget(right_);
    work_.right->addWidget(work_.guide);
    work_.right->setMinimumWidth(200);
    return work_.right;
}

void MainWindow::buildBench() {
    work_.bench = new Bench;
    work_.grades = new GradesPage(work_.session);
    work_.profile = new ProfilePage(work_.session);
    work_.findings = new FindingsPage(work_.session);
    work_.fit = new FitPage(work_.session);
    work_.slice = new SlicePage(work_.session);
    work_.volumes = new VolumesPage(work_.session);
    work_.tables = new TablesPage(work_.session);
    work_.history = new HistoryPage(work_.session);
    work_.bench->addPage(Bench::Page::Grades, work_.grades);
    work_.bench->addPage(Bench::Page::Profile, work_.profile);
    work_.bench->addPage(Bench::Page::Findings, work_.findings);
    work_.bench->addPage(Bench::Page::Fit, work_.fit);
    work_.bench->addPage(Bench::Page::Section, work_.slice);
    work_.bench->addPage(Bench::Page::Volumes, work_.volumes);
    work_.bench->addPage(Bench::Page::Tables, work_.tables);
    work_.bench->addPage(Bench::Page::History, work_.history);
}

void MainWindow::connectFrame() {
    connect(work_.bench, &Bench::roomChanged, this, &MainWindow::fitBench);
    connect(work_.bench, &Bench::roomChanged, this,
            [this] { remembered::setBenchFolded(work_.bench->isFolded()); });
    connect(rows_, &QSplitter::splitterMoved, this, [this] {
        if (!work_.bench->heightTaken()) benchHeight_ = rows_->sizes().value(1);
    });
    connect(work_.contents, &Contents::showObject, &work_, &Workbench::showObject);
    connect(work_.plan, &PlanView::typed, work_.prompt, &PromptLine::startEntry);
    connect(&work_.session, &Session::edited, work_.prompt, &PromptLine::forgetError);
    connect(&work_.session, &Session::documentChanged, this, &MainWindow::updateTitle);
    connect(&work_.session.project(), &OpenProject::savingChanged, this, &MainWindow::updateTitle);
    connect(&work_.session, &Session::opened, this, [this] { showProject(true); });
    connectBench();
}

void MainWindow::connectBench() {
    connect(&work_.session, &Session::resultsChanged, this, [this] {
        work_.bench->setCount(Bench::Page::Findings, work_.session.snapshot()->findings.size());
    });
    connect(work_.stageBar, &StageBar::stageChanged, this, [this](Stage stage) {
        work_.rack->setStage(stage);
        // The stage chooses the page on the bench, nothing else.
        if (stage == Stage::Shape) work_.bench->open(Bench::Page::Grades);
        if (stage == Stage::Route) work_.bench->open(Bench::Page::Profile);
        if (stage == Stage::Ground) work_.bench->open(Bench::Page::Findings);
        if (stage == Stage::Field || stage == Stage::Record) work_.bench->open(Bench::Page::Tables);
    });
    connect(work_.stageBar, &StageBar::findingsPressed, this, [this] {
        work_.bench->open(Bench::Page::Findings);
        work_.findings->list()->setFocus();
    });
    connect(work_.bench, &Bench::left, this, [this](Bench::Page page) {
        if (page == Bench::Page::Findings) work_.findings->lookedAt();
    });
    connect(work_.profile, &ProfilePage::newProfilePressed, this,
            [this] { work_.actions.run(QStringLiteral("profile")); });
}

void MainWindow::restoreFrame() {
    restoreGeometry(remembered::sizes(QStringLiteral("window")));
    for (auto* splitter : {columns_, right_})
        splitter->restoreState(remembered::sizes(splitter->objectName()));
    if (const int height = remembered::sizes(rows_->objectName()).toInt(); height > 0) benchHeight_ = height;
    work_.bench->setFolded(remembered::benchFolded());
    fitBench();
}

void MainWindow::keepFrame() {
    remembered::setSizes(QStringLiteral("window"), saveGeometry());
    remembered::setSizes(rows_->objectName(), QByteArray::number(benchHeight_));
    for (auto* splitter : {columns_, right_})
        remembered::setSizes(splitter->objectName(), splitter->saveState());
}

void MainWindow::fitBench() {
    // Not under a mouse that is being dragged.
    if (QApplication::mouseButtons() != Qt::NoButton && isVisible()) {
        QTimer::singleShot(60, this, &MainWindow::fitBench);
        return;
    }
    const int prompt = work_.prompt->sizeHint().height();
    const int all = rows_->height() > 400 ? rows_->height() : height() - 120;
    if (const auto taken = work_.bench->heightTaken()) {
        lower_->setFixedHeight(prompt + *taken);
        rows_->setSizes({std::max(160, all - prompt - *taken), prompt + *taken});
        return;
    }
    const int below = std::clamp(benchHeight_, prompt + 110, std::max(prompt + 110, all - 160));
    lower_->setMinimumHeight(prompt + 110);
    lower_->setMaximumHeight(QWIDGETSIZE_MAX);
    rows_->setSizes({all - below, below});
}

}  // namespace erdwerk::app
