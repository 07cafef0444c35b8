#pragma once
// The line at the foot of the window: where the cursor is, the surface under it, the scale of the plan.

#include <QObject>
#include <optional>

#include "core/geometry/vec.h"

class QLabel;
class QStatusBar;

namespace erdwerk::app {

class Workbench;

class CursorLine : public QObject {
    Q_OBJECT
public:
    CursorLine(Workbench& work, QStatusBar& bar);

private:
    void update(const std::optional<geometry::Vec2>& place);

    Workbench& work_;
    QLabel* cursor_;
    QLabel* scale_;
};

}  // namespace erdwerk::app
