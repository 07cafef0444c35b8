#pragma once
// The keys that work in the whole window: Esc, Enter and Backspace for the tool that runs, letters for the
// stage's tools, F10 for the menu bar. What takes text keeps its letters.

#include <QObject>

class QKeyEvent;
class QMainWindow;

namespace erdwerk::app {

class ToolInHand;
class Workbench;

class WindowKeys : public QObject {
    Q_OBJECT
public:
    WindowKeys(QMainWindow& window, Workbench& work, ToolInHand& inHand);
    ~WindowKeys() override;

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    bool pressed(QKeyEvent* event);
    void escape();

    QMainWindow& window_;
    Workbench& work_;
    ToolInHand& inHand_;
};

}  // namespace erdwerk::app
