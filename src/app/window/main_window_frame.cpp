// The frame of the window: its panes, what they remember, and the keys that work in all of them.

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMenuBar>
#include <QPlainTextEdit>
#include <QStatusBar>
#include <QTimer>
#include <QVBoxLayout>

#include "app/base/remembered.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_parts.h"
#include "app/window/main_window.h"

namespace erdwerk::app {

void MainWindow::buildWindow() {
    stack_ = new QStackedWidget;
    start_ = new StartPage;
    auto* project = new QWidget;
    auto* column = new QVBoxLayout(project);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    stageBar_ = new StageBar(session_);
    column->addWidget(stageBar_);
    keeping_ = new KeepingBar(session_);
    column->addWidget(keeping_);
    columns_ = new QSplitter(Qt::Horizontal);
    columns_->setObjectName(QStringLiteral("columns"));
    rack_ = new Rack(actions_, session_);
    rack_->setMinimumWidth(140);
    columns_->addWidget(rack_);
    columns_->addWidget(buildMiddle());
    columns_->addWidget(buildRight());
    columns_->setSizes({180, 844, 256});
    columns_->setStretchFactor(1, 1);
    columns_->setChildrenCollapsible(false);
    column->addWidget(columns_, 1);
    stack_->addWidget(start_);
    stack_->addWidget(project);
    setCentralWidget(stack_);
    cursor_ = new QLabel;
    cursor_->setFont(theme::font(12));
    scale_ = new QLabel;
    scale_->setContentsMargins(0, 0, 10, 0);
    cursor_->setContentsMargins(8, 0, 0, 0);
    statusBar()->addWidget(cursor_, 1);
    partsMenu_ = new PartsMenu(session_, this);
    shows_ = new QToolButton;
    shows_->setObjectName(QStringLiteral("planShows"));
    shows_->setText(tr("Plan shows ▾"));
    shows_->setToolTip(tr("Points, numbers, heights, contours …: what the plan shows (Ctrl+L)"));
    shows_->setAutoRaise(true);
    shows_->setPopupMode(QToolButton::InstantPopup);
    shows_->setMenu(partsMenu_);
    shows_->setStyleSheet(
        QStringLiteral("QToolButton { padding: 0 6px; } QToolButton::menu-indicator { image: none; }"));
    statusBar()->addPermanentWidget(shows_);
    statusBar()->addPermanentWidget(scale_);
    statusBar()->setSizeGripEnabled(false);
}

QWidget* MainWindow::buildMiddle() {
    views_ = new TwinViews(session_);
    plan_ = views_->plan();
    scene_ = views_->scene();
    prompt_ = new PromptLine;
    buildBench();
    lower_ = new QWidget;
    auto* lowerColumn = new QVBoxLayout(lower_);
    lowerColumn->setContentsMargins(0, 0, 0, 0);
    lowerColumn->setSpacing(0);
    lowerColumn->addWidget(prompt_);
    lowerColumn->addWidget(bench_, 1);
    rows_ = new QSplitter(Qt::Vertical);
    rows_->setObjectName(QStringLiteral("rows"));
    sheetPage_ = new SheetPage(session_);
    middle_ = new QStackedWidget;
    middle_->addWidget(views_);
    middle_->addWidget(sheetPage_);
    rows_->addWidget(middle_);
    rows_->addWidget(lower_);
    rows_->setSizes({470, 236});
    rows_->setStretchFactor(0, 1);
    rows_->setChildrenCollapsible(false);
    return rows_;
}

QWidget* MainWindow::buildRight() {
    facts_ = new Facts(session_);
    contents_ = new Contents(session_);
    guide_ = new GuidePanel;
    right_ = new QSplitter(Qt::Vertical);
    right_->setObjectName(QStringLiteral("right"));
    right_->addWidget(facts_);
    right_->addWidget(contents_);
    // Fourteen rows of contents and its filter.
    right_->setSizes({340, 340});
    right_->setChildrenCollapsible(false);
    rightStack_ = new QStackedWidget;
    rightStack_->addWidget(right_);
    rightStack_->addWidget(guide_);
    rightStack_->setMinimumWidth(200);
    return rightStack_;
}

void MainWindow::connectFrame() {
    connect(bench_, &Bench::roomChanged, this, &MainWindow::fitBench);
    connect(bench_, &Bench::roomChanged, this, [this] { remembered::setBenchFolded(bench_->isFolded()); });
    connect(rows_, &QSplitter::splitterMoved, this, [this] {
        if (!bench_->heightTaken()) benchHeight_ = rows_->sizes().value(1);
    });
    connect(guide_, &GuidePanel::closed, this, [this] { showGuide(false); });
    connectSheets();
    connect(plan_, &PlanView::menuWanted, this, &MainWindow::showMenu);
    connect(contents_, &Contents::menuWanted, this, [this](QPoint at) { showMenu(at, std::nullopt); });
    connect(scene_, &SceneView::menuWanted, this, [this](QPoint at, std::optional<geometry::Vec2> place) {
        std::optional<Ref> under;
        if (place) {
            ViewTransform view;
            view.centre = *place;
            view.scale = scene_->planView().scale;
            view.size = QSizeF(100, 100);
            const auto found = snapsAt(*session_.snapshot(), view, planLayers(), QPointF(50, 50), 9);
            if (!found.empty()) under = found.front().ref;
        }
        showMenu(at, under);
    });
}

void MainWindow::restoreFrame() {
    restoreGeometry(remembered::sizes(QStringLiteral("window")));
    for (auto* splitter : {columns_, right_})
        splitter->restoreState(remembered::sizes(splitter->objectName()));
    if (const int height = remembered::sizes(rows_->objectName()).toInt(); height > 0) benchHeight_ = height;
    bench_->setFolded(remembered::benchFolded());
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
    const int prompt = prompt_->sizeHint().height();
    const int all = rows_->height() > 400 ? rows_->height() : height() - 120;
    if (const auto taken = bench_->heightTaken()) {
        lower_->setFixedHeight(prompt + *taken);
        rows_->setSizes({std::max(160, all - prompt - *taken), prompt + *taken});
        return;
    }
    const int below = std::clamp(benchHeight_, prompt + 110, std::max(prompt + 110, all - 160));
    lower_->setMinimumHeight(prompt + 110);
    lower_->setMaximumHeight(QWIDGETSIZE_MAX);
    rows_->setSizes({all - below, below});
}

void MainWindow::showGuide(bool shown) {
    if (shown) guide_->openAt(stageBar_->stage());
    rightStack_->setCurrentIndex(shown ? 1 : 0);
    if (!shown) plan_->setFocus();
}

// ---- keys

namespace {

/// Whether what has the focus takes letters for itself.
bool takesText(const QWidget* widget) {
    if (const auto* edit = qobject_cast<const QLineEdit*>(widget)) return !edit->isReadOnly();
    if (const auto* edit = qobject_cast<const QPlainTextEdit*>(widget)) return !edit->isReadOnly();
    if (qobject_cast<const QAbstractSpinBox*>(widget) != nullptr) return true;
    if (const auto* box = qobject_cast<const QComboBox*>(widget)) return box->isEditable();
    // Tables begin to edit, lists of findings have keys of their own; contents finds nothing by letters.
    return qobject_cast<const QAbstractItemView*>(widget) != nullptr &&
           widget->objectName() != QStringLiteral("contentsTree");
}

}  // namespace

bool MainWindow::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::MouseButtonPress && watched == plan_) prompt_->stepTaken();
    if (event->type() == QEvent::KeyPress) {
        auto* widget = qobject_cast<QWidget*>(watched);
        if (widget != nullptr && widget->window() == this &&
            static_cast<QKeyEvent*>(event)->key() == Qt::Key_F10) {
            menuBar()->setFocus();
            menuBar()->setActiveAction(menuBar()->actions().constFirst());
            return true;
        }
        if (widget != nullptr && widget->window() == this && stack_->currentIndex() == 1 &&
            !takesText(widget) && (widget == focusWidget() || widget == plan_) &&
            keyPressed(static_cast<QKeyEvent*>(event)))
            return true;
    }
    return QMainWindow::eventFilter(watched, event);
}

bool MainWindow::keyPressed(QKeyEvent* event) {
    const int key = event->key();
    prompt_->stepTaken();
    const bool inPlan = plan_->hasFocus() || !isActiveWindow();
    if (key == Qt::Key_Escape) {
        if (profile_->section()->isAdding())
            profile_->section()->setAdding(false);
        else if (tool_ && !tool_->escape())
            endTool();
        else if (tool_)
            return true;
        else if (!leaveSheet())
            session_.select({});
        return true;
    }
    if (tool_ && key == Qt::Key_Backspace) {
        tool_->stepBack();
        return true;
    }
    if (tool_ && inPlan && (key == Qt::Key_Return || key == Qt::Key_Enter)) {
        tool_->complete();
        return true;
    }
    if (event->modifiers() == Qt::NoModifier && key >= Qt::Key_A && key <= Qt::Key_Z) {
        // While a tool runs that takes typed text, letters go there.
        if (tool_ && !tool_->entryHint().isEmpty()) return false;
        if (const Action* a = actions_.byLetter(stageBar_->stage(), event->text())) {
            actions_.run(a->id);
            return true;
        }
    }
    return false;
}

}  // namespace erdwerk::app
