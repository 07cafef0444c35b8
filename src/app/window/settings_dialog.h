#pragma once
// Units and display of the project.

#include <QDialog>

#include "app/base/session.h"

namespace erdwerk::app {

class SettingsDialog : public QDialog {
    Q_OBJECT
public:
    SettingsDialog(Session& session, QWidget* parent);
};

}  // namespace erdwerk::app
