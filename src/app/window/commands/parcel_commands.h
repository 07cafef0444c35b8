#pragma once
// The commands of parcels: descriptions written and read back, closure.

#include "app/window/command_set.h"

namespace erdwerk::app {

class ParcelCommands : public CommandSet {
    Q_OBJECT
public:
    explicit ParcelCommands(Workbench& work);

private:
    void add();
    /// The selected parcel, else the only one; none when there are several.
    [[nodiscard]] ObjectId oneParcel() const;
    void readBack(const QString& name, const QString& text);
    void exportClosure();
    void exportDescription();
};

}  // namespace erdwerk::app
