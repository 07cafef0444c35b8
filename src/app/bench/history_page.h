#pragma once
// History: every step since the project was opened; click one to be there again.

#include <QListWidget>

#include "app/base/session.h"

namespace erdwerk::app {

class HistoryPage : public QListWidget {
    Q_OBJECT
public:
    explicit HistoryPage(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    Session& session_;
};

}  // namespace erdwerk::app
