#pragma once
// The parts of the plan in words, and the small list that puts them on and off.

#include <QMenu>

#include "app/base/session.h"

namespace erdwerk::app {

QString planPartText(objects::PlanPart part);

/// Stays open while parts are put on and off.
class PartsMenu : public QMenu {
    Q_OBJECT
public:
    explicit PartsMenu(Session& session, QWidget* parent = nullptr);

protected:
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void refresh();
    Session& session_;
};

}  // namespace erdwerk::app
