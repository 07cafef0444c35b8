#pragma once
// One line under the plan: what the tool needs next, the picks so far as chips, and the typed entry.

#include <QElapsedTimer>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QWidget>

#include "app/plan/tool.h"

namespace erdwerk::app {

class PromptLine : public QWidget {
    Q_OBJECT
public:
    explicit PromptLine(QWidget* parent = nullptr);
    void setTool(Tool* tool);
    /// What is said while nothing else is; empty: what the plan takes.
    void setIdle(const QString& text);
    void showMessage(const QString& text, bool isError);
    /// What was wrong before is over: something was done since.
    void forgetError();
    /// A step is taken: a message gives way to what is needed next.
    void stepTaken() { messageAge_.invalidate(); }
    /// Begins typing with this text, as when a key is pressed in the plan.
    void startEntry(const QString& text);
    [[nodiscard]] QLineEdit* entry() { return entry_; }
    [[nodiscard]] QString text() const { return prompt_->text(); }

Q_SIGNALS:
    void completed();  ///< Enter with nothing typed
    void left();       ///< Esc

private:
    void refresh();
    void enter();
    void fitParts();
    void resizeEvent(QResizeEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

    Tool* tool_ = nullptr;
    QLabel* title_;
    QLabel* prompt_;
    QWidget* chips_;
    QHBoxLayout* chipLayout_;
    QLineEdit* entry_;
    QStringList chipTexts_;
    QString idle_;
    bool isError_ = false;
    QElapsedTimer messageAge_;  ///< running while a message is shown
};

}  // namespace erdwerk::app
