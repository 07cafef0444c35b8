#pragma once
// The commands of editing: undo, delete, the finder, results that were stopped.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ToolInHand;

class EditCommands : public CommandSet {
    Q_OBJECT
public:
    EditCommands(Workbench& work, ToolInHand& inHand);

private:
    void add();
    void undo();
    void redo();
    void deleteSelection();

    ToolInHand& inHand_;
};

}  // namespace erdwerk::app
