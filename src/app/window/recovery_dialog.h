#pragma once
// What a journal held that was found beside a project: what was brought back, what not, and why.

#include <QDialog>
#include <QTreeWidget>

#include "core/format/keeper.h"

namespace erdwerk::app {

class RecoveryDialog : public QDialog {
    Q_OBJECT
public:
    RecoveryDialog(const format::Recovery& recovery, QWidget* parent);
    [[nodiscard]] QTreeWidget* list() { return list_; }

private:
    QTreeWidget* list_;
};

/// In one or two sentences; empty when there is nothing to tell.
QString recoveryText(const format::Recovery& recovery);

}  // namespace erdwerk::app
