#pragma once
// The commands of the Route stage: alignments, profiles, criteria, points by station.

#include <optional>
#include <vector>

#include "app/window/command_set.h"
#include "core/geometry/vec.h"

namespace erdwerk::app {

class RouteCommands : public CommandSet {
    Q_OBJECT
public:
    explicit RouteCommands(Workbench& work);

private:
    void add();
    void criteriaCommands();
    void stationCommands();
    void tiedPointCommands();
    /// The alignment that is selected, or the only one.
    [[nodiscard]] std::optional<ObjectId> oneAlignment() const;
    [[nodiscard]] std::vector<geometry::Vec2> pickedPoints() const;
    void profileThroughPoints();
    void readPointsByStation();
    void writeProfileDrawing();
    void writeProfileTable();
};

}  // namespace erdwerk::app
