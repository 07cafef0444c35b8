#pragma once
// The commands of the Record stage: labels, their styles, tables.

#include <vector>

#include "app/window/command_set.h"

namespace erdwerk::app {

class RecordCommands : public CommandSet {
    Q_OBJECT
public:
    explicit RecordCommands(Workbench& work);

private:
    void add();
    /// The style of the selected label, or the next one after the style that is selected.
    void showLabelStyle();
    void showDimensionStyle();
    /// The one behind that which is selected, or the first.
    void selectNext(const std::vector<ObjectId>& ids);
    void newTable();
};

}  // namespace erdwerk::app
