#pragma once
// The commands of the Field stage: what comes in, and points joined into lines.

#include <vector>

#include "app/window/command_set.h"

namespace erdwerk::app {

class Imports;

class FieldCommands : public CommandSet {
    Q_OBJECT
public:
    FieldCommands(Workbench& work, Imports& imports);

private:
    void add();
    void denseCommands();
    /// The set of the selected survey points, and which of them.
    [[nodiscard]] std::vector<std::size_t> selectedPoints(ObjectId& set) const;
    void connectPoints(bool byCode);

    Imports& imports_;
};

}  // namespace erdwerk::app
