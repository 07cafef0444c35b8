#pragma once
// Contents: everything in the project, by kind and group.

#include <QTreeWidget>

#include "app/shell/session.h"

namespace erdwerk::app {

class Contents : public QTreeWidget {
    Q_OBJECT
public:
    explicit Contents(Session& session, QWidget* parent = nullptr);

Q_SIGNALS:
    void showObject(ObjectId id);

private:
    void refresh();
    void showSelection();
    void renamed(QTreeWidgetItem* item);

    Session& session_;
    document::Document shown_;
    bool filling_ = false;
};

}  // namespace erdwerk::app
