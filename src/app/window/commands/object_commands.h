#pragma once
// What can be done with any object that is selected.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ObjectCommands : public CommandSet {
    Q_OBJECT
public:
    explicit ObjectCommands(Workbench& work);

private:
    void add();
    void renameSelected();
};

}  // namespace erdwerk::app
