#pragma once
// The commands of views and of the bench's pages.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ViewCommands : public CommandSet {
    Q_OBJECT
public:
    explicit ViewCommands(Workbench& work);

private:
    void add();
    void pageCommands();
};

}  // namespace erdwerk::app
