#pragma once
// The tools as commands, and the place of each command on the rack. Comes after the sets that it places.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ToolInHand;

class ToolCommands : public CommandSet {
    Q_OBJECT
public:
    ToolCommands(Workbench& work, ToolInHand& inHand);

private:
    void add();

    ToolInHand& inHand_;
};

}  // namespace erdwerk::app
