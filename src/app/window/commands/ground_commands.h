#pragma once
// The commands of the Ground stage: surfaces made, compared, taken apart and written.

#include "app/window/command_set.h"

namespace erdwerk::app {

class GroundCommands : public CommandSet {
    Q_OBJECT
public:
    explicit GroundCommands(Workbench& work);

private:
    void add();
    void connectPages();
    void newSurface();
    void surfaceFromDense();
    void exportSurface();
};

}  // namespace erdwerk::app
