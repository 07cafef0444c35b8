#pragma once
// The commands of the Shape stage: heights kept, freed, loosened; rows that were kept.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ShapeCommands : public CommandSet {
    Q_OBJECT
public:
    explicit ShapeCommands(Workbench& work);

    void readOffsetSet(const QString& path);

private:
    void add();
};

}  // namespace erdwerk::app
