#include "app/window/window_keys.h"

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QApplication>
#include <QComboBox>
#include <QKeyEvent>
#include <QLineEdit>
#include <QMainWindow>
#include <QMenuBar>
#include <QPlainTextEdit>

#include "app/bench/profile_page.h"
#include "app/plan/plan_view.h"
#include "app/plan/tool.h"
#include "app/window/prompt_line.h"
#include "app/window/stage_bar.h"
#include "app/window/tool_in_hand.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

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

WindowKeys::WindowKeys(QMainWindow& window, Workbench& work, ToolInHand& inHand)
    : window_(window), work_(work), inHand_(inHand) {
    qApp->installEventFilter(this);
}

WindowKeys::~WindowKeys() {
    qApp->removeEventFilter(this);
}

bool WindowKeys::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::MouseButtonPress && watched == work_.plan) work_.prompt->stepTaken();
    if (event->type() == QEvent::KeyPress) {
        auto* widget = qobject_cast<QWidget*>(watched);
        if (widget != nullptr && widget->window() == &window_ &&
            static_cast<QKeyEvent*>(event)->key() == Qt::Key_F10) {
            window_.menuBar()->setFocus();
            window_.menuBar()->setActiveAction(window_.menuBar()->actions().constFirst());
            return true;
        }
        if (widget != nullptr && widget->window() == &window_ && work_.session.isOpen() &&
            !takesText(widget) && (widget == window_.focusWidget() || widget == work_.plan) &&
            pressed(static_cast<QKeyEvent*>(event)))
            return true;
    }
    return QObject::eventFilter(watched, event);
}

bool WindowKeys::pressed(QKeyEvent* event) {
    const int key = event->key();
    work_.prompt->stepTaken();
    const bool inPlan = work_.plan->hasFocus() || !window_.isActiveWindow();
    if (key == Qt::Key_Escape) {
        if (work_.profile->section()->isAdding())
            work_.profile->section()->setAdding(false);
        else if (inHand_.tool() && !inHand_.tool()->escape())
            inHand_.end();
        else if (inHand_.tool())
            return true;
        else if (!work_.leaveSheet())
            work_.session.selection().set({});
        return true;
    }
    if (inHand_.tool() && key == Qt::Key_Backspace) {
        inHand_.tool()->stepBack();
        return true;
    }
    if (inHand_.tool() && inPlan && (key == Qt::Key_Return || key == Qt::Key_Enter)) {
        inHand_.tool()->complete();
        return true;
    }
    if (event->modifiers() == Qt::NoModifier && key >= Qt::Key_A && key <= Qt::Key_Z) {
        // While a tool runs that takes typed text, letters go there.
        if (inHand_.tool() && !inHand_.tool()->entryHint().isEmpty()) return false;
        if (const Action* a = work_.actions.byLetter(work_.stageBar->stage(), event->text())) {
            work_.actions.run(a->id);
            return true;
        }
    }
    return false;
}

}  // namespace erdwerk::app

#include "moc_window_keys.cpp"
