#pragma once
// The guide.

#include "app/window/command_set.h"

namespace erdwerk::app {

class HelpCommands : public CommandSet {
    Q_OBJECT
public:
    explicit HelpCommands(Workbench& work);

    void showGuide(bool shown);

private:
    void add();
};

}  // namespace erdwerk::app
