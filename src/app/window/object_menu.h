#pragma once
// The menu under the cursor: what can be done with what is selected, or with the tool that runs.

#include <QObject>
#include <QPoint>
#include <optional>

#include "app/base/session.h"

class QMenu;

namespace erdwerk::objects {
struct Object;
}

namespace erdwerk::app {

class ActionList;
class ToolInHand;
class Workbench;

class ObjectMenu : public QObject {
    Q_OBJECT
public:
    ObjectMenu(Workbench& work, ToolInHand& inHand);

    /// The actions that suit what is selected. The caller shows and deletes it.
    [[nodiscard]] QMenu* ofSelection();
    /// Shows a thing that lies under the cursor as selected, and its menu.
    void show(QPoint at, std::optional<Ref> under);

private:
    void addToolItems(QMenu& menu);
    void addObjectItems(QMenu& menu, const objects::Object& object);

    Workbench& work_;
    Session& session_;
    ActionList& actions_;
    ToolInHand& inHand_;
};

}  // namespace erdwerk::app
