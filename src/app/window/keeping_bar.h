#pragma once
// A line that stays while edits are not being kept, or the project is only looked at: why, and ways out.

#include <QFrame>
#include <QLabel>
#include <QPushButton>

#include "app/base/session.h"

namespace erdwerk::app {

class KeepingBar : public QFrame {
    Q_OBJECT
public:
    explicit KeepingBar(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QString text() const { return text_->text(); }

Q_SIGNALS:
    void saveElsewherePressed();
    void copyPressed();
    void takeOverPressed();

private:
    void refresh();
    Session& session_;
    QLabel* text_;
    QPushButton* save_;
    QPushButton* copy_;
    QPushButton* takeOver_;
    QString since_;
};

}  // namespace erdwerk::app
