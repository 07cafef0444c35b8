#pragma once
// The user guide, inside the window.

#include <QTextBrowser>
#include <QWidget>

#include "app/base/actions.h"

namespace erdwerk::app {

class GuidePanel : public QWidget {
    Q_OBJECT
public:
    explicit GuidePanel(QWidget* parent = nullptr);
    /// At what it says of a stage.
    void openAt(Stage stage);
    [[nodiscard]] QTextBrowser* text() { return text_; }

Q_SIGNALS:
    void closed();

private:
    void keyPressEvent(QKeyEvent* event) override;
    QTextBrowser* text_;
};

}  // namespace erdwerk::app
